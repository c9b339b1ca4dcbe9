import { readFileSync, readdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { runInNewContext } from 'node:vm';
import { checkCharacter, parseLine } from '@each-bolt/core/bench';
import * as record from '@each-bolt/core/record';
import * as solids from '../core/testing/solids';

const ROOT = resolve(__dirname, '..');
const docs = [
  'README.md',
  ...readdirSync(join(ROOT, 'docs'), { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.md'))
    .map((path) => join('docs', path)),
].map((path) => ({ path, text: readFileSync(join(ROOT, path), 'utf8') }));

describe('examples in the docs', () => {
  it('of tags have the right check character', () => {
    const tags = docs.flatMap(({ path, text }) =>
      [...text.matchAll(/\b([A-Z]\d{2}-\d{3,4})([0-9A-Z])\b/g)].map(([tag, body, check]) => ({ path, tag, body, check })),
    );
    expect(tags.length).toBeGreaterThan(0);
    expect(
      tags.filter(({ body, check }) => checkCharacter((body ?? '').replace('-', '')) !== check).map(({ path, tag }) => `${path}: ${tag}`),
    ).toEqual([]);
  });
  it('of shorthand are understood without a question, each', () => {
    const bench = docs.find(({ path }) => path.endsWith('method/bench.md'))?.text ?? '';
    // the line of examples right below each heading of the shorthand
    const lines = [...bench.matchAll(/\n### .*\n\n((?:`[^`]+`(?: · )?)+)(?=\n)/g)].flatMap(([, examples]) =>
      [...(examples ?? '').matchAll(/`([^`]+)`/g)].map(([, line]) => line ?? ''),
    );
    expect(lines.length).toBeGreaterThanOrEqual(15);
    expect(
      lines
        .filter((line) => parseLine(line).entry === null)
        .map(
          (line) =>
            `${line}: ${parseLine(line)
              .questions.map((q) => q.message)
              .join('; ')}`,
        ),
    ).toEqual([]);
  });
});

interface CodeExample {
  readonly path: string;
  readonly code: string;
  readonly expected: string;
}

const below = (dir: string): readonly string[] =>
  readdirSync(join(ROOT, dir), { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.ts') && !path.endsWith('.test.ts'))
    .map((path) => join(dir, path));

/** `@example f(1) // => 2`, on one line or over several. */
const codeExamples = (path: string): readonly CodeExample[] =>
  [...readFileSync(join(ROOT, path), 'utf8').matchAll(/@example\s([\s\S]*?)\*\//g)].map(([, found = '']) => {
    const text = found
      .split('\n')
      .map((line) => line.replace(/^\s*\* ?/, ''))
      .join('\n')
      .trim();
    const [code = '', expected = ''] = text.split(/;?\s*\/\/ => /);
    return { path, code, expected: expected.split('\n')[0]?.trim() ?? '' };
  });

/** A number in an example is as exact as its digits; what ends in “…” is a part of what comes. */
const asSaid = (expected: string): unknown => {
  const value: unknown = runInNewContext(`(${expected.replace(/,\s*…/g, '')})`);
  const round = (of: unknown): unknown => {
    if (typeof of === 'number' && !Number.isInteger(of))
      return expect.closeTo(of, Math.min(12, /\.(\d+)/.exec(String(of))?.[1]?.length ?? 9) - 1);
    if (Array.isArray(of)) return of.map(round);
    return typeof of === 'object' && of !== null ? Object.fromEntries(Object.entries(of).map(([key, part]) => [key, round(part)])) : of;
  };
  return expected.includes('…') ? expect.objectContaining(round(value) as object) : round(value);
};

describe('examples in the code', () => {
  const examples = below('core/src').flatMap(codeExamples);
  it('are there', () => expect(examples.length).toBeGreaterThan(20));
  it.each(examples.map((example) => [`${example.path}: ${example.code.slice(0, 60)}`, example] as const))('%s', (_name, example) => {
    // eslint-disable-next-line @typescript-eslint/no-require-imports
    const own = require(join(ROOT, example.path)) as object;
    const scope: Readonly<Record<string, unknown>> = { ...record, ...solids, ...own };
    const found: unknown = runInNewContext(`(${example.code})`, scope);
    expect(found).toEqual(asSaid(example.expected));
  });
});
