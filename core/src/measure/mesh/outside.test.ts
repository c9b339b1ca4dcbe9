import fc from 'fast-check';
import { hull } from './hull';
import { outside } from './outside';
import type { Vector } from './mesh';
import { cross, dot, minus } from './vectors';

const OCTAHEDRON = Float64Array.from([1, 0, 0, -1, 0, 0, 0, 1, 0, 0, -1, 0, 0, 0, 1, 0, 0, -1]);

const coordinate = fc.double({ min: -1, max: 1, noNaN: true });
const cloud = (least: number, most: number): fc.Arbitrary<readonly Vector[]> =>
  fc.array(fc.tuple(coordinate, coordinate, coordinate), { minLength: least, maxLength: most });
const flat = (points: readonly Vector[]): Float64Array => Float64Array.from(points.flat());

describe('what lies outside a hull', () => {
  it('is what lies farther than 1 by |x| + |y| + |z| from the middle of an octahedron', () => {
    const points: Vector[] = [[0.3, 0.3, 0.3], [0.4, 0.4, 0.4], [-0.9, 0.2, 0], [0, 0, 0], [0.1, -0.2, -0.6], [5, 0, 0]]; // prettier-ignore
    expect([...outside(flat(points), hull(OCTAHEDRON))]).toEqual([0.4, 0.4, 0.4, -0.9, 0.2, 0, 5, 0, 0]);
  });

  it('is the same as when each point is held against every face', () => {
    fc.assert(
      fc.property(cloud(5, 30), cloud(0, 60), fc.integer({ min: 1, max: 12 }), (corners, points, by) => {
        const body = hull(flat(corners));
        fc.pre(body.volume > 1e-3);
        const beyond = (p: Vector): number =>
          Math.max(
            ...body.faces.map(([i, j, k]) => {
              const normal = cross(minus(body.points[j]!, body.points[i]!), minus(body.points[k]!, body.points[i]!));
              return dot(normal, minus(p, body.points[i]!));
            }),
          );
        // what lies on a face within rounding may be told either way
        const clear = points.filter((p) => Math.abs(beyond(p)) > 1e-12);
        expect([...outside(flat(clear), body, by)]).toEqual(clear.filter((p) => beyond(p) > 0).flat());
      }),
      { numRuns: 100 },
    );
  });
});
