import { eachEdge } from './edge-pairs';
import type { Mesh } from './mesh';
import { vertexAt } from './mesh';
import { cross, dot, length, minus } from './vectors';

/** What of a mesh lies on itself. */
interface MeshShells {
  /** parts of surface that hang together */
  readonly shells: number;
  /** shells that lie on another one, so that the volume would be counted twice */
  readonly doubled: number;
  /** standard uncertainty of the volume from edges that join three triangles or more */
  readonly unsureVolume: number;
}

/** Two shells whose volumes, and the middles of whose boxes, differ by less than this share lie on each other. */
const ALIKE = 0.02;
/** A surface that is unsure may bulge by this share of its width (assumed). */
const BULGE = 0.1;

interface Shell {
  volume: number;
  area: number;
  readonly low: [number, number, number];
  readonly high: [number, number, number];
}

/** Shells of a mesh, those that lie on each other, and what edges of many triangles leave unsure. */
export const meshShells = (mesh: Mesh): MeshShells => {
  const { triangles, positions } = mesh;
  const parent = new Int32Array(positions.length / 3).map((_, i) => i);
  const rootOf = (vertex: number): number => {
    let at = vertex;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]!]!;
      at = parent[at]!;
    }
    return at;
  };
  for (let at = 0; at < triangles.length; at += 3)
    for (const next of [triangles[at + 1]!, triangles[at + 2]!]) {
      const [a, b] = [rootOf(triangles[at]!), rootOf(next)];
      if (a !== b) parent[b] = a;
    }
  const shells = new Map<number, Shell>();
  for (let at = 0; at < triangles.length; at += 3) {
    const root = rootOf(triangles[at]!);
    const shell = shells.get(root) ?? { volume: 0, area: 0, low: [Infinity, Infinity, Infinity], high: [-Infinity, -Infinity, -Infinity] };
    shells.set(root, shell);
    const [a, b, c] = [vertexAt(mesh, triangles[at]!), vertexAt(mesh, triangles[at + 1]!), vertexAt(mesh, triangles[at + 2]!)];
    shell.volume += dot(a, cross(b, c)) / 6;
    shell.area += length(cross(minus(b, a), minus(c, a))) / 2;
    for (const p of [a, b, c])
      for (let i = 0; i < 3; i++) {
        shell.low[i] = Math.min(shell.low[i]!, p[i]!);
        shell.high[i] = Math.max(shell.high[i]!, p[i]!);
      }
  }
  let unsure = 0;
  let joined = 0;
  eachEdge(mesh, (_, __, along) => {
    if (along.length < 3) return;
    if (along.length >= 4) joined += 1;
    const area = along.reduce((sum, at) => {
      const [a, b, c] = [vertexAt(mesh, triangles[at]!), vertexAt(mesh, triangles[at + 1]!), vertexAt(mesh, triangles[at + 2]!)];
      return sum + length(cross(minus(b, a), minus(c, a))) / 2;
    }, 0);
    unsure += (BULGE * area * Math.sqrt(area)) ** 2;
  });
  const all = [...shells.values()];
  // a shell welded onto itself has four triangles at nearly every edge
  const isWelded = joined > triangles.length / 3;
  return { shells: all.length, doubled: (isWelded ? 1 : 0) + doubledShells(all), unsureVolume: Math.sqrt(unsure) };
};

const doubledShells = (shells: readonly Shell[]): number => {
  const sorted = [...shells].sort((a, b) => Math.abs(b.volume) - Math.abs(a.volume)).slice(0, MOST_COMPARED);
  return sorted.filter((a, i) => sorted.slice(i + 1).some((b) => liesOn(a, b))).length;
};
/** of very many shells only the largest are held against each other */
const MOST_COMPARED = 200;

const liesOn = (a: Shell, b: Shell): boolean => {
  if (!(a.volume * b.volume > 0) || Math.abs(a.volume / b.volume - 1) > ALIKE || Math.abs(a.area / b.area - 1) > ALIKE) return false;
  const size = Math.hypot(...a.high.map((x, i) => x - a.low[i]!));
  return [...a.low, ...a.high].every((x, i) => Math.abs(x - [...b.low, ...b.high][i]!) < ALIKE * size);
};
