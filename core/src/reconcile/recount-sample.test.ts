import { recordOf, teardown, testId } from '../../testing/teardown';
import { evidence, type Recount, type RecountSample, type StudyRecord } from '../record';
import { countAgreement, countedSets, drawSample, neededFor, sampleResult } from './recount-sample';

const record = recordOf(
  teardown(
    Array.from(
      { length: 40 },
      (_, n) => `plate ${String.fromCharCode(97 + (n % 26)).repeat(2 + Math.floor(n / 26))}\n  ${1 + (n % 6)} M6x20`,
    ).join('\n'),
  ),
);
const sets = countedSets(record);
const SAMPLE: RecountSample = {
  ...{ id: testId(800), version: 2, sampledBy: 'at random', assuranceFraction: 0.9, wrongFraction: 0.1, allowed: 0, seed: 7, outOf: 40 },
  ...{ sets: sets.slice(0, 3).map(({ kind, setId }) => ({ kind, setId })), drawnAt: '2026-06-01T08:00:00.000Z', drawnBy: 'Wenna Tarn' },
};
const recount = (n: number, first: number, second: number, countedAt = '2026-06-02T08:00:00.000Z'): Recount => ({
  ...{ id: testId(810 + n), version: 3, partId: sets[n]!.partId, by: 'Odo', countedAt, others: '', state: 'agrees', settled: '' },
  counts: [{ kind: 'fasteners', setId: sets[n]!.setId, first, second }],
});
const counted = (...recounts: readonly Recount[]): StudyRecord => ({ ...record, recounts });

describe('a sample of counts', () => {
  it('is the same for the same seed, another for another, and never twice the same set', () => {
    const drawn = (seed: number): readonly string[] => drawSample(sets, 12, 'at random', seed).map(({ setId }) => setId);
    expect(drawn(3)).toEqual(drawn(3));
    expect(drawn(3)).not.toEqual(drawn(4));
    expect(new Set(drawn(3)).size).toBe(12);
  });
  it('by risk has more of what is large, a range, or only seen on a picture', () => {
    const doubtful = record.fastenerSets[5]!.id;
    const marked = record.fastenerSets.map((set) =>
      set.id === doubtful ? { ...set, count: 60, evidence: { count: evidence('P', { low: 40, high: 80 }) } } : set,
    );
    const risky = countedSets({ ...record, fastenerSets: marked });
    const times = (by: RecountSample['sampledBy']): number =>
      Array.from({ length: 200 }, (_, seed) => drawSample(risky, 4, by, seed)).filter((drawn) =>
        drawn.some(({ setId }) => setId === doubtful),
      ).length;
    expect(times('at random')).toBeLessThan(40);
    expect(times('by risk')).toBeGreaterThan(80);
  });
  it('is as large as the assurance asks, and never larger than all there are', () => {
    expect(neededFor(SAMPLE, 40)).toBeLessThan(40);
    expect([neededFor(SAMPLE, 3), neededFor(SAMPLE, 0)]).toEqual([3, 0]);
  });
  it('says what is left to count, and nothing of the share before anything is counted', () =>
    expect(sampleResult(SAMPLE, record)).toMatchObject({ drawn: 3, counted: 0, wrong: 0, atMostFraction: null, isShown: null }));
  it('counted before it was drawn does not count', () =>
    expect(sampleResult(SAMPLE, counted(recount(0, 1, 1, '2026-05-30T08:00:00.000Z'))).counted).toBe(0));
  it('shows what was wanted when all are alike, and not when one is otherwise', () => {
    const alike = [0, 1, 2].map((n) => recount(n, 2, 2));
    expect(sampleResult(SAMPLE, counted(...alike))).toMatchObject({ counted: 3, wrong: 0, isShown: true });
    expect(sampleResult(SAMPLE, counted(...alike.slice(0, 2), recount(2, 2, 3)))).toMatchObject({ wrong: 1, isShown: false });
  });
  it('drawn by risk says nothing of the share', () =>
    expect(sampleResult({ ...SAMPLE, sampledBy: 'by risk' }, counted(recount(0, 2, 2))).atMostFraction).toBeNull());
});

describe('agreement of recounts', () => {
  it('is none before anything was counted again', () => expect(countAgreement([])).toBeNull());
  it('takes the last recount of each set', () => {
    const agreed = countAgreement([recount(0, 4, 5), recount(0, 4, 4, '2026-06-03T08:00:00.000Z'), recount(1, 2, 2), recount(2, 6, 6)])!;
    expect([agreed.sets, agreed.alike, agreed.differences?.bias, agreed.kappa]).toEqual([3, 3, 0, 1]);
  });
});
