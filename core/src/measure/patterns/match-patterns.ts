import { munkres } from 'munkres';
import { bestFit, moved, type Place, type RigidMove } from './best-fit';
import { moveWithin, type Fit } from './move-within';

export interface PointFit {
  /** place of the point in the first pattern */
  readonly from: number;
  /** place of its partner in the second */
  readonly onto: number;
  /** distance left between them, m */
  readonly residualM: number;
  readonly isWithin: boolean;
}

export interface PatternFit {
  readonly move: RigidMove;
  readonly points: readonly PointFit[];
  /** points of the second pattern that have no partner */
  readonly left: readonly number[];
  readonly rmsM: number;
  readonly worstM: number;
  /** every point of the first pattern meets one of the second within the clearance */
  readonly bolts: boolean;
}

/** More points than this on one side are refused: the search grows with their square squared. */
export const MOST_POINTS = 40;
const CANDIDATES = 40;

/**
 * Best rigid fit of one pattern of holes onto another, whose points are not paired beforehand.
 *
 * Every pair of points of the second pattern as far apart as the two farthest of the first gives a move to try, turned about
 * that line by a third point; the best are paired point by point for the least sum of distances, fitted, and paired again
 * until the pairs stay. Fewer points than the other pattern has are allowed: the rest stays without a partner.
 *
 * @param clearanceM how far a point may lie off its partner and still take its bolt
 * @param mayMirror whether the pattern may be mirrored, as the part of the other side
 * @returns null when no two points of one pattern are as far apart as any two of the other
 * @throws RangeError with fewer than two points, or more than 40
 */
export const matchPatterns = (first: readonly Place[], second: readonly Place[], clearanceM: number, mayMirror: boolean): PatternFit => {
  const [from, onto] = [first, second];
  const isFlat = [...from, ...onto].every((p) => p[2] === 0);
  const fit: Fit = (a, b, weights = a.map(() => 1)) =>
    isFlat ? bestFit(standing(a), standing(b), mayMirror, [...weights, ...weights]) : bestFit(a, b, mayMirror, weights);
  if (from.length < 2 || onto.length < 2) throw new RangeError('a pattern needs two points at least');
  if (from.length > MOST_POINTS || onto.length > MOST_POINTS) throw new RangeError(`at most ${MOST_POINTS} points are fitted`);
  const fits = startsOf(from, onto, fit).map((start) => settled(from, onto, start, clearanceM, fit));
  const best = fits.reduce((a, b) => (better(b, a) ? b : a));
  if (best.points.every((p) => p.isWithin)) return best;
  const pairs = best.points.map((p): readonly [number, number] => [p.from, p.onto]);
  const move = moveWithin(
    pairs.map(([a, b]) => ({ from: from[a]!, onto: onto[b]! })),
    clearanceM,
    fit,
  );
  return move === null ? best : judged(from, onto, pairs, move, clearanceM);
};

/** Points in one plane, each with one above it: turning the plane over is then a mirroring, as it is for a part that is seen from one side. */
const standing = (points: readonly Place[]): readonly Place[] => {
  const size = Math.max(...points.map((p) => apart(p, points[0]!)), 1e-6);
  return [...points, ...points.map(([x, y, z]): Place => [x, y, z + size])];
};

const better = (a: PatternFit, b: PatternFit): boolean =>
  a.points.length !== b.points.length ? a.points.length > b.points.length : a.rmsM < b.rmsM * (1 - 1e-9);

const apart = (a: Place, b: Place): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Moves that lay three points of the first onto three of the second, those that fit best first. */
const startsOf = (from: readonly Place[], onto: readonly Place[], fit: Fit): readonly RigidMove[] => {
  const [i, j] = farthestPair(from);
  const k = from.length < 3 ? -1 : offLine(from, i, j);
  const wanted = k < 0 ? [i, j] : [i, j, k];
  const tries: { readonly places: readonly number[]; readonly misfit: number }[] = [];
  for (let p = 0; p < onto.length; p++)
    for (let q = 0; q < onto.length; q++) {
      if (p === q) continue;
      const thirds = k < 0 ? [-1] : onto.flatMap((_, r) => (r === p || r === q ? [] : [r]));
      for (const r of thirds) {
        const places = r < 0 ? [p, q] : [p, q, r];
        const misfit = wanted.reduce(
          (sum, a, m) =>
            sum +
            wanted
              .slice(m + 1)
              .reduce((s, b, n) => s + Math.abs(apart(from[a]!, from[b]!) - apart(onto[places[m]!]!, onto[places[m + 1 + n]!]!)), 0),
          0,
        );
        tries.push({ places, misfit });
      }
    }
  const corners = wanted.map((a) => from[a]!);
  return tries
    .sort((a, b) => a.misfit - b.misfit)
    .slice(0, CANDIDATES)
    .map(({ places }) =>
      fit(
        corners,
        places.map((b) => onto[b]!),
      ),
    );
};

const farthestPair = (points: readonly Place[]): readonly [number, number] => {
  let best: readonly [number, number] = [0, 1];
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++)
      if (apart(points[i]!, points[j]!) > apart(points[best[0]]!, points[best[1]]!)) best = [i, j];
  return best;
};

/** The point farthest from the line through two others. */
const offLine = (points: readonly Place[], i: number, j: number): number => {
  const area = (k: number): number => {
    const [a, b, c] = [apart(points[i]!, points[j]!), apart(points[i]!, points[k]!), apart(points[j]!, points[k]!)];
    const s = (a + b + c) / 2;
    return Math.max(0, s * (s - a) * (s - b) * (s - c));
  };
  return points.reduce((best, _, k) => (k === i || k === j ? best : best < 0 || area(k) > area(best) ? k : best), -1);
};

const ROUNDS = 8;

const settled = (from: readonly Place[], onto: readonly Place[], start: RigidMove, clearanceM: number, fit: Fit): PatternFit => {
  let move = start;
  let pairs = paired(from, onto, move);
  for (let round = 0; round < ROUNDS; round++) {
    move = fit(
      pairs.map(([a]) => from[a]!),
      pairs.map(([, b]) => onto[b]!),
    );
    const next = paired(from, onto, move);
    if (next.every(([a, b], i) => pairs[i]![0] === a && pairs[i]![1] === b)) break;
    pairs = next;
  }
  return judged(from, onto, pairs, move, clearanceM);
};

const judged = (
  from: readonly Place[],
  onto: readonly Place[],
  pairs: readonly (readonly [number, number])[],
  move: RigidMove,
  clearanceM: number,
): PatternFit => {
  const points = pairs.map(([a, b]): PointFit => {
    const residualM = apart(moved(move, from[a]!), onto[b]!);
    return { from: a, onto: b, residualM, isWithin: residualM <= clearanceM };
  });
  const used = new Set(points.map((p) => p.onto));
  return {
    move,
    points,
    left: onto.flatMap((_, i) => (used.has(i) ? [] : [i])),
    rmsM: Math.sqrt(points.reduce((sum, p) => sum + p.residualM ** 2, 0) / points.length),
    worstM: Math.max(...points.map((p) => p.residualM)),
    bolts: points.length === from.length && points.every((p) => p.isWithin),
  };
};

/** Partners with the least sum of squared distances. */
const paired = (from: readonly Place[], onto: readonly Place[], move: RigidMove): readonly (readonly [number, number])[] => {
  const costs = from.map((p) => {
    const at = moved(move, p);
    return onto.map((q) => apart(at, q) ** 2);
  });
  return munkres(costs).map(([a, b]) => [a, b] as const);
};
