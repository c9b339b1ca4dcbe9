import { blank, type Connection, type Part } from '../../record';
import { testId } from '../../../testing/teardown';
import { cableFigures, fluidsOf, loopOf, placedParts, runTotals, runsOf } from './runs';

const part = (n: number, name: string): Part => ({
  id: testId(n),
  version: 1,
  ...blank('part', { vehicleId: testId(900), sequence: n, name }),
});
const line = (n: number, of: number, fields: Partial<Connection> & Pick<Connection, 'kind'>): Connection => ({
  ...{ id: testId(100 + n), version: 1, ...blank('connection', { partId: testId(of), kind: fields.kind }) },
  ...fields,
});

const PARTS = [part(1, 'hose, out'), part(2, 'hose, back'), part(3, 'harness'), part(4, 'pipe')];
const LINES = [
  line(1, 1, { kind: 'hose', count: 1, innerM: 0.019, lengthEachM: 1.5 }),
  line(2, 2, { kind: 'hose', count: 2, innerM: null, lengthEachM: 0.4 }),
  line(3, 3, { kind: 'cable', count: 2, materialId: 'cu-etp', crossSectionM2: 2.5e-6, lengthEachM: 5, poles: 1 }),
  line(4, 3, { kind: 'connector', count: 4 }),
  line(5, 4, { kind: 'pipe', count: 1, innerM: 0.016, lengthEachM: null }),
];
const runs = runsOf(
  { parts: PARTS, connections: LINES },
  () => true,
  (id) => (id === testId(2) ? 3 : 1),
);

describe('hoses, pipes and cables', () => {
  it('are counted as often as their part, with their length and what is inside: 19 mm by 1.5 m hold 0.425 l', () => {
    const [hoses, pipes, cables] = runTotals(runs);
    expect(hoses).toMatchObject({ pieces: 7, lengthM: expect.closeTo(1.5 + 6 * 0.4, 9) as number, withoutFluid: 6 });
    // worked out by hand: π/4 · 19² mm² · 1.5 m
    expect(hoses!.fluidM3 * 1000).toBeCloseTo(0.42529, 5);
    expect(pipes).toMatchObject({ pieces: 1, lengthM: 0, meanM: null, withoutLength: 1 });
    // 2 cores of 2.5 mm² copper by 5 m at 8.89 g a metre and mm²
    expect(cables!.metalKg).toBeCloseTo(0.22225, 6);
  });
  // common practice, no source: 18.42 m in 35 pieces against 6.35 m in 10, 2.90 times, 0.526 m against 0.635 m a piece
  it('the mean piece is the length over the pieces', () => {
    const of = (pieces: number, lengthM: number) =>
      runTotals(
        runsOf(
          { parts: [part(1, 'lines')], connections: [line(1, 1, { kind: 'hose', count: pieces, lengthEachM: lengthM / pieces })] },
          () => true,
          () => 1,
        ),
      )[0]!;
    const [many, few] = [of(35, 18.42), of(10, 6.35)];
    expect([many.meanM, few.meanM, many.lengthM / few.lengthM]).toEqual([
      expect.closeTo(0.526, 3),
      expect.closeTo(0.635, 3),
      expect.closeTo(2.9, 2),
    ]);
  });
  it('a cable whose metal nobody named has no mass and no resistance: nothing is taken to be copper', () => {
    const unnamed = runsOf(
      { parts: PARTS, connections: [line(6, 3, { kind: 'cable', count: 2, crossSectionM2: 2.5e-6, lengthEachM: 5 })] },
      () => true,
      () => 1,
    );
    expect([unnamed[0]!.metalKg, cableFigures(unnamed[0]!, 10, 20)]).toEqual([null, null]);
    expect(runTotals(unnamed)[2]).toMatchObject({ metalKg: 0, withoutMetal: 2 });
  });
  it('fluids are told apart, the most frequent first', () => {
    const lines = [
      line(7, 1, { kind: 'hose', fluid: 'brake fluid' }),
      line(8, 2, { kind: 'pipe', count: 3, fluid: 'coolant' }),
      line(9, 3, { kind: 'cable' }),
    ];
    expect(
      fluidsOf(
        runsOf(
          { parts: PARTS, connections: lines },
          () => true,
          () => 1,
        ),
      ),
    ).toEqual(['coolant', 'brake fluid']);
  });
  it('a part inside an assembly that is there twice is there twice as often', () => {
    const whole = { ...part(1, 'arm'), quantity: 2, subsystemId: testId(50) };
    const inside = { ...part(2, 'hose'), quantity: 3, parentId: whole.id };
    expect(placedParts([inside, whole]).get(inside.id)).toEqual({ times: 6, subsystemId: testId(50) });
  });
  it('only parts that were asked for count', () =>
    expect(
      runsOf(
        { parts: PARTS, connections: LINES },
        ({ name }) => name === 'harness',
        () => 1,
      ),
    ).toHaveLength(1));
  it('a cable of 2.5 mm² and 5 m drops 0.345 V at 10 A and 20 °C', () => {
    const cable = runs.find(({ kind }) => kind === 'cable')!;
    // 17.241 nΩ m × 5 m / 2.5 mm² = 34.48 mΩ
    const figures = cableFigures(cable, 10, 20)!;
    expect([figures.ohm * 1000, figures.dropV, figures.lossW]).toEqual([
      expect.closeTo(34.483, 3),
      expect.closeTo(0.34483, 5),
      expect.closeTo(3.4483, 4),
    ]);
    expect(cableFigures(runs[0]!, 10, 20)).toBeNull();
  });
});

describe('a loop of lines', () => {
  const glycol = { densityKgPerM3: 1060, viscosityPaS: 2.3e-3 };
  it('names what it leaves out, and stands for the lines alone', () => {
    const loop = loopOf(runs, glycol, 1e-4);
    expect([loop.pieces, loop.leftOut]).toEqual([1, ['hose, back', 'pipe']]);
    expect(loop.pumpW).toBeCloseTo(loop.dropPa * 1e-4, 12);
    expect(loop.fastest?.part).toBe('hose, out');
  });
  it('with a pump runs where both meet', () => {
    const loop = loopOf(runs, glycol, { shutOffPa: 20_000, largestM3PerS: 4e-4 });
    expect(loop.dropPa).toBeCloseTo(20_000 * (1 - (loop.flowM3PerS / 4e-4) ** 2), 3);
  });
  it('half the length is half the drop but for the ends', () => {
    const short = runsOf(
      { parts: PARTS, connections: [{ ...LINES[0]!, lengthEachM: 0.75 }] },
      () => true,
      () => 1,
    );
    const [long, half] = [loopOf(runs, glycol, 1e-4).dropPa, loopOf(short, glycol, 1e-4).dropPa];
    const ends = (0.8 * 1060 * (1e-4 / ((Math.PI / 4) * 0.019 ** 2)) ** 2) / 2;
    expect(half - ends).toBeCloseTo((long - ends) / 2, 6);
  });
});
