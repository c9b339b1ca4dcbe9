import type { Mesh } from './mesh';

/**
 * Calls back for every edge with the triangles along it, each edge once, its triangles by place.
 *
 * Edges are sorted by their lower end into buckets, so that a million triangles need no map of keys.
 */
export const eachEdge = ({ triangles, positions }: Mesh, visit: (a: number, b: number, along: readonly number[]) => void): void => {
  const vertices = positions.length / 3;
  const starts = new Uint32Array(vertices + 1);
  for (let at = 0; at < triangles.length; at += 3)
    for (let side = 0; side < 3; side++) {
      const [a, b] = [triangles[at + side]!, triangles[at + ((side + 1) % 3)]!];
      if (a !== b) starts[Math.min(a, b) + 1]!++;
    }
  for (let vertex = 0; vertex < vertices; vertex++) starts[vertex + 1]! += starts[vertex]!;
  const next = starts.slice(0, vertices);
  const highs = new Uint32Array(starts[vertices]!);
  const owners = new Uint32Array(starts[vertices]!);
  for (let at = 0; at < triangles.length; at += 3)
    for (let side = 0; side < 3; side++) {
      const [a, b] = [triangles[at + side]!, triangles[at + ((side + 1) % 3)]!];
      if (a === b) continue;
      const place = next[Math.min(a, b)]!++;
      highs[place] = Math.max(a, b);
      owners[place] = at;
    }
  for (let vertex = 0; vertex < vertices; vertex++) {
    const [from, to] = [starts[vertex]!, starts[vertex + 1]!];
    for (let at = from; at < to; at++) {
      const high = highs[at]!;
      let isFirst = true;
      for (let back = from; back < at && isFirst; back++) if (highs[back] === high) isFirst = false;
      if (!isFirst) continue;
      const along = [owners[at]!];
      for (let on = at + 1; on < to; on++) if (highs[on] === high) along.push(owners[on]!);
      visit(vertex, high, along);
    }
  }
};
