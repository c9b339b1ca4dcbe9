import type { Mesh } from './mesh';
import { joinedVertices } from './joined-vertices';
import { addPolygon } from './polygon-triangles';
import { MeshFault, checkTriangles } from './read-result';
import { Words } from './words';
import { latin1 } from './read-stl';

const TYPES = {
  char: ['getInt8', 1],
  int8: ['getInt8', 1],
  uchar: ['getUint8', 1],
  uint8: ['getUint8', 1],
  short: ['getInt16', 2],
  int16: ['getInt16', 2],
  ushort: ['getUint16', 2],
  uint16: ['getUint16', 2],
  int: ['getInt32', 4],
  int32: ['getInt32', 4],
  uint: ['getUint32', 4],
  uint32: ['getUint32', 4],
  float: ['getFloat32', 4],
  float32: ['getFloat32', 4],
  double: ['getFloat64', 8],
  float64: ['getFloat64', 8],
} as const;
type PlyType = keyof typeof TYPES;

interface Property {
  readonly name: string;
  readonly type: PlyType;
  /** type of the count before a list; null for a single value */
  readonly countType: PlyType | null;
}
interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}
interface Header {
  readonly encoding: string;
  readonly elements: readonly Element[];
  /** bytes before the body */
  readonly length: number;
  readonly lines: number;
}

/** A source of the values of the body, one after another. */
type NextValue = (type: PlyType, what: string) => number;

const MOST_HEADER_BYTES = 65_536;

/** Reads the vertices and faces of a PLY file, text or binary of either byte order. @throws MeshFault when it is damaged */
export const readPly = (bytes: Uint8Array): Mesh => {
  const header = readHeader(bytes);
  if (!header.elements.some((e) => e.name === 'vertex')) throw new MeshFault('it has no vertices');
  if (!header.elements.some((e) => e.name === 'face' || e.name === 'tristrips'))
    throw new MeshFault('it has no faces: a cloud of points has no volume');
  checkCounts(header, bytes.length - header.length);
  const next = header.encoding === 'ascii' ? textValues(bytes, header) : binaryValues(bytes, header);
  let positions = new Float64Array();
  const triangles: number[] = [];
  for (const element of header.elements) {
    if (element.name === 'vertex') positions = readVertices(element, next);
    else if (element.name === 'face') readFaces(element, next, positions, triangles);
    else if (element.name === 'tristrips') readStrips(element, next, positions.length / 3, triangles);
    else skip(element, next);
  }
  checkTriangles(triangles.length / 3);
  return joinedVertices(positions, Uint32Array.from(triangles));
};

/** A heading that promises so many times the file is damaged. */
const ABSURD = 20;
/**
 * A heading that promises more than its file can hold is told at once: the least room each element takes is known.
 * @throws MeshFault
 */
const checkCounts = ({ encoding, elements }: Header, room: number): void => {
  const bare = elements.find((e) => e.properties.length === 0 && e.count > 0);
  if (bare) throw new MeshFault(`its heading promises ${bare.count.toLocaleString('en-GB')} of “${bare.name}” without any property`);
  let needed = 0;
  for (const { name, count, properties } of elements) {
    // a value written out takes a character and the gap behind it
    const least = properties.reduce((sum, p) => sum + (encoding === 'ascii' ? 2 : TYPES[p.countType ?? p.type][1]), 0);
    if (least === 0 && count > 0)
      throw new MeshFault(`its heading promises ${count.toLocaleString('en-GB')} of “${name}” without any property`);
    needed += count * least;
    // a file that is only cut off is told more exactly where it ends
    if (needed > ABSURD * room + MOST_HEADER_BYTES)
      throw new MeshFault(
        `its heading promises ${count.toLocaleString('en-GB')} of “${name}”, more than its ${room.toLocaleString('en-GB')} bytes can hold: it was cut off, or the count is damaged`,
      );
  }
};

const isType = (word: string | undefined): word is PlyType => word !== undefined && word in TYPES;

const readHeader = (bytes: Uint8Array): Header => {
  const text = latin1(bytes.subarray(0, MOST_HEADER_BYTES));
  const end = /^end_header[ \t]*(\r\n|\n|\r)/m.exec(text);
  if (!end) throw new MeshFault('its heading has no “end_header”: it was cut off, or it is no PLY file');
  const lines = text.slice(0, end.index).split(/\r\n|\n|\r/);
  let encoding = '';
  const elements: Element[] = [];
  for (const [i, line] of lines.entries()) {
    const fail = (message: string): never => {
      throw new MeshFault(`line ${i + 1}: ${message}`);
    };
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'format') encoding = rest[0] ?? '';
    else if (word === 'element') {
      const count = Number(rest[1]);
      if (!(Number.isInteger(count) && count >= 0)) fail(`“${rest[1] ?? ''}” is no count of ${rest[0] ?? 'elements'}`);
      elements.push({ name: rest[0] ?? '', count, properties: [] });
    } else if (word === 'property') {
      const isList = rest[0] === 'list';
      const [countType, type, name] = isList ? [rest[1], rest[2], rest[3]] : [undefined, rest[0], rest[1]];
      if (!isType(type) || (isList && !isType(countType))) fail(`“${rest.join(' ')}” is no property that can be read`);
      const element = elements.at(-1);
      if (!element) fail('a property stands before any element');
      element?.properties.push({ name: name ?? '', type: type as PlyType, countType: isList ? (countType as PlyType) : null });
    }
  }
  if (!['ascii', 'binary_little_endian', 'binary_big_endian'].includes(encoding))
    throw new MeshFault(`its format is “${encoding}”; ascii, binary_little_endian and binary_big_endian are read`);
  return { encoding, elements, length: end.index + end[0].length, lines: lines.length };
};

const textValues = (bytes: Uint8Array, header: Header): NextValue => {
  const words = new Words(latin1(bytes.subarray(header.length)));
  words.line = header.lines + 1;
  return (_, what) => words.number(what);
};

const binaryValues = (bytes: Uint8Array, header: Header): NextValue => {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const isLittle = header.encoding === 'binary_little_endian';
  let at = header.length;
  return (type, what) => {
    const [read, size] = TYPES[type];
    if (at + size > bytes.length)
      throw new MeshFault(`it ends where ${what} should stand: it was cut off. Fetch it from the scanner again`);
    const value = view[read](at, isLittle);
    at += size;
    return value;
  };
};

const readVertices = ({ count, properties }: Element, next: NextValue): Float64Array<ArrayBuffer> => {
  const axes = ['x', 'y', 'z'].map((axis) => properties.findIndex((p) => p.name === axis && p.countType === null));
  if (axes.some((place) => place < 0)) throw new MeshFault('its vertices have no x, y and z');
  const positions: number[] = [];
  for (let vertex = 0; vertex < count; vertex++) {
    const place: [number, number, number] = [0, 0, 0];
    for (const [i, property] of properties.entries()) {
      const axis = axes.indexOf(i);
      const values = readProperty(property, next, `${property.name} of vertex ${vertex + 1}`);
      if (axis < 0) continue;
      if (!Number.isFinite(values[0])) throw new MeshFault(`vertex ${vertex + 1} has a place that is no number`);
      place[axis] = values[0]!;
    }
    positions.push(...place);
  }
  return Float64Array.from(positions);
};

const readFaces = ({ count, properties }: Element, next: NextValue, positions: Float64Array, into: number[]): void => {
  const vertices = positions.length / 3;
  const placeOf = (corner: number) => [positions[3 * corner]!, positions[3 * corner + 1]!, positions[3 * corner + 2]!] as const;
  const corners = properties.findIndex((p) => p.countType !== null && /^vertex_ind(ices|ex)$/.test(p.name));
  if (corners < 0) throw new MeshFault('its faces have no list of vertices');
  for (let face = 0; face < count; face++)
    for (const [i, property] of properties.entries()) {
      const values = readProperty(property, next, `${property.name} of face ${face + 1}`);
      if (i !== corners) continue;
      const wrong = values.find((v) => !(Number.isInteger(v) && v >= 0 && v < vertices));
      if (wrong !== undefined) throw new MeshFault(`face ${face + 1} names vertex ${wrong}, and there are ${vertices}`);
      if (values.length < 3) throw new MeshFault(`face ${face + 1} has ${values.length} corners; three are needed`);
      addPolygon(values, placeOf, into);
      checkTriangles(into.length / 3);
    }
};

/** Strips of triangles: each corner from the third on makes a triangle with the two before it, every other one turned; −1 begins anew. */
const readStrips = ({ count, properties }: Element, next: NextValue, vertices: number, into: number[]): void => {
  const corners = properties.findIndex((p) => p.countType !== null && /^vertex_ind(ices|ex)$/.test(p.name));
  if (corners < 0) throw new MeshFault('its strips have no list of vertices');
  for (let strip = 0; strip < count; strip++)
    for (const [i, property] of properties.entries()) {
      const values = readProperty(property, next, `${property.name} of strip ${strip + 1}`, MOST_STRIP);
      if (i !== corners) continue;
      let run: number[] = [];
      for (const value of values) {
        if (value === -1) {
          run = [];
          continue;
        }
        if (!(Number.isInteger(value) && value >= 0 && value < vertices))
          throw new MeshFault(`strip ${strip + 1} names vertex ${value}, and there are ${vertices}`);
        run.push(value);
        if (run.length < 3) continue;
        const [a, b, c] = run.slice(-3) as [number, number, number];
        if (a === b || b === c || a === c) continue;
        if (run.length % 2 === 1) into.push(a, b, c);
        else into.push(b, a, c);
      }
      checkTriangles(into.length / 3);
    }
};
/** one strip may go round the whole part */
const MOST_STRIP = 20_000_000;

/** A face with more corners than this is a damaged count. */
const MOST_LIST = 10_000;

const readProperty = ({ type, countType }: Property, next: NextValue, what: string, most = MOST_LIST): readonly number[] => {
  if (countType === null) return [next(type, what)];
  const count = next(countType, `the count of ${what}`);
  if (!(Number.isInteger(count) && count >= 0 && count <= most)) throw new MeshFault(`the count of ${what} is ${count}`);
  const values: number[] = [];
  // one after another, so that a damaged count ends where the file does
  for (let i = 0; i < count; i++) values.push(next(type, what));
  return values;
};

const skip = ({ name, count, properties }: Element, next: NextValue): void => {
  for (let i = 0; i < count; i++) for (const property of properties) readProperty(property, next, `${name} ${i + 1}`);
};
