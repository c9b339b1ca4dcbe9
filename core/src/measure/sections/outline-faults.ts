import type { Loop, Point } from './loop-figures';
import { loopArea } from './loop-figures';

type Edge = readonly [Point, Point];

const turn = (a: Point, b: Point, c: Point): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
const between = (p: Point, a: Point, b: Point): boolean =>
  Math.min(a[0], b[0]) <= p[0] && p[0] <= Math.max(a[0], b[0]) && Math.min(a[1], b[1]) <= p[1] && p[1] <= Math.max(a[1], b[1]);

/** Do two edges have a point in common? */
const meet = ([a, b]: Edge, [c, d]: Edge): boolean => {
  const [p, q, r, s] = [turn(c, d, a), turn(c, d, b), turn(a, b, c), turn(a, b, d)];
  if (((p > 0 && q < 0) || (p < 0 && q > 0)) && ((r > 0 && s < 0) || (r < 0 && s > 0))) return true;
  return (p === 0 && between(a, c, d)) || (q === 0 && between(b, c, d)) || (r === 0 && between(c, a, b)) || (s === 0 && between(d, a, b));
};

const mmText = (p: Point): string => p.map((x) => String(Number((x * 1000).toFixed(2)))).join(' ');

/** Points nearer to each other than this are one, m: a cut of a scan may come to one corner twice. */
const ONE_PLACE_M = 1e-9;

/** Loops without points that repeat the one before. */
export const withoutRepeats = (loops: readonly Loop[]): readonly Loop[] =>
  loops.map((loop) =>
    loop.filter((p, i) => {
      const before = loop[(i + loop.length - 1) % loop.length]!;
      return Math.hypot(p[0] - before[0], p[1] - before[1]) > ONE_PLACE_M;
    }),
  );

/**
 * What keeps loops from being the outline of a section, in words, or null: an edge that crosses or touches another, points on
 * one place, or nothing enclosed.
 *
 * @param loops material to the left, in m
 */
export const outlineFault = (loops: readonly Loop[]): string | null => {
  if (loops.length === 0 || loops.some((loop) => loop.length < 3)) return 'An outline needs three points at least';
  const edges = loops.flatMap((loop, of) =>
    loop.map((p, i) => ({ of, i, count: loop.length, edge: [p, loop[(i + 1) % loop.length]!] as const })),
  );
  for (const { edge } of edges)
    if (edge[0][0] === edge[1][0] && edge[0][1] === edge[1][1])
      return `Two points of the outline lie on one place, at ${mmText(edge[0])} mm`;
  // from left to right, each held against those that begin before it ends
  const sorted = edges
    .map((e) => ({ ...e, left: Math.min(e.edge[0][0], e.edge[1][0]), right: Math.max(e.edge[0][0], e.edge[1][0]) }))
    .sort((a, b) => a.left - b.left);
  for (const [k, a] of sorted.entries())
    for (let j = k + 1; j < sorted.length && sorted[j]!.left <= a.right; j++) {
      const b = sorted[j]!;
      const isNext = a.of === b.of && ((a.i + 1) % a.count === b.i || (b.i + 1) % b.count === a.i);
      if (isNext) {
        // neighbours share a corner; folded back onto each other they share more
        const [first, second] = (a.i + 1) % a.count === b.i ? [a.edge, b.edge] : [b.edge, a.edge];
        if (a.count > 2 && turn(first[0], first[1], second[1]) === 0 && between(second[1], first[0], first[1]))
          return `The outline folds back onto itself at ${mmText(first[1])} mm`;
        if (a.count > 2 && turn(first[0], first[1], second[1]) === 0 && between(first[0], first[1], second[1]))
          return `The outline folds back onto itself at ${mmText(first[1])} mm`;
        continue;
      }
      if (meet(a.edge, b.edge)) return `The outline crosses or touches itself near ${mmText(a.edge[0])} and ${mmText(b.edge[0])} mm`;
    }
  if (!(loops.reduce((sum, loop) => sum + loopArea(loop), 0) > 0))
    return 'The outline encloses nothing; material lies to the left of the way round';
  return null;
};
