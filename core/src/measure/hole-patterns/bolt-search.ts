import { apart, bestFit, moved, type Freedom, type Place, type RigidMove } from './best-fit';
import { nearest } from './move-within';

interface Bolted {
  readonly pairs: readonly (readonly [number, number])[];
  readonly move: RigidMove;
  readonly worstM: number;
}

interface BoltSearch {
  /** the best of what was found, or null */
  readonly bolted: Bolted | null;
  /** every pairing was tried: what was not found does not exist */
  readonly isWhole: boolean;
}

/** Most partial pairings looked at before the search gives up; symmetric patterns of forty holes take some thousands. */
const MOST_NODES = 40_000;
/** Most whole pairings fitted; the best of them is taken. */
const MOST_FITTED = 48;
/** what is left of float noise on a distance that is the clearance to the last digit */
const HAIR = 1e-9;

/** The farthest pair first, then each time the point farthest from those taken: distances between them rule out most. */
const spreadOrder = (points: readonly Place[]): readonly number[] => {
  let first: readonly [number, number] = [0, 1];
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++)
      if (apart(points[i]!, points[j]!) > apart(points[first[0]]!, points[first[1]]!)) first = [i, j];
  const order: number[] = [...first];
  while (order.length < points.length) {
    const near = (k: number): number => Math.min(...order.map((o) => apart(points[k]!, points[o]!)));
    const rest = [...points.keys()].filter((k) => !order.includes(k));
    order.push(rest.reduce((best, k) => (near(k) > near(best) ? k : best)));
  }
  return order;
};

/**
 * A move and a pairing that bring every point of the first pattern within the clearance of a point of its own of the
 * second.
 *
 * All pairings are tried, point by point. A pairing is given up as soon as two distances in it differ by more than twice the
 * clearance, or the least-squares fit of what is paired leaves more than the clearance as its root mean square: no move
 * can bring its largest distance below that. So that what is found is proved, and what is not found does not exist,
 * unless the search had to stop (`MOST_NODES`, `MOST_FITTED`): then `isWhole` is false.
 *
 * @param from at least two points
 */
export const boltSearch = (from: readonly Place[], onto: readonly Place[], clearanceM: number, freedom: Freedom): BoltSearch => {
  if (from.length > onto.length) return { bolted: null, isWhole: true };
  const order = spreadOrder(from);
  const mostM = 2 * clearanceM * (1 + HAIR) + HAIR * 1e-3;
  const pairs: (readonly [number, number])[] = [];
  const used = new Set<number>();
  let bolted: Bolted | null = null;
  let [nodes, fitted, isWhole] = [0, 0, true];

  const isPossible = (): boolean => {
    if (pairs.length < 3) return true;
    const [a, b] = [pairs.map(([i]) => from[i]!), pairs.map(([, k]) => onto[k]!)];
    const move = bestFit(a, b, freedom);
    const square = a.reduce((sum, p, i) => sum + apart(moved(move, p), b[i]!) ** 2, 0) / a.length;
    return Math.sqrt(square) <= clearanceM * (1 + HAIR) + HAIR * 1e-3;
  };
  const fit = (): void => {
    fitted += 1;
    const found = nearest(
      pairs.map(([i, k]) => ({ from: from[i]!, onto: onto[k]! })),
      clearanceM,
      freedom,
    );
    if (found.worstM <= clearanceM * (1 + HAIR) + HAIR * 1e-3 && (bolted === null || found.worstM < bolted.worstM))
      bolted = { pairs: [...pairs].sort(([a], [b]) => a - b), move: found.move, worstM: found.worstM };
  };
  const descend = (): void => {
    if (nodes > MOST_NODES || fitted >= MOST_FITTED) {
      isWhole = false;
      return;
    }
    const i = order[pairs.length];
    if (i === undefined) return fit();
    for (let k = 0; k < onto.length; k++) {
      if (used.has(k) || pairs.some(([j, l]) => Math.abs(apart(from[i]!, from[j]!) - apart(onto[k]!, onto[l]!)) > mostM)) continue;
      nodes += 1;
      pairs.push([i, k]);
      used.add(k);
      if (isPossible()) descend();
      used.delete(k);
      pairs.pop();
    }
  };
  descend();
  return { bolted, isWhole };
};
