/** A picture file as it is kept: without where it was taken, who took it, and all else a camera hides in it. */
interface PictureFile {
  readonly mediaType: 'image/jpeg' | 'image/png';
  readonly bytes: Uint8Array;
}

type ReadPicture = { readonly ok: true; readonly file: PictureFile } | { readonly ok: false; readonly message: string };

/** Largest picture file that is taken, bytes. */
const MOST_PICTURE_BYTES = 40 * 1024 * 1024;

const JPEG = [0xff, 0xd8, 0xff];
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

const beginsWith = (bytes: Uint8Array, magic: readonly number[]): boolean => magic.every((byte, i) => bytes[i] === byte);

const joined = (parts: readonly Uint8Array[]): Uint8Array => {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
};

const view = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

const EXIF = [0x45, 0x78, 0x69, 0x66, 0, 0];
const ORIENTATION = 0x0112;

/** Orientation 1…8 that an Exif segment states, or 1. */
const orientationOf = (segment: Uint8Array): number => {
  if (!beginsWith(segment.subarray(4), EXIF) || segment.length < 24) return 1;
  const tiff = view(segment.subarray(10));
  const little = tiff.getUint16(0) === 0x4949;
  const directory = tiff.getUint32(4, little);
  if (directory + 2 > tiff.byteLength) return 1;
  const entries = tiff.getUint16(directory, little);
  for (let i = 0; i < entries; i++) {
    const at = directory + 2 + i * 12;
    if (at + 12 > tiff.byteLength) return 1;
    if (tiff.getUint16(at, little) !== ORIENTATION) continue;
    const value = tiff.getUint16(at + 8, little);
    return value >= 1 && value <= 8 ? value : 1;
  }
  return 1;
};

/** An Exif segment that says the orientation and nothing else. */
const orientationSegment = (orientation: number): Uint8Array =>
  Uint8Array.from([
    ...[0xff, 0xe1, 0, 34, ...EXIF],
    ...[0x4d, 0x4d, 0, 0x2a, 0, 0, 0, 8, 0, 1],
    ...[0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0],
    ...[0, 0, 0, 0],
  ]);

const SCAN = 0xda;
const END = 0xd9;
// what a picture needs to be drawn right: JFIF, colour profile, Adobe's colour transform, and all that is not an application's
const isKept = (marker: number): boolean => marker === 0xe0 || marker === 0xe2 || marker === 0xee || (marker < 0xe0 && marker >= 0xc0);

/** The end of the coded data that begins at a place: the next marker that is not part of it. */
const endOfScan = (bytes: Uint8Array, from: number): number => {
  let at = from;
  while (at + 1 < bytes.length) {
    const next = bytes[at + 1]!;
    if (bytes[at] === 0xff && next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) return at;
    at += 1;
  }
  return bytes.length;
};

const jpeg = (bytes: Uint8Array): Uint8Array | null => {
  const kept: Uint8Array[] = [];
  let orientation = 1;
  let at = 2;
  while (at + 4 <= bytes.length || bytes[at + 1] === END) {
    if (bytes[at] !== 0xff) return null;
    const marker = bytes[at + 1]!;
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    if (marker === END) {
      const head = orientation === 1 ? [] : [orientationSegment(orientation)];
      return joined([bytes.subarray(0, 2), ...head, ...kept, Uint8Array.of(0xff, END)]);
    }
    const end = at + 2 + view(bytes).getUint16(at + 2);
    if (end > bytes.length) return null;
    const stop = marker === SCAN ? endOfScan(bytes, end) : end;
    if (marker === 0xe1) orientation = Math.max(orientation, orientationOf(bytes.subarray(at, end)));
    if (isKept(marker)) kept.push(bytes.subarray(at, stop));
    at = stop;
  }
  return null;
};

const DRAWN = new Set(['IHDR', 'PLTE', 'IDAT', 'IEND', 'tRNS', 'gAMA', 'cHRM', 'sRGB', 'iCCP', 'sBIT', 'pHYs', 'bKGD']);

const png = (bytes: Uint8Array): Uint8Array | null => {
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  let at = 8;
  while (at + 12 <= bytes.length) {
    const end = at + 12 + view(bytes).getUint32(at);
    if (end > bytes.length) return null;
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (DRAWN.has(name)) kept.push(bytes.subarray(at, end));
    if (name === 'IEND') return joined(kept);
    at = end;
  }
  return null;
};

/**
 * Reads a picture file by its content and leaves out what it says beside the picture: place, camera, dates, previews.
 * The picture itself is not coded again; its orientation and colour profile stay. Doing it twice changes nothing more.
 *
 * @param bytes the file
 * @source JPEG: ITU-T T.81 annex B; Exif orientation: CIPA DC-008 (Exif 2.3), 4.6.4; PNG: ISO/IEC 15948, chunk layout
 */
export const pictureFile = (bytes: Uint8Array): ReadPicture => {
  if (bytes.length > MOST_PICTURE_BYTES) return { ok: false, message: 'The picture is larger than 40 MB; save it smaller and try again' };
  const isJpeg = beginsWith(bytes, JPEG);
  if (!isJpeg && !beginsWith(bytes, PNG))
    return { ok: false, message: 'The file is neither a JPEG nor a PNG picture, whatever its name says; save it as one of these' };
  const clean = isJpeg ? jpeg(bytes) : png(bytes);
  if (!clean) return { ok: false, message: 'The picture file is damaged or cut short; take it from the camera again' };
  return { ok: true, file: { mediaType: isJpeg ? 'image/jpeg' : 'image/png', bytes: clean } };
};
