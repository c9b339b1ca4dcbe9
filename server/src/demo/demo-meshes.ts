import type { Mesh } from '@each-bolt/core/measure';

/** A box by its near corner and its sides, mm. */
export type Box = readonly [x: number, y: number, z: number, width: number, depth: number, height: number];

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
