import { coolCells, parallelCurrents, powerAllowed, spreadInBrickK, type CoolantCase } from './coolant';

/** Ten cells of 5 W in a row, coolant of 40 W/K from 20 °C. */
const TEN: CoolantCase = {
  way: 'one pass',
  rows: 1,
  cellsPerRow: 10,
  heatPerCellW: 5,
  cellToCoolantWPerK: 2,
  cellToCellWPerK: 0,
  flowWPerK: 40,
  inletC: 20,
};
const ends = (k: CoolantCase): readonly [number, number] => {
  const [row = []] = coolCells(k).cellsC;
  return [row[0]!, row.at(-1)!];
};

// values: linear systems of the same balances solved independently in double precision (NumPy dense solve), 6 decimals
describe('cells along a tube', () => {
  it('one pass: each cell is warmer than the one before by the coolant’s rise over it', () => {
    const [first, last] = ends(TEN);
    expect([first, last, last - first]).toEqual([expect.closeTo(22.563021, 6), expect.closeTo(23.688021, 6), expect.closeTo(1.125, 9)]);
  });
  it('heat from cell to cell draws the ends together, without limit to one temperature', () => {
    const [first, last] = ends({ ...TEN, cellToCellWPerK: 0.5 });
    expect([first, last]).toEqual([expect.closeTo(22.589698, 6), expect.closeTo(23.662906, 6)]);
    for (const end of ends({ ...TEN, cellToCellWPerK: 1e7 })) expect(end).toBeCloseTo(23.176867, 5);
  });
  it('two passes, there and back: nearly even, not quite, for a cell has one temperature', () => {
    const state = coolCells({ ...TEN, way: 'two passes' });
    const cells = state.cellsC[0]!;
    expect([Math.min(...cells), Math.max(...cells)]).toEqual([expect.closeTo(23.132552, 6), expect.closeTo(23.202861, 6)]);
    expect(spreadInBrickK(state, 'along the tubes', 1)).toBeCloseTo(0.070309, 6);
    expect(state.outletC[0]).toBeCloseTo(21.25, 10);
  });
  it('the coolant carries off what goes in: 50 W over 40 W/K is 1.25 K, to a part in 1e10', () => {
    for (const way of ['one pass', 'two passes', 'plate'] as const) {
      const state = coolCells({ ...TEN, way, rows: 4, cellToCellWPerK: 0.7 });
      expect(state.outletC.every((outlet) => Math.abs(outlet - 21.25) < 1e-8)).toBe(true);
      expect(Math.abs(state.imbalance)).toBeLessThan(1e-9);
    }
  });
  it('rows with unlike heat share it, and together it still balances', () => {
    const heat = [Array.from({ length: 10 }, () => 9), Array.from({ length: 10 }, () => 1)];
    const apart = coolCells({ ...TEN, rows: 2, heatPerCellW: heat });
    const joined = coolCells({ ...TEN, rows: 2, heatPerCellW: heat, cellToCellWPerK: 3 });
    const gap = (s: typeof apart): number => s.cellsC[0]![5]! - s.cellsC[1]![5]!;
    expect(gap(joined)).toBeLessThan(gap(apart) / 2);
    expect(Math.abs(joined.imbalance)).toBeLessThan(1e-8);
  });
  it('with flow without limit every cell is above the inlet by its heat over its conductance', () => {
    for (const cell of coolCells({ ...TEN, flowWPerK: 1e9 }).cellsC[0]!) expect(cell).toBeCloseTo(22.5, 6);
  });
  // common practice, no source: half the flow at the same heat is twice the rise of the coolant
  it('half the flow at the same heat is twice the rise', () =>
    expect(coolCells({ ...TEN, flowWPerK: 20 }).outletC[0]! - 20).toBeCloseTo(2 * (coolCells(TEN).outletC[0]! - 20), 9));
  it('a brick across the tubes sees a part of the rise only', () => {
    const state = coolCells({ ...TEN, cellsPerRow: 24, rows: 6 });
    const along = spreadInBrickK(state, 'along the tubes', 3);
    // 24 bricks of one place each: every tube passes all of them, about 4 % of the rise to each
    expect(spreadInBrickK(state, 'across the tubes', 24)).toBeCloseTo(0, 9);
    expect(spreadInBrickK(state, 'across the tubes', 12)).toBeCloseTo(along / 23, 9);
  });
  it('a number that cannot be is refused by name', () => {
    expect(() => coolCells({ ...TEN, flowWPerK: 0 })).toThrow('Flow must be more than 0: without flow nothing carries the heat off');
    expect(() => coolCells({ ...TEN, cellsPerRow: 2.5 })).toThrow('Cells along a row must be a whole number from 1');
    expect(() => coolCells({ ...TEN, cellToCoolantWPerK: NaN })).toThrow('Cell to coolant must be more than 0 W/K');
  });
});

describe('cells in parallel', () => {
  const cells = [0.03, 0.03, 0.033].map((ohmAt25) => ({ ohmAt25, ambientC: 25 }));
  // fixed point found independently in double precision: R₀ 30, 30, 33 mΩ, 30 A, 5 K/W
  it('share 30 A by their resistance at the temperature they reach', () => {
    const shared = parallelCurrents(cells, 30, 0.004, 5);
    expect(shared.map((c) => c.currentA)).toEqual([10.294827, 10.294827, 9.410346].map((a) => expect.closeTo(a, 6) as number));
    expect(shared.map((c) => c.cellC)).toEqual([41.977095, 41.977095, 40.518505].map((t) => expect.closeTo(t, 6) as number));
  });
  it('without a change by temperature by their resistances alone', () =>
    expect(parallelCurrents(cells, 30, 0, 5).map((c) => c.currentA)).toEqual(
      [10.3125, 10.3125, 9.375].map((a) => expect.closeTo(a, 10) as number),
    ));
  it('run away where warming feeds itself: that is said', () =>
    expect(() => parallelCurrents([{ ohmAt25: 0.03, ambientC: 25 }], 300, 0.1, 50)).toThrow(/run away/));
});

describe('what a lower peak allows', () => {
  it('in proportion, or as the root where heat goes with the square: 11.2 K to 9.5 K over the coolant', () => {
    const allowed = powerAllowed(25, 36.2, 34.5)!;
    expect([allowed.proportional, allowed.square]).toEqual([expect.closeTo(1.178947, 6), expect.closeTo(1.085793, 6)]);
  });
  it('says nothing where a cell is no warmer than the coolant', () => expect(powerAllowed(25, 25, 24)).toBeNull());
  it('each cell told its own heat, all the same, comes to what rows that are alike come to: heat goes across and comes back', () => {
    const alike = {
      way: 'plate' as const,
      rows: 5,
      cellsPerRow: 7,
      cellToCoolantWPerK: 1.5,
      cellToCellWPerK: 0.8,
      flowWPerK: 20,
      inletC: 25,
    };
    const [one, each] = [
      coolCells({ ...alike, heatPerCellW: 3 }),
      coolCells({ ...alike, heatPerCellW: Array.from({ length: 5 }, () => Array.from({ length: 7 }, () => 3)) }),
    ];
    expect(each.rounds).toBeGreaterThan(1);
    for (const [row, cells] of one.cellsC.entries())
      for (const [place, cellC] of cells.entries()) expect(each.cellsC[row]![place]).toBeCloseTo(cellC, 7);
  });
});
