import { blank, type Connection, type Part, type Supply } from '../../record';
import { testId } from '../../../testing/teardown';
import { boardFigures } from './board-figures';
import { supplyTree } from './supply-tree';

const VAN = testId(900);
const part = (n: number, name: string, fields: Partial<Part> = {}): Part => ({
  ...{ id: testId(n), version: 1, ...blank('part', { vehicleId: VAN, sequence: n, name }) },
  ...fields,
});

describe('a circuit board', () => {
  const board = { id: testId(50), version: 1, ...blank('board', { partId: testId(1) }), lengthM: 0.24, widthM: 0.195 };
  const set = (n: number, componentClass: 'power switch' | 'capacitor', count: number, fitted = true) => ({
    ...{ id: testId(60 + n), version: 1, ...blank('components', { partId: testId(1), componentClass, count, fitted }) },
  });
  // common practice, no source: a board of 24 × 19.5 cm has 468 cm²
  it('of 24 × 19.5 cm has 468 cm²; components are counted by class, places left empty apart', () => {
    const figures = boardFigures(board, [set(1, 'capacitor', 200), set(2, 'power switch', 24), set(3, 'capacitor', 10, false)], null);
    expect(figures.areaM2! * 1e4).toBeCloseTo(468, 9);
    expect([figures.fitted, figures.empty, figures.perCm2]).toEqual([224, 10, expect.closeTo(224 / 468, 9)]);
    expect(figures.byClass).toEqual([
      { componentClass: 'capacitor', fitted: 200, empty: 10 },
      { componentClass: 'power switch', fitted: 24, empty: 0 },
    ]);
  });
  it('without a size it still has its counts, and no density', () => {
    const figures = boardFigures(null, [set(1, 'capacitor', 3)], null);
    expect([figures.areaM2, figures.perCm2, figures.fitted]).toEqual([null, null, 3]);
  });
  it('larger than its box it is named, whichever way it lies', () => {
    const box = (lengthM: number, widthM: number, heightM: number) => part(2, 'box', { lengthM, widthM, heightM });
    expect(boardFigures(board, [], box(0.06, 0.25, 0.2)).issues).toEqual([]);
    expect(boardFigures(board, [], box(0.25, 0.19, 0.06)).issues).toMatchObject([
      { code: 'board-larger', field: 'lengthM', recordId: board.id, message: expect.stringContaining('240 × 195 mm') as string },
    ]);
    expect(boardFigures(board, [], part(2, 'box')).issues).toEqual([]);
  });
});

describe('the supply of a vehicle', () => {
  const point = (n: number, name: string, fields: Partial<Supply>): Supply => ({
    ...{ id: testId(n), version: 1, ...blank('supply', { partId: testId(1), name, sequence: n }) },
    ...fields,
  });
  const LINE: Connection = {
    ...{ id: testId(70), version: 1, ...blank('connection', { partId: testId(1), kind: 'cable', count: 2 }) },
    ...{ materialId: 'cu-etp', crossSectionM2: 2.5e-6, lengthEachM: 5 },
  };
  const SOURCE = point(10, 'battery', { role: 'source', voltageV: 12, currentA: 60 });
  const FUSE = point(11, 'fuse 3', { role: 'passes on', feedId: SOURCE.id, connectionId: LINE.id, fuseA: 15 });
  const FAN = point(12, 'fan', { feedId: FUSE.id, voltageV: 12, currentA: 8 });
  const LAMP = point(13, 'lamp', { feedId: FUSE.id, voltageV: 12, currentA: 2 });
  const treeOf = (...supplies: readonly Supply[]) => supplyTree({ supplies, parts: [part(1, 'harness')], connections: [LINE] }, VAN);

  // 17.241 nΩ m · 5 m / 2.5 mm² = 34.483 mΩ out and as much back; 10 A drop 0.690 V
  it('currents add up from the loads, voltage falls on the way down: 10 A over 2 × 5 m of 2.5 mm² leave 11.31 of 12 V', () => {
    const { nodes, issues } = treeOf(SOURCE, FUSE, FAN, LAMP);
    expect(nodes.map(({ point: p, depth, takesA }) => [p.name, depth, takesA])).toEqual([
      ['battery', 0, 10],
      ['fuse 3', 1, 10],
      ['fan', 2, 8],
      ['lamp', 2, 2],
    ]);
    expect([nodes[1]!.dropV, nodes[2]!.reachesV]).toEqual([expect.closeTo(0.68966, 4), expect.closeTo(11.31034, 4)]);
    expect(nodes[1]!.formula).toBe('gives 8.00 A + 2.00 A; gets 12.00 V − 10.0 A × 68.97 mΩ');
    expect(issues).toEqual([]);
  });
  it('a converter takes what it gives over its efficiency: 2 A at 5 V from 12 V at 80 % are 1.04 A', () => {
    const buck = point(14, '5 V supply', { role: 'converts', feedId: SOURCE.id, voltageV: 5, currentA: 3, efficiency: 0.8 });
    const { nodes } = treeOf(SOURCE, buck, point(15, 'controller', { feedId: buck.id, voltageV: 5, currentA: 2 }));
    expect(nodes[1]!.takesA).toBeCloseTo((2 * 5) / (0.8 * 12), 9);
    expect(nodes[1]!.formula).toBe('takes (2.00 A) × 5.00 V / (80 % × 12.0 V)');
    expect(nodes[2]!.reachesV).toBe(5);
  });
  it('a load that nothing feeds is named, and what hangs on a rail that nothing feeds stands as unfed', () => {
    const rail = point(16, 'rail', { role: 'passes on' });
    const { nodes, issues } = treeOf(SOURCE, FUSE, FAN, point(15, 'gate driver', { voltageV: 15 }), rail, point(18, 'relay', { feedId: rail.id })); // prettier-ignore
    expect(nodes.filter(({ isFed }) => !isFed).map(({ point: p }) => p.name)).toEqual(['gate driver', 'rail', 'relay']);
    expect(issues.map(({ code, recordId }) => [code, recordId])).toEqual([
      ['unfed', testId(15)],
      ['unfed', testId(16)],
    ]);
    expect(issues[0]!.message).toBe('“gate driver” is a load that nothing feeds: record what it is fed from, or that it is not connected');
  });
  it.each([
    ['a fuse that is too small', { ...FUSE, fuseA: 7.5 }, FAN, 'fuse'],
    ['a load made for 48 V', FUSE, { ...FAN, voltageV: 48 }, 'other-voltage'],
    ['more than the source gives', FUSE, { ...FAN, currentA: 70 }, 'overdrawn'],
    ['a load that feeds', FUSE, { ...FAN, feedId: LAMP.id }, 'load-feeds'],
  ])('%s is named', (_name, fuse, fan, code) => expect(treeOf(SOURCE, fuse, fan, LAMP).issues.map((i) => i.code)).toContain(code));
  it('a load that does not say what it takes leaves what is above it open; a line without conductor leaves the drop open', () => {
    const { nodes } = treeOf(SOURCE, FUSE, { ...FAN, currentA: null }, LAMP);
    expect(nodes.map(({ takesA }) => takesA)).toEqual([null, null, null, 2]);
    const bare = supplyTree(
      { supplies: [SOURCE, FUSE, FAN], parts: [part(1, 'harness')], connections: [{ ...LINE, materialId: null }] },
      VAN,
    );
    expect([bare.nodes[1]!.dropV, bare.nodes[2]!.reachesV, bare.issues[0]?.code]).toEqual([null, null, 'line-without-conductor']);
  });
  it('a source that feeds nothing, and a feed on another vehicle, are named', () => {
    expect(treeOf(SOURCE).issues.map((i) => i.code)).toEqual(['source-feeds-nothing']);
    const there = { ...SOURCE, id: testId(40), partId: testId(2) };
    const { issues } = supplyTree(
      {
        supplies: [there, { ...FAN, feedId: there.id }],
        parts: [part(1, 'harness'), part(2, 'battery', { vehicleId: testId(901) })],
        connections: [],
      },
      VAN,
    );
    expect(issues.map((i) => i.code)).toEqual(['other-vehicle']);
  });
});
