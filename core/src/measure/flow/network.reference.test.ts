import { pipeDrop, pumpPa } from './pipe';
import { isDriven, solveNetwork, type NetworkLink, type NetworkNode } from './network';

const square = (name: string, from: string, to: string, k: number): NetworkLink => ({
  name,
  from,
  to,
  dropPa: (flow) => k * flow * Math.abs(flow),
});
const node = (name: string, takenM3PerS = 0, heldPa: number | null = null): NetworkNode => ({ name, takenM3PerS, heldPa });

describe('a network of pipes', () => {
  // two loops worked out by Newton and by Hardy Cross, equal to 6 decimals
  it('two loops, 100 in at A, 20, 30, 50 out at D, C, F', () => {
    const links = [
      ['A', 'B', 2],
      ['B', 'C', 4],
      ['A', 'D', 3],
      ['B', 'E', 5],
      ['C', 'F', 3],
      ['D', 'E', 2],
      ['E', 'F', 4],
    ].map(([from, to, k]) => square(`${from}${to}`, String(from), String(to), Number(k)));
    const nodes = [node('A', 0, 20_000), node('B'), node('C', 30), node('D', 20), node('E'), node('F', 50)];
    const { flows, pressures } = solveNetwork(nodes, links, 50);
    const expected = [55.41188, 41.041776, 44.58812, 14.370104, 11.041776, 24.58812, 38.958224];
    expect(flows).toEqual(expected.map((flow) => expect.closeTo(flow, 5) as number));
    expect(pressures[0]! - pressures[5]!).toBeCloseTo(13_244.425, 2);
  });
  it('three ways side by side of K 1, 4, 9 share 11 as 6 : 3 : 2', () => {
    const links = [1, 4, 9].map((k) => square(`K ${k}`, 'in', 'out', k));
    const { flows } = solveNetwork([node('in', -11), node('out', 11, 0)], links, 5);
    expect(flows).toEqual([6, 3, 2].map((flow) => expect.closeTo(flow, 7) as number));
  });
  it('a loop with its pump meets its circuit where the two curves cross', () => {
    const LPM = 1e-3 / 60;
    const glycol = { densityKgPerM3: 1060, viscosityPaS: 2.3e-3 };
    const links: readonly NetworkLink[] = [
      { name: 'pump', from: 'tank', to: 'out', dropPa: (flow) => -pumpPa({ shutOffPa: 60_000, largestM3PerS: 20 * LPM }, flow) },
      {
        name: 'pack',
        from: 'out',
        to: 'back',
        dropPa: (flow) => pipeDrop({ innerM: 0.016, lengthM: 2, roughnessM: 1.5e-6, minor: 1.2 }, glycol, flow).dropPa,
      },
      {
        name: 'return',
        from: 'back',
        to: 'tank',
        dropPa: (flow) => pipeDrop({ innerM: 0.012, lengthM: 1, roughnessM: 1.5e-6, minor: 0.9 }, glycol, flow).dropPa,
      },
    ];
    const nodes = [node('tank', 0, 0), node('out'), node('back')];
    const { flows } = solveNetwork(nodes, links, 10 * LPM);
    for (const flow of flows) expect(flow / LPM).toBeCloseTo(17.062042, 4);
    expect([isDriven(nodes, links), isDriven(nodes, links.slice(1))]).toEqual([true, false]);
  });
  it('what cannot be told is named', () => {
    const link = square('AB', 'A', 'B', 1);
    expect(() => solveNetwork([node('A', -1), node('B', 1)], [link], 1)).toThrow(/A hangs together with no node whose pressure is held/);
    expect(() => solveNetwork([node('A', 0, 0)], [link], 1)).toThrow('AB ends at “B”, which is no node');
  });
});
