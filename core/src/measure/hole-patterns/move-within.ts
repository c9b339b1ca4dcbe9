import { apart, bestFit, moved, type Freedom, type Place, type RigidMove } from './best-fit';

interface PlacePair {
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
    const distances = pairs.map((pair) => offBy(move, pair));
    const worstM = Math.max(...distances);
    boundM = Math.max(boundM, Math.sqrt(distances.reduce((sum, d, i) => sum + weights[i]! * d * d, 0)));
    if (best === null || worstM < best.worstM) best = { move, distances, worstM, boundM };
    const sum = distances.reduce((total, d, i) => total + d * weights[i]!, 0);
    if (boundM > clearanceM * (1 + GAP) || best.worstM <= boundM * (1 + GAP) || !(sum > 0)) break;
    weights = weights.map((w, i) => (w * distances[i]!) / sum);
  }
  return { ...best!, boundM };
};

/** Of sets of pairs that agree, so many are looked at closely. */
const MOST_SETS = 12;
/** Pairs laid on by others of them alone agree when they lie within so many clearances: they were off themselves. */
const LOOSE = 3;
/** Of more pairs than this each third one in space starts a set, so that the sets are some thousands at most. */
const MANY = 24;

/** Sets of pairs that two of them (three in space) bring together, to some clearances; all pairs first, then the larger ones. */
const agreeing = (pairs: readonly PlacePair[], clearanceM: number, freedom: Freedom): readonly (readonly PlacePair[])[] => {
  const sets = new Map<string, readonly PlacePair[]>([[pairs.map((_, i) => i).join(' '), pairs]]);
  const step = !freedom.isFlat && pairs.length > MANY ? 3 : 1;
  const hold = (...corners: readonly PlacePair[]): void => {
    const move = bestFit(
      corners.map((p) => p.from),
      corners.map((p) => p.onto),
      freedom,
    );
    const near = [...pairs.keys()].filter((i) => offBy(move, pairs[i]!) <= LOOSE * clearanceM);
    sets.set(
      near.join(' '),
      near.map((i) => pairs[i]!),
    );
  };
  for (const [i, a] of pairs.entries())
    for (const [j, b] of pairs.entries()) {
      if (j <= i) continue;
      if (freedom.isFlat) hold(a, b);
      else for (let k = j + 1; k < pairs.length; k += step) hold(a, b, pairs[k]!);
    }
  return [...sets.values()].sort((a, b) => b.length - a.length).slice(0, MOST_SETS);
};

const offBy = (move: RigidMove, { from, onto }: PlacePair): number => apart(moved(move, from), onto);

/**
 * The move that brings as many pairs as it can within a clearance, at least half of them, three and `atLeast`; null when none does.
 *
 * Least squares shares one hole that is out of place among all. Here sets of pairs that agree are sought, each laid on by
 * two or three of its own; in each the largest distance is made smallest, and while that is more than the clearance, the
 * pair without which the others come nearest is left out. Not proved to leave out the fewest.
 *
 * @source the search for agreement: M. Fischler, R. Bolles (1981), here with every pair or triple instead of random ones
 */
export const moveWithin = (pairs: readonly PlacePair[], clearanceM: number, freedom: Freedom, atLeast = 0): RigidMove | null => {
  let least = Math.max(Math.min(3, pairs.length), Math.ceil(pairs.length / 2), atLeast);
  if (least > pairs.length) return null;
  let best: RigidMove | null = null;
  for (const set of agreeing(pairs, clearanceM, freedom)) {
    for (let held = set; held.length >= least;) {
      const { move, distances, worstM } = nearest(held, clearanceM, freedom);
      if (worstM <= clearanceM) {
        // from now on only a larger set is better
        [best, least] = [move, held.length + 1];
        break;
      }
      held = withoutWorst(held, distances, clearanceM, freedom);
    }
  }
  return best;
};

/** The pairs but the one without which the others come nearest. */
const withoutWorst = (
  held: readonly PlacePair[],
  distances: readonly number[],
  clearanceM: number,
  freedom: Freedom,
): readonly PlacePair[] => {
  const from = [...held.keys()].sort((a, b) => distances[b]! - distances[a]!).slice(0, TRIED);
  const tries = from
    .map((out) => held.filter((_, i) => i !== out))
    .map((rest) => ({ rest, worst: nearest(rest, clearanceM, freedom).worstM }));
  return tries.reduce((a, b) => (b.worst < a.worst ? b : a)).rest;
};
