import { looksLikeMesh } from '@each-bolt/core/measure';
import { Problem } from '../http/problem';
import { sha256Of } from './picture';
import type { StoredFile } from './queries';

/** A scan ready to be kept, checked by its content; what it holds is measured where it is looked at. */
export const readScan = (bytes: Buffer, fileName: string): StoredFile => {
  const format = looksLikeMesh(bytes, fileName);
  if (format === null)
    throw new Problem(
      'wrong-type',
      'The file is no STL, PLY or OBJ that can be read: it is damaged or of another kind. Nothing was written',
    );
  return { sha256: sha256Of(bytes), mediaType: `model/${format.toLowerCase()}`, widthPx: null, heightPx: null, bytes, thumbnail: null };
};
