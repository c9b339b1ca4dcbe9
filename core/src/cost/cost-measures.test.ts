import { outline, subsystemKey, type StudyRecord } from '../record';
import { DOOR, LEFT, partNamed, recordOf, teardown } from '../../testing/teardown';
import { randomFrom } from '../../testing/line-writers';
import { belowAt, benchOwn, ownOfParts, partsByPlace, rollUp, totalsOf, type AssembliesAs, type RollUp } from '../bench';
import { fastenerCostOwn, partCostOwn, studyShown, type CostTerms, type StudyMeasures, type StudyShown } from './cost-measures';
import { STUDY_LAYOUT } from './study-roll-up';

/** Every part at 1 of which 0.6 is material, but for those with a price of their own; every fastener at 0.10. */
const UNIT: CostTerms = { material: 0.6, tooling: 0.1, conversion: 0.3, bought: 0 };
const rolledUp = (record: StudyRecord, assembliesAs: AssembliesAs = 'parts'): RollUp<StudyMeasures> => {
  const tree = outline(record);
  const own = ownOfParts(record, partsByPlace(record, tree), (part, fasteners, joints) => {
    const { count, figures } = benchOwn(part, fasteners, joints);
    const terms = part.boughtPrice === null ? UNIT : { material: 0, tooling: 0, conversion: 0, bought: Number(part.boughtPrice) };
    const fastenerCost = fastenerCostOwn(fasteners, () => 0.1);
    return {
      count,
      figures: [...figures, partCostOwn(part, terms, part.boughtPrice !== null), ...(fastenerCost ? [{ fastenerCost }] : [])],
    };
  });
  return rollUp(STUDY_LAYOUT, tree, own, assembliesAs);
};
const door = (record: StudyRecord, fastenersIn = true, assembliesAs: AssembliesAs = 'parts'): StudyShown =>
  studyShown(totalsOf(rolledUp(record, assembliesAs), subsystemKey(LEFT.id, DOOR.id))!, fastenersIn);
const near = (value: number): number => expect.closeTo(value, 12) as number;

const CARRIER = recordOf(
  teardown(`
carrier module
  carrier plate dc04 1.5 kg
  2x cable guide pom 40 g
    1 M6x16 T30 5 g
  lever 100 g
`),
);
const BOUGHT = { ...CARRIER, parts: CARRIER.parts.map((p) => (p.name === 'carrier module' ? { ...p, boughtPrice: '9.5' } : p)) };

describe('the cost of a subsystem', () => {
  it('adds parts at their lowest level and fasteners', () => {
    expect(door(CARRIER)).toMatchObject({ cost: near(4.2), partsCosted: 4, fastenersNotCosted: 0 });
    expect(door(CARRIER, false).cost).toBeCloseTo(4, 12);
  });
  it('is the sum of its terms, under either rule; fasteners are bought', () => {
    const terms = { material: near(2.4), tooling: near(0.4), conversion: near(1.2), bought: near(0.2) };
    expect(door(CARRIER).terms).toEqual(terms);
    expect(door(CARRIER, true, 'one').terms).toEqual(terms);
    expect(door(CARRIER, false).terms).toEqual({ ...terms, bought: 0 });
  });
  it('takes the price of a bought assembly for all that is inside it, and none of its terms', () => {
    expect(door(BOUGHT)).toMatchObject({
      cost: 9.5,
      partsCosted: 4,
      fastenersNotCosted: 0,
      terms: { material: 0, tooling: 0, conversion: 0, bought: 9.5 },
    });
    expect(door(BOUGHT, true, 'one')).toMatchObject({ cost: 9.5, partsCosted: 1 });
  });
  it('still knows what is inside a bought assembly by itself', () => {
    const rolled = rolledUp(BOUGHT);
    const inside = belowAt(rolled, rolled.outline.placeOf.get(partNamed(BOUGHT, 'carrier module').id)!)!;
    expect([inside.cost.value, inside.material.value, inside.fastenerCost.value]).toEqual([near(4), near(2.4), near(0.2)]);
    expect(inside.parts.value).toBe(4);
  });
  /** @source JCGM 100:2008 (GUM), 4.3.7: a count between two bounds has u = width / √12 */
  it('has the middle of a range of counts, and the uncertainty that comes from it', () => {
    expect(door(recordOf(teardown('8-12x block 1 kg')))).toMatchObject({ cost: 10, costUOfCounts: expect.closeTo(1.1547, 4) as number });
    expect(door(recordOf(teardown('plate 1 kg\n  10-14 M6x16 5 g')))).toMatchObject({
      cost: near(1 + 12 * 0.1),
      costUOfCounts: near((0.1 * 4) / Math.sqrt(12)),
    });
  });
  /** Truth by simulation: 40 000 draws of the counts, each evenly between its ends, so ± 1 % of u. */
  it('varies with the count of an assembly as a whole: its parts and the fasteners on them together', () => {
    const random = randomFrom(11);
    const even = (low: number, high: number): number => low + (high - low) * random();
    const costs = Array.from({ length: 40_000 }, () => even(2, 6) * (even(3, 5) * (1 + even(8, 12) * 0.1) + 1));
    const mean = costs.reduce((sum, c) => sum + c, 0) / costs.length;
    const u = Math.sqrt(costs.reduce((sum, c) => sum + (c - mean) ** 2, 0) / (costs.length - 1));
    const s = door(recordOf(teardown('2-6x module\n  3-5x block 1 kg\n    8-12 clip 5 g\n  plate 2 kg')));
    expect(Math.abs((s.cost ?? 0) / mean - 1)).toBeLessThan(0.005);
    expect(Math.abs((s.costUOfCounts ?? 0) / u - 1)).toBeLessThan(0.02);
  });
  it('is absent, not 0, where nothing has one', () => {
    const totals = totalsOf(rolledUp(recordOf()), subsystemKey(LEFT.id, DOOR.id))!;
    expect(studyShown(totals, true)).toMatchObject({ cost: null, costUOfCounts: null, terms: null, costMark: null });
  });
});
