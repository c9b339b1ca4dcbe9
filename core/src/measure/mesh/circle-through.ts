import type { Vector } from './mesh';
import { add, cross, dot, length, minus, times } from './vectors';

export interface Circle {
  readonly centre: Vector;
  readonly radius: number;
}

/** Flatter than this the three points lie in a line. */
const IN_LINE = 1e-9;

/**
 * The circle through three points of space: the rim of a hole clicked three times. Null when they lie in a line.
 *
 *   c = a + (|v|² (u × v) × u + |u|² v × (u × v)) / (2 |u × v|²),   u = b − a, v = c − a
 *
 * @source circumcentre of a triangle; textbook
 * @example
 * circleThrough([1, 0, 5], [0, 1, 5], [-1, 0, 5])?.centre; // => [0, 0, 5]
 */
export const circleThrough = (a: Vector, b: Vector, c: Vector): Circle | null => {
  const [u, v] = [minus(b, a), minus(c, a)];
  const n = cross(u, v);
  const area = dot(n, n);
  if (!(area > IN_LINE * dot(u, u) * dot(v, v))) return null;
  const out = times(add(times(cross(n, u), dot(v, v)), times(cross(v, n), dot(u, u))), 1 / (2 * area));
  return { centre: add(a, out), radius: length(out) };
};
