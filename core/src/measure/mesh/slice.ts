import type { Loop } from '../sections/loop-figures';
import type { Mesh, Vector } from './mesh';
import { across, cross, dot } from './vectors';

/** A plane: the points whose distance along the normal, of length one, is `offset`. */
export interface Plane {
  readonly normal: Vector;
  readonly offset: number;
}

export interface Cut {
  readonly loops: readonly Loop[];
  /** lines that did not close, for the mesh is open there */
  readonly open: readonly Loop[];
  /** directions of the two axes of the cut in space */
  readonly right: Vector;
  readonly up: Vector;
}

/**
 * The lines in which a plane cuts a mesh, chained to loops.
 *
 * Corners exactly in the plane are taken as above it, so that every cut triangle gives one part of line and parts meet
 * at the edges they share.
 */
export const slice = (mesh: Mesh, { normal, offset }: Plane): Cut => {
  const { positions, triangles } = mesh;
  const right = across(normal);
  const up = cross(normal, right);
  const vertices = positions.length / 3;
  const height = new Float64Array(vertices);
  for (let v = 0; v < vertices; v++)
    height[v] = normal[0] * positions[3 * v]! + normal[1] * positions[3 * v + 1]! + normal[2] * positions[3 * v + 2]! - offset;
  const points = new Map<number, readonly [number, number]>();
  const next = new Map<number, number[]>();
  const crossing = (a: number, b: number): number => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const key = low * vertices + high;
    if (!points.has(key)) {
      const share = height[low]! / (height[low]! - height[high]!);
      const at = [0, 1, 2].map((i) => positions[3 * low + i]! + share * (positions[3 * high + i]! - positions[3 * low + i]!));
      points.set(key, [dot(at as unknown as Vector, right), dot(at as unknown as Vector, up)]);
    }
    return key;
  };
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const above = corners.map((v) => height[v]! >= 0);
    if (above[0] === above[1] && above[1] === above[2]) continue;
    // the corner that is alone on its side
    const alone = above[0] === above[1] ? 2 : above[0] === above[2] ? 1 : 0;
    const [a, b, c] = [corners[alone]!, corners[(alone + 1) % 3]!, corners[(alone + 2) % 3]!];
    const [first, second] = [crossing(a, b), crossing(a, c)];
    const [from, to] = above[alone] ? [first, second] : [second, first];
    const there = next.get(from);
    if (there) there.push(to);
    else next.set(from, [to]);
  }
  return { ...chained(next, points), right, up };
};

const chained = (next: Map<number, number[]>, points: ReadonlyMap<number, readonly [number, number]>): Pick<Cut, 'loops' | 'open'> => {
  const loops: Loop[] = [];
  const open: Loop[] = [];
  const arrivals = new Map<number, number>();
  for (const ends of next.values()) for (const end of ends) arrivals.set(end, (arrivals.get(end) ?? 0) + 1);
  // open lines begin where nothing arrives; they are walked first so that no loop starts in their middle
  const starts = [...next.keys()].filter((key) => (arrivals.get(key) ?? 0) < next.get(key)!.length);
  for (const start of [...starts, ...next.keys()])
    while ((next.get(start)?.length ?? 0) > 0) {
      const line: (readonly [number, number])[] = [];
      let at: number | undefined = start;
      do {
        line.push(points.get(at)!);
        at = next.get(at)?.pop();
      } while (at !== undefined && at !== start);
      if (at === start) {
        if (line.length >= 3) loops.push(line);
      } else open.push(line);
    }
  return { loops, open };
};
