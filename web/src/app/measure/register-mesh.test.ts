import { finely, scaled, type Mesh } from '@each-bolt/core/measure';
import { boxMesh, turnedMesh } from '../../../../core/testing/solids';
import { registerMesh } from './register-mesh';

const PLATE = boxMesh([60, 40, 3]);
/** The plate with a dent pressed into the middle of its top, as deep as said. */
const dented = (depth: number): Mesh => {
  const fine = finely(PLATE, 2);
  const positions = fine.positions.map((value, at) => {
    const [x, y, z] = [fine.positions[at - (at % 3)]!, fine.positions[at - (at % 3) + 1]!, fine.positions[at - (at % 3) + 2]!];
    const near = Math.max(0, 1 - Math.hypot(x - 30, y - 20) / 8);
    return at % 3 === 2 && z > 2.9 ? value - depth * near : value;
  });
  return { positions, triangles: fine.triangles };
};

describe('registration and deviation of two scans', () => {
  it('that are the same, one turned and shifted, lie off by nothing: a small dent tells which way round they lie', () => {
    const { rms, worst } = registerMesh(turnedMesh(dented(0.8), [1, 2, 3], 0.6, [100, -40, 7]), dented(0.8));
    expect([rms < 0.02, worst < 0.06]).toEqual([true, true]);
  });
  it('a dent between the corners of large triangles is seen by its depth, from either side', () => {
    // twelve triangles, whose corners all lie on the other plate
    const fromWhole = registerMesh(PLATE, dented(0.8));
    expect(fromWhole.worst).toBeGreaterThan(0.5);
    expect(fromWhole.worst).toBeLessThan(0.85);
    expect(Math.max(...fromWhole.deviation)).toBeCloseTo(fromWhole.worst, 5);
    const fromDented = registerMesh(dented(0.8), PLATE);
    expect(fromDented.worst).toBeCloseTo(0.8, 1);
    // the dented one lies inside the whole one
    expect(-Math.min(...fromDented.deviation)).toBeCloseTo(fromDented.worst, 5);
  });
  it('what one has and the other lacks does not pull: a plate 0.2 mm longer is off by one end, and the mean is over its whole surface', () => {
    const { rms, worst } = registerMesh(boxMesh([60.2, 40, 3]), PLATE);
    expect(worst).toBeCloseTo(0.2, 2);
    // by hand: one end of 40 × 3 of 2 (60 × 40 + 60 × 3 + 40 × 3) mm² lies 0.2 mm off
    expect(rms).toBeGreaterThan(0.2 * Math.sqrt(120 / 5400));
    expect(rms).toBeLessThan(0.04);
  });
  it('in other units come to the same, once one is scaled to the other', () => {
    const inches = scaled(dented(0.8), 1 / 25.4);
    const { worst } = registerMesh(inches, scaled(PLATE, 1 / 25.4));
    expect(worst * 25.4).toBeCloseTo(0.8, 1);
  });
});
