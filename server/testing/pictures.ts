import { createHash } from 'node:crypto';
import sharp from 'sharp';

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A plain picture, `left` red and the rest blue, so that turning it shows. */
const drawn = (width: number, height: number) => {
  const pixels = Buffer.alloc(width * height * 3);
  for (let i = 0; i < width * height; i++) pixels[i * 3 + (i % width < width / 2 ? 0 : 2)] = 255;
  return sharp(pixels, { raw: { width, height, channels: 3 } });
};

export const pngOf = (width = 60, height = 40): Promise<Buffer> => drawn(width, height).png().toBuffer();

/** A photograph as a camera makes it: turned by its orientation, with the place it was taken at. */
export const jpegWithPlace = (orientation = 6): Promise<Buffer> =>
  drawn(60, 40)
    .jpeg({ quality: 95 })
    .withExif({
      IFD0: { Make: 'Bench camera', Artist: 'Odo Farrow' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '50/1 3/1 0/1', GPSLongitudeRef: 'E', GPSLongitude: '14/1 25/1 0/1' },
    })
    .withMetadata({ orientation })
    .toBuffer();
