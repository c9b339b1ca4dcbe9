import type { Mesh, Vector } from './mesh';
import { vertexAt } from './mesh';
import { cross, dot, minus, unit } from './vectors';

export interface WallAt {
  /** distance to the other side, in the unit of the mesh */
  readonly thickness: number;
  readonly onto: Vector;
}

/** Nearer than this share of the mesh is the surface itself. */
const ITSELF = 1e-9;

/**
 * Thickness of the wall at a point of the surface: how far straight inwards, against the normal of the triangle, the
 * surface is met again. Null where nothing is met: the mesh is open there, or the triangle looks inwards.
 *
 * @source T. Möller, B. Trumbore, Fast, minimum storage ray/triangle intersection (1997)
 */
export const wallThickness = (mesh: Mesh, triangle: number, from: Vector): WallAt | null => {
  const { triangles, positions } = mesh;
  const corner = (t: number, k: number): Vector => vertexAt(mesh, triangles[3 * t + k]!);
  const [a, b, c] = [corner(triangle, 0), corner(triangle, 1), corner(triangle, 2)];
  const normal = unit(cross(minus(b, a), minus(c, a)));
  const way: Vector = [-normal[0], -normal[1], -normal[2]];
  const size = Math.hypot(...[0, 1, 2].map((i) => Math.abs(positions[i]! - from[i]!)), ...minus(b, a), ...minus(c, a));
  let nearest = Infinity;
  for (let t = 0; t < triangles.length / 3; t++) {
    if (t === triangle) continue;
    const p = corner(t, 0);
    const [e, f] = [minus(corner(t, 1), p), minus(corner(t, 2), p)];
    const q = cross(way, f);
    const det = dot(e, q);
    if (det === 0) continue;
    const s = minus(from, p);
    const u = dot(s, q) / det;
    if (!(u >= 0 && u <= 1)) continue;
    const r = cross(s, e);
    const v = dot(way, r) / det;
    if (!(v >= 0 && u + v <= 1)) continue;
    const far = dot(f, r) / det;
    if (far > ITSELF * size && far < nearest) nearest = far;
  }
  return Number.isFinite(nearest)
    ? { thickness: nearest, onto: [from[0] + way[0] * nearest, from[1] + way[1] * nearest, from[2] + way[2] * nearest] }
    : null;
};
