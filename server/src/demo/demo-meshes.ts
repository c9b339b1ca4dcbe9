import type { Mesh } from '@each-bolt/core/measure';
import { ShapeUtils, Vector2 } from 'three';

/** A box by its near corner and its sides, mm. */
export type Box = readonly [x: number, y: number, z: number, width: number, depth: number, height: number];

/** A round hole through a plate, square to it, mm. */
export type Hole = readonly [x: number, y: number, radius: number];
const SIDES_OF_HOLE = 32;

const FACES = [
  [0, 2, 3, 1],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 4, 6, 2],
  [1, 3, 7, 5],
] as const;

/** Plates that stand against one another, plainly schematic. */
export const boxesMesh = (boxes: readonly Box[]): Mesh => ({
  positions: Float64Array.from(
    boxes.flatMap(([x, y, z, w, d, h]) =>
      Array.from({ length: 8 }, (_, i) => [x + (i & 1 ? w : 0), y + (i & 2 ? d : 0), z + (i & 4 ? h : 0)]).flat(),
    ),
  ),
  triangles: Uint32Array.from(boxes.flatMap((_, n) => FACES.flatMap(([a, b, c, d]) => [a, b, c, a, c, d].map((corner) => 8 * n + corner)))),
});

/** A flat plate with round holes through it. */
export const plateMesh = ([x, y, z, width, depth, height]: Box, holes: readonly Hole[]): Mesh => {
  const rims = holes.map(([cx, cy, r]) =>
    Array.from({ length: SIDES_OF_HOLE }, (_, i) => {
      // clockwise, as a hole is walked round
      const angle = (-2 * Math.PI * i) / SIDES_OF_HOLE;
      return new Vector2(cx + r * Math.cos(angle), cy + r * Math.sin(angle));
    }),
  );
  const edge = [[x, y], [x + width, y], [x + width, y + depth], [x, y + depth]].map(([a, b]) => new Vector2(a, b)); // prettier-ignore
  const outline = [edge, ...rims];
  const points = outline.flat();
  const count = points.length;
  const top = ShapeUtils.triangulateShape(edge, rims).flatMap(([a, b, c]) => [a!, b!, c!]);
  const bottom = top.map((_, i) => count + top[i - (i % 3) + 2 - (i % 3)]!);
  let first = 0;
  const walls = outline.flatMap((line) => {
    const from = first;
    first += line.length;
    return line.flatMap((_, i) => {
      const [a, b] = [from + i, from + ((i + 1) % line.length)];
      return [a, count + a, count + b, a, count + b, b];
    });
  });
  return {
    positions: Float64Array.from([z + height, z].flatMap((level) => points.flatMap((p) => [p.x, p.y, level]))),
    triangles: Uint32Array.from([...top, ...bottom, ...walls]),
  };
};

/** Meshes side by side in one. */
export const together = (meshes: readonly Mesh[]): Mesh => {
  let corners = 0;
  const triangles = meshes.flatMap((mesh) => {
    const from = corners;
    corners += mesh.positions.length / 3;
    return [...mesh.triangles].map((corner) => from + corner);
  });
  return { positions: Float64Array.from(meshes.flatMap((mesh) => [...mesh.positions])), triangles: Uint32Array.from(triangles) };
};

/** Binary STL, as a scanner delivers it. */
export const stlOf = ({ positions, triangles }: Mesh): Buffer => {
  const bytes = Buffer.alloc(84 + (50 * triangles.length) / 3);
  bytes.write('demo scan, binary');
  bytes.writeUInt32LE(triangles.length / 3, 80);
  for (let at = 0; at < triangles.length; at++)
    for (let i = 0; i < 3; i++)
      bytes.writeFloatLE(positions[3 * triangles[at]! + i]!, 84 + 50 * Math.floor(at / 3) + 12 + 12 * (at % 3) + 4 * i);
  return bytes;
};
