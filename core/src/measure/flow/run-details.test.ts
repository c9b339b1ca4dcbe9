import { blank, type Connection, type FastenerSet, type Part, type Port } from '../../record';
import { testId } from '../../../testing/teardown';
import { portsById } from './routes';
import { runDetails } from './run-details';
import { runsOf } from './runs';

const part = (n: number): Part => ({
  id: testId(n),
  version: 1,
  ...blank('part', { vehicleId: testId(900), sequence: n, name: `line ${n}` }),
});
const line = (n: number, kind: 'hose' | 'pipe', lengthEachM: number | null, more: Partial<Connection> = {}): Connection => ({
  ...{ id: testId(100 + n), version: 1, ...blank('connection', { partId: testId(n), kind }) },
  ...{ lengthEachM, ...more },
});
const held = (n: number, of: number, kind: 'bolt' | 'clip', count: number): FastenerSet => ({
  ...{ id: testId(200 + n), version: 1, ...blank('fasteners', { partId: testId(of), kind, count }) },
});
const port = (n: number, xM: number): Port => ({
  ...{ id: testId(300 + n), version: 1, ...blank('port', { partId: testId(1), name: `port ${n}` }) },
  ...{ xM, yM: 0, zM: 0 },
});
const details = (lines: readonly Connection[], sets: readonly FastenerSet[], masses: readonly (number | null)[] = []) =>
  runDetails(
    runsOf(
      { parts: [1, 2, 3, 4, 5].map(part), connections: lines },
      () => true,
      () => 1,
    ),
    sets,
    portsById({ ports: [port(1, 0), port(2, 3)] }),
    [],
    () => 1,
    (id) => masses[[1, 2, 3, 4, 5].findIndex((n) => testId(n) === id)] ?? null,
    1060,
  );

describe('how lines are led and held', () => {
  // common practice, no source: five pipes held by two fasteners have 0.4 fasteners per pipe
  it('five pipes held by two fasteners: 0.4 for each', () =>
    expect(
      details(
        [1, 2, 3, 4, 5].map((n) => line(n, 'pipe', 1)),
        [held(1, 1, 'bolt', 1), held(2, 3, 'clip', 1)],
      ),
    ).toMatchObject({ holdersPerPiece: 0.4, guides: 1, fasteners: 1, rigidFraction: 1 }));
  it('the rigid share is by length, and a line without a length counts in neither', () =>
    expect(details([line(1, 'pipe', 0.6), line(2, 'hose', 1.8), line(3, 'hose', null)], []).rigidFraction).toBeCloseTo(0.25, 12));
  it('only lines with both ends placed are held against the straight line: 3.6 m where 3 m would do', () => {
    const ends = { fromPortId: testId(301), toPortId: testId(302) };
    expect(details([line(1, 'hose', 3.6, ends), line(2, 'hose', 9)], [])).toMatchObject({
      overStraight: expect.closeTo(1.2, 12) as number,
      placedPieces: 1,
    });
    expect(details([line(2, 'hose', 9)], []).overStraight).toBeNull();
  });
  it('a part that lines meet at, without a line of its own, is a fitting', () => {
    const ends = { fromPortId: testId(301), toPortId: testId(302) };
    // both ports are on line 1: as a part with a line it is none, as a tee between lines 2 and 3 it is one
    expect(details([line(1, 'hose', 1, ends)], []).fittings).toBe(0);
    expect(details([line(2, 'hose', 1, { toPortId: testId(301) }), line(3, 'hose', 1, { fromPortId: testId(302) })], []).fittings).toBe(1);
  });
  it('a dry mass is the sum of the parts the lines are on, or nothing while one has none', () => {
    expect(details([line(1, 'hose', 1), line(2, 'hose', 1)], [], [0.2, 0.35]).dryKg).toBeCloseTo(0.55, 12);
    expect(details([line(1, 'hose', 1), line(2, 'hose', 1)], [], [0.2, null])).toMatchObject({ dryKg: null, withoutMass: 1 });
  });
  // π/4 · 16² mm² · 2 m at 1 060 kg/m³, worked out by hand
  it('what is inside has its mass by the density: 426 g in 2 m of 16 mm', () =>
    expect(details([line(1, 'hose', 2, { innerM: 0.016 })], []).fluidKg).toBeCloseTo(0.42625, 5));
});
