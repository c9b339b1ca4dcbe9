import { rectangleTorsion } from './torsion';
import { solveTorsion, type TorsionSolution } from './solve-torsion';
import { triangulate } from './triangulate';
import type { Loop, Point } from './loop-figures';

const box = (left: number, bottom: number, right: number, top: number): Loop => [[left, bottom], [right, bottom], [right, top], [left, top]]; // prettier-ignore
const hole = (loop: Loop): Loop => [...loop].reverse();
const arc = (radius: number, from: number, to: number, steps: number, [cx, cy]: Point = [0, 0]): readonly Point[] =>
  Array.from({ length: steps + 1 }, (_, i): Point => [
    cx + radius * Math.cos(from + (i / steps) * (to - from)),
    cy + radius * Math.sin(from + (i / steps) * (to - from)),
  ]);
/** a circle whose polygon has its area */
const circle = (radius: number, cx = 0, sides = 180): Loop =>
  arc(radius * Math.sqrt((2 * Math.PI) / (sides * Math.sin((2 * Math.PI) / sides))), 0, 2 * Math.PI, sides, [cx, 0]).slice(0, -1);
const within = (value: number, wanted: number, share: number): void => expect(Math.abs(value / wanted - 1)).toBeLessThanOrEqual(share);
/** both bounds hold the true value, to the digits it is known to */
const bracket = ({ jLowM4, jHighM4 }: TorsionSolution, truth: number, share = 2e-3): void => {
  expect(jLowM4).toBeLessThanOrEqual(truth * (1 + share));
  expect(jHighM4).toBeGreaterThanOrEqual(truth * (1 - share));
};

// Closed forms of Saint-Venant's problem (Timoshenko, Goodier, Theory of Elasticity), worked out anew.
describe('torsion with a closed form, within 0.1 %', () => {
  it.each([
    ['a square, 0.1405770 a⁴', [box(0, 0, 1, 1)], 0.140577],
    ['a rectangle 4 times as long, 0.280813 b t³', [box(0, 0, 4, 1)], 4 * 0.280813],
    ['an equilateral triangle, √3/80 a⁴', [[[0, 0], [1, 0], [0.5, Math.sqrt(3) / 2]]], Math.sqrt(3) / 80],
    ['an ellipse 30 × 20, π a³b³/(a² + b²)', [Array.from({ length: 240 }, (_, i): Point => [30 * Math.cos((Math.PI * i) / 120), 20 * Math.sin((Math.PI * i) / 120)])], 521_987.7],
    ['a bored bar 20/12, π/2 (R⁴ − r⁴)', [circle(20), hole(circle(12))], 218_755.38],
    ['a half round, (π/2 − 4/π) r⁴', [arc(1, 0, Math.PI, 180)], 0.2975568],
  ] as const)('%s', (_, loops, exact) => within(solveTorsion(loops as readonly Loop[]).jM4, exact, 1e-3)); // prettier-ignore
  it('agrees with the series of the rectangle at any slenderness', () => {
    for (const ratio of [1, 1.5, 3, 8, 20]) within(solveTorsion([box(0, 0, ratio, 1)]).jM4, rectangleTorsion(ratio, 1), 1e-3);
  });
});

// Converged solutions by a program written apart from this one: six-node triangles with curved edges in two formulations that hold
// the truth between them to 0.1 % (the cross-shaped and I sections to 0.3 %).
const iSection = (h: number, b: number, tw: number, tf: number, r: number): Loop => {
  const fillet = arc(r, -Math.PI / 2, -Math.PI, 30, [tw / 2 + r, -h / 2 + tf + r]);
  const low: readonly Point[] = [[b / 2, -h / 2], [b / 2, -h / 2 + tf], ...fillet]; // prettier-ignore
  const right = [...low, ...low.map(([x, y]): Point => [x, -y]).reverse()];
  return [...right, ...right.map(([x, y]): Point => [-x, y]).reverse()];
};
describe('torsion against converged solutions', () => {
  it.each([
    ['a bar 20 with a bore 10, 5 off its middle', [circle(20), hole(circle(10, 5))], 213_566.2],
    ['a bar 20 with a bore 12, 4 off its middle', [circle(20), hole(circle(12, 4))], 194_765],
    ['a sharp box 60 × 100 × 4', [box(0, 0, 60, 100), hole(box(4, 4, 56, 96))], 1_559_950],
    ['a sharp box 60 × 100 × 2', [box(0, 0, 60, 100), hole(box(2, 2, 58, 98))], 838_200],
    ['two cells 60 × 60 and 40 × 60, walls 2', [box(-1, -1, 101, 61), hole(box(1, 1, 59, 59)), hole(box(61, 1, 99, 59))], 914_870],
    ['four cells of 50 × 50, walls 2', [box(-1, -1, 101, 101), hole(box(1, 1, 49, 49)), hole(box(51, 1, 99, 49)), hole(box(1, 51, 49, 99)), hole(box(51, 51, 99, 99))], 2_024_200],
    ['a sharp channel 100 × 50 × 5', [[[0, 0], [50, 0], [50, 5], [5, 5], [5, 95], [50, 95], [50, 100], [0, 100]]], 7_876],
    ['an I of 100 × 55', [iSection(100, 55, 4.1, 5.7, 7)], 11_530],
    ['an I of 400 × 180', [iSection(400, 180, 8.6, 13.5, 21)], 504_100],
    ['an H of 200 × 200', [iSection(200, 200, 9, 15, 18)], 595_900],
  ] as const)('%s, within 0.3 %%', (_, loops, converged) => {
    const found = solveTorsion(loops as readonly Loop[]);
    within(found.jM4, converged, 3e-3);
    bracket(found, converged);
  }); // prettier-ignore
});

describe('the shear centre', () => {
  it('of a half round lies 8/(5 π) r from its flat (closed form)', () => {
    const [x, y] = solveTorsion([arc(1, 0, Math.PI, 180)]).shearCentre;
    expect(Math.abs(x)).toBeLessThan(1e-3);
    within(y, 8 / (5 * Math.PI), 2e-3);
  });
  it('of the channel lies 15.114 mm outside its web, and its warping constant is 3.5726e8 mm⁶', () => {
    const found = solveTorsion([[[0, 0], [50, 0], [50, 5], [5, 5], [5, 95], [50, 95], [50, 100], [0, 100]]]); // prettier-ignore
    within(found.shearCentre[0], -15.114, 2e-3);
    within(found.warpingM6, 3.5726e8, 3e-3);
  });
  it('of a bar with a bore off its middle lies on the far side: 4.4086 and 5.7111 mm', () => {
    within(solveTorsion([circle(20), hole(circle(10, 5))]).shearCentre[0], -4.4086, 2e-3);
    within(solveTorsion([circle(20), hole(circle(12, 4))]).shearCentre[0], -5.7111, 2e-3);
  });
  it('of two cells side by side is 52.970 mm from the left mid-line', () =>
    within(solveTorsion([box(-1, -1, 101, 61), hole(box(1, 1, 59, 59)), hole(box(61, 1, 99, 59))]).shearCentre[0], 52.97, 1e-3));
  it('of a Z is its centroid', () => {
    const [x, y] = solveTorsion([[[0, 0], [50, 0], [50, 3], [3, 3], [3, 100], [-47, 100], [-47, 97], [0, 97]]]).shearCentre; // prettier-ignore
    expect([x, y].map((v) => Number(v.toFixed(2)))).toEqual([1.5, 50]);
  });
});

describe('whatever the outline', () => {
  const angle: Loop = [[0, 0], [60, 0], [60, 5], [5, 5], [5, 80], [0, 80]]; // prettier-ignore
  const turned = (loop: Loop, by: number, scale: number): Loop =>
    loop.map(([x, y]): Point => [scale * (x * Math.cos(by) - y * Math.sin(by)) + 7, scale * (x * Math.sin(by) + y * Math.cos(by)) - 3]);
  it('twists the same turned, shifted and in another unit: J grows with the fourth power', () => {
    const own = solveTorsion([angle]).jM4;
    for (const [by, scale] of [[0.3, 1], [2, 0.001], [4, 1000]] as const) within(solveTorsion([turned(angle, by, scale)]).jM4, own * scale ** 4, 1e-3); // prettier-ignore
  });
  it('has triangles that fill it, none with an angle below 20° but at corners that are sharper', () => {
    const { points, triangles } = triangulate([box(0, 0, 60, 100), hole(box(4, 4, 56, 96))]);
    let area = 0;
    let least = 180;
    for (const corners of triangles) {
      const [a, b, c] = corners.map((i) => points[i]!) as [Point, Point, Point];
      area += ((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2;
      for (const [p, q, r] of [[a, b, c], [b, c, a], [c, a, b]] as const) {
        const [u, v] = [[q[0] - p[0], q[1] - p[1]], [r[0] - p[0], r[1] - p[1]]] as const; // prettier-ignore
        least = Math.min(least, (Math.acos((u[0] * v[0] + u[1] * v[1]) / (Math.hypot(...u) * Math.hypot(...v))) * 180) / Math.PI);
      } // prettier-ignore
    }
    expect(area).toBeCloseTo(60 * 100 - 52 * 92, 6);
    expect(least).toBeGreaterThan(20);
  });
});
