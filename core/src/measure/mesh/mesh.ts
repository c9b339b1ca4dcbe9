/** Triangles over shared vertices, in the unit of the file they came from until they are scaled. */
export interface Mesh {
  /** [vertex × 3] x, y, z */
  readonly positions: Float64Array;
  /** [triangle × 3] places of the vertices, counter-clockwise seen from outside */
  readonly triangles: Uint32Array;
}

export type Vector = readonly [number, number, number];

export const triangleCount = (mesh: Mesh): number => mesh.triangles.length / 3;

/** Place of one vertex. */
export const vertexAt = ({ positions }: Mesh, vertex: number): Vector => [
  positions[3 * vertex]!,
  positions[3 * vertex + 1]!,
  positions[3 * vertex + 2]!,
];

/** The mesh with all lengths multiplied: a file in millimetres becomes metres with 0.001. */
export const scaled = (mesh: Mesh, factor: number): Mesh => ({
  positions: mesh.positions.map((x) => x * factor),
  triangles: mesh.triangles,
});

/** The convex hull of points. */
export interface Hull {
  /** corners of the hull, each once */
  readonly points: readonly Vector[];
  /** triangles as places of corners, counter-clockwise seen from outside; empty where all points lie in one plane */
  readonly faces: readonly (readonly [number, number, number])[];
  readonly volume: number;
  readonly area: number;
}
