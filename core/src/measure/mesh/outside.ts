import type { Hull } from './mesh';
import { cross, dot, minus, unit } from './vectors';

/** Each side of the cube of directions is divided so many times each way: the finer, the more points there are. */
const divided = (points: number): number => Math.max(1, Math.min(12, Math.round(Math.sqrt(points / 400))));

/**
 * Points that lie outside a solid hull, [point × 3].
 *
 * Seen from the middle of the hull each point lies behind one face, the one its ray goes through, and is outside when it
 * lies beyond that. Which faces a ray may go through is listed once for each cell of a cube of directions, so that a
 * point is held against a few faces and not against all.
 *
 * @param by each side of the cube is divided so many times each way
 */
export const outside = (positions: Float64Array, hull: Hull, by = divided(positions.length / 3)): Float64Array => {
  const middle = middleOf(hull);
  const planes = planesOf(hull, middle);
  const cells = facesOfCells(planes, by);
  const [x0, y0, z0] = middle;
  const found: number[] = [];
  for (let at = 0; at < positions.length; at += 3) {
    const [x, y, z] = [positions[at]! - x0, positions[at + 1]! - y0, positions[at + 2]! - z0];
    for (const p of cells[cellOf(x, y, z, by)]!)
      if (planes[p]! * x + planes[p + 1]! * y + planes[p + 2]! * z > planes[p + 3]!) {
        found.push(at);
        break;
      }
  }
  const left = new Float64Array(3 * found.length);
  found.forEach((at, i) => left.set(positions.subarray(at, at + 3), 3 * i));
  return left;
};

const middleOf = ({ points }: Hull): readonly [number, number, number] => {
  const mean = (k: 0 | 1 | 2): number => points.reduce((sum, p) => sum + p[k] / points.length, 0);
  return [mean(0), mean(1), mean(2)];
};

/** Normal and distance from the middle of each face, [face × 4]. */
const planesOf = ({ points, faces }: Hull, middle: readonly [number, number, number]): Float64Array => {
  const planes = new Float64Array(4 * faces.length);
  faces.forEach(([i, j, k], face) => {
    const normal = unit(cross(minus(points[j]!, points[i]!), minus(points[k]!, points[i]!)));
    planes.set([...normal, dot(normal, minus(points[i]!, middle))], 4 * face);
  });
  return planes;
};

/** The cell of a direction: side of the cube, then row and column on it. */
const cellOf = (x: number, y: number, z: number, by: number): number => {
  const [ax, ay, az] = [Math.abs(x), Math.abs(y), Math.abs(z)];
  if (ax >= ay && ax >= az) return ax === 0 ? 0 : placeIn(x > 0 ? 0 : 1, y / ax, z / ax, by);
  if (ay >= az) return placeIn(y > 0 ? 2 : 3, z / ay, x / ay, by);
  return placeIn(z > 0 ? 4 : 5, x / az, y / az, by);
};
const placeIn = (side: number, u: number, v: number, by: number): number => (side * by + slot(u, by)) * by + slot(v, by);
const slot = (u: number, by: number): number => Math.min(by - 1, Math.floor(((u + 1) / 2) * by));

/** as much as rounding may move an end of a cell */
const ROUNDING = 1e-9;

/**
 * Places of the planes that a ray through each cell may meet first.
 *
 * A ray d meets first the plane whose n·d / distance is largest. On a side of the cube that is linear in the two
 * directions u and v along it, so over a cell it is its middle and at most so much more or less; a plane whose most is
 * less than another's least is never first.
 */
const facesOfCells = (planes: Float64Array, by: number): readonly Uint32Array[] =>
  Array.from({ length: 6 * by * by }, (_, cell) => {
    const side = Math.floor(cell / by / by);
    const [u, v] = [Math.floor(cell / by) % by, cell % by].map((place) => (2 * place + 1) / by - 1) as [number, number];
    const axis = side >> 1;
    const [first, second] = [(axis + 1) % 3, (axis + 2) % 3];
    const out = side % 2 === 0 ? 1 : -1;
    const most = new Float64Array(planes.length / 4);
    let surely = -Infinity;
    for (let p = 0; p < planes.length; p += 4) {
      const [alongU, alongV, distance] = [planes[p + first]!, planes[p + second]!, planes[p + 3]!];
      const middle = out * planes[p + axis]! + alongU * u + alongV * v;
      const reach = (Math.abs(alongU) + Math.abs(alongV)) / by;
      most[p / 4] = (middle + reach) / distance;
      surely = Math.max(surely, (middle - reach) / distance);
    }
    const places: number[] = [];
    most.forEach((share, face) => {
      if (share >= surely - ROUNDING * Math.abs(surely)) places.push(4 * face);
    });
    return Uint32Array.from(places);
  });
