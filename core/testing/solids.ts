import type { Mesh, Vector } from '../src/measure/mesh/mesh';

// Solids of the textbook as meshes, their triangles counter-clockwise seen from outside.

const quad = (a: number, b: number, c: number, d: number): readonly number[] => [a, b, c, a, c, d];

/** A box with one corner in the origin. */
export const boxMesh = ([x, y, z]: Vector): Mesh => ({
  positions: Float64Array.from([0, 0, 0, x, 0, 0, x, y, 0, 0, y, 0, 0, 0, z, x, 0, z, x, y, z, 0, y, z]),
  triangles: Uint32Array.from([
    ...quad(0, 3, 2, 1),
    ...quad(4, 5, 6, 7),
    ...quad(0, 1, 5, 4),
    ...quad(1, 2, 6, 5),
    ...quad(2, 3, 7, 6),
    ...quad(3, 0, 4, 7),
  ]),
});

/** A tube of n flat sides along z. */
export const tubeMesh = (outer: number, inner: number, height: number, sides: number): Mesh => {
  const rings = [
    [outer, 0],
    [outer, height],
    [inner, height],
    [inner, 0],
  ] as const;
  const positions = rings.flatMap(([r, z]) =>
    Array.from({ length: sides }, (_, i) => {
      const angle = (2 * Math.PI * i) / sides;
      return [r * Math.cos(angle), r * Math.sin(angle), z];
    }).flat(),
  );
  const triangles = rings.flatMap((_, ring) =>
    Array.from({ length: sides }, (__, i) => {
      const [j, next] = [(i + 1) % sides, (ring + 1) % rings.length];
      return quad(ring * sides + i, ring * sides + j, next * sides + j, next * sides + i);
    }).flat(),
  );
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
};

/** A ring of round section. */
export const torusMesh = (radius: number, tube: number, around: number, across: number): Mesh => {
  const positions = Array.from({ length: around * across }, (_, n) => {
    const [a, b] = [(2 * Math.PI * Math.floor(n / across)) / around, (2 * Math.PI * (n % across)) / across];
    const r = radius + tube * Math.cos(b);
    return [r * Math.cos(a), r * Math.sin(a), tube * Math.sin(b)];
  });
  const at = (i: number, j: number): number => (i % around) * across + (j % across);
  const triangles = Array.from({ length: around * across }, (_, n) => {
    const [i, j] = [Math.floor(n / across), n % across];
    return quad(at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1));
  });
  return { positions: Float64Array.from(positions.flat()), triangles: Uint32Array.from(triangles.flat()) };
};

/** The mesh turned about an axis by an angle in rad, and shifted. */
export const turnedMesh = (mesh: Mesh, axis: Vector, angle: number, shift: Vector = [0, 0, 0]): Mesh => {
  const size = Math.hypot(...axis);
  const [x, y, z] = axis.map((v) => v / size) as [number, number, number];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const t = 1 - c;
  const rows = [
    [t * x * x + c, t * x * y - s * z, t * x * z + s * y],
    [t * x * y + s * z, t * y * y + c, t * y * z - s * x],
    [t * x * z - s * y, t * y * z + s * x, t * z * z + c],
  ] as const;
  const positions = new Float64Array(mesh.positions.length);
  for (let at = 0; at < positions.length; at += 3)
    for (const [i, [a, b, d]] of rows.entries())
      positions[at + i] = a * mesh.positions[at]! + b * mesh.positions[at + 1]! + d * mesh.positions[at + 2]! + shift[i]!;
  return { ...mesh, positions };
};

/** Two meshes as one. */
export const joined = (a: Mesh, b: Mesh): Mesh => ({
  positions: Float64Array.from([...a.positions, ...b.positions]),
  triangles: Uint32Array.from([...a.triangles, ...[...b.triangles].map((v) => v + a.positions.length / 3)]),
});

/** An STL file of a mesh, binary. */
export const binaryStl = ({ positions, triangles }: Mesh): Uint8Array => {
  const bytes = new Uint8Array(84 + (50 * triangles.length) / 3);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, triangles.length / 3, true);
  for (let at = 0; at < triangles.length; at++)
    for (let i = 0; i < 3; i++)
      view.setFloat32(84 + 50 * Math.floor(at / 3) + 12 + 12 * (at % 3) + 4 * i, positions[3 * triangles[at]! + i]!, true);
  return bytes;
};

/** The same as text. */
export const textStl = ({ positions, triangles }: Mesh): string => {
  const corner = (at: number): string => `vertex ${[0, 1, 2].map((i) => positions[3 * triangles[at]! + i]!).join(' ')}`;
  const facets = Array.from(
    { length: triangles.length / 3 },
    (_, t) => `facet normal 0 0 0\nouter loop\n${[0, 1, 2].map((k) => corner(3 * t + k)).join('\n')}\nendloop\nendfacet`,
  );
  return `solid part\n${facets.join('\n')}\nendsolid part\n`;
};
