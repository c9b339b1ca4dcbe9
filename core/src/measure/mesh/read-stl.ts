import type { Mesh } from './mesh';
import { MeshFault, checkTriangles } from './read-result';
import { weld } from './weld';
import { Words } from './words';

const HEADER_BYTES = 84;
const TRIANGLE_BYTES = 50;
const COUNT_AT = 80;
const COORDINATES = 9;
/** so many bytes are enough to tell text from numbers */
const LOOK_BYTES = 2000;

/** Whether the length of a file is what its count of triangles asks for. */
export const isWholeBinaryStl = (bytes: Uint8Array): boolean =>
  bytes.length >= HEADER_BYTES && bytes.length === HEADER_BYTES + TRIANGLE_BYTES * countOf(bytes);

/**
 * Whether an STL file is text. The word “solid” alone does not tell, for binary files begin with it too: a file whose
 * length is what its count of triangles asks for is binary.
 */
export const isTextStl = (bytes: Uint8Array): boolean => {
  if (isWholeBinaryStl(bytes)) return false;
  const head = latin1(bytes.subarray(0, LOOK_BYTES));
  return /^\s*solid/i.test(head) && !head.includes('\0');
};

const countOf = (bytes: Uint8Array): number => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(COUNT_AT, true);

export const latin1 = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes);

/** Reads an STL file, binary or text. @throws MeshFault when it is damaged */
export const readStl = (bytes: Uint8Array, notes: string[]): Mesh =>
  isTextStl(bytes) ? readText(latin1(bytes)) : readBinary(bytes, notes);

const readBinary = (bytes: Uint8Array, notes: string[]): Mesh => {
  if (bytes.length < HEADER_BYTES)
    throw new MeshFault(`it has ${bytes.length} bytes, and an STL file begins with ${HEADER_BYTES}: it was cut off, or it is no STL file`);
  const count = countOf(bytes);
  const needed = HEADER_BYTES + TRIANGLE_BYTES * count;
  if (bytes.length < needed)
    throw new MeshFault(
      `it promises ${count.toLocaleString('en-GB')} triangles and holds ${Math.floor((bytes.length - HEADER_BYTES) / TRIANGLE_BYTES).toLocaleString('en-GB')}: it was cut off. Fetch it from the scanner again`,
    );
  if (bytes.length > needed) notes.push(`${bytes.length - needed} bytes after the last triangle were left out`);
  checkTriangles(count);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const corners = new Float64Array(COORDINATES * count);
  for (let triangle = 0; triangle < count; triangle++) {
    const from = HEADER_BYTES + TRIANGLE_BYTES * triangle + 12;
    for (let i = 0; i < COORDINATES; i++) {
      const x = view.getFloat32(from + 4 * i, true);
      if (!Number.isFinite(x)) throw new MeshFault(`triangle ${triangle + 1} has a corner that is no number`);
      corners[COORDINATES * triangle + i] = x;
    }
  }
  return weld(corners);
};

const readText = (text: string): Mesh => {
  const words = new Words(text);
  const corners: number[] = [];
  const expect = (wanted: string): void => {
    const word = words.next();
    if (word?.toLowerCase() !== wanted)
      words.fail(
        word === null ? `the file ends where “${wanted}” should stand` : `“${word.slice(0, 40)}” stands where “${wanted}” should stand`,
      );
  };
  let isInside = false;
  for (let word = words.next(); word !== null; word = words.next()) {
    switch (word.toLowerCase()) {
      case 'solid':
        words.skipLine();
        isInside = true;
        break;
      case 'endsolid':
        words.skipLine();
        isInside = false;
        break;
      case 'facet': {
        if (!isInside) words.fail('a facet stands outside a solid');
        expect('normal');
        // what a file says of its normals is often wrong; the corners tell
        for (let i = 0; i < 3; i++) words.next();
        expect('outer');
        expect('loop');
        for (let corner = 0; corner < 3; corner++) {
          expect('vertex');
          for (const axis of ['x', 'y', 'z']) corners.push(words.number(`${axis} of corner ${corner + 1}`));
        }
        const end = words.next();
        if (end?.toLowerCase() === 'vertex') words.fail('a facet has a fourth corner; three are allowed');
        if (end?.toLowerCase() !== 'endloop')
          words.fail(`“${(end ?? 'the end of the file').slice(0, 40)}” stands where “endloop” should stand`);
        expect('endfacet');
        break;
      }
      default:
        words.fail(`“${word.slice(0, 40)}” is no word of an STL file`);
    }
  }
  if (isInside) words.fail('the file ends without “endsolid”: it was cut off. Fetch it from the scanner again');
  checkTriangles(corners.length / COORDINATES);
  return weld(Float64Array.from(corners));
};
