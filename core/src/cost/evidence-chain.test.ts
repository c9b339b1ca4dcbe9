import { evidence, subsystemKey, type StudyRecord } from '../record';
import { DOOR, LEFT, RIGHT, STUDY, partNamed, recordOf, teardown } from '../../testing/teardown';
import { fastenerCost } from './fastener-cost';
import { evidenceChain, restsOn } from './evidence-chain';
import { basisOf } from './part-cost';
import { onlyPart, studyRollUp, studyRollUpAfter } from './study-roll-up';

const record = recordOf(
  teardown(`2x module
  3x bracket dc04 stamp ~41 g
  2-3x clip, trim 5 g
  cover dc04@T stamp 1.2 kg
  4 M6x16 6 g`),
);
const rollUp = studyRollUp(record);
const chainOf = (key: string, measure: 'count' | 'mass' | 'cost') =>
  evidenceChain(record, rollUp, rollUp.rolled.outline.placeOf.get(key) ?? -1, measure)!;
const named = (name: string) => partNamed(record, name);

describe('how a total is known', () => {
  it('is told term by term, the weakest evidence first, with each term’s share', () => {
    const { whole, terms } = chainOf(named('module').id, 'mass');
    // by hand: 2 × (3 × 41 + 2.5 × 5 + 1200 + 4 × 6) g; two, perhaps three is 2.5
    expect(whole).toMatchObject({ mark: 'I', value: expect.closeTo(2 * (0.123 + 0.0125 + 1.2 + 0.024), 12) as number });
    expect(terms.map((p) => [p.kind, p.mark, Number(p.value?.toFixed(4))])).toEqual([
      ['part', 'I', 0.246],
      ['part', 'M', 2.4],
      ['fasteners', 'M', 0.048],
      ['part', 'M', 0.025],
    ]);
    expect(terms.reduce((sum, p) => sum + (p.fraction ?? 0), 0)).toBeCloseTo(1, 12);
  });
  it('carries ranges of counts up to the vehicle', () => {
    // by hand, an opened assembly as its parts: 2 × (3 + 2…3 + 1) parts and 2 × 4 fasteners
    expect(chainOf(LEFT.id, 'count').whole).toMatchObject({ value: 20, low: 20, high: 22, mark: 'C' });
    expect(chainOf(subsystemKey(LEFT.id, DOOR.id), 'count').terms).toMatchObject([{ low: 20, high: 22 }]);
  });
  it('lets a cost rest on mass, material and process: the weakest of them', () => {
    expect(chainOf(named('bracket').id, 'cost').whole.mark).toBe('I');
    expect(chainOf(named('cover').id, 'cost').whole.mark).toBe('T');
  });
  it('ends in the reading of a part', () => {
    expect(chainOf(named('bracket').id, 'mass')).toMatchObject({ isReading: true, terms: [] });
    expect(chainOf(named('module').id, 'mass').isReading).toBe(false);
    expect(restsOn('cost', named('cover'))).toEqual(['massEachKg', 'materialId', 'processId', 'quantity']);
  });
  it('is nothing where nothing stands', () => expect(evidenceChain(record, rollUp, -1, 'mass')).toBeNull());
});

describe('each part of a figure', () => {
  const of = (text: string, name: string, measure: 'count' | 'mass' | 'cost', study: Partial<StudyRecord['study']> = {}) => {
    const written = { ...recordOf(teardown(text)), study: { ...STUDY, ...study } };
    const rolled = studyRollUp(written);
    return evidenceChain(written, rolled, rolled.rolled.outline.placeOf.get(partNamed(written, name).id) ?? -1, measure)!;
  };
  it('of a count stands as often as what it is in, with its range, and a range without an end has none', () => {
    const { whole, terms } = of('2x module\n  3x lever\n  2-4x clip plate\n  20+x pad\n  6 M6x16 6 g', 'module', 'count');
    expect(whole).toMatchObject({ kind: 'part', times: 2, u: null, fraction: 1 });
    const told = terms.map((p) => [p.kind, p.value, p.low, p.high, p.times, p.mark]);
    expect(told).toContainEqual(['part', 6, null, null, 2, 'C']);
    expect(told).toContainEqual(['part', 4, 4, 8, 2, 'C']);
    expect(told).toContainEqual(['part', 40, 40, null, 2, 'C']);
    expect(told).toContainEqual(['fasteners', 12, null, null, 2, 'C']);
    const [ranged] = of('2x plate\n  2-3x M6x16 6 g', 'plate', 'count').terms;
    expect(ranged).toMatchObject({ value: 4, low: 4, high: 6 });
    expect(of('plate\n  20+x M6x16 6 g', 'plate', 'count').terms[0]).toMatchObject({ value: 20, low: 20, high: null });
    expect(of('plate\n  ~6 M6x16 6 g', 'plate', 'count').terms[0]?.mark).toBe('I');
    // two or three of it: from twice the least to three times the most
    const unsure = of('2-3x module\n  4x lever\n  1-2x pad\n  5 M6x16 6 g', 'module', 'count').terms;
    expect(unsure.map((p) => [p.value, p.low, p.high])).toEqual([[10, 10, 15], [8, 8, 12], [2, 2, 6]]); // prettier-ignore
  });
  it('of a mass carries its uncertainty: a set counted from to by the product, one weighed in all by its weighing', () => {
    // by hand: 2 × 2.5 × 6 g; u² of the product: (2.5 · u)² + (6 g)² · 1/12 + u² / 12, u of ±2 g is 1 g
    const [set] = of('2x plate\n  2-3x M6x16 6 g ±2 g', 'plate', 'mass').terms;
    expect(set).toMatchObject({ value: expect.closeTo(0.03, 12) as number, low: null, high: null, mark: 'M', times: 2 });
    expect(set?.u).toBeCloseTo(2 * Math.sqrt((2.5 * 1e-3) ** 2 + 0.006 ** 2 / 12 + 1e-6 / 12), 12);
    const [all] = of('2x plate\n  4 M6x16 total 24 g ±4 g', 'plate', 'mass').terms;
    expect(all?.value).toBeCloseTo(0.048, 12);
    expect(all?.u).toBeCloseTo(0.004, 12);
    // a part in an assembly that there are two of: both mass and uncertainty double
    const [inner] = of('2x module\n  plate 1 kg ±20 g', 'module', 'mass').terms;
    expect([inner?.value, inner?.u]).toEqual([expect.closeTo(2, 12), expect.closeTo(0.02, 12)]);
  });
  it('of a cost is money: what the fasteners cost, and what a part does', () => {
    const { whole, terms } = of('2x plate dc04 stamp 1 kg\n  3 M6x16 6 g', 'plate', 'cost');
    const each = fastenerCost(recordOf(teardown('plate\n  3 M6x16 6 g')).fastenerSets[0]!, basisOf(STUDY))!;
    const [set] = terms;
    expect(set).toMatchObject({
      kind: 'fasteners',
      value: expect.closeTo(6 * each, 12) as number,
      u: null,
      low: null,
      high: null,
      mark: 'M',
    });
    expect(set?.fraction).toBeCloseTo((6 * each) / whole.value!, 12);
    expect(of('plate\n  3 clip', 'plate', 'cost').terms[0]).toMatchObject({ value: null, fraction: null, mark: null });
    expect(of('plate\n  3 clip', 'plate', 'mass').terms[0]).toMatchObject({ value: null, u: null, mark: null });
  });
  it('leaves the fasteners out where the study counts them apart, and what gives nothing to a count', () => {
    expect(of('plate 1 kg\n  3 M6x16 6 g', 'plate', 'mass', { fastenersIn: false }).terms).toEqual([]);
    expect(of('plate 1 kg\n  3 M6x16 6 g', 'plate', 'mass').terms).toHaveLength(1);
    const { fastenerSets } = recordOf(teardown('plate 1 kg\n  3 M6x16 6 g'));
    expect(of('plate 1 kg\n  3 M6x16 6 g', 'plate', 'mass').terms[0]?.key).toBe(fastenerSets[0]?.id);
  });
  it('stands behind what is weaker, and of one mark the larger first; what has none comes last', () => {
    const marks = of('module\n  a 1 kg\n  b ~1 kg\n  c 2 kg\n  d\n  e 1 kg ?', 'module', 'mass').terms.map((p) => [p.mark, p.value]);
    expect(marks).toEqual([['?', 1], ['I', 1], ['M', 2], ['M', 1], [null, null]]); // prettier-ignore
  });
  it('ends in a reading where a part is weighed, counted, bought, or has nothing inside', () => {
    const text = 'module 3 kg\n  plate 1 kg\n  lever';
    expect(of(text, 'module', 'mass').isReading).toBe(true);
    expect(of(text, 'lever', 'mass').isReading).toBe(false);
    expect(of(text, 'module', 'count').isReading).toBe(true);
    expect(of(text, 'module', 'cost').isReading).toBe(false);
    expect(of(text, 'plate', 'cost').isReading).toBe(true);
    const bought = { ...partNamed(recordOf(teardown(text)), 'module'), boughtPrice: '3.10' };
    expect(restsOn('cost', bought)).toEqual(['boughtPrice', 'quantity']);
    expect(restsOn('count', bought)).toEqual(['quantity']);
    expect(restsOn('mass', bought)).toEqual(['massEachKg', 'quantity']);
  });
  it('of a weighed assembly says how the weighing stands to its parts, of a mass alone', () => {
    const text = 'module 3 kg\n  plate 1 kg\n  lever 1.9 kg';
    expect(of(text, 'module', 'mass').closure).not.toBeNull();
    expect(of(text, 'module', 'cost').closure).toBeNull();
    expect(of(text, 'plate', 'mass').closure).toBeNull();
  });
});

describe('the roll-up after an edit', () => {
  const before = recordOf(teardown('2x module\n  plate dc04 stamp 1 kg\n    4 M6x16 6 g\n  lever pom inj 100 g'));
  const rolled = studyRollUp(before);
  const edited = (name: string, fields: Partial<StudyRecord['parts'][number]>): StudyRecord => ({
    ...before,
    parts: before.parts.map((p) => (p.name === name ? { ...p, ...fields } : p)),
  });
  const plateId = partNamed(before, 'plate').id;
  const same = (now: StudyRecord, partId: string | null): void => {
    const [after, whole] = [studyRollUpAfter(rolled, before, now, partId), studyRollUp(now)];
    const at = (r: typeof rolled, measure: 'count' | 'mass' | 'cost') =>
      now.parts.map((p) => evidenceChain(now, r, r.rolled.outline.placeOf.get(p.id) ?? -1, measure)?.whole);
    for (const measure of ['count', 'mass', 'cost'] as const)
      expect(JSON.stringify(at(after, measure), (_, v: unknown) => (typeof v === 'number' ? Number(v.toPrecision(9)) : v))).toBe(
        JSON.stringify(at(whole, measure), (_, v: unknown) => (typeof v === 'number' ? Number(v.toPrecision(9)) : v)),
      );
    expect([after.perVehicle, after.meanPerVehicle]).toEqual([whole.perVehicle, whole.meanPerVehicle]);
  };
  it.each([
    ['its mass', { massEachKg: 2 }],
    ['its material', { materialId: 'dp600' }],
    ['how many there are', { quantity: 5 }],
    ['how sure that is', { evidence: { quantity: { ...evidence('C'), low: 1, high: 3 } } }],
    ['its place in the order', { sequence: 99 }],
    ['the vehicle it is of', { vehicleId: RIGHT.id }],
    ['what it is in', { parentId: null, subsystemId: DOOR.id }],
  ])('of %s is what it is worked out whole', (_, fields) => same(edited('plate', fields), plateId));
  it('of its fasteners, of several parts, of the study, or of a part that is new or gone is what it is worked out whole', () => {
    same({ ...before, fastenerSets: before.fastenerSets.map((s) => ({ ...s, count: 9 })) }, plateId);
    same({ ...before, fastenerSets: [] }, plateId);
    same({ ...before, parts: before.parts.map((p) => ({ ...p, massEachKg: 3 })) }, null);
    same({ ...edited('plate', { massEachKg: 2 }), study: { ...before.study, fastenersIn: false } }, plateId);
    const gone = { ...before, parts: before.parts.filter((p) => p.name !== 'lever') };
    same(gone, partNamed(before, 'lever').id);
    expect(studyRollUpAfter(studyRollUp(gone), gone, before, partNamed(before, 'lever').id).perVehicle).toEqual(rolled.perVehicle);
  });
  it('goes the short way only where one part is all that was touched', () => {
    expect(onlyPart(['a', 'a'])).toBe('a');
    expect(onlyPart(['a', 'b'])).toBeNull();
    expect(onlyPart([])).toBeNull();
    const after = studyRollUpAfter(rolled, before, edited('plate', { massEachKg: 2 }), plateId);
    expect(after.rolled.outline).toBe(rolled.rolled.outline);
    expect(studyRollUpAfter(rolled, before, edited('plate', { quantity: 2 }), plateId).rolled.outline).not.toBe(rolled.rolled.outline);
  });
});
