import { circuitOf, coolCells, runsOf } from '@each-bolt/core/measure';
import { blank, type Connection, type Part, type Passage, type Port } from '@each-bolt/core/record';
import { atMost, medianMs, type Result } from './harness';

const ROWS = 100;
const PER_ROW = 100;
const ACROSS = 7;
const ALONG = 8;

const id = (kind: number, n: number): string => `0000000${kind}-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** Cells that each have their own heat, so that rows are not alike and heat goes across them. */
const cells = (): void => {
  const heatPerCellW = Array.from({ length: ROWS }, (_, row) =>
    Array.from({ length: PER_ROW }, (__, n) => 1 + ((row * 7 + n * 3) % 11) / 50),
  );
  const state = coolCells({
    ...{ way: 'one pass', rows: ROWS, cellsPerRow: PER_ROW, heatPerCellW, cellToCoolantWPerK: 0.154, cellToCellWPerK: 0.02 },
    ...{ flowWPerK: 6, inletC: 25 },
  });
  if (state.rounds < 2 || Math.abs(state.imbalance) > 1e-6) throw new RangeError('the big pack was not solved');
};

/** A net of tees with a line from each to the next along and across, fed at one corner and drained at the other: 99 lines and a pump. */
const net = (): (() => void) => {
  const count = ACROSS * ALONG;
  const part = (n: number): Part => ({
    id: id(1, n),
    version: 1,
    ...blank('part', { vehicleId: id(9, 1), sequence: n, name: `part ${n}` }),
  });
  const port = (n: number, of: number): Port => ({ id: id(2, n), version: 1, ...blank('port', { partId: id(1, of), name: `port ${n}` }) });
  const [pump, lines] = [count, count + 1];
  const edge = (from: number, to: number): readonly [number, number] => [from, to];
  const ends = Array.from({ length: count }, (_, n) => n).flatMap((n) => [
    ...(n % ALONG < ALONG - 1 ? [edge(n, n + 1)] : []),
    ...(n + ALONG < count ? [edge(n, n + ALONG)] : []),
  ]);
  const connections = [...ends, edge(pump + 1, 0), edge(count - 1, pump)].map(([from, to], n): Connection => ({
    ...{ id: id(3, n), version: 1, ...blank('connection', { partId: id(1, lines), kind: 'hose' }) },
    ...{ fromPortId: id(2, from), toPortId: id(2, to), innerM: 0.01 + (n % 5) * 0.002, lengthEachM: 0.3 + (n % 7) * 0.1 },
  }));
  const passage: Passage = {
    ...{ id: id(4, 1), version: 1, ...blank('passage', { partId: id(1, pump), name: 'pump', does: 'pumps' }) },
    ...{ fromPortId: id(2, pump), toPortId: id(2, pump + 1), pressurePa: 60_000, flowM3PerS: 20e-3 / 60 },
  };
  const parts = Array.from({ length: count + 2 }, (_, n) => part(n));
  const ports = [...Array.from({ length: count }, (_, n) => port(n, n)), port(pump, pump), port(pump + 1, pump)];
  const runs = runsOf(
    { parts, connections },
    () => true,
    () => 1,
  );
  return () => {
    const { links, issues } = circuitOf({ parts, ports, passages: [passage] }, runs, { densityKgPerM3: 1060, viscosityPaS: 2.3e-3 });
    if (issues.length > 0 || links.length !== connections.length + 1) throw new RangeError('the net was not solved');
  };
};

/** A pack cooled cell by cell, and a net of lines solved for the flow through each. */
export const systemsBench = (): readonly Result[] => [
  atMost(`pack of ${ROWS * PER_ROW} cells, each of its own heat, cooled`, medianMs(cells, 5, 1), 'ms', 1000),
  atMost('net of 100 lines solved for its flows', medianMs(net(), 21), 'ms', 50),
];
