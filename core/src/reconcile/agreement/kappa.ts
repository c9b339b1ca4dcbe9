import { sum } from 'd3-array';

/** How far two classes are apart for the weighing of disagreements. */
export type KappaWeights = 'none' | 'linear' | 'quadratic';

export interface Kappa {
  /** 1: as one; 0: as by chance; null where chance alone agrees on everything */
  readonly kappa: number | null;
  /** share of subjects both put into the same class, weighted; 0 … 1 */
  readonly observed: number;
  /** the same expected by chance from the marginals */
  readonly byChance: number;
  /** large-sample standard error; only without weights */
  readonly standardError: number | null;
}

const weightOf = (weights: KappaWeights, i: number, j: number, classes: number): number => {
  if (weights === 'none') return i === j ? 1 : 0;
  const apart = Math.abs(i - j) / (classes - 1);
  return 1 - (weights === 'linear' ? apart : apart ** 2);
};

/**
 * Cohen's kappa of two observers who put the same subjects into classes.
 *
 *   κ = (pₒ − pₑ)/(1 − pₑ)
 *
 * @param table counts: [class of the first][class of the second], square
 * @throws RangeError for a table that is not square or holds nothing
 * @source Cohen 1960 and 1968; standard error: Fleiss, Cohen, Everitt 1969
 * @example
 * kappa([[20, 5], [10, 15]], 'none').kappa // => 0.4
 */
export const kappa = (table: readonly (readonly number[])[], weights: KappaWeights): Kappa => {
  const k = table.length;
  const n = sum(table, (row) => sum(row));
  if (k < 2 || n === 0 || table.some((row) => row.length !== k)) throw new RangeError('a table of agreement is square and holds subjects');
  const p = table.map((row) => row.map((count) => count / n));
  const rows = p.map((row) => sum(row));
  const columns = p.map((_, j) => sum(p, (row) => row[j]!));
  const over = (of: (i: number, j: number) => number): number => sum(p.flatMap((row, i) => row.map((_, j) => of(i, j))));
  const observed = over((i, j) => weightOf(weights, i, j, k) * p[i]![j]!);
  const byChance = over((i, j) => weightOf(weights, i, j, k) * rows[i]! * columns[j]!);
  if (1 - byChance < 1e-12) return { kappa: null, observed, byChance, standardError: null };
  const value = (observed - byChance) / (1 - byChance);
  if (weights !== 'none') return { kappa: value, observed, byChance, standardError: null };
  const onDiagonal = sum(p, (row, i) => row[i]! * (1 - (rows[i]! + columns[i]!) * (1 - value)) ** 2);
  const besides = (1 - value) ** 2 * over((i, j) => (i === j ? 0 : p[i]![j]! * (columns[i]! + rows[j]!) ** 2));
  const rest = (value - byChance * (1 - value)) ** 2;
  return { kappa: value, observed, byChance, standardError: Math.sqrt(Math.max(0, onDiagonal + besides - rest) / n) / (1 - byChance) };
};
