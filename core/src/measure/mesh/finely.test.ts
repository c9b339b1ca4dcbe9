import fc from 'fast-check';
import { boxMesh, tubeMesh } from '../../../testing/solids';
import { areaOfVertices, finely, rmsOverSurface } from './finely';
import type { Mesh } from './mesh';
import { meshEdges } from './mesh-edges';
import { meshFigures } from './mesh-figures';

const edgeLengths = ({ positions, triangles }: Mesh): readonly number[] =>
  [...triangles].map((a, at) => {
    const b = triangles[at - (at % 3) + ((at + 1) % 3)]!;
    return Math.hypot(...[0, 1, 2].map((i) => positions[3 * a + i]! - positions[3 * b + i]!));
  });
const side = fc.double({ min: 1, max: 40, noNaN: true });

describe('a surface in small triangles', () => {
  it('is the same surface: volume and area stay, no gap opens, and no edge is longer than asked', () =>
    fc.assert(
      fc.property(fc.tuple(side, side, side), fc.double({ min: 3, max: 20, noNaN: true }), (sides, longest) => {
        const box = boxMesh(sides);
        const fine = finely(box, longest);
        const [a, b] = [meshFigures(box), meshFigures(fine)];
        expect(b.volume / a.volume).toBeCloseTo(1, 9);
        expect(b.area / a.area).toBeCloseTo(1, 9);
        expect(Math.max(...edgeLengths(fine))).toBeLessThanOrEqual(longest);
        expect(meshEdges(fine)).toMatchObject({ open: 0, nonManifold: 0 });
      }),
      { numRuns: 40 },
    ));
  it('that is fine enough already is the same mesh', () => {
    const tube = tubeMesh(10, 8, 3, 12);
    expect(finely(tube, 1000).triangles).toHaveLength(tube.triangles.length);
  });
  it('does not go on for ever: beyond so many triangles the rest stays as it is', () => {
    const fine = finely(boxMesh([10, 10, 10]), 0.001, 500);
    expect(fine.triangles.length / 3).toBeLessThanOrEqual(501);
    expect(meshFigures(fine).volume).toBeCloseTo(1000, 6);
  });
  it('of no length is refused', () => expect(() => finely(boxMesh([1, 1, 1]), 0)).toThrow(/more than 0/));
});

describe('the area that belongs to each vertex', () => {
  it('comes to the whole surface', () => {
    const tube = finely(tubeMesh(10, 8, 3, 12), 2);
    expect(areaOfVertices(tube).reduce((sum, a) => sum + a, 0)).toBeCloseTo(meshFigures(tube).area, 9);
  });
  it('weighs a mean: one corner of a box off by 3 belongs to three of its sides, whichever way they are split', () => {
    const box = boxMesh([2, 2, 2]);
    const all = rmsOverSurface(box, new Float32Array(8).fill(3));
    expect(all).toBeCloseTo(3, 6);
    const off = new Float32Array(8);
    off[0] = 3;
    const share = areaOfVertices(box)[0]! / 24;
    expect(rmsOverSurface(box, off)).toBeCloseTo(3 * Math.sqrt(share), 6);
  });
});
