import { readObj } from './read-obj';
import { readPly } from './read-ply';
import type { MeshFormat } from '../../record';
import { MeshFault, type ReadMesh } from './read-result';
import { latin1, readStl } from './read-stl';

const LOOK_BYTES = 4000;

/** The format of a file by what stands in it; the name only tells where the content could be either. */
export const meshFormat = (bytes: Uint8Array, fileName: string): MeshFormat => {
  const head = latin1(bytes.subarray(0, LOOK_BYTES));
  if (/^ply[ \t]*[\r\n]/.test(head)) return 'PLY';
  if (/\.obj$/i.test(fileName) || (!/\.stl$/i.test(fileName) && /^v\s+[-\d.]/m.test(head) && !head.includes('\0'))) return 'OBJ';
  return 'STL';
};

/** The file without the mark of its encoding that some programs put before text. @source Unicode 15, byte order mark of UTF-8 */
const withoutMark = (bytes: Uint8Array): Uint8Array =>
  bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? bytes.subarray(3) : bytes;

/** Reads a scan file. What is wrong with it comes back in words; nothing is thrown for the file's own faults. */
export const readMesh = (file: Uint8Array, fileName: string): ReadMesh => {
  const bytes = withoutMark(file);
  const format = meshFormat(bytes, fileName);
  const notes: string[] = [];
  try {
    if (bytes.length === 0) throw new MeshFault('it is empty');
    const mesh = format === 'PLY' ? readPly(bytes) : format === 'OBJ' ? readObj(latin1(bytes)) : readStl(bytes, notes);
    if (mesh.triangles.length === 0) throw new MeshFault('there is no triangle in it');
    return { ok: true, mesh, format, notes };
  } catch (fault) {
    if (!(fault instanceof MeshFault)) throw fault;
    return { ok: false, message: `${fileName} cannot be read as ${format}: ${fault.message}. Nothing was kept` };
  }
};
