import { outline, subsystemKey, type StudyRecord } from '../../record';
import { DOOR, LEFT, partNamed, recordOf, teardown } from '../../../testing/teardown';
import { randomFrom } from '../../../testing/line-writers';
import { massChecks } from '../checks/mass-checks';
import { closureText } from './mass-closure';
import { layoutOf } from './measure';
import { BENCH_MEASURES, benchOwn, closureAt, ownOfParts, partsByPlace, type BenchMeasures } from './own-figures';
import { rollUp, totalsOf, type RollUp } from './roll-up';
import type { AssembliesAs } from './add-up';
import { shown, type Shown } from './shown';

const LAYOUT = layoutOf(BENCH_MEASURES);
const rolledUp = (record: StudyRecord, assembliesAs: AssembliesAs = 'parts'): RollUp<BenchMeasures> => {
  const tree = outline(record);
  return rollUp(LAYOUT, tree, ownOfParts(record, partsByPlace(record, tree), benchOwn), assembliesAs);
};
const door = (text: string, fastenersIn = true, assembliesAs: AssembliesAs = 'parts'): Shown => {
  const totals = totalsOf(rolledUp(recordOf(teardown(text)), assembliesAs), subsystemKey(LEFT.id, DOOR.id));
  if (!totals) throw new Error('no door');
  return shown(totals, fastenersIn);
};
const checksOf = (text: string, name: string): readonly string[] => {
  const record = recordOf(teardown(text));
  const rolled = rolledUp(record);
  return massChecks(rolled, rolled.outline.placeOf.get(partNamed(record, name).id) ?? -1).map((found) => found.code);
};

/** @source JCGM 100:2008 (GUM), 4.3.7: a quantity between two bounds, none likelier than another, has u = width / √12 */
describe('a count that is only known within a range', () => {
  it('enters the mass with its middle: 8 to 12 of 1 kg are 10 kg, u = 4/√12 = 1.15 kg', () => {
    const s = door('8-12x block 1.0000 kg');
    expect(s.massKg).toBeCloseTo(10, 12);
    expect(s.massUKg).toBeCloseTo(1.1547, 4);
    expect(s).toMatchObject({ parts: 8, partsRange: { low: 8, high: 12 } });
  });
  it('of joints is a range of them, and of those of all the parts that are there', () => {
    expect(door('2-3x plate\n  10-12 spot')).toMatchObject({ joints: 20, jointsRange: { low: 20, high: 36 } });
    expect(door('plate\n  10+ spot').jointsRange).toEqual({ low: 10, high: null });
  });
  it('of fasteners enters their mass', () => {
    const s = door('plate 1.0000 kg\n  10-14 M6x16 5.000 g!');
    expect(s.massKg).toBeCloseTo(1.06, 12);
    expect(s.massUKg).toBeCloseTo((0.005 * 4) / Math.sqrt(12), 5);
  });
  it('does not move a mass that was weighed of all together', () => {
    const s = door('8-12x block total 10.00 kg');
    expect(s.massKg).toBeCloseTo(10, 12);
    expect(s.massUKg).toBeCloseTo(0.01 / Math.sqrt(12), 6);
  });
  it('at least 20 is a sum that may be more, and says so', () => {
    expect(door('20+x block 1 kg')).toMatchObject({ massKg: 20, openCounts: 1 });
    expect(door('20x block 1 kg')).toMatchObject({ openCounts: 0 });
  });
  /** Truth by simulation: counts drawn evenly between their ends, masses normal; 40 000 draws, so ± 1 % of u. */
  it('has the uncertainty a simulation gives, also two levels deep and with fasteners', () => {
    const random = randomFrom(7);
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const even = (low: number, high: number): number => low + (high - low) * random();
    const totals: number[] = [];
    for (let i = 0; i < 40_000; i++) {
      const modules = even(2, 4);
      const blocks = even(8, 12);
      const screws = even(3, 5);
      totals.push(modules * (blocks * (1 + 0.05 * normal() + screws * (0.05 + 0.01 * normal())) + 2 + 0.1 * normal()));
    }
    const mean = totals.reduce((sum, t) => sum + t, 0) / totals.length;
    const u = Math.sqrt(totals.reduce((sum, t) => sum + (t - mean) ** 2, 0) / (totals.length - 1));
    const s = door('2-4x module\n  8-12x block 1 kg ±50 g\n    3-5 clip 50 g ±10 g\n  plate 2 kg ±100 g');
    expect(Math.abs((s.massKg ?? 0) / mean - 1)).toBeLessThan(0.005);
    expect(Math.abs((s.massUKg ?? 0) / u - 1)).toBeLessThan(0.02);
  });
});

describe('an assembly that was weighed as a whole', () => {
  it('stays the figure while its parts fall short of it: 10.00 kg with two of about 3 and 4 kg inside', () => {
    const text = 'module 10.00 kg\n  lid ~3 kg\n  case ~4 kg';
    const s = door(text);
    expect([s.massKg, s.massUKg]).toEqual([expect.closeTo(10, 12) as number, expect.closeTo(0.01 / Math.sqrt(12), 9) as number]);
    expect(checksOf(text, 'module')).toEqual(['mass-short']);
  });
  it('stays it with four parts recorded of many: 7.85 kg, not 4.056', () => {
    const text = 'module 7.85 kg\n  lid 1.2 kg\n  case 2.1 kg\n  plate 0.5 kg\n  arm 0.256 kg';
    expect(door(text).massKg).toBeCloseTo(7.85, 12);
    const record = recordOf(teardown(text));
    const rolled = rolledUp(record);
    const closure = closureAt(rolled, rolled.outline.placeOf.get(partNamed(record, 'module').id) ?? -1);
    expect(closure?.residualKg).toBeCloseTo(7.85 - 4.056, 12);
    expect(closure && closureText(closure)).toMatch(/^3\.79\d* ± 0\.\d+ kg not yet accounted for inside$/);
  });
  it('is the surer of the two where both are whole: 5 ± 0.05 kg of 100 bolts of 50 ± 5 g', () => {
    // the bolts alone: 100 × 5 g = 0.5 kg, for one reading stands for all of them
    const s = door('crate 5 kg ±0.1 kg\n  100x bolt, long 50 g ±10 g');
    expect([s.massKg, s.massUKg]).toEqual([expect.closeTo(5, 12) as number, expect.closeTo(0.05, 12) as number]);
  });
  it('gives way to its parts where they are surer', () => {
    const s = door('module ~2 kg\n  lid 1.2000 kg\n  case 0.9000 kg');
    expect(s.massKg).toBeCloseTo(2.1, 12);
    expect(s.massUKg).toBeLessThan(0.001);
  });
  it('takes its fasteners with it, and counts what they weigh and what they err once', () => {
    const text = 'module 2.000 kg ±2 g\n  lid ~1.1 kg\n    10 M6x16 20 g ±10 g\n  case ~0.6 kg';
    expect(door(text)).toMatchObject({ massKg: expect.closeTo(2, 12) as number, massUKg: expect.closeTo(0.001, 12) as number });
    // without them: 2 − 0.2 kg, and 10 × 5 g of doubt about what was taken off
    const without = door(text, false);
    expect([without.massKg, without.massUKg]).toEqual([
      expect.closeTo(1.8, 12) as number,
      expect.closeTo(Math.hypot(0.001, 0.05), 12) as number,
    ]);
  });
  it('with a part inside heavier than itself beyond 2 u is an issue on both', () => {
    const text = 'crate 100.0 kg\n  engine 120.0 kg\n  lid 1 kg';
    expect(checksOf(text, 'crate')).toEqual(['mass-impossible']);
    expect(checksOf(text, 'engine')).toEqual(['mass-impossible']);
    expect(checksOf(text, 'lid')).toEqual([]);
  });
  it('with a part inside that may be as heavy by its uncertainty is none', () => {
    expect(checksOf('crate ~100 kg\n  engine 110.0 kg', 'engine')).toEqual([]);
  });
  it('counted as one is the same mass', () => {
    expect(door('module 10.00 kg\n  lid ~3 kg\n  case ~4 kg', true, 'one')).toMatchObject({
      parts: 1,
      massKg: expect.closeTo(10, 12) as number,
    });
  });
});
