import { blank, emptyRecord, type Connection, type Part, type Passage, type Port, type RunChange, type StudyRecord } from '../../record';
import { FULL_ROWS } from '../../../testing/rows';
import { testId } from '../../../testing/teardown';
import { circuitOf } from './circuit';
import { changedRuns } from './run-case';
import { runCaseReport } from './run-case-report';
import { portsById, routeOf } from './routes';
import { runsOf } from './runs';

const LPM = 1e-3 / 60;
const GLYCOL = { densityKgPerM3: 1060, viscosityPaS: 2.3e-3 };
const part = (n: number, name: string): Part => ({
  id: testId(n),
  version: 1,
  ...blank('part', { vehicleId: testId(900), sequence: n, name }),
});
const port = (n: number, of: number, name: string, at: readonly [number, number, number] | null = null): Port => ({
  ...{ id: testId(100 + n), version: 1, ...blank('port', { partId: testId(of), name }) },
  ...(at && { xM: at[0], yM: at[1], zM: at[2] }),
});
const hose = (n: number, of: number, from: number | null, to: number | null, fields: Partial<Connection> = {}): Connection => ({
  ...{ id: testId(200 + n), version: 1, ...blank('connection', { partId: testId(of), kind: 'hose' }) },
  ...{
    fromPortId: from === null ? null : testId(100 + from),
    toPortId: to === null ? null : testId(100 + to),
    innerM: 0.016,
    lengthEachM: 2,
  },
  ...fields,
});
const passage = (n: number, of: number, from: number, to: number, fields: Partial<Passage>): Passage => ({
  ...{ id: testId(300 + n), version: 1, ...blank('passage', { partId: testId(of), name: 'through', does: 'resists' }) },
  ...{ fromPortId: testId(100 + from), toPortId: testId(100 + to) },
  ...fields,
});

const PARTS = [part(1, 'pump'), part(2, 'pack'), part(3, 'hose out'), part(4, 'hose back'), part(5, 'tee'), part(6, 'core')];
const PORTS = [
  port(1, 1, 'pump in', [0, 0, 0]),
  port(2, 1, 'pump out', [0.1, 0, 0]),
  port(3, 2, 'pack in', [2, 0, 0]),
  port(4, 2, 'pack out', [2, 0.4, 0]),
];
const PUMP = passage(1, 1, 1, 2, { does: 'pumps', pressurePa: 60_000, flowM3PerS: 20 * LPM });
const PACK = passage(2, 2, 3, 4, { pressurePa: 8000, flowM3PerS: 10 * LPM });
const OUT = hose(1, 3, 2, 3);
const BACK = hose(2, 4, 4, 1, { innerM: 0.012, lengthEachM: 2.2 });

const circuit = (lines: readonly Connection[], passages: readonly Passage[], ports: readonly Port[] = PORTS) =>
  circuitOf(
    { parts: PARTS, ports, passages },
    runsOf(
      { parts: PARTS, connections: lines },
      () => true,
      () => 1,
    ),
    GLYCOL,
  );

describe('a coolant circuit from its recorded ports', () => {
  it('runs at one flow, and what the pump gives is what the rest takes', () => {
    const { links, pumpW, issues } = circuit([OUT, BACK], [PUMP, PACK]);
    expect(issues).toEqual([]);
    const flow = links[0]!.flowM3PerS;
    for (const link of links) expect(link.flowM3PerS).toBeCloseTo(flow, 12);
    expect(links.reduce((sum, { dropPa }) => sum + dropPa, 0)).toBeCloseTo(0, 4);
    expect(links.find(({ name }) => name === 'hose out')!.formula).toMatch(
      /^\(0\.03\d\d × 2\.000 m \/ 16\.0 mm \+ 0\.8\) × ½ × 1.060 kg\/m³ × \(1\.\d\d m\/s\)²$/,
    );
    const pump = links.find(({ does }) => does === 'pumps')!;
    expect([pump.dropPa, pumpW]).toEqual([
      expect.closeTo(-60_000 * (1 - (flow / (20 * LPM)) ** 2), 4),
      expect.closeTo(-pump.dropPa * flow, 9),
    ]);
    expect(links.find(({ name }) => name === 'pack, through')!.dropPa).toBeCloseTo(8000 * (flow / (10 * LPM)) ** 2, 6);
  });
  it('two pumps one behind the other carry further than one', () => {
    const ports = [...PORTS, port(5, 6, 'second in'), port(6, 6, 'second out')];
    const second = passage(3, 6, 5, 6, { does: 'pumps', pressurePa: 60_000, flowM3PerS: 20 * LPM });
    const one = circuit([OUT, BACK], [PUMP, PACK]);
    const two = circuit([OUT, hose(3, 4, 4, 5, { lengthEachM: 0.01, innerM: 0.05 }), { ...BACK, fromPortId: testId(106) }], [PUMP, PACK, second], ports); // prettier-ignore
    expect(two.issues).toEqual([]);
    expect(two.links[0]!.flowM3PerS).toBeGreaterThan(one.links[0]!.flowM3PerS * 1.15);
  });
  // side by side by the square of the flow: 1 and 4 share as 2 : 1
  it('a tee shares the flow among branches as their resistance has it', () => {
    const ports = [...PORTS.slice(0, 2), ...[7, 8, 9].map((n) => port(n, 5, `tee ${n}`)), port(10, 2, 'a in'), port(11, 2, 'a out'), port(12, 6, 'b in'), port(13, 6, 'b out'), port(14, 1, 'unused')]; // prettier-ignore
    const wide = { innerM: 0.1, lengthEachM: 0.001 };
    const { links, issues } = circuit(
      [hose(1, 3, 2, 7, wide), hose(2, 3, 8, 10, wide), hose(3, 3, 9, 12, wide), hose(4, 4, 11, 1, wide), hose(5, 4, 13, 1, wide)],
      [
        PUMP,
        passage(2, 2, 10, 11, { pressurePa: 1000, flowM3PerS: 10 * LPM }),
        passage(3, 6, 12, 13, { pressurePa: 4000, flowM3PerS: 10 * LPM }),
      ],
      ports,
    );
    expect(issues).toEqual([]);
    const flowOf = (name: string): number => links.find((l) => l.name === name)!.flowM3PerS;
    expect(flowOf('pack, through') / flowOf('core, through')).toBeCloseTo(2, 3);
    expect(flowOf('pump, through')).toBeCloseTo(flowOf('pack, through') + flowOf('core, through'), 12);
  });
  it('a pipe with ports of its own leads from one to the other: they are not one place', () => {
    const ports = [...PORTS, port(7, 3, 'pipe, this end'), port(8, 3, 'pipe, that end')];
    const { links, issues } = circuit([hose(1, 4, 2, 7), hose(2, 3, 7, 8), hose(3, 4, 8, 3), BACK], [PUMP, PACK], ports);
    expect([issues, links.length]).toEqual([[], 6]);
  });
  it('a loop without a pump, a line without an end, one without a bore, and a way without data are named; the rest is worked out', () => {
    expect(circuit([OUT, BACK], [{ ...PUMP, does: 'resists' }, PACK]).issues).toMatchObject([{ code: 'loop-without-pump' }]);
    const cut = circuit([OUT, { ...BACK, toPortId: null }], [PUMP, PACK]);
    expect(cut.issues.map(({ code, field }) => [code, field])).toEqual([
      ['run-without-end', 'toPortId'],
      ['dead-end', null],
      ['dead-end', null],
      ['dead-end', null],
    ]);
    expect(circuit([OUT, { ...BACK, innerM: null }], [PUMP, PACK]).issues[0]).toMatchObject({ code: 'run-without-size', field: 'innerM' });
    expect(circuit([OUT, BACK], [PUMP, { ...PACK, flowM3PerS: null }]).issues[0]).toMatchObject({ code: 'passage-without-data' });
    const abroad = { ...part(7, 'another pack'), vehicleId: testId(901) };
    const strayed = circuitOf(
      { parts: [...PARTS, abroad], ports: [...PORTS, port(9, 7, 'there')], passages: [PUMP, PACK] },
      runsOf({ parts: PARTS, connections: [{ ...OUT, toPortId: testId(109) }, BACK] }, () => true, () => 1), // prettier-ignore
      GLYCOL,
    );
    expect(strayed.issues[0]).toMatchObject({ code: 'other-vehicle', recordId: OUT.id });
    expect(circuit([OUT, BACK, hose(9, 6, null, null)], [PUMP, PACK]).links).toHaveLength(4);
  });
});

describe('a line and its ends', () => {
  const ports = portsById({ ports: PORTS });
  it('is held against the straight line, over its route points and as it was measured', () => {
    const led = { ...OUT, route: [[0.1, 0.5, 0]] as const, lengthEachM: 2.6 };
    const { straightM, overPointsM, overStraight } = routeOf(led, 'hose', ports);
    expect([straightM, overPointsM, overStraight]).toEqual([
      expect.closeTo(1.9, 12),
      expect.closeTo(0.5 + Math.hypot(1.9, 0.5), 12),
      expect.closeTo(2.6 / 1.9, 12),
    ]);
  });
  it('shorter than its ends are apart, or with one end only, it is named', () => {
    expect(routeOf({ ...OUT, lengthEachM: 1.2 }, 'hose', ports).issues).toMatchObject([{ code: 'shorter-than-straight' }]);
    expect(routeOf({ ...OUT, toPortId: null }, 'hose', ports).issues).toMatchObject([{ code: 'run-without-end', field: 'toPortId' }]);
    expect(routeOf({ ...OUT, fromPortId: null, toPortId: null }, 'hose', ports)).toMatchObject({ straightM: null, issues: [] });
  });
});

describe('a what-if of lines', () => {
  const change = (n: number, fields: Partial<RunChange>): RunChange => ({
    ...{ id: testId(400 + n), version: 1, ...blank('runChange', { caseId: testId(500), change: 'move a port', sequence: n }) },
    ...fields,
  });
  const changed = (...runChanges: readonly RunChange[]) =>
    changedRuns({ connections: [OUT, BACK], ports: PORTS, parts: PARTS, runChanges }, { id: testId(500) });

  // worked out by hand: pack in from 2 000 to 1 500 mm: 1.4 m instead of 1.9 m from the pump, so 1.5 m of hose instead of 2
  it('an outlet moved half a metre nearer shortens the hose by as much', () => {
    const { connections, told } = changed(change(1, { portId: testId(103), xM: 1.5, yM: 0, zM: 0 }));
    expect(connections.map(({ lengthEachM }) => lengthEachM)).toEqual([expect.closeTo(1.5, 12), 2.2]);
    expect(told).toEqual(['“pack in” from 2 000 0 0 to 1 500 0 0 mm', 'hose of “hose out” 1.500 m instead of 2 m']);
  });
  // worked out by hand: from 0.1 over 1.9 / 0.6 to 2 / 0: 2.50566 m; to 1 / 0.6 instead, past the point: 1.08167 m
  it('a line passes by the route point that it would only go back to', () => {
    const led = { ...OUT, route: [[1.9, 0.6, 0]] as const, lengthEachM: 2.6 };
    const { connections } = changedRuns(
      { connections: [led], ports: PORTS, parts: PARTS, runChanges: [change(1, { portId: testId(103), xM: 1, yM: 0.6, zM: 0 })] },
      { id: testId(500) },
    );
    const was = Math.hypot(1.8, 0.6) + Math.hypot(0.1, 0.6);
    expect(connections[0]).toMatchObject({ route: [], lengthEachM: expect.closeTo(2.6 + Math.hypot(0.9, 0.6) - was, 9) as number });
    // moved further out it is still led over the point
    const out = changedRuns(
      { connections: [led], ports: PORTS, parts: PARTS, runChanges: [change(1, { portId: testId(103), xM: 2.4, yM: 0, zM: 0 })] },
      { id: testId(500) },
    );
    expect(out.connections[0]).toMatchObject({ route: led.route });
  });
  it('a line is shortened, or left out', () => {
    const { connections } = changed(
      change(1, { change: 'another length', connectionId: OUT.id, lengthEachM: 0.9 }),
      change(2, { change: 'leave out', connectionId: BACK.id }),
    );
    expect(connections.map(({ lengthEachM }) => lengthEachM)).toEqual([0.9]);
  });
  it('what cannot be told is named and stays as it is', () => {
    const far = changed(change(1, { portId: testId(103), xM: -3, yM: 0, zM: 0 }));
    expect(far.lacks).toEqual([]);
    const gone = changedRuns(
      {
        connections: [{ ...OUT, lengthEachM: 1.9 }],
        ports: PORTS,
        parts: PARTS,
        runChanges: [change(1, { portId: testId(103), xM: 0.1, yM: 0, zM: 0 })],
      },
      { id: testId(500) },
    );
    expect(gone.lacks).toEqual(['the hose of “hose out” would have no length left: is it still needed?']);
    expect(gone.connections[0]!.lengthEachM).toBe(1.9);
  });
  it('of another what-if it is untouched', () =>
    expect(changed(change(1, { caseId: testId(501), portId: testId(103), xM: 1, yM: 0, zM: 0 })).connections).toEqual([OUT, BACK]));
  it('is told against what is recorded: less hose, less inside, a little more flow', () => {
    const theCase = { id: testId(500), version: 1, ...blank('runCase', { vehicleId: testId(900), name: 'nearer', reason: 'shorter?' }) };
    const record: StudyRecord = {
      ...emptyRecord({ id: testId(901), version: 1, ...FULL_ROWS.study }),
      ...{ connections: [OUT, BACK], ports: PORTS, passages: [PUMP, PACK], parts: PARTS },
      runChanges: [change(1, { portId: testId(103), xM: 1.5, yM: 0, zM: 0 })],
    };
    const { rows, sentence } = runCaseReport(
      record,
      theCase,
      () => true,
      () => 1,
      '',
      GLYCOL,
    );
    expect(rows.slice(0, 2).map(({ word, recorded, would, change: by }) => [word, recorded, would, by])).toEqual([
      ['Lines, pieces', '2', '2', '0'],
      ['Hoses and pipes, m', '4.200', '3.700', '−0.500 (−12 %)'],
    ]);
    // π/4 · 16² mm² · 0.5 m = 0.1005 l less
    expect(rows[2]!.change).toMatch(/^−0\.101/);
    expect(rows[3]!.change).toMatch(/^\+0\.\d\d/);
    expect(sentence).toMatch(/: 0\.500 m less line$/);
  });
});
