import { boxMesh, joined, tubeMesh, turnedMesh } from '../../../testing/solids';
import { trimmedBox } from './trimmed-box';
import { circleThrough } from './circle-through';
import { guessUnit } from './guess-unit';
import { hull } from './hull';
import { registerScan } from './register-scan';
import type { Mesh, Vector } from './mesh';
import { MEASURE_STEPS, inMetres, measureMesh } from './measure-mesh';
import { meshEdges } from './mesh-edges';
import { slice } from './slice';
import { minimumBox } from './minimum-box';
import { wallThickness } from './wall-thickness';
import { loopArea, loopFigures } from '../sections/loop-figures';
import type { Place, RigidMove } from '../hole-patterns/best-fit';

/** A block of 100 × 100 × 100 with a bar of 200 × 2 × 2 that stands out. */
const BLOCK_WITH_BAR = joined(boxMesh([100, 100, 100]), turnedMesh(boxMesh([200, 2, 2]), [0, 0, 1], 0, [100, 49, 49]));

describe('the trimmed bounding box', () => {
  const whole = minimumBox(hull(BLOCK_WITH_BAR.positions));
  it('is that of the block, when 98 % of the volume is to be held: one thin bar does not decide', () => {
    expect(whole.sides[0]).toBeGreaterThan(290);
    const { box, heldFraction } = trimmedBox(BLOCK_WITH_BAR, whole, 0.98, true);
    expect(heldFraction).toBeGreaterThanOrEqual(0.98);
    // a side is known to a cell of the whole box, one in 96
    for (const side of box.sides) expect(Math.abs(side - 100)).toBeLessThan(6);
    expect(box.volume).toBeLessThan(whole.volume / 2.5);
  });
  it('is the minimum bounding box, when all is to be held', () => expect(trimmedBox(BLOCK_WITH_BAR, whole, 1, true).box).toBe(whole));
  it('keeps more the more it is to hold', () => {
    const volumes = [0.9, 0.99].map((share) => trimmedBox(BLOCK_WITH_BAR, whole, share, true).box.volume);
    expect([...volumes].sort((a, b) => a - b)).toEqual(volumes);
  });
  it('goes by the surface where the mesh is open, and says so', () => {
    const open = { ...BLOCK_WITH_BAR, triangles: BLOCK_WITH_BAR.triangles.slice(3) };
    expect(trimmedBox(open, whole, 0.9, false).heldOf).toBe('surface');
  });
});

describe('measuring a scan', () => {
  it('tells its steps in order, and turns the unit of the file into metres', () => {
    const told: string[] = [];
    const { figures } = measureMesh(tubeMesh(30, 28, 200, 64), 0.98, (step) => told.push(step));
    expect(told).toEqual([...MEASURE_STEPS]);
    const si = inMetres(figures, 'mm');
    expect(si.volumeM3).toBeCloseTo(72_767.92498e-9, 14);
    expect(si.areaM2).toBeCloseTo(figures.areaM2 * 1e-6, 12);
    expect(si.sidesM[2]).toBeCloseTo(0.2, 12);
    expect(inMetres(figures, 'in').volumeM3! / si.volumeM3!).toBeCloseTo(25.4 ** 3, 6);
  });
  it('a sheet of one side encloses nothing: its volume is absent, not 0', () => {
    const sheet: Mesh = {
      positions: Float64Array.from([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0]),
      triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    };
    const { figures } = measureMesh(sheet, 0.98);
    expect([figures.volumeM3, figures.volumeUM3, figures.openEdges]).toEqual([null, null, 4]);
    expect(figures.areaM2).toBe(1);
  });
  it('edges of three triangles and triangles turned inside out are told apart', () => {
    const fin = joined(boxMesh([1, 1, 1]), { positions: Float64Array.from([]), triangles: Uint32Array.from([]) });
    const withFin = {
      positions: Float64Array.from([...fin.positions, 0.5, -1, 0]),
      triangles: Uint32Array.from([...fin.triangles, 0, 1, 8]),
    };
    expect(meshEdges(withFin)).toMatchObject({ open: 2, nonManifold: 1, watertight: false });
    const box = boxMesh([1, 1, 1]);
    const turned = Uint32Array.from(box.triangles);
    [turned[0], turned[1]] = [turned[1]!, turned[0]!];
    expect(meshEdges({ ...box, triangles: turned })).toMatchObject({ open: 0, turned: 3, watertight: false });
  });
});

describe('the unit of a scan', () => {
  const known = { sidesM: [], massKg: null, densityKgPerM3: null };
  it('is that in which its length is the one recorded: a scan in inches is caught', () => {
    const guess = guessUnit([4.72, 1.77, 0.47], 3.95, { ...known, sidesM: [0.12, 0.045, 0.012] });
    expect(guess).toMatchObject({ unit: 'in', isClear: true });
    expect(guess.why).toMatch(/119\.9 mm, recorded are 120 mm/);
  });
  it('is that which gives a density there is, when only the mass is known', () => {
    expect(guessUnit([120, 45, 12], 64_800, { ...known, massKg: 0.175 })).toMatchObject({ unit: 'mm', isClear: true });
    expect(guessUnit([4.724, 1.772, 0.472], 3.954, { ...known, massKg: 0.175, densityKgPerM3: 2700 })).toMatchObject({ unit: 'in' });
  });
  it('is a guess and says so, when nothing is known', () =>
    expect(guessUnit([120, 45, 12], 0, known)).toMatchObject({ unit: 'mm', isClear: false }));
});

describe('a section plane', () => {
  it('cuts a tube into a ring: one loop round material, one round the hole', () => {
    const { loops, open } = slice(tubeMesh(30, 28, 200, 64), { normal: [0, 0, 1], offset: 71 });
    expect(open).toEqual([]);
    expect(loops.map((loop) => Math.sign(loopArea(loop))).sort()).toEqual([-1, 1]);
    // 64/2 sin(2π/64)(R² − r²)
    expect(loopFigures(loops).areaM2).toBeCloseTo(72_767.92498 / 200, 6);
  });
  it('through a corner or along an edge still closes', () => {
    for (const normal of [
      [1, 1, 0],
      [1, 0, 0],
      [1, 1, 1],
    ] as const) {
      // prettier-ignore
      const size = Math.hypot(...normal);
      const { loops, open } = slice(boxMesh([1, 1, 1]), {
        normal: normal.map((x) => x / size) as unknown as Vector,
        offset: normal[1] === 0 ? 0.5 : 1 / size,
      });
      expect([loops.length, open.length]).toEqual([1, 0]);
    }
  });
  it('through an open mesh leaves lines that do not close, and says so', () => {
    const box = boxMesh([1, 1, 1]);
    const { loops, open } = slice({ ...box, triangles: box.triangles.slice(0, -3) }, { normal: [0, 0, 1], offset: 0.4 });
    expect([loops.length, open.length]).toEqual([0, 1]);
  });
  it('beside the mesh cuts nothing', () => expect(slice(boxMesh([1, 1, 1]), { normal: [0, 0, 1], offset: 3 }).loops).toEqual([]));
});

describe('the rim of a hole', () => {
  it('clicked three times gives its middle and radius, in any plane', () => {
    // a circle of radius 5 about (10, 20, 30) in the plane square to (1, 1, 0)
    const at = (turn: number): Vector => [
      10 + (5 * Math.cos(turn)) / Math.SQRT2,
      20 - (5 * Math.cos(turn)) / Math.SQRT2,
      30 + 5 * Math.sin(turn),
    ];
    const found = circleThrough(at(0.3), at(2.1), at(4));
    for (const [i, x] of [10, 20, 30].entries()) expect(found?.centre[i]).toBeCloseTo(x, 9);
    expect(found?.radius).toBeCloseTo(5, 9);
  });
  it('is none of three points in a line', () => expect(circleThrough([0, 0, 0], [1, 1, 1], [2, 2, 2])).toBeNull());
});

describe('the wall at a point', () => {
  it('of a box is its thickness there', () => {
    const wall = wallThickness(boxMesh([120, 45, 12]), 2, [40, 20, 12]);
    expect(wall?.thickness).toBeCloseTo(12, 9);
    expect(wall?.onto.map((x) => Number(x.toFixed(9)))).toEqual([40, 20, 0]);
  });
  it('is not known where nothing lies behind', () => {
    const sheet: Mesh = { positions: Float64Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]), triangles: Uint32Array.from([0, 1, 2]) };
    expect(wallThickness(sheet, 0, [0.2, 0.2, 0])).toBeNull();
  });
});

describe('one scan registered to another', () => {
  const STILL: RigidMove = { rows: [[1, 0, 0], [0, 1, 0], [0, 0, 1]], shift: [0, 0, 0], isMirrored: false }; // prettier-ignore
  it('is turned and shifted until it lies on it', () => {
    // points of an uneven block, and the same turned by 12° and shifted
    const sides = [12, 7, 3] as const;
    const points = Array.from({ length: 600 }, (_, i): Place => {
      const [u, v] = [(i * 0.754877666) % 1, (i * 0.569840291) % 1];
      const face = i % 3;
      const at: [number, number, number] = [u * sides[0], v * sides[1], (i % 2) * sides[2]];
      if (face === 1) [at[0], at[1], at[2]] = [(i % 2) * sides[0], u * sides[1], v * sides[2]];
      if (face === 2) [at[0], at[1], at[2]] = [u * sides[0], (i % 2) * sides[1], v * sides[2]];
      return at;
    });
    const angle = (12 * Math.PI) / 180;
    const away = points.map(([x, y, z]): Place => [
      Math.cos(angle) * x - Math.sin(angle) * y + 0.7,
      Math.sin(angle) * x + Math.cos(angle) * y - 0.4,
      z + 0.2,
    ]);
    const nearest = (p: Place): Place => {
      const inside = p.map((x, i) => Math.min(sides[i]!, Math.max(0, x))) as [number, number, number];
      const isOut = inside.some((x, i) => x !== p[i]);
      if (isOut) return inside;
      const gaps = inside.flatMap((x, i) => [[x, i, 0], [sides[i]! - x, i, sides[i]!]] as const); // prettier-ignore
      const [, axis, to] = gaps.reduce((a, b) => (b[0] < a[0] ? b : a));
      const onto = [...inside] as [number, number, number];
      onto[axis] = to;
      return onto;
    };
    const registered = registerScan(away, nearest, [STILL]);
    expect(registered.rms).toBeLessThan(1e-3);
    expect(registered.move.rows[0][0]).toBeCloseTo(Math.cos(angle), 4);
  });
});
