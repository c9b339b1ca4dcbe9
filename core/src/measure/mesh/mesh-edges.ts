import type { Mesh } from './mesh';

/** How well the triangles close. */
interface MeshEdges {
  /** edges with one triangle only */
  readonly open: number;
  /** edges with three triangles or more */
  readonly nonManifold: number;
  /** edges whose two triangles run round them the same way: one of the two is turned inside out */
  readonly turned: number;
  /** triangles without area */
  readonly flat: number;
  readonly watertight: boolean;
}

/**
 * Counts the edges that do not join exactly two triangles.
 *
 * A mesh is watertight when every edge joins exactly two triangles that run along it in opposite directions. Triangles
 * with two corners in one place are left out.
 */
export const meshEdges = ({ triangles, positions }: Mesh): MeshEdges => {
  const vertices = positions.length / 3;
  // edges are sorted by their lower end into buckets, so that a million triangles need no map of keys
  const starts = new Uint32Array(vertices + 1);
  let flat = 0;
  const isFlat = (at: number): boolean =>
    triangles[at] === triangles[at + 1] || triangles[at + 1] === triangles[at + 2] || triangles[at] === triangles[at + 2];
  const edgesOf = (visit: (low: number, high: number, isForward: boolean) => void): void => {
    for (let at = 0; at < triangles.length; at += 3) {
      if (isFlat(at)) continue;
      for (let side = 0; side < 3; side++) {
        const a = triangles[at + side]!;
        const b = triangles[at + ((side + 1) % 3)]!;
        if (a < b) visit(a, b, true);
        else visit(b, a, false);
      }
    }
  };
  for (let at = 0; at < triangles.length; at += 3) if (isFlat(at)) flat++;
  edgesOf((low) => starts[low + 1]!++);
  for (let vertex = 0; vertex < vertices; vertex++) starts[vertex + 1]! += starts[vertex]!;
  const next = starts.slice(0, vertices);
  const highs = new Uint32Array(starts[vertices]!);
  const forward = new Uint8Array(starts[vertices]!);
  edgesOf((low, high, isForward) => {
    const place = next[low]!++;
    highs[place] = high;
    forward[place] = isForward ? 1 : 0;
  });
  let [open, nonManifold, turned] = [0, 0, 0];
  const counts = new Uint32Array(vertices);
  const forwards = new Uint32Array(vertices);
  for (let vertex = 0; vertex < vertices; vertex++) {
    const [from, to] = [starts[vertex]!, starts[vertex + 1]!];
    for (let at = from; at < to; at++) {
      counts[highs[at]!]!++;
      forwards[highs[at]!]! += forward[at]!;
    }
    for (let at = from; at < to; at++) {
      const high = highs[at]!;
      const count = counts[high]!;
      // an edge is judged at its first triangle, and its places are empty again for the next vertex
      if (count === 1) open++;
      else if (count > 2) nonManifold++;
      else if (count === 2 && forwards[high] !== 1) turned++;
      counts[high] = 0;
      forwards[high] = 0;
    }
  }
  return { open, nonManifold, turned, flat, watertight: open === 0 && nonManifold === 0 && turned === 0 };
};
