import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { STAGES } from '@each-bolt/core/shared';

const ROOT = resolve(__dirname, '..');

interface Source {
  readonly path: string;
  readonly text: string;
  readonly imports: readonly string[];
}

const IMPORT = /(?:from\s+|import\s+|import\()'([^']+)'/g;

const sourcesBelow = (dir: string): readonly Source[] =>
  readdirSync(join(ROOT, dir), { withFileTypes: true }).flatMap((entry) => {
    const path = `${dir}/${entry.name}`;
    if (entry.isDirectory()) return entry.name === 'node_modules' || entry.name === 'dist' ? [] : sourcesBelow(path);
    if (!entry.name.endsWith('.ts')) return [];
    const text = readFileSync(join(ROOT, path), 'utf8');
    return [{ path, text, imports: [...text.matchAll(IMPORT)].map((match) => match[1] ?? '') }];
  });

const isTest = (source: Source): boolean => source.path.endsWith('.test.ts');
const core = sourcesBelow('core/src');
const server = sourcesBelow('server/src');
const web = sourcesBelow('web/src');

/** Room of a file: the folder right below `base`, or null for files that stand in it. */
const roomOf = (path: string, base: string): string | null => {
  const [room, ...rest] = relative(join(ROOT, base), join(ROOT, path)).split('/');
  return room === undefined || room === '..' || rest.length === 0 ? null : room;
};
const roomOfImport = (source: Source, target: string, base: string): string | null => {
  const fromCore = /^@each-bolt\/core\/(\w+)$/.exec(target)?.[1];
  if (base === 'core/src' && fromCore !== undefined) return fromCore;
  if (!target.startsWith('.')) return null;
  const path = relative(ROOT, resolve(ROOT, dirname(source.path), target));
  const room = relative(join(ROOT, base), join(ROOT, path)).split('/')[0];
  return room === undefined || room === '..' || room === '' ? null : room;
};

/** The wire is beside the stages: what is asked and answered is of all of them. */
const ORDER: readonly string[] = ['shared', 'record', ...STAGES, 'wire'];

const breaches = (sources: readonly Source[], rule: (source: Source, target: string) => boolean): readonly string[] =>
  sources.flatMap((source) => source.imports.filter((target) => rule(source, target)).map((target) => `${source.path} imports ${target}`));

describe('core', () => {
  it('has a room for every stage, for what all share, for the record and for the wire, and no others', () => {
    expect(readdirSync(join(ROOT, 'core/src')).sort()).toEqual([...ORDER].sort());
  });
  it('imports only from earlier stages', () => {
    const later = (source: Source, target: string): boolean => {
      const [from, to] = [roomOf(source.path, 'core/src'), roomOfImport(source, target, 'core/src')];
      return from !== null && to !== null && ORDER.indexOf(to) > ORDER.indexOf(from);
    };
    expect(
      breaches(
        core.filter((s) => !isTest(s)),
        later,
      ),
    ).toEqual([]);
  });
  it('lets a kind of record know kinds of its own stage and of earlier ones alone', () => {
    const KINDS = 'core/src/record/kinds';
    const order: readonly (string | null)[] = ['study', ...STAGES];
    const ofKinds = core.filter((s) => s.path.startsWith(`${KINDS}/`) && !isTest(s));
    expect(ofKinds.map((s) => roomOf(s.path, KINDS)).filter((room) => room !== null && !order.includes(room))).toEqual([]);
    const later = (source: Source, target: string): boolean => {
      if (!target.startsWith('.')) return false;
      const from = roomOf(source.path, KINDS);
      const to = roomOf(relative(ROOT, resolve(ROOT, dirname(source.path), `${target}.ts`)), KINDS);
      return from !== null && to !== null && order.indexOf(to) > order.indexOf(from);
    };
    expect(breaches(ofKinds, later)).toEqual([]);
    // by name as well: a declaration says which kind it refers to
    const stageOf = new Map(
      ofKinds.flatMap((s) =>
        [...s.text.matchAll(/export const ([A-Z_]+) = kind\(/g)].map(([, name]) => [
          name!.toLowerCase().replace(/_./g, ([, letter]) => letter!.toUpperCase()),
          roomOf(s.path, KINDS),
        ]),
      ),
    );
    const named = ofKinds.flatMap((s) =>
      [...s.text.matchAll(/\breference\('[^']+', '(\w+)'/g)].flatMap(([, to]) =>
        order.indexOf(stageOf.get(to!) ?? null) > order.indexOf(roomOf(s.path, KINDS)) ? [`${s.path} refers to ${to}`] : [],
      ),
    );
    expect(named).toEqual([]);
    expect(stageOf.size).toBeGreaterThan(30);
  });
  it('knows no browser, no Node, no clock and no chance', () => {
    const allowed = [
      'yup',
      'papaparse',
      'read-excel-file/universal',
      'fflate',
      'd3-array',
      'd3-random',
      'date-fns',
      '@date-fns/utc',
      'jstat',
      'ics',
      'ml-matrix',
      'munkres',
      'delaunator',
      'earcut',
      'three',
      'three/addons/math/ConvexHull.js',
    ];
    expect(
      breaches(
        core.filter((s) => !isTest(s)),
        (_, target) => !target.startsWith('.') && !allowed.includes(target),
      ),
    ).toEqual([]);
    const impure = /\b(Date\.now|new Date\(|Math\.random|crypto\.|document\.|window\.|process\.(env|argv|cwd|exit)|console\.)/;
    expect(core.filter((s) => !isTest(s) && impure.test(s.text)).map((s) => s.path)).toEqual([]);
  });
  it('keeps Yup out of computations, so that workers stay small', () => {
    const mayUseYup = /\/(contract|field-schemas|known-good|read-change)\.ts$|^core\/src\/wire\//;
    expect(
      breaches(
        core.filter((s) => !isTest(s) && !mayUseYup.test(s.path)),
        (_, target) => target === 'yup',
      ),
    ).toEqual([]);
  });
});

describe('server', () => {
  it('has SQL in query files and in db only', () => {
    const sql = /\b(select\s.+\sfrom|insert into|delete from|update \w+ set)\b/i;
    const outside = server.filter((s) => !isTest(s) && !s.path.endsWith('queries.ts') && !s.path.includes('/db/') && sql.test(s.text));
    expect(outside.map((s) => s.path)).toEqual([]);
  });
  it('has no room that is not a stage or a known one', () => {
    const rooms = readdirSync(join(ROOT, 'server/src'), { withFileTypes: true })
      .filter((e) => e.isDirectory())
      .map((e) => e.name);
    expect(
      rooms.filter(
        (room) =>
          ![
            ...STAGES,
            ...[
              'accounts',
              'archive',
              'aside',
              'db',
              'demo',
              'files',
              'http',
              'instruments',
              'ledger',
              'live',
              'people',
              'record',
              'tasks',
            ],
          ].includes(room),
      ),
    ).toEqual([]);
  });
});

describe('web', () => {
  it('imports only from earlier stages, and shared parts import no stage', () => {
    const rank = (room: string): number => (STAGES as readonly string[]).indexOf(room);
    const wrong = (source: Source, target: string): boolean => {
      const [from, to] = [roomOf(source.path, 'web/src/app'), roomOfImport(source, target, 'web/src/app')];
      if (from === null || to === null || rank(to) < 0) return false;
      return rank(from) < 0 || rank(to) > rank(from);
    };
    expect(
      breaches(
        web.filter((s) => !isTest(s)),
        wrong,
      ),
    ).toEqual([]);
  });
  it('speaks HTTP in one place', () => {
    const speaking = web.filter((s) => !isTest(s) && /\bHttpClient\b/.test(s.text));
    expect(speaking.map((s) => s.path)).toEqual(['web/src/app/record/record-api.ts']);
  });
  it('subscribes in services only', () => {
    const subscribing = web.filter((s) => !isTest(s) && s.text.includes('.subscribe(') && s.text.includes('@Component'));
    expect(subscribing.map((s) => s.path)).toEqual([]);
  });
  it('has no control that is not the library’s, but for a few with a reason', () => {
    const OWN: Readonly<Record<string, string>> = {
      'web/src/app/shared/file-button.ts': 'the system’s own choice of files opens from its own field alone',
      'web/src/app/compare/compare-table.ts': 'rows in groups, each with a heading of its own',
      'web/src/app/plan/samples-view.ts': 'one passport beside the other: the rows are fields, in two groups',
    };
    const native = /<(?:button|input|select|textarea|table)\b(?:[^>"]|"[^"]*")*>/g;
    const bare = web
      .filter((s) => !isTest(s))
      .flatMap((s) => [...s.text.matchAll(native)].filter(([tag]) => !/\b(?:pButton|pInputText|pTextarea)\b/.test(tag)).map(() => s.path));
    expect([...new Set(bare)].sort()).toEqual(Object.keys(OWN).sort());
    expect(bare).toHaveLength(3);
  });
  it('is styled by tokens of the library and names of its own, never by the library’s class names', () => {
    const styled = web.filter((s) => !isTest(s) && /\.p-[a-z]+[^'"`)\]]*\{|::ng-deep/.test(s.text)).map((s) => s.path);
    const css = readFileSync(join(ROOT, 'web/src/styles.css'), 'utf8');
    expect([styled, /\.p-[a-z]/.test(css)]).toEqual([[], false]);
  });
  it('holds no formula: units are turned in core', () => {
    const formula = /\b(25\.4|0\.4535|7850|Math\.sqrt)\b/;
    expect(web.filter((s) => !isTest(s) && formula.test(s.text)).map((s) => s.path)).toEqual([]);
  });
});

/** Circles in who imports whom, each as its members: those from which one can come back to where one was. */
const circlesIn = (importsOf: ReadonlyMap<string, ReadonlySet<string>>): readonly (readonly string[])[] => {
  const reached = (from: string): ReadonlySet<string> => {
    const seen = new Set<string>();
    const waiting = [...(importsOf.get(from) ?? [])];
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      if (seen.has(next)) continue;
      seen.add(next);
      waiting.push(...(importsOf.get(next) ?? []));
    }
    return seen;
  };
  const from = new Map([...importsOf.keys()].map((name) => [name, reached(name)]));
  const circles = new Set<string>();
  for (const [name, seen] of from)
    if (seen.has(name)) circles.add([...seen].filter((other) => from.get(other)?.has(name)).sort().join(' ')); // prettier-ignore
  return [...circles].map((members) => members.split(' '));
};

/** Who imports whom among files, or among folders that are not one inside the other. */
const importsAmong = (sources: readonly Source[], nameOf: (path: string) => string): ReadonlyMap<string, ReadonlySet<string>> => {
  const paths = new Set(sources.map((s) => s.path));
  const among = new Map<string, Set<string>>();
  for (const source of sources)
    for (const target of source.imports.filter((t) => t.startsWith('.'))) {
      const path = relative(ROOT, resolve(ROOT, dirname(source.path), target));
      const found = [`${path}.ts`, `${path}/index.ts`].find((p) => paths.has(p));
      const [from, to] = [nameOf(source.path), found === undefined ? '' : nameOf(found)];
      if (found === undefined || from === to || from.startsWith(`${to}/`) || to.startsWith(`${from}/`)) continue;
      among.set(from, (among.get(from) ?? new Set()).add(to));
    }
  return among;
};

describe('imports', () => {
  it('run in no circle, between files or between folders', () => {
    const all = [...core, ...server, ...web].filter((s) => !isTest(s));
    expect(circlesIn(importsAmong(all, (path) => path))).toEqual([]);
    expect(circlesIn(importsAmong(all, dirname))).toEqual([]);
    // the check itself sees one
    const toy = new Map([['a', new Set(['b'])], ['b', new Set(['c'])], ['c', new Set(['b'])]]); // prettier-ignore
    expect(circlesIn(toy)).toEqual([['b', 'c']]);
  });
});

describe('everything', () => {
  it('has no test that is left out or run alone', () => {
    const all = [...core, ...server, ...web, ...sourcesBelow('e2e')].filter((s) => /\.(test|spec)\.ts$/.test(s.path));
    expect(all.filter((s) => /\b(it|test|describe)\.(skip|only|to[d]o)\b/.test(s.text)).map((s) => s.path)).toEqual([]);
  });
});
