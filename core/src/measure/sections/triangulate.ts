import Delaunator from 'delaunator';
import type { Loop, Point } from './loop-figures';
import { loopArea } from './loop-figures';

/** Triangles over the material of a section. */
export interface SectionMesh {
  /** [corner] x, y */
  readonly points: readonly Point[];
  /** [triangle] three corners, counter-clockwise */
  readonly triangles: readonly (readonly [number, number, number])[];
  /** [corner] the loop it lies on, −1 inside */
  readonly loopOf: readonly number[];
}

const MOST_POINTS = 9000;
const MOST_ROUNDS = 60;
/** Points put in at a time. */
const MOST_ADDED = 1200;
/** Edges are at most this share of the root of the area. */
const COARSEST = 1 / 9;
/** … and at most this share of the mean wall, twice the area over the edges. */
const ACROSS = 0.75;
/** No angle below asin(1/(2·1.25)) = 23.6° unless the outline itself has one. */
const MOST_SKEWED = 1.25;
/** A corner into the material from this angle on, rad: the stress is singular there, and the triangles are small. */
const REENTRANT = (200 * Math.PI) / 180;
/** At such a corner the edges are this share of the mean wall, and grow with the distance. */
const FINEST = 1 / 16;
const GROWTH = 0.4;

const apart = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

interface Segment {
  readonly a: number;
  readonly b: number;
  readonly loop: number;
}

const reentrantCorners = (loops: readonly Loop[]): readonly Point[] =>
  loops.flatMap((loop) =>
    loop.filter((p, i) => {
      const [before, after] = [loop[(i + loop.length - 1) % loop.length]!, loop[(i + 1) % loop.length]!];
      const turn = Math.atan2(
        (p[0] - before[0]) * (after[1] - p[1]) - (p[1] - before[1]) * (after[0] - p[0]),
        (p[0] - before[0]) * (after[0] - p[0]) + (p[1] - before[1]) * (after[1] - p[1]),
      );
      return Math.PI - turn > REENTRANT;
    }),
  );

/** The edge length wanted at a place: coarse in the open, fine at corners into the material. */
const sizeField = (loops: readonly Loop[]): ((p: Point) => number) => {
  const area = loops.reduce((sum, loop) => sum + loopArea(loop), 0);
  const around = loops.reduce((sum, loop) => sum + loop.reduce((s, p, i) => s + apart(p, loop[(i + 1) % loop.length]!), 0), 0);
  const wall = (2 * area) / around;
  const coarsest = Math.min(COARSEST * Math.sqrt(area), ACROSS * wall);
  const finest = FINEST * wall;
  const corners = reentrantCorners(loops);
  return (p) => corners.reduce((least, corner) => Math.min(least, finest + GROWTH * apart(p, corner)), coarsest);
};

const circumcentre = (a: Point, b: Point, c: Point): Point => {
  const [bx, by, cx, cy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  const d = 2 * (bx * cy - by * cx);
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  return [a[0] + (cy * bb - by * cc) / d, a[1] + (bx * cc - cx * bb) / d];
};

/** True when p lies in the circle over the segment. */
const encroaches = (p: Point, a: Point, b: Point): boolean =>
  (a[0] - p[0]) * (b[0] - p[0]) + (a[1] - p[1]) * (b[1] - p[1]) < -1e-12 * ((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2);

interface Round {
  readonly triangles: readonly (readonly [number, number, number])[];
  readonly missing: readonly number[];
}

const key = (a: number, b: number): number => (a < b ? a * 67_108_864 + b : b * 67_108_864 + a);

/** Delaunay triangles inside the outline, and the segments that are no edges of them or have a corner in their circle. */
const delaunay = (points: readonly Point[], segments: readonly Segment[]): Round => {
  const { triangles: t, halfedges } = new Delaunator(Float64Array.from(points.flat()));
  const segmentAt = new Map(segments.map((s, i) => [key(s.a, s.b), i]));
  const seen = new Set<number>();
  const missing = new Set<number>();
  const count = t.length / 3;
  for (let e = 0; e < t.length; e++) {
    const [a, b, apex] = [t[e]!, t[e % 3 === 2 ? e - 2 : e + 1]!, t[e % 3 === 0 ? e + 2 : e - 1]!];
    const at = segmentAt.get(key(a, b));
    if (at === undefined) continue;
    seen.add(at);
    if (encroaches(points[apex]!, points[a]!, points[b]!)) missing.add(at);
  }
  for (let i = 0; i < segments.length; i++) if (!seen.has(i)) missing.add(i);
  // from outside in: crossing a segment changes the side
  const inside = new Int8Array(count).fill(-1);
  const waiting: number[] = [];
  for (let e = 0; e < t.length; e++) {
    if (halfedges[e] !== -1 || inside[Math.floor(e / 3)] !== -1) continue;
    inside[Math.floor(e / 3)] = segmentAt.has(key(t[e]!, t[e % 3 === 2 ? e - 2 : e + 1]!)) ? 1 : 0;
    waiting.push(Math.floor(e / 3));
  }
  for (let tri = waiting.pop(); tri !== undefined; tri = waiting.pop())
    for (let e = 3 * tri; e < 3 * tri + 3; e++) {
      const next = halfedges[e]!;
      if (next < 0) continue;
      const other = Math.floor(next / 3);
      if (inside[other] !== -1) continue;
      const crosses = segmentAt.has(key(t[e]!, t[e % 3 === 2 ? e - 2 : e + 1]!));
      inside[other] = crosses ? 1 - inside[tri]! : inside[tri]!;
      waiting.push(other);
    }
  const triangles: (readonly [number, number, number])[] = [];
  for (let i = 0; i < count; i++) {
    if (inside[i] !== 1) continue;
    const [a, b, c] = [t[3 * i]!, t[3 * i + 1]!, t[3 * i + 2]!];
    const [p, q, r] = [points[a]!, points[b]!, points[c]!];
    const isLeft = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]) > 0;
    triangles.push(isLeft ? [a, b, c] : [a, c, b]);
  }
  return { triangles, missing: [...missing] };
};

interface Circle {
  readonly centre: Point;
  readonly radius: number;
}

/** The circles of triangles that are too large for their place or too skewed. */
const badTriangles = (triangles: SectionMesh['triangles'], points: readonly Point[], sizeAt: (p: Point) => number): Circle[] =>
  triangles.flatMap((corners) => {
    const [a, b, c] = corners.map((i) => points[i]!) as [Point, Point, Point];
    const centre = circumcentre(a, b, c);
    const radius = apart(centre, a);
    const shortest = Math.min(apart(a, b), apart(b, c), apart(c, a));
    const middle: Point = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3];
    return radius > 0.75 * sizeAt(middle) || radius > MOST_SKEWED * shortest ? [{ centre, radius }] : [];
  });

/** Of bad triangles: the segments to halve, and the centres to put in, which must lie apart; the largest first. */
const chosen = (
  bad: Circle[],
  segments: readonly Segment[],
  points: readonly Point[],
): { readonly split: ReadonlySet<number>; readonly added: readonly Circle[] } => {
  const split = new Set<number>();
  const added: Circle[] = [];
  for (const candidate of bad.sort((p, q) => q.radius - p.radius)) {
    const hit = segments.findIndex(({ a, b }) => encroaches(candidate.centre, points[a]!, points[b]!));
    if (hit >= 0) {
      split.add(hit);
      continue;
    }
    if (added.some((other) => apart(other.centre, candidate.centre) < 0.9 * Math.max(other.radius, candidate.radius))) continue;
    added.push(candidate);
    if (added.length > MOST_ADDED) break;
  }
  return { split, added };
};

/**
 * Triangles of good shape over a section: Delaunay refinement. Segments of the outline are halved until each is an edge with
 * no corner in its circle; then the middles of the circles of triangles that are too large or too skewed are put in, or the
 * segment halved whose circle they lie in.
 *
 * @param loops as of a section, not crossing, in any unit
 * @source J. Ruppert (1995), A Delaunay refinement algorithm for quality 2-dimensional mesh generation; here many points at a time
 */
export const triangulate = (loops: readonly Loop[]): SectionMesh => {
  const sizeAt = sizeField(loops);
  const points: Point[] = [];
  const loopOf: number[] = [];
  let segments: Segment[] = [];
  const put = (p: Point, loop: number): number => {
    points.push(p);
    loopOf.push(loop);
    return points.length - 1;
  };
  const halved = (at: ReadonlySet<number>): void => {
    segments = segments.flatMap((s, i) => {
      if (!at.has(i)) return [s];
      const [a, b] = [points[s.a]!, points[s.b]!];
      const middle = put([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], s.loop);
      return [
        { ...s, b: middle },
        { ...s, a: middle },
      ];
    });
  };
  for (const [loop, corners] of loops.entries()) {
    const first = points.length;
    for (const p of corners) put(p, loop);
    corners.forEach((_, i) => segments.push({ a: first + i, b: first + ((i + 1) % corners.length), loop }));
  }
  for (let round = 0; round < 12; round++) {
    const long = segments.flatMap(({ a, b }, i) => {
      const [p, q] = [points[a]!, points[b]!];
      return apart(p, q) > 1.5 * sizeAt([(p[0] + q[0]) / 2, (p[1] + q[1]) / 2]) ? [i] : [];
    });
    if (long.length === 0) break;
    halved(new Set(long));
  }
  let now = delaunay(points, segments);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    if (now.missing.length > 0 && points.length < MOST_POINTS) {
      halved(new Set(now.missing));
      now = delaunay(points, segments);
      continue;
    }
    const bad = badTriangles(now.triangles, points, sizeAt);
    if (bad.length === 0 || points.length > MOST_POINTS) break;
    const { split, added } = chosen(bad, segments, points);
    if (split.size === 0 && added.length === 0) break;
    if (split.size > 0) halved(split);
    for (const { centre } of added) put(centre, -1);
    now = delaunay(points, segments);
  }
  return { points, triangles: now.triangles, loopOf };
};
