import { createHash } from 'node:crypto';
import sharp, { type Sharp } from 'sharp';
import { pictureFile } from '@each-bolt/core/shared';
import { Problem } from '../http/problem';
import type { StoredFile } from './queries';

/** Longest edge of a thumbnail. */
const THUMBNAIL_PX = 480;
/** A picture that unpacks to more than this is refused before it is unpacked. */
const MOST_PIXELS = 120_000_000;

const damaged = (): Problem => new Problem('wrong-type', 'The picture cannot be drawn: it is damaged, or larger than 120 megapixels');

export const sha256Of = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A picture ready to be kept: checked by its content, without its hidden data, with its size as it is seen and a thumbnail. */
export const readPicture = async (sent: Buffer): Promise<StoredFile> => {
  const read = pictureFile(sent);
  if (!read.ok) throw new Problem('wrong-type', `${read.message}. Nothing was written`);
  const bytes = Buffer.from(read.file.bytes);
  const image = (): Sharp => sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).autoOrient();
  try {
    const { autoOrient } = await image().metadata();
    const thumbnail = await image()
      .resize({ width: THUMBNAIL_PX, height: THUMBNAIL_PX, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 80 })
      .toBuffer();
    return {
      sha256: sha256Of(bytes),
      mediaType: read.file.mediaType,
      widthPx: autoOrient.width,
      heightPx: autoOrient.height,
      bytes,
      thumbnail,
    };
  } catch {
    // what the decoder says is about the file alone and helps nobody
    throw damaged();
  }
};
