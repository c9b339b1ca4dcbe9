import { blank, evidence, type Pack } from '../../record';
import { testId } from '../../../testing/teardown';
import { figureRows } from '../systems/figure-rows';
import { PACK_WORDS, cutFiner, packDifference, packReport, type Weighed } from './pack-report';

/** 12 modules of 9 bricks of 38 cells; each row of 19 cells is cooled by a tube along it. */
const PACK: Pack = {
  ...{ id: testId(1), version: 1, ...blank('pack', { partId: testId(2), sequence: 0, name: 'as recorded', isWhatIf: false }) },
  ...{ cellsInParallel: 38, bricksPerModule: 9, modules: 12, cellsInModule: 342, capacityC: 18_000, nominalV: 3.65, cellMassKg: 0.0695 },
  ...{ way: 'one pass', lay: 'along the tubes', rows: 18, heatPerCellW: 1.1, cellToCoolantWPerK: 1 / 6.5, flowM3PerS: 3e-4, inletC: 25 },
  ...{ coolantKgPerM3: 1060, coolantJPerKgK: 3400, coolantPaS: 0.0023, channelWidthM: 0.07, channelHeightM: 0.004, channelLengthM: 1.2 },
  evidence: {
    heatPerCellW: evidence('I', { u: 0.03 }),
    flowM3PerS: evidence('M', { u: 7.5e-6 }),
    cellMassKg: evidence('M', { u: 0.0001 }),
  },
};
const TWO: Pack = { ...PACK, id: testId(3), name: 'two passes', isWhatIf: true, reason: 'even?', way: 'two passes' };
const MASSES: Readonly<Record<string, Weighed>> = {
  [PACK.partId]: { massKg: 431.5, uKg: 0.05, boxM3: 0.3 },
  [testId(4)]: { massKg: 15.4, uKg: 0.01, boxM3: null },
};
const massOf = (partId: string): Weighed | null => MASSES[partId] ?? null;

describe('the report of a pack', () => {
  const report = packReport({ ...PACK, shields: [testId(4)] }, massOf);
  it('energy is cells × volts × ampere-hours: 108 × 3.65 V × 38 × 5 Ah = 74.898 kWh', () => {
    expect(report.values.energyJ! / 3.6e6).toBeCloseTo(74.898, 9);
    expect(report.lines[0]).toMatchObject({ word: 'Energy', formula: '108 bricks × 3.65 V × 38 cells × 5.00 Ah' });
  });
  it('its voltage goes from 108 × 2.5 V to 108 × 4.2 V, by what is recorded of a cell', () => {
    const { values } = packReport({ ...PACK, lowestV: 2.5, highestV: 4.2 }, massOf);
    expect([values.lowestPackV, values.highestPackV, report.values.lowestPackV]).toEqual([270, expect.closeTo(453.6, 9), null]);
  });
  it('energy per mass names what is counted in: cells 262.6, the pack 173.6, with its shield 167.6 Wh/kg', () =>
    expect(report.boundaries.map(({ name, whPerKg }) => [name, whPerKg])).toEqual([
      ['cells', expect.closeTo(262.59, 2)],
      ['pack', expect.closeTo(173.58, 2)],
      ['pack with shield', expect.closeTo(167.59, 2)],
    ]));
  it('one pass has a closed form: inlet, plus the rise over the cells before, plus the last cell over its coolant', () => {
    const perRowWPerK = (3e-4 / (18 * 12)) * 1060 * 3400;
    const over = 1.1 / (perRowWPerK * (1 - Math.exp(-1 / 6.5 / perRowWPerK)));
    expect(report.values.hottestC).toBeCloseTo(25 + (18 * 1.1) / perRowWPerK + over, 8);
    expect(report.values.coldestC).toBeCloseTo(25 + over, 8);
    expect(report.values.spreadK).toBeCloseTo((18 * 1.1) / perRowWPerK, 8);
    expect(report.values.outletC).toBeCloseTo(25 + (4104 * 1.1) / (3e-4 * 1060 * 3400), 8);
  });
  it('uncertainty goes with heat: the rise of every cell is in proportion to it', () => {
    const alone = packReport({ ...PACK, evidence: { heatPerCellW: evidence('I', { u: 0.03 }) } }, massOf);
    expect(alone.us.hottestC).toBeCloseTo((0.03 / 1.1) * (alone.values.hottestC! - 25), 8);
    expect(alone.us.energyJ).toBe(0);
  });
  it('what is missing is named, and what can be worked out still is', () => {
    const bare = packReport({ ...PACK, flowM3PerS: null, coolantPaS: null }, massOf);
    expect(bare.missing).toEqual({ energy: [], cooling: ['Coolant flow through the pack'], drop: ['Coolant viscosity'] });
    expect([bare.values.hottestC, bare.values.dropPa, bare.values.energyJ! / 3.6e6]).toEqual([null, null, expect.closeTo(74.898, 9)]);
  });
  it('what forbids the temperatures leaves the energy, and says what it is', () => {
    const stuck = packReport({ ...PACK, cellToCellWPerK: 1e4, cellToCoolantWPerK: 1e-11 }, massOf);
    expect(stuck.fault).toMatch(/^The temperatures do not settle/);
    expect([stuck.state, stuck.values.hottestC, stuck.values.energyJ! / 3.6e6]).toEqual([null, null, expect.closeTo(74.898, 9)]);
  });
  it('channels that were counted need no rows for their drop', () => {
    const counted = packReport({ ...PACK, rows: null, tubes: 216 }, massOf);
    expect(counted.values.dropPa).toBeCloseTo(report.values.dropPa!, 9);
    expect(packReport({ ...PACK, rows: null }, massOf).values.dropPa).toBeNull();
  });
  it('counts that do not multiply are said beside the figures', () =>
    expect(packReport({ ...PACK, cellsInModule: 340 }, massOf).issues.map((i) => i.field)).toEqual(['cellsInModule']));
});

describe('what else a pack comes to', () => {
  // worked out by hand: cells of one brick in parallel from 32.2 to 36.2 °C whose resistance falls by 0.8 % a kelvin
  it('the warmest cell of a brick carries the most: its share goes by its conductance', () => {
    const uneven = packReport({ ...PACK, cellOhmPerK: -0.008, brickA: 76, cellOhm: 0.03 }, massOf);
    const { cellsC } = uneven.state!;
    const brick = cellsC.slice(0, 2).flat();
    const conductance = brick.map((c) => 1 / (1 - 0.008 * (c - 25)));
    const mean = conductance.reduce((a, b) => a + b, 0) / brick.length;
    expect(uneven.values.unevenCurrent).toBeCloseTo(Math.max(...conductance) / mean - 1, 9);
    expect(uneven.lines.find(({ word }) => word.startsWith('Loss'))).toMatchObject({
      text: '0.12 W',
      formula: '(2.00 A)² × 30.0 mΩ; reckoned with 1.10 W',
    });
    expect(packReport(PACK, massOf).values.unevenCurrent).toBeNull();
  });
  // strip of 20.4 over 2 mm at 0.24 mm a turn: exact spiral 1348.8 mm
  it('the roll of a cell is 1.349 m long', () => {
    const rolled = packReport({ ...PACK, rollOuterM: 0.0204, rollCoreM: 0.002, rollLayerM: 0.00024 }, massOf);
    expect(rolled.values.rollM).toBeCloseTo(1.348790446, 9);
  });
  it('cut finer, the hottest place rises by steps that halve: order 1, towards the limit of a row without pieces', () => {
    const { hottestC, order } = cutFiner(PACK)!;
    expect(order).toBeCloseTo(1, 1);
    // limit of endless pieces: the coolant as it leaves, and a cell over it by heat / contact
    const perRowWPerK = (3e-4 / (18 * 12)) * 1060 * 3400;
    const limit = 25 + (19 * 1.1) / perRowWPerK + 1.1 * 6.5;
    expect(2 * hottestC[2]! - hottestC[1]!).toBeCloseTo(limit, 2);
    expect(cutFiner(TWO)).toBeNull();
  });
  it('energy per volume is over the box of what is counted, and nothing without one', () => {
    const { boundaries, lines } = packReport({ ...PACK, shields: [testId(4)] }, massOf);
    expect(boundaries.map(({ name, whPerL }) => [name, whPerL])).toEqual([
      ['cells', null],
      ['pack', expect.closeTo(74_898 / 300, 6)],
      ['pack with shield', null],
    ]);
    // 15.4 of 446.9 kg; 173.6 less 167.6 Wh/kg
    expect(lines.find(({ word }) => word === 'Added by shield')?.text).toBe('15.40 kg, 3.4 %, 6.0 Wh/kg less');
  });
});

describe('a state of a pack against another', () => {
  it('two passes are nearly even within a brick, cooler at the hottest, at a multiple of the drop', () => {
    const { values: by, sentence } = packDifference(PACK, TWO);
    expect(by.hottestC!).toBeLessThan(-1.5);
    expect(sentence).toMatch(
      /^The hottest cell of “two passes” is at 34\.\d °C instead of 36\.2 °C, 1\.\d+ ± 0\.\d+ K cooler, and the spread within a brick 0\.\d K instead of 4\.0 K, at \d+\.\d times the drop/,
    );
    expect(sentence).toMatch(/% more power if heat goes with the square of power/);
  });
  it('what both share cancels: the difference is surer than either', () => {
    const { us } = packDifference(PACK, TWO);
    expect(us.hottestC).toBeLessThan(packReport(PACK, massOf).us.hottestC / 3);
  });
  it('another pack shares nothing, however alike its figures: their uncertainties add', () => {
    const other = packDifference(PACK, { ...PACK, id: testId(5), partId: testId(6) });
    expect(other.values.hottestC).toBeCloseTo(0, 12);
    expect(other.us.hottestC).toBeCloseTo(Math.SQRT2 * packReport(PACK, massOf).us.hottestC, 6);
  });
  it('an unlike flow does not cancel', () => {
    const more = { ...TWO, flowM3PerS: 3.6e-4 };
    expect(packDifference(PACK, more).us.hottestC).toBeGreaterThan(packDifference(PACK, TWO).us.hottestC);
  });
  it('stands in a table with ±, a sign and nothing where nothing is', () => {
    const rows = figureRows(
      PACK_WORDS,
      packReport(TWO, massOf),
      packReport({ ...PACK, flowM3PerS: null }, massOf),
      packDifference(PACK, TWO),
    );
    expect(rows[0]).toEqual({ word: 'Energy, kWh', now: '74.9', beside: '74.9', change: '0' });
    expect(rows.find((r) => r.word.startsWith('Hottest'))).toMatchObject({
      beside: '–',
      change: expect.stringMatching(/^−1\.\d+ ± 0\.\d+$/) as string,
    });
    expect(rows.at(-1)?.change).toMatch(/^\+/);
  });
  it('swapped it changes sign, against itself it is nothing and says so', () => {
    expect(packDifference(TWO, PACK).values.hottestC).toBeCloseTo(-packDifference(PACK, TWO).values.hottestC!, 9);
    expect(packDifference(PACK, { ...PACK, name: 'the same' }).sentence).toMatch(/not distinguishable/);
  });
});
