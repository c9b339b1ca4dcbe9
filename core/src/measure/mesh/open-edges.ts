import type { Mesh, Vector } from './mesh';
import { vertexAt } from './mesh';
import { add, cross, dot, length, minus, times } from './vectors';

/** One hole in a mesh, closed by a fan about its middle. */
export interface Hole {
  readonly edges: number;
  readonly area: number;
  readonly middle: Vector;
}

interface ClosedVolume {
  /** signed volume with every hole closed flat */
  readonly volume: number;
  /** standard uncertainty from not knowing how the closed surface runs */
  readonly u: number;
  readonly holes: readonly Hole[];
}

/** A patch may bulge by this share of the width of its hole (assumed). */
export const BULGE = 0.1;

/**
 * Volume of a mesh whose holes are closed by flat fans about the middle of each.
 *
 *   V = V(triangles) + Σ patches     u² = Σ (0.1 A √A)²  over the holes, A the area of the patch
 *
 * Without the patches the volume of an open mesh depends on where the origin lies; with them it does not.
 *
 * @param volume signed volume of the triangles alone taken from `origin`
 */
export const closedVolume = (mesh: Mesh, volume: number, origin: Vector): ClosedVolume => {
  const edges = openEdges(mesh);
  if (edges.length === 0) return { volume, u: 0, holes: [] };
  const holes: Hole[] = [];
  let [six, variance] = [0, 0];
  for (const hole of together(edges)) {
    const ends = hole.map(([a, b]) => [minus(vertexAt(mesh, a), origin), minus(vertexAt(mesh, b), origin)] as const);
    const middle = times(
      ends.reduce<Vector>((sum, [a, b]) => add(sum, add(a, b)), [0, 0, 0]),
      0.5 / ends.length,
    );
    let twice = 0;
    for (const [a, b] of ends) {
      // the patch runs against the triangle it closes
      six += dot(b, cross(a, middle));
      twice += length(cross(minus(a, middle), minus(b, middle)));
    }
    const area = twice / 2;
    variance += (BULGE * area * Math.sqrt(area)) ** 2;
    holes.push({ edges: hole.length, area, middle: add(middle, origin) });
  }
  return { volume: volume + six / 6, u: Math.sqrt(variance), holes: holes.sort((a, b) => b.area - a.area) };
};

type Edge = readonly [number, number];

/** Edges that one triangle alone runs along, in its direction. */
const openEdges = ({ triangles, positions }: Mesh): readonly Edge[] => {
  const vertices = positions.length / 3;
  const balance = new Map<number, number>();
  const keyOf = (low: number, high: number): number => low * vertices + high;
  for (let at = 0; at < triangles.length; at += 3)
    for (let side = 0; side < 3; side++) {
      const [a, b] = [triangles[at + side]!, triangles[at + ((side + 1) % 3)]!];
      if (a === b) continue;
      const key = keyOf(Math.min(a, b), Math.max(a, b));
      const now = (balance.get(key) ?? 0) + (a < b ? 1 : -1);
      // what is in balance is forgotten, so that the map stays small
      if (now === 0) balance.delete(key);
      else balance.set(key, now);
    }
  return [...balance].flatMap(([key, count]) => {
    const [low, high] = [Math.floor(key / vertices), key % vertices];
    return Array.from({ length: Math.abs(count) }, (): Edge => (count > 0 ? [low, high] : [high, low]));
  });
};

/** Edges that hang together, hole by hole. */
const together = (edges: readonly Edge[]): readonly (readonly Edge[])[] => {
  const parent = new Map<number, number>();
  const rootOf = (vertex: number): number => {
    let at = vertex;
    for (let up = parent.get(at) ?? at; up !== at; up = parent.get(at) ?? at) {
      parent.set(at, parent.get(up) ?? up);
      at = up;
    }
    return at;
  };
  for (const [a, b] of edges) {
    const [ra, rb] = [rootOf(a), rootOf(b)];
    parent.set(rb, ra);
    if (!parent.has(ra)) parent.set(ra, ra);
  }
  const holes = new Map<number, Edge[]>();
  for (const edge of edges) {
    const root = rootOf(edge[0]);
    const hole = holes.get(root);
    if (hole) hole.push(edge);
    else holes.set(root, [edge]);
  }
  return [...holes.values()];
};
