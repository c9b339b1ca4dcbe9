import { readFileSync, readdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { checkCharacter, parseLine } from '@each-bolt/core/bench';

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
