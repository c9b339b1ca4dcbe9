import { Matrix, SVD } from 'ml-matrix';

export type Place = readonly [number, number, number];

/** A rigid move: first turned (and mirrored, when `isMirrored`), then shifted. */
export interface RigidMove {
  readonly rows: readonly [Place, Place, Place];
  readonly shift: Place;
  readonly isMirrored: boolean;
}

/** Where a place, m, comes to lie under a move. */
export const moved = ({ rows, shift }: RigidMove, p: Place): Place =>
  rows.map((row, i) => row[0] * p[0] + row[1] * p[1] + row[2] * p[2] + shift[i]!) as unknown as Place;

/** Distance of two places. */
export const apart = (a: Place, b: Place): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** How a pattern may be moved. */
export interface Freedom {
  /** mirrored, as the part of the other side; else straight */
  readonly isMirrored: boolean;
  /** turned about z only: patterns in one plane, seen from one side, are not turned over */
  readonly isFlat: boolean;
}

/**
 * The rigid move of points onto others, pair by pair, with least squares of the distances: of all moves of the freedom
 * given, the one with the least weighted sum.
 *
 *   H = Σ wᵢ (aᵢ − ā)(bᵢ − b̄)ᵀ = U S Vᵀ     R = V diag(1, 1, ±1) Uᵀ     t = b̄ − R ā
 *   flat: θ = atan2(Σ w (aₓ b_y − a_y bₓ), Σ w (aₓ bₓ + a_y b_y)), with aₓ → −aₓ when mirrored
 *
 * @param weights of the pairs, above 0 in sum; all the same unless given
 * @throws RangeError when the points are not as many on both sides, or none
 * @source W. Kabsch (1976); K. Arun, T. Huang, S. Blostein (1987)
 */
export const bestFit = (
  from: readonly Place[],
  onto: readonly Place[],
  { isMirrored, isFlat }: Freedom,
  weights: readonly number[] = from.map(() => 1),
): RigidMove => {
  if (from.length !== onto.length || from.length === 0) throw new RangeError('a fit needs as many points on both sides, one at least');
  const [a, b] = [middleOf(from, weights), middleOf(onto, weights)];
  const rows = isFlat ? turnedInPlane(from, onto, weights, a, b, isMirrored) : turnedInSpace(from, onto, weights, a, b, isMirrored);
  const shift = b.map((x, i) => x - (rows[i]![0] * a[0] + rows[i]![1] * a[1] + rows[i]![2] * a[2])) as unknown as Place;
  return { rows, shift, isMirrored };
};

type Turn = (
  from: readonly Place[],
  onto: readonly Place[],
  weights: readonly number[],
  a: Place,
  b: Place,
  isMirrored: boolean,
) => RigidMove['rows'];

const turnedInPlane: Turn = (from, onto, weights, a, b, isMirrored) => {
  const side = isMirrored ? -1 : 1;
  let [cross, dot] = [0, 0];
  for (const [i, p] of from.entries()) {
    const [ax, ay, bx, by] = [side * (p[0] - a[0]), p[1] - a[1], onto[i]![0] - b[0], onto[i]![1] - b[1]];
    cross += weights[i]! * (ax * by - ay * bx);
    dot += weights[i]! * (ax * bx + ay * by);
  }
  const length = Math.hypot(cross, dot);
  const [c, s] = length > 0 ? [dot / length, cross / length] : [1, 0];
  return [
    [side * c, -s, 0],
    [side * s, c, 0],
    [0, 0, 1],
  ];
};

const turnedInSpace: Turn = (from, onto, weights, a, b, isMirrored) => {
  const h = Matrix.zeros(3, 3);
  for (const [i, p] of from.entries())
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) h.set(r, c, h.get(r, c) + weights[i]! * (p[r]! - a[r]!) * (onto[i]![c]! - b[c]!));
  const svd = new SVD(h);
  const [u, v] = [svd.leftSingularVectors, svd.rightSingularVectors];
  const straight = v.mmul(u.transpose());
  const isTurned = determinant(straight) > 0;
  const flip = isTurned === isMirrored ? v.mmul(Matrix.diag([1, 1, -1])).mmul(u.transpose()) : straight;
  return flip.to2DArray() as unknown as RigidMove['rows'];
};

const middleOf = (points: readonly Place[], weights: readonly number[]): Place => {
  const all = weights.reduce((sum, w) => sum + w, 0);
  return [0, 1, 2].map((i) => points.reduce((sum, p, k) => sum + weights[k]! * p[i]!, 0) / all) as unknown as Place;
};

const determinant = (m: Matrix): number => {
  const [[a, b, c], [d, e, f], [g, h, i]] = m.to2DArray() as [[number, number, number], [number, number, number], [number, number, number]];
  return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
};
