import type { Mesh } from './mesh';

/** Two thirds full at most: places stay short to find. */
const ROOM = 1.6;

/**
 * Triangles that name each of their corners by place, from corners that were written out one by one. Corners at exactly
 * the same place become one vertex; nothing is moved.
 *
 * @param corners [triangle × 9] x, y, z of the three corners
 */
export const weld = (corners: Float64Array): Mesh => {
  const count = corners.length / 3;
  let size = 16;
  while (size < count * ROOM) size *= 2;
  const places = new Int32Array(size).fill(-1);
  const mask = size - 1;
  // −0 and 0 are one place, and their bits must say so
  const words = new Uint32Array(corners.map((x) => x + 0).buffer);
  const triangles = new Uint32Array(count);
  const first = new Uint32Array(count);
  let vertices = 0;
  for (let corner = 0; corner < count; corner++) {
    const at = 3 * corner;
    let hash = 0x811c9dc5;
    for (let word = 2 * at; word < 2 * at + 6; word++) hash = Math.imul(hash ^ words[word]!, 0x01000193);
    hash ^= hash >>> 15;
    hash = Math.imul(hash, 0x2c1b3c6d);
    hash ^= hash >>> 13;
    let slot = hash & mask;
    for (;;) {
      const known = places[slot]!;
      if (known < 0) {
        places[slot] = vertices;
        first[vertices] = corner;
        triangles[corner] = vertices++;
        break;
      }
      const there = 3 * first[known]!;
      if (corners[there] === corners[at] && corners[there + 1] === corners[at + 1] && corners[there + 2] === corners[at + 2]) {
        triangles[corner] = known;
        break;
      }
      slot = (slot + 1) & mask;
    }
  }
  const positions = new Float64Array(3 * vertices);
  for (let vertex = 0; vertex < vertices; vertex++) {
    const from = 3 * first[vertex]!;
    positions[3 * vertex] = corners[from]!;
    positions[3 * vertex + 1] = corners[from + 1]!;
    positions[3 * vertex + 2] = corners[from + 2]!;
  }
  return { positions, triangles };
};
