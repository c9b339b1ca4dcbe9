import { munkres } from 'munkres';
import { apart, bestFit, moved, type Freedom, type Place, type RigidMove } from './best-fit';
import { boltSearch } from './bolt-search';
import { moveWithin } from './move-within';

interface PointFit {
  /** place of the point in the first pattern */
  readonly from: number;
  /** place of its partner in the second */
  readonly onto: number;
  /** distance left between them, m */
  readonly residualM: number;
  readonly isWithin: boolean;
}

export interface HoleFit {
  readonly move: RigidMove;
  readonly points: readonly PointFit[];
  /** points of the second pattern that have no partner */
  readonly left: readonly number[];
  readonly rmsM: number;
  readonly worstM: number;
  /** every point of the first pattern meets one of the second within the clearance */
  readonly bolts: boolean;
  /** false where it was not found to bolt on, but not every way of laying it could be tried */
  readonly isProved: boolean;
}

/** More points than this on one side are refused: the search grows with their square squared. */
export const MOST_POINTS = 40;
const CANDIDATES = 40;
/** Pairings looked at closely, those with the least sum of squares first. */
const MOST_PAIRINGS = 6;

/**
 * Does one hole pattern bolt onto another, whose points are not paired beforehand, and how far off is each?
 *
 * Whether some move brings every point within the clearance is decided exactly (see `boltSearch`), and said where it could
 * not be. Where none does, the
 * points are paired for the least sum of distances and as many as can be are brought together. Fewer points than the other
 * pattern has are allowed: the rest stays without a partner. Patterns in one plane (heights within a tenth of the
 * clearance) are turned in it, not over.
 *
 * @param clearanceM how far a point may lie off its partner and still take its bolt
 * @param mayMirror whether the pattern may be mirrored, as the part of the other side; straight is taken where it fits
 * @throws RangeError with fewer than two points, or more than 40
 */
export const matchHoles = (first: readonly Place[], second: readonly Place[], clearanceM: number, mayMirror: boolean): HoleFit => {
  if (first.length < 2 || second.length < 2) throw new RangeError('a pattern needs two points at least');
  if (first.length > MOST_POINTS || second.length > MOST_POINTS) throw new RangeError(`at most ${MOST_POINTS} points are fitted`);
  const isFlat = [first, second].every((points) => heightOf(points) <= clearanceM * FLAT);
  const sides: readonly Freedom[] = [{ isMirrored: false, isFlat }, ...(mayMirror ? [{ isMirrored: true, isFlat }] : [])];
  // straight is what is meant where it fits
  let isProved = true;
  for (const freedom of sides) {
    const { bolted, isWhole } = boltSearch(first, second, clearanceM, freedom);
    if (bolted) return judged(first, second, bolted.pairs, bolted.move, clearanceM);
    isProved &&= isWhole;
  }
  const [straight, mirrored] = sides.map((freedom) => nearestFit(first, second, clearanceM, freedom));
  const fit = mirrored && straight && within(mirrored) > within(straight) ? mirrored : straight!;
  return { ...fit, isProved: isProved || fit.bolts };
};

/** Points whose heights differ by less than this share of the clearance lie in one plane: noise of a measurement is no turn. */
const FLAT = 0.1;
const heightOf = (points: readonly Place[]): number => Math.max(...points.map((p) => p[2])) - Math.min(...points.map((p) => p[2]));
const within = (fit: HoleFit): number => fit.points.filter((p) => p.isWithin).length;

/** Where the patterns do not bolt: the fit that brings most points together, so that what is out of place is named alone. */
const nearestFit = (from: readonly Place[], onto: readonly Place[], clearanceM: number, freedom: Freedom): HoleFit => {
  const fits = new Map<string, HoleFit>();
  for (const start of startsOf(from, onto, freedom)) {
    const fit = settled(from, onto, start, clearanceM, freedom);
    fits.set(fit.points.map((p) => `${p.from} ${p.onto}`).join(), fit);
  }
  const byRms = [...fits.values()].sort((a, b) => a.rmsM - b.rmsM).slice(0, MOST_PAIRINGS);
  let best = byRms[0]!;
  for (const fit of byRms) {
    const together = broughtTogether(from, onto, fit, clearanceM, freedom, fit === best ? 0 : within(best) + 1);
    if (together && (fit === best || within(together) > within(best))) best = together;
  }
  return best;
};

/** The same pairing under the move that brings most of it within the clearance; null where fewer than `least`, or than half of it, come together. */
const broughtTogether = (
  from: readonly Place[],
  onto: readonly Place[],
  fit: HoleFit,
  clearanceM: number,
  freedom: Freedom,
  least: number,
): HoleFit | null => {
  const pairs = fit.points.map((p): readonly [number, number] => [p.from, p.onto]);
  const move = moveWithin(
    pairs.map(([a, b]) => ({ from: from[a]!, onto: onto[b]! })),
    clearanceM,
    freedom,
    least,
  );
  return move === null ? null : judged(from, onto, pairs, move, clearanceM);
};

/** Moves that lay three points of the first onto three of the second, those that fit best first. */
const startsOf = (from: readonly Place[], onto: readonly Place[], freedom: Freedom): readonly RigidMove[] => {
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
      bestFit(
        corners,
        places.map((b) => onto[b]!),
        freedom,
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

const settled = (from: readonly Place[], onto: readonly Place[], start: RigidMove, clearanceM: number, freedom: Freedom): HoleFit => {
  let move = start;
  let pairs = paired(from, onto, move);
  for (let round = 0; round < ROUNDS; round++) {
    move = bestFit(
      pairs.map(([a]) => from[a]!),
      pairs.map(([, b]) => onto[b]!),
      freedom,
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
): HoleFit => {
  const points = pairs.map(([a, b]): PointFit => {
    const residualM = apart(moved(move, from[a]!), onto[b]!);
    return { from: a, onto: b, residualM, isWithin: residualM <= clearanceM * (1 + 1e-9) + 1e-12 };
  });
  const used = new Set(points.map((p) => p.onto));
  return {
    move,
    points,
    left: onto.flatMap((_, i) => (used.has(i) ? [] : [i])),
    rmsM: Math.sqrt(points.reduce((sum, p) => sum + p.residualM ** 2, 0) / points.length),
    worstM: Math.max(...points.map((p) => p.residualM)),
    bolts: points.length === from.length && points.every((p) => p.isWithin),
    isProved: true,
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
