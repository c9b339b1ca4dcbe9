import { materialById } from '../../shared';
import { boxMesh, joined, tubeMesh } from '../../../testing/solids';
import { density, densityDoubts } from '../density';
import type { Mesh } from './mesh';
import { inMetres, measureMesh, withOffset } from './measure-mesh';

const STEEL = materialById.get('dc04')!;
const shifted = (mesh: Mesh, by: number): Mesh => ({ ...mesh, positions: mesh.positions.map((x) => x + by) });

describe('the volume of a scan', () => {
  it('of 0.8 mm sheet laid 0.03 mm too far out on each side is 7.5 % too large, and good steel is not called hollow', () => {
    const scanned = inMetres(measureMesh(boxMesh([300, 200, 0.86]), 0.98).figures, 'mm');
    expect(scanned.volumeM3! / (0.3 * 0.2 * 0.0008)).toBeCloseTo(1.075, 3);
    const massKg = 0.3 * 0.2 * 0.0008 * STEEL.densityKgPerM3;
    const read = density({ massKg, uKg: 0.0005 }, { volumeM3: scanned.volumeM3!, uM3: scanned.volumeUM3! });
    expect(densityDoubts(read, STEEL)).toEqual([]);
  });
  it('is known to the area times the offset of the scanner: by hand for a cube of 100 mm, 6 × 100² × 0.05 mm³ = 3 cm³', () => {
    const cube = measureMesh(boxMesh([100, 100, 100]), 0.98).figures;
    expect(inMetres(cube, 'mm', 0.00005).volumeUM3! * 1e6).toBeCloseTo(3, 6);
    expect(inMetres(cube, 'mm', 0.0001).volumeUM3! * 1e6).toBeCloseTo(6, 6);
    // stated anew for a scan that was kept: the mesh's own part stays, the offset's changes
    expect(withOffset(inMetres(cube, 'mm', 0.00005), 0.00005, 0.0001).volumeUM3! * 1e6).toBeCloseTo(6, 6);
  });
  it('of something round holds what its facets cut off: a ring of 24 facets lacks (1 − sin(2π/n)/(2π/n)) of its circle', () => {
    const rod = measureMesh(tubeMesh(30, 0.001, 200, 24), 0.98).figures;
    const lacking = Math.PI * 30 ** 2 * 200 * (1 - Math.sin((2 * Math.PI) / 24) / ((2 * Math.PI) / 24));
    expect(rod.volumeUM3! / lacking).toBeGreaterThan(0.9);
    expect(rod.volumeUM3! / lacking).toBeLessThan(1.1);
  });
  it('of a shell that lies on itself twice is none, with the reason, welded or a hair apart', () => {
    const box = boxMesh([40, 30, 20]);
    for (const twice of [joined(box, box), joined(box, shifted(box, 0.001))]) {
      const { figures, notes } = measureMesh(twice, 0.98);
      expect(figures.volumeM3).toBeNull();
      expect(notes.join()).toMatch(/lies on itself twice/);
    }
  });
  it('of two parts in one file, or of a hollow one, is theirs', () => {
    const { figures } = measureMesh(joined(boxMesh([40, 30, 20]), shifted(boxMesh([10, 10, 10]), 100)), 0.98);
    expect(figures.volumeM3).toBeCloseTo(25_000, 6);
    const inner = shifted(boxMesh([10, 10, 10]), 5);
    const cavity = { ...inner, triangles: Uint32Array.from([...inner.triangles].reverse()) };
    expect(measureMesh(joined(boxMesh([40, 30, 20]), cavity), 0.98).figures.volumeM3).toBeCloseTo(23_000, 6);
  });
});
