import { energyPerMass, packFigures, rollLengthM, topologyIssues, type Topology } from './topology';

const topology = (cellsInParallel: number, bricksPerModule: number, modules: number, more: Partial<Topology> = {}): Topology => ({
  ...{ cellsInParallel, bricksPerModule, modules, tubes: null, cellsPerTube: null },
  ...more,
});
const CELL = { capacityC: 5 * 3600, nominalV: 3.65, lowestV: 2.5, highestV: 4.2, massKg: 0.07 };

describe('a pack by its topology', () => {
  // worked out by hand
  it('96 bricks in series of 4 cells of 3.65 V, 5 Ah, 70 g: 350.4 V, 7.008 kWh, 26.88 kg, 260.7 Wh/kg of cells', () => {
    const pack = packFigures(topology(4, 8, 12), CELL);
    expect(pack).toMatchObject({ cells: 384, bricksInSeries: 96 });
    expect([pack.nominalV, pack.energyJ / 3.6e6, pack.cellsKg]).toEqual([350.4, 7.008, 26.88].map((x) => expect.closeTo(x, 9) as number));
    expect([pack.lowestV, pack.highestV]).toEqual([240, expect.closeTo(403.2, 9)]);
    const perMass = (massKg: number): number => energyPerMass(pack.energyJ, 0, { name: '', massKg, uKg: 0, boxM3: null })!.whPerKg;
    expect([perMass(pack.cellsKg!), perMass(160)]).toEqual([expect.closeTo(260.714, 3), expect.closeTo(43.8, 9)]);
  });
  it('the uncertainty of energy per mass is that of both: 1 % and 2 % are 2.2 %', () => {
    const { whPerKg, u } = energyPerMass(3.6e6, 3.6e4, { name: '', massKg: 10, uKg: 0.2, boxM3: null })!;
    expect([whPerKg, u / whPerKg]).toEqual([expect.closeTo(100, 9), expect.closeTo(Math.hypot(0.01, 0.02), 12)]);
    expect(energyPerMass(3.6e6, 0, { name: '', massKg: null, uKg: 0, boxM3: null })).toBeNull();
  });
  // common practice, no source
  it.each([
    ['16 modules of 444 cells, one tube each', topology(444, 1, 16, { tubes: 16, cellsPerTube: 444 }), 7104],
    ['16 modules of two tubes of 258 cells', topology(516, 1, 16, { tubes: 32, cellsPerTube: 258 }), 8256],
    ['5 modules of 22 bricks of 72, one tube per two bricks', topology(72, 22, 5, { tubes: 55, cellsPerTube: 144 }), 7920],
  ])('%s', (_, counts, cells) => {
    expect(packFigures(counts, CELL).cells).toBe(cells);
    expect(topologyIssues(counts, { cells, cellsInModule: cells / counts.modules }, 'pack')).toEqual([]);
  });
  it('counts that do not multiply are named with the field at fault and multiplied out', () => {
    const found = topologyIssues(topology(38, 9, 12, { tubes: 108, cellsPerTube: 36 }), { cells: 4100, cellsInModule: 340 }, 'pack');
    expect(found.map((i) => [i.field, i.message])).toEqual([
      ['cellsCounted', '38 in parallel × 9 bricks × 12 modules is 4104 cells, 4100 were counted'],
      ['cellsInModule', '38 in parallel × 9 bricks is 342 cells, 340 were counted in the opened module'],
      [
        'cellsPerTube',
        '108 tubes × 36 cells is 3888, not the 4104 cells of the pack: a tube between two rows touches both, an outer one only one',
      ],
    ]);
  });
});

describe('the strip in a rolled cell', () => {
  // closed form; the exact spiral is 1348.834797 mm for the first, 0.003 % longer
  it('20.4 mm around 2 mm at 0.24 mm a turn is 1.3488 m; 17.5 around 3 at 0.25 is 0.9338 m', () =>
    expect([rollLengthM(0.0204, 0.002, 0.00024), rollLengthM(0.0175, 0.003, 0.00025)]).toEqual([
      expect.closeTo(1.348790446, 9),
      expect.closeTo(0.933838416, 9),
    ]));
  it('a roll no wider than its hole is refused', () => expect(() => rollLengthM(0.002, 0.002, 0.0002)).toThrow(/wider than the hole/));
});
