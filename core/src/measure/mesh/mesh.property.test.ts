import fc from 'fast-check';
import { boxMesh, joined, torusMesh, tubeMesh, turnedMesh } from '../../../testing/solids';
import { hull } from './hull';
import { scaled, type Mesh, type Vector } from './mesh';
import { meshEdges } from './mesh-edges';
import { meshFigures } from './mesh-figures';
import { closedVolume } from './open-edges';
import { minimumBox } from './minimum-box';
import { weld } from './weld';

const side = fc.double({ min: 0.5, max: 50, noNaN: true });
const solid = fc.oneof(
  fc.tuple(side, side, side).map((sides): Mesh => boxMesh(sides)),
  fc.tuple(side, fc.integer({ min: 3, max: 20 })).map(([r, n]) => tubeMesh(r, r / 2, r * 3, n)),
  fc.tuple(side, fc.integer({ min: 4, max: 12 })).map(([r, n]) => torusMesh(r, r / 4, n, n + 1)),
);
const turn = fc.record({
  axis: fc.tuple(side, side, side),
  angle: fc.double({ min: 0, max: 6.2, noNaN: true }),
  shift: fc.tuple(side, side, side),
});
const near = (a: number, b: number, share = 1e-7): void =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(share * Math.max(Math.abs(a), Math.abs(b)));
const RUNS = { numRuns: 25 };
/** the search for a box takes its time */
const FEW_RUNS = { numRuns: 8 };

describe('of every solid', () => {
  it('turning and shifting change no volume, area or minimum bounding box', () =>
    fc.assert(
      fc.property(solid, turn, (mesh, { axis, angle, shift }) => {
        const turned = turnedMesh(mesh, axis, angle, shift);
        const [a, b] = [meshFigures(mesh), meshFigures(turned)];
        near(a.volume, b.volume);
        near(a.area, b.area);
        // a search, so that two orientations may end in two corners of the same valley
        near(minimumBox(hull(mesh.positions)).volume, minimumBox(hull(turned.positions)).volume, 2e-3);
      }),
      FEW_RUNS,
    ));
  it('scaling by s changes volume by s³, area by s², and the centroid by s', () =>
    fc.assert(
      fc.property(solid, fc.double({ min: 0.01, max: 30, noNaN: true }), (mesh, s) => {
        const [a, b] = [meshFigures(mesh), meshFigures(scaled(mesh, s))];
        near(b.volume, a.volume * s ** 3);
        near(b.area, a.area * s ** 2);
        for (const i of [0, 1, 2]) expect(b.centroid[i]! / s).toBeCloseTo(a.centroid[i]!, 6);
      }),
      RUNS,
    ));
  it('the minimum bounding box holds the hull, and the hull the solid', () =>
    fc.assert(
      fc.property(solid, turn, (mesh, { axis, angle, shift }) => {
        const turned = turnedMesh(mesh, axis, angle, shift);
        const outer = hull(turned.positions);
        const box = minimumBox(outer);
        expect(outer.volume).toBeGreaterThanOrEqual(meshFigures(turned).volume * (1 - 1e-9));
        expect(box.volume).toBeGreaterThanOrEqual(outer.volume * (1 - 1e-9));
        // the upright box is one of those it may be
        const { low, high } = meshFigures(turned);
        expect(box.volume).toBeLessThanOrEqual((high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2]) * (1 + 1e-9));
        for (const p of outer.points)
          for (const [k, axisOf] of box.axes.entries()) {
            const along = axisOf.reduce((sum, x, i) => sum + x * (p[i]! - box.centre[i]!), 0);
            expect(Math.abs(along)).toBeLessThanOrEqual(box.sides[k]! / 2 + 1e-7 * box.sides[0]);
          }
      }),
      FEW_RUNS,
    ));
  it('it is watertight; without some of its triangles it is not, and closing the hole brings the volume back', () =>
    fc.assert(
      fc.property(solid, (mesh) => {
        const whole = meshFigures(mesh);
        expect(meshEdges(mesh)).toMatchObject({ open: 0, nonManifold: 0, turned: 0, watertight: true });
        const open = { ...mesh, triangles: mesh.triangles.slice(3) };
        expect(meshEdges(open)).toMatchObject({ open: 3, watertight: false });
        const figures = meshFigures(open);
        const middle = figures.low.map((x, i) => (x + figures.high[i]!) / 2) as unknown as Vector;
        const closed = closedVolume(open, figures.volume, middle);
        near(closed.volume, whole.volume);
        expect([closed.holes.length, closed.u > 0]).toEqual([1, true]);
      }),
      RUNS,
    ));
  it('written corner by corner and welded it is the same again', () =>
    fc.assert(
      fc.property(solid, (mesh) => {
        const corners = Float64Array.from([...mesh.triangles].flatMap((v) => [0, 1, 2].map((i) => mesh.positions[3 * v + i]!)));
        const welded = weld(corners);
        near(meshFigures(welded).volume, meshFigures(mesh).volume);
        expect(welded.positions.length).toBeLessThanOrEqual(mesh.positions.length);
        expect(meshEdges(welded).watertight).toBe(true);
      }),
      RUNS,
    ));
  it('two of them touching nowhere have the volumes of both', () =>
    fc.assert(
      fc.property(solid, solid, (a, b) => {
        const far = turnedMesh(b, [0, 0, 1], 0, [500, 0, 0]);
        near(meshFigures(joined(a, far)).volume, meshFigures(a).volume + meshFigures(b).volume);
      }),
      RUNS,
    ));
});
