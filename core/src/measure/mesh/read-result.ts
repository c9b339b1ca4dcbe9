import type { MeshFormat } from '../../record';
import type { Mesh } from './mesh';

/** A mesh, or what is wrong with the file, where, and what to do. */
export type ReadMesh =
  | { readonly ok: true; readonly mesh: Mesh; readonly format: MeshFormat; readonly notes: readonly string[] }
  | { readonly ok: false; readonly message: string };

/** Thrown inside a reader at the first fault, and turned into a message at its door. */
export class MeshFault extends Error {
  override readonly name = 'MeshFault';
}

/** More triangles than this are refused: a scan of ten million is thinned out before it is measured. */
const MOST_TRIANGLES = 5_000_000;

export const checkTriangles = (count: number): void => {
  if (count > MOST_TRIANGLES)
    throw new MeshFault(
      `it holds ${count.toLocaleString('en-GB')} triangles; at most ${MOST_TRIANGLES.toLocaleString('en-GB')} are read. Thin the scan out and try again`,
    );
};
