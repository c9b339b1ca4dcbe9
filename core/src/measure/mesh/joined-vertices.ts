import type { Mesh } from './mesh';
import { weld } from './weld';

/** The mesh with vertices at exactly the same place made one, and those that no triangle uses left out. */
export const joinedVertices = (positions: Float64Array, triangles: Uint32Array): Mesh => {
  const corners = new Float64Array(3 * triangles.length);
  for (let at = 0; at < triangles.length; at++) for (let i = 0; i < 3; i++) corners[3 * at + i] = positions[3 * triangles[at]! + i]!;
  return weld(corners);
};
