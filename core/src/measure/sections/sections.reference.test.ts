import { materialById } from '../../shared';
import { loopFigures, type Loop } from './loop-figures';
import { formulaOff, sectionFigures } from './section-figures';
import { outlineFault, withoutRepeats } from './outline-faults';
import { dimensionFault, sectionOf, type Dimensions, type SectionShape } from './shapes';
import { rectangleTorsion } from './torsion';

const STEEL = materialById.get('dc04')!;
const of = (shape: SectionShape, mm: Readonly<Record<string, number>>) =>
  sectionFigures(sectionOf(shape, Object.fromEntries(Object.entries(mm).map(([k, v]) => [k, v / 1000]))), STEEL);
const within = (value: number, wanted: number, share = 0.005): void => expect(Math.abs(value / wanted - 1)).toBeLessThanOrEqual(share);

const rectangle = (left: number, bottom: number, width: number, height: number): Loop =>
  ([[left, bottom], [left + width, bottom], [left + width, bottom + height], [left, bottom + height]] as const).map(([x, y]) => [x / 1000, y / 1000] as const); // prettier-ignore

// Printed tables of EN 10210-2 (hot finished: outer radius 1.5 T, inner T) and EN 10219-2 (cold formed, T ≤ 6: 2 T and T),
// from memory, each agreeing with the annex formulas to 0.3 %; kg/m, cm², cm⁴, cm³.
describe('hollow sections of the printed tables', () => {
  it.each([
    ['hot 100 × 5', 100, 5, 1.5, { kg: 14.7, a: 18.7, i: 279, w: 55.9, z: 66.4, j: 439 }],
    ['hot 50 × 4', 50, 4, 1.5, { kg: 5.64, a: 7.19, i: 25, w: 9.99, z: 12.3, j: 40.4 }],
    ['cold 100 × 5', 100, 5, 2, { kg: 14.4, a: 18.4, i: 271, w: 54.2, z: 64.6, j: 441 }],
    ['cold 50 × 3', 50, 3, 2, { kg: 4.25, a: 5.41, i: 19.5, w: 7.79, z: null, j: 32.1 }],
    ['cold 40 × 3', 40, 3, 2, { kg: 3.3, a: 4.21, i: 9.32, w: 4.66, z: null, j: 15.8 }],
  ] as const)('square, %s', (_, b, t, outer, table) => {
    const found = of('rectangular tube', { width: b, height: b, thickness: t, outerRadius: outer * t, innerRadius: t });
    within(found.massKgPerM!, table.kg);
    within(found.areaM2 * 1e4, table.a);
    within(found.ixM4 * 1e8, table.i);
    within(found.iyM4 * 1e8, table.i);
    within(found.wxM3 * 1e6, table.w);
    if (table.z !== null) within(found.zxM3 * 1e6, table.z);
    // the tables' formula takes the wall for thin: right for the table, up to 3 % below the truth
    within(found.jFormula!.jM4 * 1e8, table.j);
    expect(formulaOff(found.jFormula!.jM4, found.jM4)).toBeCloseTo((found.jFormula!.jM4 - found.jM4) / found.jM4, 12);
    within(found.jM4 * 1e8, table.j, 0.03);
  });
  it.each([
    ['48.3 × 3.2', 48.3, 3.2, { kg: 3.56, a: 4.53, i: 11.6, w: 4.8, j: 23.2 }],
    ['60.3 × 3.2', 60.3, 3.2, { kg: 4.51, a: 5.74, i: 23.5, w: 7.78, j: 46.9 }],
  ] as const)('round, %s', (_, diameter, thickness, table) => {
    const found = of('round tube', { diameter, thickness });
    within(found.massKgPerM!, table.kg);
    within(found.areaM2 * 1e4, table.a);
    within(found.ixM4 * 1e8, table.i);
    within(found.wxM3 * 1e6, table.w);
    within(found.jM4 * 1e8, table.j);
  });
});

// Closed forms, worked out with R 4.2.2; mm⁴ and mm³.
describe('sections worked out by formula', () => {
  it('a rectangle 40 × 80', () => {
    const found = of('rectangle', { width: 40, height: 80 });
    expect(found.ixM4 * 1e12).toBeCloseTo(1_706_666.67, 1);
    expect(found.wxM3 * 1e9).toBeCloseTo(42_666.67, 2);
    expect(found.zxM3 * 1e9).toBeCloseTo((40 * 80 ** 2) / 4, 1);
  });
  it('a sharp hollow rectangle 60 × 100 × 4', () => {
    const found = of('rectangular tube', { width: 60, height: 100, thickness: 4, outerRadius: 0, innerRadius: 0 });
    expect(found.ixM4 * 1e12).toBeCloseTo(1_625_685.33, 1);
    // thin walls alone by Bredt give 1 521 125.05; the tables add t³h/3
    const bredt = 1_521_125.05;
    expect(found.jFormula!.jM4 * 1e12 - (4 ** 3 * 2 * (56 + 96)) / 3).toBeCloseTo(bredt, 1);
  });
  it('a sharp channel 100 × 50 × 5', () => {
    const found = of('channel', { width: 50, height: 100, thickness: 5 });
    expect(found.areaM2 * 1e6).toBeCloseTo(950, 6);
    expect(found.ixM4 * 1e12).toBeCloseTo(1_432_916.67, 1);
    expect(found.jFormula!.jM4 * 1e12).toBeCloseTo(7_916.67, 1);
  });
  // crown 60 × 2 at y 40 to 42, webs 2 × (2 × 38) at y 2 to 40, flanges 2 × (20 × 2) at y 0 to 2
  const hat = [
    rectangle(-30, 40, 60, 2),
    rectangle(-30, 2, 2, 38),
    rectangle(28, 2, 2, 38),
    rectangle(-50, 0, 20, 2),
    rectangle(30, 0, 20, 2),
  ];
  it('a hat of five rectangles, without and with a plate 100 × 1.5 below', () => {
    const open = loopFigures(hat);
    expect([open.areaM2 * 1e6, open.centroid[1] * 1e3].map((x) => Number(x.toFixed(4)))).toEqual([352, 23.2727]);
    expect(open.ixM4 * 1e12).toBeCloseTo(96_539.15, 1);
    const closed = loopFigures([...hat, rectangle(-50, -1.5, 100, 1.5)]);
    expect([closed.areaM2 * 1e6, closed.centroid[1] * 1e3].map((x) => Number(x.toFixed(4)))).toEqual([502, 16.0946]);
    expect(closed.ixM4 * 1e12).toBeCloseTo(157_265.34, 1);
  });
  it('the hat of the library has the area and height of its walls', () => {
    const found = of('hat', { crown: 60, height: 42, flange: 20, thickness: 2 });
    // crown 60, two webs of 38 and two flanges that meet the webs: 60·2 + 2·38·2 + 2·22·2
    expect(found.areaM2 * 1e6).toBeCloseTo(60 * 2 + 2 * 38 * 2 + 2 * 22 * 2, 6);
    expect([found.widthM, found.heightM].map((x) => Number((x * 1e3).toFixed(6)))).toEqual([100, 42]);
    const closed = of('closed hat', { crown: 60, height: 42, flange: 20, thickness: 2, plateThickness: 1.5 });
    expect(closed.areaM2 - found.areaM2).toBeCloseTo(100 * 1.5e-6, 12);
    // closing the section multiplies its stiffness in twisting
    expect(closed.jM4 / found.jM4).toBeGreaterThan(100);
  });
  it('the hats of the library twist, as thin walls, by Σ b t³/3 and by Bredt, worked out by hand', () => {
    const open = of('hat', { crown: 60, height: 42, flange: 20, thickness: 2 });
    expect(open.jFormula!.jM4 * 1e12).toBeCloseTo(((60 + 2 * 38 + 2 * 22) * 2 ** 3) / 3, 6);
    const closed = of('closed hat', { crown: 60, height: 42, flange: 20, thickness: 2, plateThickness: 1.5 });
    const [width, height] = [60 - 2, 42 - 1 + 0.75];
    const around = width / 2 + (2 * height) / 2 + width / 1.5;
    const flanges = (2 * 20 * 2 ** 3 + 2 * 20 * 1.5 ** 3) / 3;
    expect(closed.jFormula!.jM4 * 1e12).toBeCloseTo((4 * (width * height) ** 2) / around + flanges, 6);
    expect(closed.jBy).toMatch(/assumes that the plate is joined all along/);
    expect(open.jBy).not.toMatch(/plate/);
    // of a tube as well: thin walls of a channel say no more than their lengths
    expect(of('rectangle', { width: 40, height: 80 })).toMatchObject({ jFormula: null, jUM4: 0, jBy: 'solid rectangle, exact' });
    expect(of('round tube', { diameter: 40, thickness: 2 }).jM4 * 1e12).toBeCloseTo((Math.PI / 2) * (20 ** 4 - 18 ** 4), 3);
  });
  // S. Timoshenko, Theory of Elasticity: J = β b t³, from memory, agreeing with the series
  it.each([
    [1, 0.1406],
    [1.5, 0.1958],
    [2, 0.2287],
    [3, 0.2633],
    [4, 0.2808],
    [6, 0.2983],
    [10, 0.3123],
  ])('a rectangle %d times as long as thick twists with β = %d', (ratio, beta) =>
    expect(rectangleTorsion(ratio, 1) / ratio).toBeCloseTo(beta, 3),
  );
});

// An angle has no axis of symmetry: nothing of it is right by chance. Two rectangles and the parallel axis theorem, by hand; mm.
describe('an angle 60 × 80 × 5', () => {
  const [a, b] = [
    { w: 60, h: 5, x: 30, y: 2.5 },
    { w: 5, h: 75, x: 2.5, y: 42.5 },
  ] as const;
  const areaOf = ({ w, h }: typeof a | typeof b): number => w * h;
  const area = areaOf(a) + areaOf(b);
  const [x, y] = [(areaOf(a) * a.x + areaOf(b) * b.x) / area, (areaOf(a) * a.y + areaOf(b) * b.y) / area];
  const sum = (f: (r: typeof a | typeof b) => number): number => f(a) + f(b);
  const ix = sum((r) => (r.w * r.h ** 3) / 12 + areaOf(r) * (r.y - y) ** 2);
  const iy = sum((r) => (r.h * r.w ** 3) / 12 + areaOf(r) * (r.x - x) ** 2);
  const ixy = sum((r) => areaOf(r) * (r.x - x) * (r.y - y));
  const mm = (loop: readonly (readonly [number, number])[]): Loop => loop.map(([u, v]) => [u / 1000, v / 1000] as const);
  const angle = mm([[0, 0], [60, 0], [60, 5], [5, 5], [5, 80], [0, 80]]); // prettier-ignore
  const found = loopFigures([angle]);

  it('has its area, centroid and second moments', () => {
    expect([found.areaM2 * 1e6, found.centroid[0] * 1e3, found.centroid[1] * 1e3].map((v) => Number(v.toFixed(6)))).toEqual(
      [area, x, y].map((v) => Number(v.toFixed(6))),
    );
    expect([ix, iy, ixy].map((v) => Math.round(v))).toEqual([443_073, 216_823, -183_333]);
    for (const [own, wanted] of [[found.ixM4, ix], [found.iyM4, iy], [found.ixyM4, ixy]] as const) expect(own * 1e12).toBeCloseTo(wanted, 3); // prettier-ignore
  });
  it('is stiffest about an axis turned from its legs: Mohr’s circle', () => {
    const [mean, radius] = [(ix + iy) / 2, Math.hypot((ix - iy) / 2, ixy)];
    expect(found.i1M4 * 1e12).toBeCloseTo(mean + radius, 3);
    expect(found.i2M4 * 1e12).toBeCloseTo(mean - radius, 3);
    // about axes turned by the angle the product is nothing, and the moment is the larger one
    const [c, s] = [Math.cos(found.angleRad), Math.sin(found.angleRad)];
    expect(ix * c * c + iy * s * s - 2 * ixy * s * c).toBeCloseTo(mean + radius, 3);
    expect(((ix - iy) / 2) * Math.sin(2 * found.angleRad) + ixy * Math.cos(2 * found.angleRad)).toBeCloseTo(0, 3);
    // of a square every axis is alike
    expect(loopFigures([rectangle(0, 0, 50, 50)]).angleRad).toBe(0);
  });
  it('bends to the modulus of its farther side, whichever that is, and yields by halves of its area', () => {
    expect(found.wxM3 * 1e9).toBeCloseTo(ix / (80 - y), 3);
    expect(found.wyM3 * 1e9).toBeCloseTo(iy / (60 - x), 3);
    const over = loopFigures([mm([[0, 0], [5, 0], [5, 75], [60, 75], [60, 80], [0, 80]])]); // prettier-ignore
    expect(over.wxM3 * 1e9).toBeCloseTo(ix / (80 - y), 3);
    // half of 675 mm² lies above y = 12.5
    expect(found.zxM3 * 1e9).toBeCloseTo(5 * 67.5 * 33.75 + 60 * 5 * 10 + 5 * 7.5 * 3.75, 3);
    expect(over.zxM3).toBeCloseTo(found.zxM3, 15);
    expect([found.widthM, found.heightM, found.perimeterM].map((v) => Number((v * 1e3).toFixed(6)))).toEqual([60, 80, 280]);
  });
  it('is the same far from the origin, to nine digits', () => {
    const far = loopFigures([angle.map(([u, v]) => [u + 40, v - 70] as const)]);
    for (const figure of ['areaM2', 'ixM4', 'iyM4', 'ixyM4', 'wxM3', 'wyM3', 'zxM3', 'i1M4', 'i2M4'] as const)
      expect(far[figure] / found[figure]).toBeCloseTo(1, 9);
    expect([far.centroid[0] - 40, far.centroid[1] + 70].map((v) => Number(v.toFixed(9)))).toEqual(
      [x / 1e3, y / 1e3].map((v) => Number(v.toFixed(9))),
    );
  });
});

describe('an outline of its own', () => {
  const asOutline = (shape: SectionShape, d: Dimensions) =>
    sectionFigures({ loops: sectionOf(shape, d).loops, torsion: { kind: 'outline' } }, STEEL);
  it.each([
    ['a round tube', 'round tube', { diameter: 0.04, thickness: 0.008 }],
    ['a compact rectangle', 'rectangle', { width: 0.04, height: 0.05 }],
    ['a long rectangle', 'rectangle', { width: 0.004, height: 0.04 }],
  ] as const)('%s twists as the closed form says, within 0.1 %%', (_, shape, d) => {
    const [own, known] = [asOutline(shape, d), sectionFigures(sectionOf(shape, d), STEEL)];
    within(own.jM4, known.jM4, 0.001);
    expect(own.jBy).toMatch(/^finite elements, \d+ triangles, within ± /);
  });
  it('drawn the wrong way round is refused', () => expect(() => loopFigures([[[0, 0], [0, 1], [1, 1]]])).toThrow(/left of the way round/)); // prettier-ignore
  it('that crosses, touches or folds back onto itself is refused, and it is said where', () => {
    const bow: Loop = [[0, 0], [0.1, 0.1], [0.1, 0], [0, 0.1]]; // prettier-ignore
    expect(outlineFault([bow])).toMatch(/crosses or touches itself near 0 0 and 100 0 mm/);
    const square = rectangle(0, 0, 100, 100);
    expect(outlineFault([square, [...rectangle(50, 50, 100, 20)].reverse()])).toMatch(/crosses or touches itself/);
    expect(outlineFault([square, [...rectangle(0, 20, 50, 20)].reverse()])).toMatch(/crosses or touches itself/);
    expect(outlineFault([[[0, 0], [0.1, 0], [0.05, 0], [0.05, 0.1]]])).toMatch(/folds back onto itself/); // prettier-ignore
    expect(outlineFault([[[0, 0], [0.1, 0], [0.1, 0], [0, 0.1]]])).toMatch(/lie on one place, at 100 0 mm/); // prettier-ignore
    expect(outlineFault([square, [...rectangle(20, 20, 50, 20)].reverse()])).toBeNull();
    // a corner that touches a side, a corner on a corner, two plates edge to edge
    expect(outlineFault([square, [...rectangle(20, 0, 50, 20)].reverse()])).toMatch(/crosses or touches itself/);
    expect(outlineFault([square, rectangle(100, 100, 20, 20)])).toMatch(/crosses or touches itself/);
    expect(outlineFault([square, rectangle(100, 20, 20, 20)])).toMatch(/crosses or touches itself/);
    expect(outlineFault([square, rectangle(100.01, 20, 20, 20)])).toBeNull();
    // back along the way it came, further than it came
    expect(outlineFault([[[0, 0], [0.1, 0], [-0.05, 0], [0, 0.1]]])).toMatch(/folds back onto itself at 100 0 mm/); // prettier-ignore
    // straight on is no fold
    expect(outlineFault([[[0, 0], [0.05, 0], [0.1, 0], [0.1, 0.1]]])).toBeNull(); // prettier-ignore
    expect(outlineFault([])).toMatch(/three points/);
    expect(outlineFault([square.slice(0, 2)])).toMatch(/three points/);
    expect(outlineFault([[...square].reverse()])).toMatch(/encloses nothing/);
    // a hole larger than what it is in
    expect(outlineFault([rectangle(0, 0, 10, 10), [...rectangle(20, 20, 50, 20)].reverse()])).toMatch(/encloses nothing/);
    // a corner that a cut came to twice is one
    const twice = withoutRepeats([[square[0]!, square[0]!, square[1]!, square[2]!, square[3]!, [0, 1e-12]]]);
    expect(twice[0]).toHaveLength(4);
    expect(loopFigures(twice).areaM2).toBeCloseTo(0.01, 12);
    expect(outlineFault(twice)).toBeNull();
    expect(() => sectionFigures({ loops: [bow], torsion: { kind: 'outline' } }, STEEL)).toThrow(/crosses or touches/);
  });
});

describe('what a section is worth', () => {
  it('a kilogram of aluminium tube is stiffer in bending than one of steel tube of the same outline', () => {
    const tube = sectionOf('rectangular tube', { width: 0.06, height: 0.1, thickness: 0.004, outerRadius: 0, innerRadius: 0 });
    const [steel, aluminium] = [sectionFigures(tube, STEEL), sectionFigures(tube, materialById.get('aw-6082')!)];
    // E/ρ: 210/7850 against 70/2700
    expect(aluminium.bendingPerKg! / steel.bendingPerKg!).toBeCloseTo(70 / 2700 / (210 / 7850), 9);
    expect(sectionFigures(tube, null)).toMatchObject({ massKgPerM: null, bendingNm2: null, bendingPerKg: null });
  });
  it('dimensions that make no section are named', () => {
    expect(dimensionFault('round tube', { diameter: 0.02, thickness: 0.011 })).toMatch(/thicker than half/);
    expect(dimensionFault('hat', { crown: 0.06, height: 0.04, flange: 0.02 })).toBe('Wall thickness is missing');
    expect(dimensionFault('rectangle', { width: 40, height: 80 })).toMatch(/was it typed in millimetres/);
  });
  // just not possible, and just possible
  it.each([
    ['round tube', { diameter: 20, thickness: 10 }, /thicker than half the diameter/],
    ['round tube', { diameter: 20, thickness: 9.99 }, null],
    ['rectangular tube', { width: 60, height: 20, thickness: 10, outerRadius: 0, innerRadius: 0 }, /thicker than half the tube/],
    ['rectangular tube', { width: 20, height: 60, thickness: 10, outerRadius: 0, innerRadius: 0 }, /thicker than half the tube/],
    ['rectangular tube', { width: 60, height: 40, thickness: 4, outerRadius: 20.1, innerRadius: 0 }, /outer corner radius is larger/],
    ['rectangular tube', { width: 60, height: 40, thickness: 4, outerRadius: 20, innerRadius: 16 }, null],
    ['rectangular tube', { width: 60, height: 40, thickness: 4, outerRadius: 20, innerRadius: 16.1 }, /inner corner radius is larger/],
    ['channel', { width: 5, height: 40, thickness: 5 }, /too thick for the channel/],
    ['channel', { width: 50, height: 10, thickness: 5 }, /too thick for the channel/],
    ['channel', { width: 5.1, height: 10.1, thickness: 5 }, null],
    ['hat', { crown: 10, height: 40, flange: 20, thickness: 5 }, /too thick for the hat/],
    ['hat', { crown: 60, height: 5, flange: 20, thickness: 5 }, /too thick for the hat/],
    [
      'closed hat',
      { crown: 60, height: 40, flange: 20, thickness: 2, plateThickness: 0 },
      /^Thickness of the closing plate must be above 0/,
    ],
    ['rectangle', { width: -1, height: 4 }, /^Width must be above 0/],
    ['rectangle', { width: Number.NaN, height: 4 }, /^Width is missing/],
    ['rectangle', { width: 10_000, height: 4 }, null],
    ['rectangle', { width: 10_001, height: 4 }, /at most 10 m/],
  ] as const)('%s %j', (shape, mm, says) => {
    const fault = dimensionFault(shape, Object.fromEntries(Object.entries(mm).map(([k, v]) => [k, v / 1000])));
    if (says === null) expect(fault).toBeNull();
    else expect(fault).toMatch(says);
  });
});
