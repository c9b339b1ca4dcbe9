import { studentQuantile } from '../../shared';
import type { Depth, Scope, StudyRecord } from '../../record';

/** One subsystem of one vehicle of an earlier study. */
export interface Experience {
  readonly study: string;
  readonly vehicle: string;
  readonly subsystem: string;
  readonly depth: string | null;
  readonly parts: number;
  /** working time of people; null where it is not known */
  readonly peopleS: number | null;
}

/** An expectation and what it rests on. `low` and `high` hold 80 % of single cases; null when one case alone is known. */
export interface Expected {
  readonly value: number;
  readonly low: number | null;
  readonly high: number | null;
  readonly cases: number;
  readonly basis: string;
}

export interface Line {
  readonly cases: number;
  readonly intercept: number;
  readonly slope: number;
  /** standard deviation of single cases about the line; null below three cases */
  readonly residual: number | null;
  readonly meanX: number;
  /** Σ (x − x̄)² */
  readonly sxx: number;
}

/**
 * Straight line by least squares.
 *
 *   slope = Σ (x − x̄)(y − ȳ) / Σ (x − x̄)²      s² = Σ (y − ŷ)² / (n − 2)
 *
 * @returns null below two cases or when all x are the same
 * @source Draper & Smith, Applied Regression Analysis, straight-line fit
 * @example
 * fitLine([[1, 2], [2, 4], [3, 6]])?.slope; // => 2
 */
export const fitLine = (points: readonly (readonly [x: number, y: number])[]): Line | null => {
  const n = points.length;
  if (n < 2) return null;
  const mean = (of: 0 | 1): number => points.reduce((sum, p) => sum + p[of], 0) / n;
  const [meanX, meanY] = [mean(0), mean(1)];
  const sxx = points.reduce((sum, [x]) => sum + (x - meanX) ** 2, 0);
  if (!(sxx > 0)) return null;
  const slope = points.reduce((sum, [x, y]) => sum + (x - meanX) * (y - meanY), 0) / sxx;
  const intercept = meanY - slope * meanX;
  const squares = points.reduce((sum, [x, y]) => sum + (y - intercept - slope * x) ** 2, 0);
  return { cases: n, intercept, slope, residual: n > 2 ? Math.sqrt(squares / (n - 2)) : null, meanX, sxx };
};

/**
 * A single new case on a fitted line, and the stretch that holds a fraction of such cases.
 *
 *   ŷ ± t(n − 2) s √(1 + 1/n + (x − x̄)² / Σ (x − x̄)²)
 *
 * @source Draper & Smith, Applied Regression Analysis, prediction interval
 */
export const predict = (line: Line, x: number, fraction = 0.8): { readonly value: number; readonly half: number | null } => {
  const value = line.intercept + line.slope * x;
  if (line.residual === null) return { value, half: null };
  const t = studentQuantile((1 + fraction) / 2, line.cases - 2);
  return { value, half: t * line.residual * Math.sqrt(1 + 1 / line.cases + (x - line.meanX) ** 2 / line.sxx) };
};

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const spanOf = (value: number, half: number | null, round: (n: number) => number): Pick<Expected, 'value' | 'low' | 'high'> => ({
  value: round(value),
  low: half === null ? null : round(Math.max(0, value - half)),
  high: half === null ? null : round(value + half),
});

const OPENED: readonly (string | null)[] = ['parts', 'cut', null];

/** Parts of earlier subsystems of the same name, opened to the same depth: their mean and how single ones scatter. */
const expectedParts = (subsystem: string, depth: Depth, experience: readonly Experience[]): Expected | null => {
  if (depth === 'closed' || depth === 'module') return null;
  const cases = experience.filter((e) => same(e.subsystem, subsystem) && OPENED.includes(e.depth));
  const n = cases.length;
  if (n === 0) return null;
  const mean = cases.reduce((sum, e) => sum + e.parts, 0) / n;
  const s = n < 2 ? null : Math.sqrt(cases.reduce((sum, e) => sum + (e.parts - mean) ** 2, 0) / (n - 1));
  const half = s === null ? null : studentQuantile(0.9, n - 1) * s * Math.sqrt(1 + 1 / n);
  const where = [...new Set(cases.map((e) => `${e.vehicle} (${e.study})`))].join(', ');
  return { ...spanOf(mean, half, Math.round), cases: n, basis: `“${subsystem}” of ${where}` };
};

/** Working time of people from the parts, by a line through all subsystems whose time is known. */
const expectedTime = (parts: number, experience: readonly Experience[]): Expected | null => {
  const points = experience.flatMap((e): readonly (readonly [number, number])[] => (e.peopleS === null ? [] : [[e.parts, e.peopleS]]));
  const line = fitLine(points);
  if (!line) return null;
  const { value, half } = predict(line, parts);
  if (!(value > 0)) return null;
  return { ...spanOf(value, half, (n) => n), cases: line.cases, basis: `a line through ${line.cases} subsystems of earlier studies` };
};

export interface ScopeExpectation {
  /** what counts: typed by a person, or from earlier studies; null when neither is there */
  readonly parts: number | null;
  readonly peopleS: number | null;
  readonly learntParts: Expected | null;
  readonly learntTime: Expected | null;
}

/** What a subsystem opened to a depth is expected to hold and take. */
export const scopeExpectation = (
  subsystem: string,
  scope: Pick<Scope, 'depth' | 'expectedParts' | 'expectedS'>,
  experience: readonly Experience[],
): ScopeExpectation => {
  const learntParts = expectedParts(subsystem, scope.depth, experience);
  const parts = scope.expectedParts ?? learntParts?.value ?? null;
  const learntTime = parts === null || scope.depth === 'closed' ? null : expectedTime(parts, experience);
  return { parts, peopleS: scope.expectedS ?? learntTime?.value ?? null, learntParts, learntTime };
};

/** Scopes of a vehicle by subsystem. */
export const scopeOf = (record: Pick<StudyRecord, 'scopes'>, vehicleId: string): ReadonlyMap<string, Scope> =>
  new Map(record.scopes.filter((s) => s.vehicleId === vehicleId).map((s) => [s.subsystemId, s]));
