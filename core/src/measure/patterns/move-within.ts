import { moved, type Place, type RigidMove } from './best-fit';

/** A fit of points onto others, pair by pair, in which some may weigh more. */
export type Fit = (from: readonly Place[], onto: readonly Place[], weights?: readonly number[]) => RigidMove;

export interface PlacePair {
  readonly from: Place;
  readonly onto: Place;
}

const ROUNDS = 40;
/** of many points only the worst are tried without */
const TRIED = 6;

/**
 * The move that brings as many pairs as it can within a clearance, and at least half of them and three; null when none does.
 *
 * Least squares shares one hole that is out of place among all. Here the largest distance is made smallest; while that is
 * more than the clearance, the pair without which the others come nearest is left out. The search leaves out one pair at
 * a time and is not proved to leave out the fewest.
 */
export const moveWithin = (pairs: readonly PlacePair[], clearanceM: number, fit: Fit): RigidMove | null => {
  const least = Math.max(Math.min(3, pairs.length), Math.ceil(pairs.length / 2));
  for (let held = pairs; held.length >= least;) {
    const { move, distances, worstM } = nearest(held, clearanceM, fit);
    if (worstM <= clearanceM) return move;
    const from = [...held.keys()].sort((a, b) => distances[b]! - distances[a]!).slice(0, TRIED);
    const tries = from
      .map((out) => held.filter((_, i) => i !== out))
      .map((rest) => ({ rest, worst: nearest(rest, clearanceM, fit).worstM }));
    held = tries.reduce((a, b) => (b.worst < a.worst ? b : a)).rest;
  }
  return null;
};

interface Nearest {
  readonly move: RigidMove;
  readonly distances: readonly number[];
  readonly worstM: number;
}

/**
 * The move whose largest distance is smallest, or the first found that keeps all within the clearance.
 *
 * @source C. Lawson (1961): each round weighs a pair by what it was off in the last
 */
const nearest = (pairs: readonly PlacePair[], clearanceM: number, fit: Fit): Nearest => {
  const [from, onto] = [pairs.map((p) => p.from), pairs.map((p) => p.onto)];
  let weights: readonly number[] = pairs.map(() => 1 / pairs.length);
  let best: Nearest | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const move = fit(from, onto, weights);
    const distances = from.map((p, i) => {
      const [at, to] = [moved(move, p), onto[i]!];
      return Math.hypot(at[0] - to[0], at[1] - to[1], at[2] - to[2]);
    });
    const worstM = Math.max(...distances);
    if (best === null || worstM < best.worstM) best = { move, distances, worstM };
    if (worstM <= clearanceM) break;
    const sum = distances.reduce((total, d, i) => total + d * weights[i]!, 0);
    weights = weights.map((w, i) => (w * distances[i]!) / sum);
  }
  return best!;
};
