import { materialById } from '@each-bolt/core/shared';
import type { ScanFigures } from '@each-bolt/core/record';
import { readPoints } from './holes-view';
import { closedNote, cutLines, deviationColours, scanRows, volumeWords } from './scan-text';
import { figuresOf, loopsOf, outlinePath, roomFor, varied } from './section-text';
import { readOutline } from './sections-view';

const FIGURES: ScanFigures = {
  ...{ triangles: 12, volumeM3: 64.8e-6, volumeUM3: 0.32e-6, areaM2: 147.6e-4, centroidM: [0.06, 0.0225, 0.006] },
  ...{ openEdges: 0, nonManifoldEdges: 0, turnedEdges: 0, holes: 0, sidesM: [0.12, 0.045, 0.012], minimumM: [0.12, 0.045, 0.012] },
  ...{ hullVolumeM3: 64.8e-6, trimmedM: [0.12, 0.045, 0.012], shareFraction: 0.98, heldFraction: 1, heldOf: 'volume' },
};

describe('the figures of a scan in words', () => {
  it('have their unit and their uncertainty', () => {
    const rows = new Map(scanRows(FIGURES).map((row) => [row.word, row]));
    expect(rows.get('Volume')).toMatchObject({ value: '64.80 ± 0.64 cm³', note: 'watertight' });
    expect(rows.get('Surface')?.value).toBe('148 cm²');
    expect(rows.get('Minimum bounding box')).toMatchObject({ value: '120.0 × 45.0 × 12.0 mm', note: 'filled to 100.0 %' });
    expect(volumeWords(0.0123)).toBe('12.3 l');
  });
  it('say that an open scan encloses nothing, and never 0', () => {
    const open = { ...FIGURES, volumeM3: null, volumeUM3: null, openEdges: 4 };
    expect(scanRows(open)[0]).toMatchObject({ value: '–', note: 'the scan encloses nothing' });
  });
  it('say what open and doubled edges do', () =>
    expect(closedNote({ ...FIGURES, openEdges: 7, holes: 2, nonManifoldEdges: 1, turnedEdges: 3 })).toBe(
      '7 open edges in 2 holes, closed flat: the ± holds what that may be off; 1 edge of three triangles and more; 3 edges with a triangle turned inside out',
    ));
  it('colour what lies inside and outside, full at the most', () => {
    const colours = deviationColours(Float32Array.from([-1, 0, 2]), 1);
    const [inside, on, outside] = [0, 1, 2].map((i) => [...colours.slice(3 * i, 3 * i + 3)]);
    expect(inside![2]).toBeGreaterThan(0.7);
    expect(Math.max(...on!) - Math.min(...on!)).toBeLessThan(0.02);
    expect(outside![0]).toBeGreaterThan(0.8);
  });
  it('draw a cut where its plane lies', () => {
    const lines = cutLines([[[0, 0], [1, 0], [0, 1]]], { normal: [0, 0, 1], offset: 5, right: [1, 0, 0], up: [0, 1, 0] }); // prettier-ignore
    expect([...lines]).toEqual([0, 0, 5, 1, 0, 5, 1, 0, 5, 0, 1, 5, 0, 1, 5, 0, 0, 5]);
  });
});

describe('points that are typed', () => {
  it('are millimetres, two or three to a line', () => {
    expect(readPoints('0 0\n80 0 5\n\n 80;50')).toEqual({ points: [[0, 0, 0], [0.08, 0, 0.005], [0.08, 0.05, 0]], fault: '' }); // prettier-ignore
    expect(readPoints('0 0\n80').fault).toMatch(/^Line 2: “80” is no point/);
    expect(readPoints('0 0').fault).toBe('A hole pattern needs two points at least');
  });
  it('make an outline, and a hole after an empty line, whichever way they run', () => {
    const square = '0 0\n0 40\n40 40\n40 0';
    const { loops, fault } = readOutline(`${square}\n\n10 10\n30 10\n30 30\n10 30`);
    expect(fault).toBe('');
    // 40² − 20² mm²
    expect(figuresOf({ kind: 'outline', dimensions: {}, loops }, null).figures?.areaM2).toBeCloseTo(1200e-6, 12);
    expect(readOutline('0 0\n1 1').fault).toBe('An outline needs three points at least');
    expect(readOutline('0 0\n1 x\n2 2').fault).toMatch(/^Line 2/);
  });
});

describe('a section that is varied', () => {
  const tube = {
    kind: 'rectangular tube',
    dimensions: { width: 0.06, height: 0.1, thickness: 0.004, outerRadius: 0, innerRadius: 0 },
    loops: [],
  } as const;
  const steel = materialById.get('dc04')!;
  it('of twice the wall weighs nearly twice as much, and its outline stays', () => {
    const [own, thick] = [figuresOf(tube, steel).figures!, figuresOf(varied(tube, { height: 1, thickness: 2 }), steel).figures!];
    expect(thick.massKgPerM! / own.massKgPerM!).toBeGreaterThan(1.85);
    expect(thick.heightM).toBeCloseTo(own.heightM, 12);
  });
  it('says what cannot be made of it', () =>
    expect(figuresOf(varied(tube, { height: 0.05, thickness: 1 }), steel).fault).toBe('The wall is thicker than half the tube'));
  it('is drawn within its picture', () => {
    const path = outlinePath(loopsOf(tube), roomFor([loopsOf(tube)], 190, 140));
    const numbers = (path.match(/[\d.]+/g) ?? []).map(Number);
    expect(Math.max(...numbers)).toBeLessThanOrEqual(190);
    expect(path.match(/M/g)).toHaveLength(2);
  });
});
