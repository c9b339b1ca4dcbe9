import type { Mesh } from './mesh';

/**
 * The same surface in triangles none of whose edges is longer than a limit, so that what is asked at the corners is asked
 * everywhere. The longest edge of a triangle is halved until all are short; both triangles at an edge halve it at the same
 * point, so that no gaps open.
 *
 * @param longest in the unit of the mesh, above 0
 * @param most so many triangles are not gone beyond; the rest stays as it is
 */
export const finely = ({ positions, triangles }: Mesh, longest: number, most = 400_000): Mesh => {
  if (!(longest > 0)) throw new RangeError('the longest edge must be more than 0');
  const places: number[] = [...positions];
  const kept: number[] = [];
  const middles = new Map<string, number>();
  const middleOf = (a: number, b: number): number => {
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const known = middles.get(key);
    if (known !== undefined) return known;
    const made = places.length / 3;
    for (let i = 0; i < 3; i++) places.push((places[3 * a + i]! + places[3 * b + i]!) / 2);
    middles.set(key, made);
    return made;
  };
  const lengthOf = (a: number, b: number): number =>
    Math.hypot(places[3 * a]! - places[3 * b]!, places[3 * a + 1]! - places[3 * b + 1]!, places[3 * a + 2]! - places[3 * b + 2]!);
  const left: (readonly [number, number, number])[] = [];
  for (let at = 0; at < triangles.length; at += 3) left.push([triangles[at]!, triangles[at + 1]!, triangles[at + 2]!]);
  for (let next = left.pop(); next !== undefined; next = left.pop()) {
    const [a, b, c] = next;
    const [ab, bc, ca] = [lengthOf(a, b), lengthOf(b, c), lengthOf(c, a)];
    const size = Math.max(ab, bc, ca);
    if (size <= longest || kept.length / 3 + left.length >= most) kept.push(a, b, c);
    else if (ab === size) left.push([a, middleOf(a, b), c], [middleOf(a, b), b, c]);
    else if (bc === size) left.push([b, middleOf(b, c), a], [middleOf(b, c), c, a]);
    else left.push([c, middleOf(c, a), b], [middleOf(c, a), a, b]);
  }
  return { positions: Float64Array.from(places), triangles: Uint32Array.from(kept) };
};

/** Area that belongs to each vertex: a third of every triangle it is a corner of. */
export const areaOfVertices = ({ positions, triangles }: Mesh): Float64Array => {
  const areas = new Float64Array(positions.length / 3);
  for (let at = 0; at < triangles.length; at += 3) {
    const [a, b, c] = [3 * triangles[at]!, 3 * triangles[at + 1]!, 3 * triangles[at + 2]!];
    const [ux, uy, uz] = [positions[b]! - positions[a]!, positions[b + 1]! - positions[a + 1]!, positions[b + 2]! - positions[a + 2]!];
    const [vx, vy, vz] = [positions[c]! - positions[a]!, positions[c + 1]! - positions[a + 1]!, positions[c + 2]! - positions[a + 2]!];
    const third = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 6;
    for (const corner of [a, b, c]) areas[corner / 3]! += third;
  }
  return areas;
};

/** Root mean square of distances at the vertices over the surface, each weighed by the area that belongs to it. */
export const rmsOverSurface = (mesh: Mesh, distances: Float32Array): number => {
  const areas = areaOfVertices(mesh);
  let [squares, area] = [0, 0];
  areas.forEach((own, vertex) => {
    squares += own * distances[vertex]! ** 2;
    area += own;
  });
  return Math.sqrt(squares / area);
};
