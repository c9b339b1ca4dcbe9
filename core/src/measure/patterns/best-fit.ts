import { Matrix, SVD } from 'ml-matrix';

export type Place = readonly [number, number, number];

/** A rigid move: first turned (and mirrored, when `isMirrored`), then shifted. */
export interface RigidMove {
  readonly rows: readonly [Place, Place, Place];
  readonly shift: Place;
  readonly isMirrored: boolean;
}

export const moved = ({ rows, shift }: RigidMove, p: Place): Place =>
  rows.map((row, i) => row[0] * p[0] + row[1] * p[1] + row[2] * p[2] + shift[i]!) as unknown as Place;

/**
 * The rigid move of points onto others, pair by pair, with least squares of the distances.
 *
 *   H = Σ wᵢ (aᵢ − ā)(bᵢ − b̄)ᵀ = U S Vᵀ     R = V diag(1, 1, ±1) Uᵀ     t = b̄ − R ā
 *
 * @param mayMirror whether a mirrored fit is allowed; the better of the two is taken
 * @param weights of the pairs, above 0 in sum; all the same unless given
 * @throws RangeError when the points are not as many on both sides, or none
 * @source W. Kabsch (1976); K. Arun, T. Huang, S. Blostein (1987)
 */
export const bestFit = (
  from: readonly Place[],
  onto: readonly Place[],
  mayMirror: boolean,
  weights: readonly number[] = from.map(() => 1),
): RigidMove => {
  if (from.length !== onto.length || from.length === 0) throw new RangeError('a fit needs as many points on both sides, one at least');
  const [a, b] = [middleOf(from, weights), middleOf(onto, weights)];
  const h = Matrix.zeros(3, 3);
  for (const [i, p] of from.entries())
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) h.set(r, c, h.get(r, c) + weights[i]! * (p[r]! - a[r]!) * (onto[i]![c]! - b[c]!));
  const svd = new SVD(h);
  const [u, v] = [svd.leftSingularVectors, svd.rightSingularVectors];
  const straight = v.mmul(u.transpose());
  const isTurned = determinant(straight) > 0;
  // points in one plane fit mirrored exactly as well as straight; straight is then what is meant
  const isFlat = svd.diagonal[2]! <= 1e-12 * (svd.diagonal[0] ?? 0);
  const isMirrored = mayMirror && !isTurned && !isFlat;
  const flip = !isTurned && !isMirrored ? v.mmul(Matrix.diag([1, 1, -1])).mmul(u.transpose()) : straight;
  const rows = flip.to2DArray() as unknown as RigidMove['rows'];
  const shift = b.map((x, i) => x - (rows[i]![0] * a[0] + rows[i]![1] * a[1] + rows[i]![2] * a[2])) as unknown as Place;
  return { rows, shift, isMirrored };
};

const middleOf = (points: readonly Place[], weights: readonly number[]): Place => {
  const all = weights.reduce((sum, w) => sum + w, 0);
  return [0, 1, 2].map((i) => points.reduce((sum, p, k) => sum + weights[k]! * p[i]!, 0) / all) as unknown as Place;
};

const determinant = (m: Matrix): number => {
  const [[a, b, c], [d, e, f], [g, h, i]] = m.to2DArray() as [[number, number, number], [number, number, number], [number, number, number]];
  return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
};
