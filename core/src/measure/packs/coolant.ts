import type { BrickLay, CoolantWay } from '../../record';

// A row of cells along a tube, the rows side by side: cells of one temperature, coolant that takes heat as it passes, heat that
// goes from cell to cell. Steady state.

/** What is cooled: one module, or as much of a pack as is alike. SI. */
export interface CoolantCase {
  readonly way: CoolantWay;
  /** rows, each along a tube of its own */
  readonly rows: number;
  /** cells along each row */
  readonly cellsPerRow: number;
  /** heat of each cell, W; of all alike, or of each by row and place */
  readonly heatPerCellW: number | readonly (readonly number[])[];
  /** from a cell to the coolant through contact and wall, all passes together, W/K */
  readonly cellToCoolantWPerK: number;
  /** between neighbours along and across, through what lies between them and for a plate through it, W/K */
  readonly cellToCellWPerK: number;
  /** mass flow of one tube × heat capacity of the coolant, W/K */
  readonly flowWPerK: number;
  /** coolant as it comes in, °C */
  readonly inletC: number;
}

export interface CoolantState {
  /** °C by row and place along it */
  readonly cellsC: readonly (readonly number[])[];
  /** coolant as it leaves each row, °C */
  readonly outletC: readonly number[];
  readonly hottestC: number;
  readonly coldestC: number;
  /** heat in less heat carried off, over the heat in */
  readonly imbalance: number;
  readonly rounds: number;
}

type Block = Float64Array;

/** Solves the 3 × 3 system `m x = r` for several right sides at once, in place; r holds them column by column. */
const solve3 = (m: Block, r: Float64Array): void => {
  const columns = r.length / 3;
  for (let p = 0; p < 3; p += 1) {
    let best = p;
    for (let i = p + 1; i < 3; i += 1) if (Math.abs(m[i * 3 + p]!) > Math.abs(m[best * 3 + p]!)) best = i;
    if (best !== p) {
      for (let j = 0; j < 3; j += 1) [m[p * 3 + j], m[best * 3 + j]] = [m[best * 3 + j]!, m[p * 3 + j]!];
      for (let c = 0; c < columns; c += 1) [r[c * 3 + p], r[c * 3 + best]] = [r[c * 3 + best]!, r[c * 3 + p]!];
    }
    for (let i = p + 1; i < 3; i += 1) {
      const by = m[i * 3 + p]! / m[p * 3 + p]!;
      if (by === 0) continue;
      for (let j = p; j < 3; j += 1) m[i * 3 + j]! -= by * m[p * 3 + j]!;
      for (let c = 0; c < columns; c += 1) r[c * 3 + i]! -= by * r[c * 3 + p]!;
    }
  }
  for (let c = 0; c < columns; c += 1)
    for (let i = 2; i >= 0; i -= 1) {
      let sum = r[c * 3 + i]!;
      for (let j = i + 1; j < 3; j += 1) sum -= m[i * 3 + j]! * r[c * 3 + j]!;
      r[c * 3 + i] = sum / m[i * 3 + i]!;
    }
};

interface Row {
  readonly cells: Float64Array;
  outletC: number;
}

/** What a row comes to whatever its heat: by place, the inverse of its block after elimination, and what the next unknowns are multiplied by. */
interface Factored {
  readonly inverse: Float64Array;
  readonly upper: Float64Array;
}

/**
 * Unknowns of place i of a row are its cell T, the coolant behind it on the way there b and on the way back c. A cell gives
 * m c (1 − exp(−UA/(m c))) (T − coolant before it) to each pass. Block-tridiagonal, eliminated without iteration.
 */
const factorRow = (k: CoolantCase, take: number, besideWPerK: number): Factored => {
  const n = k.cellsPerRow;
  const [back, through, perK, along] = [k.way === 'two passes', 1 - take, k.flowWPerK * take, k.cellToCellWPerK];
  const [inverse, upper] = [new Float64Array(n * 9), new Float64Array(n * 9)];
  const m = new Float64Array(9);
  for (let i = 0; i < n; i += 1) {
    const both = (i > 0 ? along : 0) + (i < n - 1 ? along : 0);
    m.set([perK * (back ? 2 : 1) + both + besideWPerK, 0, 0, -take, 1, 0, back ? -take : 0, 0, 1]);
    if (i === n - 1 && back) {
      // the turn: what comes back is what went there
      m[1]! -= perK;
      m[7]! -= through;
    }
    if (i > 0)
      // lower block: T by conduction and by the coolant handed on, b by the coolant handed on
      for (let j = 0; j < 3; j += 1) {
        const [ut, ub] = [upper[(i - 1) * 9 + j * 3]!, upper[(i - 1) * 9 + j * 3 + 1]!];
        m[j]! += along * ut + perK * ub;
        m[3 + j]! += through * ub;
      }
    const r = new Float64Array([1, 0, 0, 0, 1, 0, 0, 0, 1]);
    solve3(m, r);
    inverse.set(r, i * 9);
    if (i === n - 1) break;
    // next block: T of the next cell, and on the way back the coolant that comes from it; column by column
    for (let u = 0; u < 3; u += 1) {
      upper[i * 9 + u] = -along * r[u]!;
      upper[i * 9 + 6 + u] = back ? -perK * r[u]! - through * r[6 + u]! : 0;
    }
  }
  return { inverse, upper };
};

/** One row with its neighbours held: forth and back through what was eliminated; `work` holds 3 numbers a place. */
const solveRow = (
  k: CoolantCase,
  take: number,
  { inverse, upper }: Factored,
  sourceW: Float64Array,
  row: Row,
  work: Float64Array,
): void => {
  const n = k.cellsPerRow;
  const [through, perK, along] = [1 - take, k.flowWPerK * take, k.cellToCellWPerK];
  let [t, b, c] = [0, k.inletC, 0];
  for (let i = 0; i < n; i += 1) {
    const [r0, r1] = [sourceW[i]! + (i > 0 ? along * t : 0) + perK * b, through * b];
    const at = i * 9;
    t = inverse[at]! * r0 + inverse[at + 3]! * r1;
    b = inverse[at + 1]! * r0 + inverse[at + 4]! * r1;
    c = inverse[at + 2]! * r0 + inverse[at + 5]! * r1;
    work[i * 3] = t;
    work[i * 3 + 1] = b;
    work[i * 3 + 2] = c;
  }
  row.cells[n - 1] = t;
  row.outletC = b;
  for (let i = n - 2; i >= 0; i -= 1) {
    const at = i * 9;
    const nextT = t;
    const nextC = c;
    t = work[i * 3]! - upper[at]! * nextT - upper[at + 6]! * nextC;
    c = work[i * 3 + 2]! - upper[at + 2]! * nextT - upper[at + 8]! * nextC;
    row.cells[i] = t;
  }
  if (k.way === 'two passes') row.outletC = c;
};

/** Heat in and heat carried off may be this far apart, of the heat in. */
const MOST_IMBALANCE = 1e-6;

const LIMITS: readonly (readonly [keyof CoolantCase, string, (x: number) => boolean, string])[] = [
  ['rows', 'Rows', (x) => Number.isInteger(x) && x >= 1, 'a whole number from 1'],
  ['cellsPerRow', 'Cells along a row', (x) => Number.isInteger(x) && x >= 1, 'a whole number from 1'],
  ['cellToCoolantWPerK', 'Cell to coolant', (x) => x > 0 && Number.isFinite(x), 'more than 0 W/K'],
  ['cellToCellWPerK', 'Cell to cell', (x) => x >= 0 && Number.isFinite(x), '0 W/K or more'],
  ['flowWPerK', 'Flow', (x) => x > 0 && Number.isFinite(x), 'more than 0: without flow nothing carries the heat off'],
  ['inletC', 'Coolant in', (x) => x > -273.15 && Number.isFinite(x), 'a temperature in °C'],
];

const UNSETTLED = 'The temperatures do not settle: cell to cell is too large against cell to coolant';
const MOST_ROUNDS = 20_000;
/** Temperatures that change by less than this from one round to the next stand. */
const STANDS_K = 1e-10;

/**
 * Temperatures of all cells in the steady state. Rows are solved whole, one after the other with their neighbours held, until
 * nothing changes; heat in and heat carried off are compared.
 *
 * @returns °C of every cell and of the coolant that leaves each row
 * @throws RangeError when a number cannot be, its message names it; when the temperatures do not settle or the heat does not balance
 * @source energy balance of each cell and each stretch of coolant; effectiveness of an isothermal wall 1 − exp(−NTU),
 * Incropera, Fundamentals of Heat and Mass Transfer, chapter 8 (constant surface temperature), from memory
 */
export const coolCells = (k: CoolantCase): CoolantState => {
  for (const [key, label, holds, must] of LIMITS) {
    if (!holds(k[key] as number)) throw new RangeError(`${label} must be ${must}`);
  }
  const heat = (row: number, place: number): number =>
    typeof k.heatPerCellW === 'number' ? k.heatPerCellW : (k.heatPerCellW[row]?.[place] ?? 0);
  const passes = k.way === 'two passes' ? 2 : 1;
  const take = 1 - Math.exp(-k.cellToCoolantWPerK / passes / k.flowWPerK);
  const rows = Array.from({ length: k.rows }, (): Row => ({ cells: new Float64Array(k.cellsPerRow).fill(k.inletC), outletC: k.inletC }));
  const [source, work] = [new Float64Array(k.cellsPerRow), new Float64Array(3 * k.cellsPerRow)];
  // rows with as many neighbours have the same matrix
  const known: Factored[] = [];
  const factored = (sides: number): Factored => (known[sides] ??= factorRow(k, take, sides * k.cellToCellWPerK));
  const before = new Float64Array(k.cellsPerRow);
  // rows of the same heat are alike: nothing goes from one to the next, and each stands alone
  const isCoupled = k.rows > 1 && k.cellToCellWPerK > 0 && typeof k.heatPerCellW !== 'number';
  let rounds = 0;
  for (let change = Infinity; change > STANDS_K;) {
    rounds += 1;
    if (rounds > MOST_ROUNDS) throw new RangeError(UNSETTLED);
    change = 0;
    for (const [at, row] of rows.entries()) {
      const sides = isCoupled ? [rows[at - 1], rows[at + 1]].filter((side) => side !== undefined) : [];
      for (let i = 0; i < k.cellsPerRow; i += 1) source[i] = heat(at, i);
      for (const side of sides) for (let i = 0; i < k.cellsPerRow; i += 1) source[i]! += k.cellToCellWPerK * side.cells[i]!;
      before.set(row.cells);
      solveRow(k, take, factored(sides.length), source, row, work);
      for (let i = 0; i < k.cellsPerRow; i += 1) change = Math.max(change, Math.abs(row.cells[i]! - before[i]!));
    }
    if (!isCoupled) break;
  }
  let [heatIn, carried, hottestC, coldestC] = [0, 0, -Infinity, Infinity];
  for (const [at, { cells, outletC }] of rows.entries()) {
    carried += k.flowWPerK * (outletC - k.inletC);
    for (const [place, cellC] of cells.entries()) {
      heatIn += heat(at, place);
      [hottestC, coldestC] = [Math.max(hottestC, cellC), Math.min(coldestC, cellC)];
    }
  }
  const imbalance = heatIn === 0 ? 0 : (heatIn - carried) / heatIn;
  if (Math.abs(imbalance) > MOST_IMBALANCE) throw new RangeError(UNSETTLED);
  return {
    cellsC: rows.map(({ cells }) => [...cells]),
    outletC: rows.map((row) => row.outletC),
    hottestC,
    coldestC,
    imbalance,
    rounds,
  };
};

/** The brick of each cell: rows, or places along them, are shared out evenly. */
export const brickOf = (lay: BrickLay, bricks: number, rows: number, cellsPerRow: number, row: number, place: number): number =>
  lay === 'along the tubes' ? Math.floor((row * bricks) / rows) : Math.floor((place * bricks) / cellsPerRow);

/** The largest difference between two cells of one brick, K: a difference, never a temperature. */
export const spreadInBrickK = ({ cellsC }: CoolantState, lay: BrickLay, bricks: number): number => {
  const ends = new Map<number, readonly [number, number]>();
  for (const [row, cells] of cellsC.entries())
    for (const [place, cellC] of cells.entries()) {
      const brick = brickOf(lay, bricks, cellsC.length, cells.length, row, place);
      const [low, high] = ends.get(brick) ?? [Infinity, -Infinity];
      ends.set(brick, [Math.min(low, cellC), Math.max(high, cellC)]);
    }
  return Math.max(...[...ends.values()].map(([low, high]) => high - low));
};

/**
 * How much more power the same hottest cell allows when a layout runs cooler: heat in proportion to power, and heat in
 * proportion to its square (loss in a resistance).
 *
 * @returns ratios of power, 1 where nothing changes; null where a cell is no warmer than the coolant
 */
export const powerAllowed = (
  inletC: number,
  hottestBeforeC: number,
  hottestNowC: number,
): { readonly proportional: number; readonly square: number } | null => {
  if (hottestBeforeC <= inletC || hottestNowC <= inletC) return null;
  const proportional = (hottestBeforeC - inletC) / (hottestNowC - inletC);
  return { proportional, square: Math.sqrt(proportional) };
};

export interface ParallelCell {
  /** resistance at 25 °C, ohm */
  readonly ohmAt25: number;
  /** surroundings of the cell before it warms itself, °C */
  readonly ambientC: number;
}

/**
 * Currents of cells in parallel whose resistance follows their temperature: R = R₂₅ (1 + a (T − 25)), T = ambient + r I² R.
 *
 * @param totalA current of them all, A
 * @param perK a, change of resistance per kelvin; negative where a warmer cell conducts better
 * @param kPerW r, warming of a cell by its own loss, K/W
 * @returns A and °C of each, in the order given
 * @throws RangeError when it runs away: no steady state is found
 */
export const parallelCurrents = (
  cells: readonly ParallelCell[],
  totalA: number,
  perK: number,
  kPerW: number,
): readonly { readonly currentA: number; readonly cellC: number }[] => {
  let temperatures = cells.map((c) => c.ambientC);
  for (let round = 0; round < 10_000; round += 1) {
    const ohms = cells.map((c, i) => c.ohmAt25 * (1 + perK * (temperatures[i]! - 25)));
    if (ohms.some((ohm) => ohm <= 0)) throw new RangeError('A resistance falls to nothing: the change per kelvin holds near 25 °C only');
    const conductance = ohms.reduce((sum, ohm) => sum + 1 / ohm, 0);
    const currents = ohms.map((ohm) => totalA / ohm / conductance);
    const next = cells.map((c, i) => c.ambientC + kPerW * currents[i]! ** 2 * ohms[i]!);
    const change = Math.max(...next.map((t, i) => Math.abs(t - temperatures[i]!)));
    temperatures = next;
    if (change < 1e-12) return currents.map((currentA, i) => ({ currentA, cellC: next[i]! }));
  }
  throw new RangeError('The cells run away: they warm faster than they settle');
};
