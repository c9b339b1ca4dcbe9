import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { binaryStl, boxMesh, textStl } from '../../../testing/solids';
import { looksLikeMesh } from './looks-like-mesh';
import type { Mesh } from './mesh';
import { meshFigures } from './mesh-figures';
import { readMesh } from './read-mesh';

const text = (content: string): Uint8Array => new TextEncoder().encode(content);
const volumeOf = (bytes: Uint8Array, name: string): number => {
  const read = readMesh(bytes, name);
  if (!read.ok) throw new Error(read.message);
  return meshFigures(read.mesh).volume;
};
const said = (bytes: Uint8Array, name: string): string => {
  const read = readMesh(bytes, name);
  return read.ok ? 'read' : read.message;
};
const BOX = boxMesh([120, 45, 12]);

const plyOf = (format: string, body: Uint8Array): Uint8Array =>
  Uint8Array.from([
    ...text(
      `ply\nformat ${format} 1.0\ncomment a box\nelement vertex 8\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nelement face 12\nproperty list uchar int vertex_indices\nend_header\n`,
    ),
    ...body,
  ]);
const plyBody = (isLittle: boolean): Uint8Array => {
  const view = new DataView(new ArrayBuffer(8 * 13 + 12 * 13));
  for (let v = 0; v < 8; v++) {
    for (let i = 0; i < 3; i++) view.setFloat32(13 * v + 4 * i, BOX.positions[3 * v + i]!, isLittle);
    view.setUint8(13 * v + 12, 200);
  }
  for (let f = 0; f < 12; f++) {
    view.setUint8(104 + 13 * f, 3);
    for (let k = 0; k < 3; k++) view.setInt32(104 + 13 * f + 1 + 4 * k, BOX.triangles[3 * f + k]!, isLittle);
  }
  return new Uint8Array(view.buffer);
};
const OBJ = `# a box of quadrangles
v 0 0 0
v 2 0 0
v 2 3 0
v 0 3 0
v 0 0 4
v 2 0 4
v 2 3 4
v 0 3 4
vn 0 0 1
f 1//1 4//1 3//1 2//1
f 5 6 7 8
f 1 2 6 5
f 2/1/1 3 7 6
f 3 4 8 7
f -5 -8 -4 -1
`;

describe('a scan file', () => {
  it.each([
    ['binary STL', binaryStl(BOX), 'a.stl'],
    ['text STL', text(textStl(BOX)), 'a.stl'],
    ['text STL in capitals with Windows line ends', text(textStl(BOX).toUpperCase().replaceAll('\n', '\r\n')), 'A.STL'],
    ['PLY of little end first', plyOf('binary_little_endian', plyBody(true)), 'a.ply'],
    ['PLY of big end first', plyOf('binary_big_endian', plyBody(false)), 'a.ply'],
  ])('%s gives the box', (_, bytes, name) => expect(volumeOf(bytes, name)).toBeCloseTo(64_800, 6));
  it('OBJ with quadrangles, normals and places counted from the end gives the box', () => {
    expect(OBJ).toContain('-5 -8 -4 -1');
    expect(volumeOf(text(OBJ), 'a.obj')).toBeCloseTo(24, 12);
  });
  it('text PLY gives the box', () => {
    const vertices = Array.from(
      { length: 8 },
      (_, v) => `${BOX.positions[3 * v]} ${BOX.positions[3 * v + 1]} ${BOX.positions[3 * v + 2]} 7`,
    );
    const faces = Array.from({ length: 12 }, (_, f) => `3 ${BOX.triangles[3 * f]} ${BOX.triangles[3 * f + 1]} ${BOX.triangles[3 * f + 2]}`);
    expect(volumeOf(plyOf('ascii', text([...vertices, ...faces].join('\n'))), 'a.ply')).toBeCloseTo(64_800, 6);
  });
  it('is told by its content, not by its name: a binary STL that begins with “solid” is binary', () => {
    const bytes = binaryStl(BOX);
    bytes.set(text('solid exported by a scanner'));
    expect(volumeOf(bytes, 'a.stl')).toBeCloseTo(64_800, 6);
    expect(looksLikeMesh(bytes, 'a.stl')).toBe('STL');
    expect(looksLikeMesh(text('<svg xmlns="http://www.w3.org/2000/svg"/>'), 'a.stl')).toBeNull();
    expect(looksLikeMesh(text(OBJ), 'a.obj')).toBe('OBJ');
    expect(looksLikeMesh(plyOf('ascii', text('')), 'x')).toBe('PLY');
  });
});

const ONE_FACET = 'solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid\n';

describe('a damaged scan file is refused with what is wrong and where', () => {
  it.each([
    ['empty', text(''), 'a.stl', /it is empty/],
    ['too short for a heading', text('abc'), 'a.stl', /3 bytes, and an STL file begins with 84/],
    ['cut off binary', binaryStl(BOX).slice(0, 400), 'a.stl', /promises 12 triangles and holds 6: it was cut off/],
    ['no triangle', text('solid a\nendsolid a\n'), 'a.stl', /there is no triangle in it/],
    [
      'a corner that is no number',
      text(ONE_FACET.replace('1 0 0', '1 zero 0')),
      'a.stl',
      /line 5: “zero” stands where y of corner 2 should stand/,
    ],
    [
      'a facet of four corners',
      text(ONE_FACET.replace('endloop', 'vertex 1 1 0\nendloop')),
      'a.stl',
      /line 7: a facet has a fourth corner/,
    ],
    [
      'a facet of two corners',
      text(ONE_FACET.replace('vertex 0 1 0\n', '')),
      'a.stl',
      /line 6: “endloop” stands where “vertex” should stand/,
    ],
    ['cut off text', text(ONE_FACET.replace('endsolid\n', '')), 'a.stl', /ends without “endsolid”: it was cut off/],
    [
      'a PLY of points alone',
      text('ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nend_header\n0\n'),
      'a.ply',
      /a cloud of points has no volume/,
    ],
    ['a PLY cut off', plyOf('binary_little_endian', plyBody(true).slice(0, 200)), 'a.ply', /ends where .* of face 8 should stand/],
    [
      'a PLY face that names a vertex there is not',
      plyOf('ascii', text(`${'0 0 0 1\n'.repeat(8)}3 0 1 8\n`)),
      'a.ply',
      /face 1 names vertex 8, and there are 8/,
    ],
    ['an OBJ face before its vertices', text('f 1 2 3\nv 0 0 0\n'), 'a.obj', /line 1: the face names vertex 1, and 0 have been given/],
    ['an OBJ coordinate that is none', text('v 0 0 x\n'), 'a.obj', /line 1: “x” stands where a coordinate should stand/],
  ])('%s', (_, bytes, name, words) => {
    expect(said(bytes, name)).toMatch(words);
    expect(said(bytes, name)).toMatch(/Nothing was kept$/);
  });
  it('a binary coordinate that is no number is named by its triangle', () => {
    const bytes = binaryStl(BOX);
    new DataView(bytes.buffer).setFloat32(84 + 50 * 4 + 12, Number.NaN, true);
    expect(said(bytes, 'a.stl')).toMatch(/triangle 5 has a corner that is no number/);
  });
  // the npm package stl-models 0.12.0 ships files that are damaged on purpose
  const BROKEN = join(__dirname, '../../../../node_modules/stl-models/broken');
  it.each(readdirSync(BROKEN).filter((name) => name.endsWith('.stl')))(
    '%s of another project is read or refused, and never crashes',
    (name) => {
      const read = readMesh(readFileSync(join(BROKEN, name)), name);
      if (read.ok) expect(Number.isFinite(meshFigures(read.mesh).area)).toBe(true);
      else expect(read.message.length).toBeGreaterThan(40);
    },
  );
});

describe('files that are odd, not wrong', () => {
  const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
  const meshOf = (text: string, name: string): Mesh => {
    const read = readMesh(bytesOf(text), name);
    if (!read.ok) throw new Error(read.message);
    return read.mesh;
  };
  /** an L of 30 mm with legs of 10 mm, 5 mm high: two faces with a corner that points inwards; 2 500 mm³ by hand */
  const L = [[0, 0], [30, 0], [30, 10], [10, 10], [10, 30], [0, 30]]; // prettier-ignore
  const corners = [...L.map(([x, y]) => [x, y, 0]), ...L.map(([x, y]) => [x, y, 5])];
  const sides = L.map((_, i) => [i + 1, ((i + 1) % 6) + 1, ((i + 1) % 6) + 7, i + 7]);
  const faces = [[6, 5, 4, 3, 2, 1], [7, 8, 9, 10, 11, 12], ...sides]; // prettier-ignore
  const obj = [...corners.map((c) => `v ${c.join(' ')}`), ...faces.map((f) => `f ${f.join(' ')}`)].join('\n');
  it('a polygon with a corner that points inwards is cut rightly, from whichever corner it begins', () => {
    for (let turn = 0; turn < 6; turn++) {
      const turned = [faces[0]!, faces[1]!].map((f) => [...f.slice(turn), ...f.slice(0, turn)]);
      const text = [...corners.map((c) => `v ${c.join(' ')}`), ...[...turned, ...sides].map((f) => `f ${f.join(' ')}`)].join('\n');
      const figures = meshFigures(meshOf(text, 'l.obj'));
      expect(figures.volume).toBeCloseTo(2500, 9);
      expect(figures.area).toBeCloseTo(2 * 500 + 120 * 5, 9);
    }
  });
  it('a mark of the encoding before the text, and lines that go on after a backslash, are read through', () => {
    const volume = meshFigures(meshOf(obj, 'l.obj')).volume;
    expect(meshFigures(meshOf(`\ufeff${obj}`, 'l.obj')).volume).toBe(volume);
    expect(meshFigures(meshOf(obj.replace('f 6 5 4', 'f 6 5 \\\n4'), 'l.obj')).volume).toBe(volume);
    expect(meshFigures(meshOf(obj.replace('f 6 5 4', 'f 6 5 \\\r\n4'), 'l.obj')).volume).toBe(volume);
    const ply = `ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n`;
    expect(meshOf(`\ufeff${ply}`, 'a.ply').triangles.length).toBe(3);
  });
  it('strips of triangles in a PLY are read, every other one turned, with −1 between two of them', () => {
    const strip = (list: string): string =>
      `ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\nelement tristrips 1\nproperty list int int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n${list}\n`;
    const square = meshFigures(meshOf(strip('4 0 1 2 3'), 's.ply'));
    expect(square.area).toBeCloseTo(1, 12);
    // both triangles are seen from above
    const { positions, triangles } = meshOf(strip('4 0 1 2 3'), 's.ply');
    for (let at = 0; at < triangles.length; at += 3) {
      const [a, b, c] = [0, 1, 2].map((i) => triangles[at + i]! * 3) as [number, number, number];
      expect((positions[b]! - positions[a]!) * (positions[c + 1]! - positions[a + 1]!) - (positions[c]! - positions[a]!) * (positions[b + 1]! - positions[a + 1]!)).toBeGreaterThan(0); // prettier-ignore
    }
    expect(meshOf(strip('7 0 1 2 -1 1 3 2'), 's.ply').triangles.length).toBe(6);
  });
  it('faces of fewer than three corners are told with their place', () => {
    expect(said(text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2\n'), 'l.obj')).toMatch(/line 4: a face needs three corners or more/);
    const ply = (face: string): Uint8Array =>
      text(
        `ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 2\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n${face}\n`,
      );
    expect(said(ply('2 0 1'), 'a.ply')).toMatch(/face 2 has 2 corners; three are needed/);
    expect(said(ply('3 0 2 1'), 'a.ply')).toBe('read');
  });
  it.each([
    ['vertices', 'element vertex 4000000000\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices', /more than its .* bytes can hold/],
    ['faces', 'element vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 9000000000000\nproperty list uchar int vertex_indices', /more than its .* bytes can hold/],
    ['something without properties', 'element vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement nothing 9000000000000\nelement face 1\nproperty list uchar int vertex_indices', /without any property/],
  ])('a PLY that promises an absurd count of %s is told at once, text or binary', (_, elements, why) => {
    for (const format of ['ascii', 'binary_little_endian']) {
      const began = Date.now();
      const read = readMesh(bytesOf(`ply\nformat ${format} 1.0\n${elements}\nend_header\n0 0 0\n`), 'a.ply');
      expect(read.ok ? '' : read.message).toMatch(why);
      expect(Date.now() - began).toBeLessThan(1000);
    }
  }); // prettier-ignore
});
