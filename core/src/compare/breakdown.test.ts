import { DOOR, LEFT, recordOf, teardown } from '../../testing/teardown';
import { randomFrom } from '../../testing/line-writers';
import { contentsBelow, studyRollUp, studyShown } from '../cost';
import { totalsOf } from '../bench';
import { subsystemKey, type StudyRecord } from '../record';
import { FASTENERS, NOT_SPLIT, NOT_STATED, breakdown, shareOrder, type BreakdownBy, type Share } from './breakdown';

const split = (record: StudyRecord, by: BreakdownBy): readonly Share[] => {
  const rollUp = studyRollUp(record);
  const key = subsystemKey(LEFT.id, DOOR.id);
  const whole = studyShown(totalsOf(rollUp.rolled, key)!, true);
  return breakdown(contentsBelow(record, rollUp, key).parts, by, whole);
};
const mass = (shares: readonly Share[], label: string): number | null | undefined => shares.find((s) => s.label === label)?.massKg;

const DOORS = recordOf(
  teardown(`
module
  plate dc04 stamp 2 kg
    4 M6x16 T30 8.8 5 g
  2x guide pom inj 50 g
arm aw-6082 ext 1 kg
lever dc04 stamp ~100 g
label
`),
);

describe('a subsystem split', () => {
  it('by material has each part under its own, on one vehicle, and the fasteners apart', () => {
    const shares = split(DOORS, 'material');
    // by hand: plate and lever; two guides; the arm; four bolts
    expect(mass(shares, 'DC04')).toBeCloseTo(2.1, 12);
    expect(mass(shares, 'POM')).toBeCloseTo(0.1, 12);
    expect(mass(shares, 'EN AW-6082')).toBeCloseTo(1, 12);
    expect(mass(shares, FASTENERS)).toBeCloseTo(0.02, 12);
    expect(shares.find((s) => s.label === 'POM')?.parts).toBe(2);
  });
  it('by family and by process puts together what is of one, and keeps the rest apart', () => {
    const families = split(DOORS, 'family').map((s) => [s.label, s.parts]);
    expect(families).toEqual([['steel', 2], ['fasteners', 4], ['plastic', 2], ['aluminium', 1], [NOT_STATED, 1]]); // prettier-ignore
    const processes = split(DOORS, 'process').map((s) => [s.label, s.parts]);
    expect(processes).toEqual([['stamping', 2], ['fasteners', 4], ['injection moulding', 2], ['extrusion', 1], [NOT_STATED, 1]]); // prettier-ignore
  });
  it('counts the fasteners of every part there are, and their mass only where one is weighed', () => {
    const twice = recordOf(teardown('2x plate dc04 stamp 2 kg\n  4 M6x16 T30 8.8 5 g\narm pom inj 1 kg\n  3 clip'));
    const fasteners = split(twice, 'material').find((s) => s.label === FASTENERS);
    // by hand: 2 × 4 bolts of 5 g; three clips that nobody weighed
    expect(fasteners?.parts).toBe(11);
    expect(fasteners?.massKg).toBeCloseTo(0.04, 12);
    const clips = split(recordOf(teardown('arm pom inj 1 kg\n  3 clip')), 'material').find((s) => s.label === FASTENERS);
    expect([clips?.parts, clips?.massKg, clips?.cost]).toEqual([3, null, null]);
    expect(split(recordOf(teardown('arm pom inj 1 kg')), 'material').map((s) => s.label)).toEqual(['POM']);
  });
  it('carries the weakest mark of counts and costs too', () => {
    const guessed = recordOf(teardown('6?x plate dc04 stamp 2 kg\nlever dc04 stamp ~100 g'));
    expect(split(guessed, 'material').find((s) => s.label === 'DC04')?.marks).toEqual({
      parts: '?',
      mass: 'I',
      cost: expect.any(String) as string,
    });
  });
  it('keeps what has no material on a row of its own, without a mass where none was weighed: absent is not zero', () => {
    const label = split(DOORS, 'material').find((s) => s.label === NOT_STATED);
    expect([label?.parts, label?.massKg]).toEqual([1, null]);
  });
  it('carries the weakest mark into each share', () => {
    const shares = split(DOORS, 'material');
    expect(shares.find((s) => s.label === 'DC04')?.marks.mass).toBe('I');
    expect(shares.find((s) => s.label === 'EN AW-6082')?.marks.mass).toBe('M');
  });
  it.each(['material', 'family', 'process'] as const)('by %s adds up to the whole', (by) => {
    const whole = studyShown(totalsOf(studyRollUp(DOORS).rolled, subsystemKey(LEFT.id, DOOR.id))!, true);
    const shares = split(DOORS, by);
    expect(shares.reduce((sum, s) => sum + (s.massKg ?? 0), 0)).toBeCloseTo(whole.massKg ?? 0, 9);
    expect(shares.reduce((sum, s) => sum + (s.cost ?? 0), 0)).toBeCloseTo(whole.cost ?? 0, 9);
  });
  /** Truth by simulation: 40 000 draws of the counts, each evenly between its ends, and of the masses; ± 1 % of u. */
  it('has the uncertainty a simulation gives, also where parts of one material are inside an assembly of which there are some', () => {
    const random = randomFrom(3);
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const even = (low: number, high: number): number => low + (high - low) * random();
    const draws = Array.from({ length: 40_000 }, () => even(2, 6) * (even(3, 5) * (1 + 0.05 * normal()) + 2 + 0.1 * normal()));
    const mean = draws.reduce((sum, d) => sum + d, 0) / draws.length;
    const u = Math.sqrt(draws.reduce((sum, d) => sum + (d - mean) ** 2, 0) / (draws.length - 1));
    const record = recordOf(
      teardown('2-6x module\n  3-5x block dc04 stamp 1 kg ±100 g\n  plate dc04 stamp 2 kg ±200 g\n  lid pom inj 1 kg ±20 g'),
    );
    const steel = split(record, 'material').find((s) => s.label === 'DC04')!;
    expect(Math.abs((steel.massKg ?? 0) / mean - 1)).toBeLessThan(0.005);
    expect(Math.abs((steel.massUKg ?? 0) / u - 1)).toBeLessThan(0.02);
    // by hand: 4 lids of 1 kg, their count even between 2 and 6
    const lid = split(record, 'material').find((s) => s.label === 'POM')!;
    expect(lid.massUKg).toBeCloseTo(Math.sqrt((16 / 12) * (1 + 1e-4) + 16e-4), 12);
  });
  it('has what only the weighed whole holds on a row of its own, also when its parts weigh more than it', () => {
    const whole = recordOf(teardown('module 3 kg\n  plate dc04 stamp 2 kg\n  guide'));
    // the guide was not weighed: the third kilogram is somewhere in the module
    expect(mass(split(whole, 'material'), NOT_SPLIT)).toBeCloseTo(1, 9);
  });
  it('stands in the order of the catalogue by family, by name otherwise, with what is no material last', () => {
    const families = ['plastic', NOT_SPLIT, 'steel', FASTENERS, 'aluminium', NOT_STATED].sort(shareOrder);
    expect(families).toEqual(['steel', 'aluminium', 'plastic', NOT_STATED, FASTENERS, NOT_SPLIT]);
    expect(['POM', FASTENERS, 'DC04'].sort(shareOrder)).toEqual(['DC04', 'POM', FASTENERS]);
    // a name that is no family stands by its letters
    expect(['zinc plate', 'steel', 'aluminium'].sort(shareOrder)).toEqual(['steel', 'aluminium', 'zinc plate']);
  });
});
