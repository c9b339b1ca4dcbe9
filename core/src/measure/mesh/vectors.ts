import type { Vector } from './mesh';

export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Vector, k: number): Vector => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vector, b: Vector): Vector => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
export const length = (a: Vector): number => Math.hypot(a[0], a[1], a[2]);

/** The vector of length one in the same direction; the zero vector stays as it is. */
export const unit = (a: Vector): Vector => {
  const size = length(a);
  return size > 0 ? times(a, 1 / size) : a;
};

/** Any vector of length one at right angles to a. */
export const across = (a: Vector): Vector => {
  const [x, y, z] = a.map(Math.abs) as [number, number, number];
  const least: Vector = x <= y && x <= z ? [1, 0, 0] : y <= z ? [0, 1, 0] : [0, 0, 1];
  return unit(cross(a, least));
};
