import fc from 'fast-check';
import { pictureFile } from './picture-file';

const bytes = (...parts: readonly (readonly number[])[]): Uint8Array => Uint8Array.from(parts.flat());
const text = (words: string): number[] => Array.from(words, (c) => c.charCodeAt(0));
const segment = (marker: number, content: readonly number[]): number[] => [
  0xff,
  marker,
  (content.length + 2) >> 8,
  (content.length + 2) & 255,
  ...content,
];
const SOI = [0xff, 0xd8];
const EOI = [0xff, 0xd9];
const SCAN = [...segment(0xda, [1, 1, 0, 0, 63, 0]), 1, 2, 0xff, 0, 3, 0xff, 0xd0, 4];
/** Exif with an orientation, little-endian as many cameras write it, and a place behind it. */
const exif = (orientation: number): number[] => [
  ...text('Exif\0\0II'),
  ...[0x2a, 0, 8, 0, 0, 0, 1, 0],
  ...[0x12, 1, 3, 0, 1, 0, 0, 0, orientation, 0, 0, 0],
  ...[0, 0, 0, 0],
  ...text('50 N 14 E'),
];
const says = (file: Uint8Array, words: string): boolean => String.fromCharCode(...file).includes(words);
const clean = (file: Uint8Array): Uint8Array => {
  const read = pictureFile(file);
  if (!read.ok) throw new Error(read.message);
  return read.file.bytes;
};

describe('a JPEG', () => {
  const camera = bytes(
    SOI,
    segment(0xe1, exif(6)),
    segment(0xfe, text('a comment')),
    segment(0xdb, [0, 1]),
    SCAN,
    EOI,
    text('preview 50 N'),
  );
  it('keeps what is drawn and its orientation, and loses its place, comments and what hangs behind its end', () => {
    const file = clean(camera);
    for (const words of ['50 N', 'a comment']) expect(says(file, words)).toBe(false);
    expect([...file.subarray(0, 4)]).toEqual([0xff, 0xd8, 0xff, 0xe1]);
    expect(file[31]).toBe(6);
    expect([...file.subarray(-2)]).toEqual(EOI);
    expect(says(file, String.fromCharCode(1, 2, 0xff, 0, 3, 0xff, 0xd0, 4))).toBe(true);
  });
  it('cleaned twice is the same', () => expect(clean(clean(camera))).toEqual(clean(camera)));
  it('cut short is refused', () => expect(pictureFile(camera.subarray(0, 30)).ok).toBe(false));
});

describe('whatever is sent', () => {
  it('never throws, and is a picture only when it begins as one', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ maxLength: 200 }),
        fc.constantFrom([], [0xff, 0xd8, 0xff], [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
        (tail, head) => {
          const read = pictureFile(bytes(head, [...tail]));
          expect(typeof read.ok).toBe('boolean');
          if (head.length === 0 && tail[0] !== 0xff && tail[0] !== 0x89) expect(read.ok).toBe(false);
        },
      ),
    );
  });
  it('names an SVG for what it is not', () =>
    expect(pictureFile(bytes(text('<svg/>')))).toMatchObject({
      ok: false,
      message: expect.stringContaining('neither a JPEG nor a PNG') as string,
    }));
});
