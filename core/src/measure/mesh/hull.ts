import { Vector3 } from 'three';
import { ConvexHull } from 'three/addons/math/ConvexHull.js';
import type { Hull, Vector } from './mesh';
import { outside } from './outside';
import { cross, dot, length, minus, unit } from './vectors';

/** So many directions find corners that are on the hull for certain; what lies inside them need not be looked at again. */
const DIRECTIONS = 160;
/** and so many, where a round shape leaves too many outside */
const MORE_DIRECTIONS = 500;
const MANY = 20_000;
/** of more points than this, a share is enough to begin with */
const ENOUGH = 50_000;

/** The hull of points, and one that is rough where they are very many. */
interface Hulls {
  /** hull of the farthest points in many directions: all that a search for a box needs */
  readonly rough: Hull;
  readonly whole: () => Hull;
}

/**
 * Convex hulls of points, [point × 3].
 *
 * Points inside the hull of the farthest ones in many directions are left out first, which leaves few of a million; the
 * rough hull differs from the whole one only where more than 20 000 are left.
 */
export const hulls = (positions: Float64Array): Hulls => {
  const once = (found: Hull): Hulls => ({ rough: found, whole: () => found });
  const outer = hullOf(pointsAt(positions, farthest(positions, DIRECTIONS)));
  if (outer.faces.length === 0) return once(hullOf(allPoints(positions)));
  const left = outside(positions, outer);
  if (left.length < 3 * MANY) return once(hullOf([...outer.points, ...allPoints(left)]));
  const rough = hullOf([...outer.points, ...pointsAt(left, farthest(left, MORE_DIRECTIONS))]);
  return { rough, whole: () => hullOf([...rough.points, ...farthestByDirection(outside(left, rough), rough)]) };
};

/** More points than this outside the rough hull are thinned out, to bound time and memory. */
const MOST_OUTSIDE = 24_000;

/**
 * Points as they are, or, of very many, in each direction from the middle the farthest: on a grid of directions fine enough
 * that a ball of a million corners keeps its volume to 0.05 %.
 */
const farthestByDirection = (positions: Float64Array, { points }: Hull): readonly Vector[] => {
  if (positions.length / 3 <= MOST_OUTSIDE) return allPoints(positions);
  const middle = [0, 1, 2].map((i) => points.reduce((sum, p) => sum + p[i]! / points.length, 0)) as unknown as Vector;
  const side = Math.floor(Math.sqrt(MOST_OUTSIDE / 6));
  const best = new Int32Array(6 * side * side).fill(-1);
  const far = new Float64Array(best.length);
  for (let at = 0; at < positions.length; at += 3) {
    const d = [positions[at]! - middle[0], positions[at + 1]! - middle[1], positions[at + 2]! - middle[2]];
    const axis = [0, 1, 2].reduce((most, i) => (Math.abs(d[i]!) > Math.abs(d[most]!) ? i : most), 0);
    const size = Math.abs(d[axis]!);
    if (!(size > 0)) continue;
    const [u, v] = [d[(axis + 1) % 3]! / size, d[(axis + 2) % 3]! / size];
    const cell = (x: number): number => Math.min(side - 1, Math.floor(((x + 1) / 2) * side));
    const bin = ((d[axis]! < 0 ? 3 : 0) + axis) * side * side + cell(u) * side + cell(v);
    const distance = Math.hypot(d[0]!, d[1]!, d[2]!);
    if (distance <= far[bin]!) continue;
    far[bin] = distance;
    best[bin] = at / 3;
  }
  return pointsAt(
    positions,
    [...best].filter((place) => place >= 0),
  );
};

/** Convex hull of points, [point × 3]. */
export const hull = (positions: Float64Array): Hull => hulls(positions).whole();

const allPoints = (positions: Float64Array): readonly Vector[] =>
  pointsAt(
    positions,
    Array.from({ length: positions.length / 3 }, (_, i) => i),
  );

const pointsAt = (positions: Float64Array, places: readonly number[]): readonly Vector[] =>
  places.map((i): Vector => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!]);

const hullOf = (given: readonly Vector[]): Hull => {
  const points = [...new Map(given.map((p) => [p.join(), p])).values()];
  const middle = points.reduce<Vector>(
    (sum, p) => [sum[0] + p[0] / points.length, sum[1] + p[1] / points.length, sum[2] + p[2] / points.length],
    [0, 0, 0],
  );
  const found = isSolid(points, middle) ? hullFaces(points) : [];
  let [six, twice] = [0, 0];
  const faces = found.map(([i, j, k]): [number, number, number] => {
    const [a, b, c] = [minus(points[i]!, middle), minus(points[j]!, middle), minus(points[k]!, middle)];
    const normal = cross(minus(b, a), minus(c, a));
    const height = dot(normal, a);
    six += Math.abs(height);
    twice += length(normal);
    return height >= 0 ? [i, j, k] : [i, k, j];
  });
  if (faces.length === 0) return { points, faces, volume: 0, area: 0 };
  const places = [...new Set(faces.flat())];
  const renamed = new Map(places.map((place, i) => [place, i]));
  return {
    points: places.map((place) => points[place]!),
    faces: faces.map(([i, j, k]) => [renamed.get(i)!, renamed.get(j)!, renamed.get(k)!]),
    volume: six / 6,
    area: twice / 2,
  };
};

/** Faces of the hull as places of points. */
const hullFaces = (points: readonly Vector[]): readonly (readonly [number, number, number])[] => {
  const vectors = points.map((p) => new Vector3(...p));
  const placeOf = new Map(vectors.map((v, i) => [v, i]));
  return new ConvexHull().setFromPoints(vectors).faces.map(({ edge }) => {
    const corners = [edge, edge.next, edge.next.next].map((e) => placeOf.get(e.head().point)!);
    return corners as unknown as readonly [number, number, number];
  });
};

/** Thinner than this share of its length is flat. */
const FLAT = 1e-12;

/** Whether four points span a volume. */
const isSolid = (points: readonly Vector[], middle: Vector): boolean => {
  const farthestBy = (measure: (p: Vector) => number): Vector =>
    points.reduce((best, p) => (measure(p) > measure(best) ? p : best), points[0] ?? middle);
  const a = minus(
    farthestBy((p) => length(minus(p, middle))),
    middle,
  );
  const size = length(a);
  if (!(size > 0)) return false;
  const b = cross(
    a,
    minus(
      farthestBy((p) => length(cross(a, minus(p, middle)))),
      middle,
    ),
  );
  const up = unit(b);
  const height = points.reduce((most, p) => Math.max(most, Math.abs(dot(up, minus(p, middle)))), 0);
  return length(b) > FLAT * size * size && height > FLAT * size;
};

/** Directions spread evenly over the sphere. */
const spread = (count: number): readonly Vector[] =>
  Array.from({ length: count }, (_, i): Vector => {
    const z = 1 - (2 * i + 1) / count;
    const turn = i * Math.PI * (3 - Math.sqrt(5));
    const r = Math.sqrt(1 - z * z);
    return [r * Math.cos(turn), r * Math.sin(turn), z];
  });

/** Places of points that lie far out in many directions: the farthest of all, or of enough where they are very many. */
const farthest = (positions: Float64Array, directions: number): readonly number[] => {
  const oneIn = Math.ceil(positions.length / 3 / ENOUGH);
  const ways = Float64Array.from(spread(directions / 2).flat());
  const count = ways.length / 3;
  const [low, high] = [new Float64Array(count).fill(Infinity), new Float64Array(count).fill(-Infinity)];
  const [lowAt, highAt] = [new Uint32Array(count), new Uint32Array(count)];
  const look = (every: number): void => {
    for (let at = 0; at < positions.length; at += 3 * every) {
      const [x, y, z] = [positions[at]!, positions[at + 1]!, positions[at + 2]!];
      for (let way = 0; way < count; way++) {
        const along = x * ways[3 * way]! + y * ways[3 * way + 1]! + z * ways[3 * way + 2]!;
        if (along < low[way]!) {
          low[way] = along;
          lowAt[way] = at / 3;
        }
        if (along > high[way]!) {
          high[way] = along;
          highAt[way] = at / 3;
        }
      }
    }
  };
  // a few from everywhere first: points that lie in order would else be the farthest so far again and again
  look(97 * oneIn);
  look(oneIn);
  return [...new Set([...lowAt, ...highAt])];
};
