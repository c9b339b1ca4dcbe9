import { LEFT, RIGHT } from '../../testing/teardown';
import type { StudyShown } from '../cost';
import type { Comparison, Costed, Side } from './compare-vehicles';
import { comparisonGaps, comparisonSentences, plainText } from './sentences';

const NOTHING = {
  ...{ parts: 0, fasteners: 0, joints: 0, massKg: null, massUKg: null, cost: null, costUOfCounts: null },
  ...{ partsMassed: 0, partsCosted: 0, partsOfMass: 0, fastenersNotMassed: 0, fastenersNotCosted: 0 },
} as unknown as StudyShown;
const ALL: Costed = { parts: 10, ofParts: 10, massFraction: 1 };

const side = (shown: Partial<StudyShown>, more: Partial<Side> = {}, isLeft = true): Side => ({
  vehicle: isLeft ? LEFT : RIGHT,
  shown: { ...NOTHING, ...shown },
  variants: 0,
  costed: ALL,
  shares: { material: [], family: [], process: [] },
  groups: [],
  ...more,
});
const compared = (left: Side, right: Side, fastenersIn = false): Comparison => ({
  ...{ fastenersIn, left, right, totals: [], byMaterial: [], byProcess: [] },
});
const said = (left: Side, right: Side, code: string, fastenersIn = false): string | undefined => {
  const sentence = comparisonSentences(compared(left, right, fastenersIn), 'EUR').find((s) => s.code === code);
  return sentence && plainText(sentence);
};
const right = (shown: Partial<StudyShown>, more: Partial<Side> = {}): Side => side(shown, more, false);

describe('counts in words', () => {
  it('say more and fewer of the left against the right, to the percent', () => {
    expect(said(side({ joints: 12 }), right({ joints: 10 }), 'joints')).toBe('Left van has 12 joints against 10 on Right van: 20 % more.');
    expect(said(side({ joints: 9 }), right({ joints: 10 }), 'joints')).toBe('Left van has 9 joints against 10 on Right van: 10 % fewer.');
    expect(said(side({ parts: 1 }), right({ parts: 2 }), 'parts')).toBe('Left van has 1 part against 2 on Right van: 50 % fewer.');
  });
  it('say the same of what is the same, whatever is counted', () => {
    expect(said(side({ fasteners: 8 }), right({ fasteners: 8 }), 'fasteners')).toBe('Left van has 8 fasteners, the same as Right van.');
    expect(said(side({ parts: 8 }), right({ parts: 8 }), 'parts', true)).toBe('Left van has 8 parts and fasteners, the same as Right van.');
  });
  it('compare nothing with what is not recorded, on either side, and say nothing where there is nothing', () => {
    expect(said(side({}, { variants: 1 }), right({}), 'variants')).toBe(
      'Left van has 1 kind of fastener; none is recorded on Right van yet, so they cannot be compared.',
    );
    expect(said(side({}), right({}, { variants: 3 }), 'variants')).toBe(
      'Right van has 3 kinds of fastener; none are recorded on Left van yet, so they cannot be compared.',
    );
    expect(said(side({}), right({}), 'variants')).toBeUndefined();
    expect(said(side({ joints: 0 }), right({ joints: 4 }), 'joints')).toBe(
      'Right van has 4 joints; none are recorded on Left van yet, so they cannot be compared.',
    );
  });
  it('mark the stretch with the figures, and it alone', () => {
    const [sentence] = comparisonSentences(compared(side({ parts: 3 }), right({ parts: 2 })), 'EUR');
    expect(sentence?.runs).toEqual([
      { text: 'Left van has ', strong: false },
      { text: '3 parts against 2', strong: true },
      { text: ' on Right van: 50 % more.', strong: false },
    ]);
  });
});

describe('masses in words', () => {
  it('say heavier and lighter by ratio and difference, with its uncertainty', () => {
    // u = √(0.03² + 0.04²) = 0.05 kg
    expect(said(side({ massKg: 3, massUKg: 0.03 }), right({ massKg: 2, massUKg: 0.04 }), 'mass')).toBe(
      'Left van is 1.50 times as heavy, 50 % more: 1.00 ± 0.10 kg heavier than Right van.',
    );
    expect(said(side({ massKg: 2, massUKg: 0.03 }), right({ massKg: 3, massUKg: 0.04 }), 'mass')).toBe(
      'Left van is 0.667 times as heavy, 33 % less: 1.00 ± 0.10 kg lighter than Right van.',
    );
  });
  it('call no difference what lies within two uncertainties, and one what lies beyond', () => {
    const at = (massKg: number): string | undefined => said(side({ massKg, massUKg: 0.3 }), right({ massKg: 10, massUKg: 0.4 }), 'mass');
    expect(at(10.99)).toBe('Left van and Right van weigh the same as far as the weighing can tell: the difference is 1.0 ± 1.0 kg.');
    expect(at(9.01)).toContain('weigh the same as far as the weighing can tell');
    expect(at(11.01)).toContain('1.0 ± 1.0 kg heavier');
  });
  it('are not compared where one side is not weighed, and say which', () => {
    expect(said(side({ massKg: 1, massUKg: 0 }), right({}), 'mass')).toBe(
      'The masses cannot be compared: nothing on Right van is weighed yet.',
    );
    expect(said(side({}), right({ massKg: 1, massUKg: 0 }), 'mass')).toBe(
      'The masses cannot be compared: nothing on Left van is weighed yet.',
    );
  });
});

describe('costs in words', () => {
  const cost = (l: Partial<Side>, r: Partial<Side>, [a, b]: readonly [number | null, number | null], u = 0): string | undefined =>
    said(side({ cost: a, costUOfCounts: u }, l), right({ cost: b, costUOfCounts: u }, r), 'cost');
  it('say dearer and cheaper in the currency of the study', () => {
    expect(cost({}, {}, [15, 10])).toBe('Left van is 1.50 times as costly, 50 % more: EUR 5.00 dearer than Right van.');
    expect(cost({}, {}, [10, 15])).toBe('Left van is 0.667 times as costly, 33 % less: EUR 5.00 cheaper than Right van.');
  });
  it('say the same of the same, and as far as the counts can tell where only they do not tell', () => {
    expect(cost({}, {}, [10, 10])).toBe('Left van and Right van cost the same.');
    // u = √2 × 2 = 2.83; twice that is 5.66
    expect(cost({}, {}, [15, 10], 2)).toBe('Left van and Right van cost the same as far as the counts can tell.');
    expect(cost({}, {}, [16, 10], 2)).toContain('EUR 6.00 dearer');
  });
  it('are not compared where a side is not costed, and say which', () => {
    expect(cost({}, {}, [null, 10])).toBe('The costs cannot be compared: nothing on Left van is costed yet.');
    expect(cost({}, {}, [10, null])).toBe('The costs cannot be compared: nothing on Right van is costed yet.');
  });
  it('are not compared below half of a side, by parts or by mass, nor a tenth apart', () => {
    const of = (parts: number, massFraction: number | null): Partial<Side> => ({ costed: { parts, ofParts: 10, massFraction } });
    expect(cost(of(4, 1), of(4, 1), [15, 10])).toBe(
      'The costs cannot be compared yet: costed are 4 of 10 parts and 100 % of the mass on Left van, 4 of 10 parts and 100 % of the mass on Right van.',
    );
    expect(cost(of(10, 0.4), of(10, 0.4), [15, 10])).toContain('cannot be compared yet');
    expect(cost(of(8, 1), of(10, 1), [15, 10])).toContain('cannot be compared yet');
    // alike and most of it: said, with what it stands on
    expect(cost(of(9, null), of(9, 0.95), [15, 10])).toBe(
      'Left van is 1.50 times as costly, 50 % more: EUR 5.00 dearer than Right van. Costed are 9 of 10 parts on Left van, 9 of 10 parts and 95 % of the mass on Right van.',
    );
    expect(cost({ costed: { parts: 0, ofParts: 0, massFraction: null } }, of(10, 1), [15, 10])).toContain('cannot be compared yet');
  });
});

describe('what a comparison leaves out', () => {
  it('is each kind of it on each side, and nothing where nothing is', () => {
    const l = side({ partsOfMass: 10, partsMassed: 8, partsCosted: 9, fastenersNotMassed: 3, fastenersNotCosted: 3 });
    const r = right({ partsOfMass: 5, partsMassed: 5, partsCosted: 5, fastenersNotMassed: 1, fastenersNotCosted: 2 });
    expect(comparisonGaps(compared(l, r))).toEqual([
      'Left van: 2 parts of 10 without mass',
      'Left van: 1 part of 10 without cost',
      'Left van: 3 fasteners without mass, and so without cost',
      'Right van: 1 fastener without mass',
      'Right van: 2 fasteners without cost',
    ]);
    expect(comparisonGaps(compared(side({ partsOfMass: 2, partsMassed: 2, partsCosted: 2 }), right({})))).toEqual([]);
  });
});
