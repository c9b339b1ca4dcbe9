import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import NodeStl from 'node-stl';
import { boxMesh, torusMesh, tubeMesh, turnedMesh } from '../../../testing/solids';
import { hull, hulls } from './hull';
import type { Mesh } from './mesh';
import { meshEdges } from './mesh-edges';
import { meshFigures } from './mesh-figures';
import { closedVolume } from './open-edges';
import { readMesh } from './read-mesh';
import { minimumBox } from './minimum-box';

const MODELS = join(__dirname, '../../../../node_modules/stl-models/objects');
const read = (name: string): Mesh => {
  const found = readMesh(readFileSync(join(MODELS, name)), name);
  if (!found.ok) throw new Error(found.message);
  return found.mesh;
};
const corners = (points: readonly (readonly number[])[]): Float64Array => Float64Array.from(points.flat());

// Solids whose figures are known by formula, confirmed by two modelling libraries (@jscad/modeling 2.13.0, manifold-3d 3.5.4).
describe('solids of the textbook', () => {
  it('a box of 120 × 45 × 12', () => {
    const { volume, area } = meshFigures(boxMesh([120, 45, 12]));
    expect([volume, area]).toEqual([64_800, 14_760]);
  });
  it('a tube of 64 sides, R 30, r 28, 200 long: n/2 sin(2π/n)(R² − r²)L, and not that of the circle', () => {
    expect(meshFigures(tubeMesh(30, 28, 200, 64)).volume).toBeCloseTo(72_767.92498, 5);
    expect(meshEdges(tubeMesh(30, 28, 200, 64)).watertight).toBe(true);
  });
  it('a ring R 50, r 10 of 128 × 256 sides, a little less than 2π²Rr² = 98696.044', () =>
    expect(meshFigures(torusMesh(50, 10, 128, 256)).volume).toBeCloseTo(98_646.507, 2));
  it('a box in any orientation has the minimum bounding box 12 × 45 × 120', () => {
    const turned = turnedMesh(boxMesh([120, 45, 12]), [1, 2, 3], 0.7, [400, -90, 7]);
    const { sides, volume } = minimumBox(hull(turned.positions));
    for (const [i, side] of [120, 45, 12].entries()) expect(sides[i]).toBeCloseTo(side, 9);
    expect(volume).toBeCloseTo(64_800, 6);
  });
  it('a regular tetrahedron fits a cube of twice its half-edge: hull 8/3, box 8', () => {
    const found = hull(corners([[1, 1, 1], [1, -1, -1], [-1, 1, -1], [-1, -1, 1]])); // prettier-ignore
    expect(found.volume).toBeCloseTo(8 / 3, 12);
    expect(minimumBox(found).volume).toBeCloseTo(8, 9);
  });
  it('an octahedron has a box of 64/27, which lies flat on none of its faces (flat on a face the best is 2.667)', () => {
    const found = hull(corners([[1, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]])); // prettier-ignore
    expect(found.volume).toBeCloseTo(4 / 3, 12);
    expect(minimumBox(found).volume).toBeCloseTo(64 / 27, 6);
  });
  it('a round body of 30 000 corners has the box 2a × 2b × 2c, however it lies, and its hull is found from all of them', () => {
    const [a, b, c] = [60, 40, 25];
    const points = Array.from({ length: 30_000 }, (_, i) => {
      const z = 1 - (2 * i + 1) / 30_000;
      const turn = i * Math.PI * (3 - Math.sqrt(5));
      const r = Math.sqrt(1 - z * z);
      return [a * r * Math.cos(turn), b * r * Math.sin(turn), c * z];
    });
    const { positions } = turnedMesh({ positions: corners(points), triangles: new Uint32Array() }, [2, -1, 3], 1.1, [7, 0, -300]);
    const found = hulls(positions);
    const box = minimumBox(found.rough, positions);
    expect(box.volume / (8 * a * b * c)).toBeGreaterThan(0.999);
    expect(box.volume / (8 * a * b * c)).toBeLessThan(1.001);
    // 4/3 π a b c, a little less for the flat facets
    const ratio = found.whole().volume / ((4 / 3) * Math.PI * a * b * c);
    expect(ratio).toBeGreaterThan(0.9995);
    expect(ratio).toBeLessThan(1);
  });
  it('a cube with a point inside has twelve hull triangles and leaves the point out', () => {
    const { positions } = boxMesh([1, 1, 1]);
    const found = hull(Float64Array.from([...positions, 0.4, 0.5, 0.6]));
    expect([found.faces.length, found.points.length]).toEqual([12, 8]);
  });
});

// Files of the npm package stl-models 0.12.0; hull and box by CGAL 5.5.1 (convex_hull_3, oriented_bounding_box).
describe('real files, held against other programs', () => {
  it('a gear wheel', () => {
    const mesh = read('gearwheel.bin.stl');
    const { volume, area } = meshFigures(mesh);
    expect(volume).toBeCloseTo(8922.637, 3);
    expect(area).toBeCloseTo(4508.734, 3);
    expect(meshEdges(mesh)).toMatchObject({ open: 0, nonManifold: 0, watertight: true });
    const outer = hull(mesh.positions);
    expect(outer.volume).toBeCloseTo(10_918.893, 3);
    const box = minimumBox(outer);
    expect(box.volume).toBeGreaterThanOrEqual(outer.volume);
    expect(box.volume).toBeLessThanOrEqual(13_878.34 * 1.001);
  });
  it('the same as text differs only by its rounding', () => {
    const [binary, text] = [meshFigures(read('gearwheel.bin.stl')), meshFigures(read('gearwheel.ascii.stl'))];
    expect(text.volume / binary.volume).toBeCloseTo(1, 6);
    expect(text.area / binary.area).toBeCloseTo(1, 6);
  });
  it('a scan of 69 451 triangles with 223 open edges', () => {
    const mesh = read('bunny.bin.stl');
    const figures = meshFigures(mesh);
    expect(mesh.triangles.length / 3).toBe(69_451);
    expect(meshEdges(mesh)).toMatchObject({ open: 223, watertight: false });
    expect(figures.area).toBeCloseTo(0.0571288, 6);
    const outer = hull(mesh.positions);
    expect(outer.volume / 1.2496602e-3).toBeCloseTo(1, 6);
    const box = minimumBox(outer);
    expect(box.volume / 2.40687e-3).toBeLessThanOrEqual(1.01);
    // what the open triangles alone give hangs on the origin; with the holes closed it does not
    const middle = figures.low.map((x, i) => (x + figures.high[i]!) / 2) as [number, number, number];
    const closed = closedVolume(mesh, figures.volume, middle);
    const moved = turnedMesh(mesh, [0, 0, 1], 0, [0.3, -0.2, 0.5]);
    const again = meshFigures(moved);
    const farOff = closedVolume(moved, again.volume, again.low.map((x, i) => (x + again.high[i]!) / 2) as [number, number, number]);
    expect(farOff.volume / closed.volume).toBeCloseTo(1, 9);
    expect(closed.volume).toBeGreaterThan(7e-4);
    expect(closed.volume).toBeLessThan(outer.volume);
    expect(closed.u / closed.volume).toBeLessThan(0.05);
  });
  it('node-stl reads the same volume and area from the same file (it takes millimetres and gives cm³)', () => {
    const other = new NodeStl(readFileSync(join(MODELS, 'gearwheel.bin.stl')));
    const { volume, area } = meshFigures(read('gearwheel.bin.stl'));
    expect(other.volume * 1000).toBeCloseTo(volume, 2);
    expect(other.area).toBeCloseTo(area, 2);
  });
});

describe('where the middle of a mass lies', () => {
  // the centroid of a tetrahedron is the mean of its corners, of a thin triangle too: any textbook of geometry
  const tetrahedron = (top: number): Mesh => ({
    positions: corners([[10, 20, 30], [18, 20, 30], [10, 26, 30], [10, 20, 30 + top]]), // prettier-ignore
    triangles: Uint32Array.from([0, 2, 1, 0, 1, 3, 1, 2, 3, 0, 3, 2]),
  });
  it('is a quarter of the way up a tetrahedron, in each direction', () => {
    const { centroid, volume } = meshFigures(tetrahedron(12));
    expect(volume).toBeCloseTo((8 * 6 * 12) / 6, 9);
    expect(centroid.map((x) => Number(x.toFixed(9)))).toEqual([12, 21.5, 33]);
  });
  it('is a third of the way in a sheet that encloses nothing', () => {
    const sheet: Mesh = { positions: corners([[0, 0, 5], [9, 0, 5], [0, 6, 11]]), triangles: Uint32Array.from([0, 1, 2]) }; // prettier-ignore
    expect(meshFigures(sheet).centroid.map((x) => Number(x.toFixed(9)))).toEqual([3, 2, 7]);
  });
});
