import { meshFormat } from './read-mesh';
import { isTextStl, isWholeBinaryStl, latin1 } from './read-stl';
import type { MeshFormat } from '../../record';

const LOOK_BYTES = 65_536;

/** The format a file has by its content, or null when it is no scan. Looks at its beginning and length only. */
export const looksLikeMesh = (bytes: Uint8Array, fileName: string): MeshFormat | null => {
  const format = meshFormat(bytes, fileName);
  const head = latin1(bytes.subarray(0, LOOK_BYTES));
  if (format === 'PLY') return head.includes('end_header') ? 'PLY' : null;
  if (format === 'OBJ') return /^v\s+[-+\d.]/m.test(head) && !head.includes('\0') ? 'OBJ' : null;
  return isTextStl(bytes) ? (/facet\s+normal/i.test(head) ? 'STL' : null) : isWholeBinaryStl(bytes) ? 'STL' : null;
};
