import { bestFit, moved, type Freedom, type Place, type RigidMove } from './best-fit';

export interface PlacePair {
  readonly from: Place;
  readonly onto: Place;
}

const ROUNDS = 200;
/** the largest distance is known to be the smallest to this share */
const GAP = 0.002;
/** of many points only the worst are tried without */
const TRIED = 6;

export interface Nearest {
  readonly move: RigidMove;
  readonly distances: readonly number[];
  readonly worstM: number;
  /** no move of this freedom has a smaller largest distance than this */
  readonly boundM: number;
}

/**
 * The move whose largest distance is smallest, or, once it is decided, one that keeps all within the clearance, or the proof
 * that none does.
 *
 *   max dᵢ ≥ √(Σ wᵢ dᵢ²) for weights of sum 1, so that each weighted least-squares fit bounds the smallest maximum from below
 *
 * @source C. Lawson (1961): each round weighs a pair by what it was off in the last
 */
export const nearest = (pairs: readonly PlacePair[], clearanceM: number, freedom: Freedom): Nearest => {
  const [from, onto] = [pairs.map((p) => p.from), pairs.map((p) => p.onto)];
  let weights: readonly number[] = pairs.map(() => 1 / pairs.length);
  let best: Nearest | null = null;
  let boundM = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const move = bestFit(from, onto, freedom, weights);
    const distances = from.map((p, i) => {
      const [at, to] = [moved(move, p), onto[i]!];
      return Math.hypot(at[0] - to[0], at[1] - to[1], at[2] - to[2]);
    });
    const worstM = Math.max(...distances);
    boundM = Math.max(boundM, Math.sqrt(distances.reduce((sum, d, i) => sum + weights[i]! * d * d, 0)));
    if (best === null || worstM < best.worstM) best = { move, distances, worstM, boundM };
    const sum = distances.reduce((total, d, i) => total + d * weights[i]!, 0);
    if (boundM > clearanceM * (1 + GAP) || best.worstM <= boundM * (1 + GAP) || !(sum > 0)) break;
    weights = weights.map((w, i) => (w * distances[i]!) / sum);
  }
  return { ...best!, boundM };
};

/**
 * The move that brings as many pairs as it can within a clearance, and at least half of them and three; null when none does.
 *
 * Least squares shares one hole that is out of place among all. Here the largest distance is made smallest; while that is
 * more than the clearance, the pair without which the others come nearest is left out. The search leaves out one pair at
 * a time and is not proved to leave out the fewest.
 */
export const moveWithin = (pairs: readonly PlacePair[], clearanceM: number, freedom: Freedom): RigidMove | null => {
  const least = Math.max(Math.min(3, pairs.length), Math.ceil(pairs.length / 2));
  for (let held = pairs; held.length >= least;) {
    const { move, distances, worstM } = nearest(held, clearanceM, freedom);
    if (worstM <= clearanceM) return move;
    const from = [...held.keys()].sort((a, b) => distances[b]! - distances[a]!).slice(0, TRIED);
    const tries = from
      .map((out) => held.filter((_, i) => i !== out))
      .map((rest) => ({ rest, worst: nearest(rest, clearanceM, freedom).worstM }));
    held = tries.reduce((a, b) => (b.worst < a.worst ? b : a)).rest;
  }
  return null;
};
