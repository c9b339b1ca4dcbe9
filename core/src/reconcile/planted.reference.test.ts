import { planted, PLANTS } from '../../testing/planted-faults';
import { syntheticStudy } from '../../testing/synthetic-study';
import type { StudyRecord } from '../record';
import { Checking, reconcile } from './run';

// Faults of every kind put into clean studies, seeded, of several sizes: what is found, what is named right, and what is called a
// fault where there is none. The shares are those that were asked for: 95 % found, 90 % named right, at most 2 % false.

const TODAY = '2026-06-01';
const CLEAN = [
  [1, 60],
  [2, 60],
  [3, 250],
  [4, 250],
  [5, 900],
] as const;
const EACH = 6;

const studies: readonly StudyRecord[] = CLEAN.map(([seed, size]) => syntheticStudy(seed, size));

describe('what the checks say of clean studies', () => {
  it.each(CLEAN.map(([seed, size], at) => [size, seed, at]))('of %i parts (seed %i): at most 2 % of parts are doubted', (size, _, at) => {
    const { causes } = reconcile(studies[at]!, TODAY);
    expect(causes.length / size).toBeLessThanOrEqual(0.02);
  });
});

describe('what the checks find of planted faults', () => {
  const told = new Map<string, { planted: number; found: number; named: number }>();
  const known = studies.map((study) => new Set(reconcile(study, TODAY).findings.map(({ key }) => key)));
  beforeAll(() => {
    for (const kind of Object.keys(PLANTS)) {
      const tally = { planted: 0, found: 0, named: 0 };
      for (const [at, study] of studies.slice(0, 4).entries())
        for (let seed = 1; seed <= EACH; seed++) {
          const fault = planted(study, kind, seed * 31 + at);
          if (!fault) continue;
          tally.planted++;
          const { causes } = reconcile(fault.record, TODAY);
          const ofIt = causes.filter(({ findings }) =>
            findings.some((one) => !known[at]!.has(one.key) && [one.about.id, one.partId, ...one.suspects.map((s) => s.key.split(' ')[0])].includes(fault.aboutId)),
          ); // prettier-ignore
          if (ofIt.length > 0) tally.found++;
          if (ofIt.some(({ ranked }) => fault.cause.test(ranked[0]!.suspect.key))) tally.named++;
        }
      told.set(kind, tally);
    }
    const lines = [...told].map(([kind, t]) => `${kind.padEnd(30)} ${t.planted} planted, ${t.found} found, ${t.named} named right`);
    process.stdout.write(`${lines.join('\n')}\n`);
  });
  const share = (of: 'found' | 'named'): number => {
    const all = [...told.values()];
    return all.reduce((sum, t) => sum + t[of], 0) / all.reduce((sum, t) => sum + t.planted, 0);
  };
  it('of all, 95 % at least', () => expect(share('found')).toBeGreaterThanOrEqual(0.95));
  it('of each kind, four of five', () =>
    expect([...told].filter(([, t]) => t.planted === 0 || t.found < 0.8 * t.planted).map(([kind]) => kind)).toEqual([]));
  it('and names the cause right in 90 %', () => expect(share('named')).toBeGreaterThanOrEqual(0.9));
  it('and of each kind in two of three', () =>
    expect([...told].filter(([, t]) => t.named < 0.66 * t.planted).map(([kind]) => kind)).toEqual([]));
});

describe('after a change', () => {
  it('the checks say what a run over the whole record says', () => {
    const study = studies[2]!;
    const checking = new Checking(study, TODAY);
    for (const [n, kind] of Object.keys(PLANTS).entries()) {
      const fault = planted(study, kind, n);
      if (!fault) continue;
      checking.moveTo(fault.record);
      const keys = (record: StudyRecord): readonly string[] => new Checking(record, TODAY).findings().map(({ key }) => key).sort(); // prettier-ignore
      expect(checking.findings().map(({ key }) => key).sort()).toEqual(keys(fault.record)); // prettier-ignore
      checking.moveTo(study);
      expect(checking.findings().map(({ key }) => key).sort()).toEqual(keys(study)); // prettier-ignore
    }
  });
});
