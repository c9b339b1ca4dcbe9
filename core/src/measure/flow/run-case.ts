import { fixed, inUnit, READ_IN } from '../../shared';
import type { Connection, Port, RunCase, RunChange, StudyRecord, Triple } from '../../record';
import { apart, placeOf, polylineM, portsById, type PortsById } from './routes';

/** Lines and ports as they would be. */
export interface Changed {
  readonly connections: readonly Connection[];
  readonly ports: readonly Port[];
  /** what each change does to each line, in words */
  readonly told: readonly string[];
  /** what cannot be worked out, in words */
  readonly lacks: readonly string[];
}

type Recorded = Pick<StudyRecord, 'connections' | 'ports' | 'parts' | 'runChanges'>;

const metres = (value: number | null): string => (value === null ? 'no length' : inUnit(READ_IN.m, value));

const at = (port: Pick<Port, 'xM' | 'yM' | 'zM'>): string =>
  port.xM === null ? 'no place' : [port.xM, port.yM!, port.zM!].map((m) => fixed(m * 1000, 0)).join(' ');

/** Points left out from the first on while the end is nearer to the one behind it than that point is: it would only go back there. */
const notBack = (end: Triple, points: readonly Triple[], far: Triple): readonly Triple[] => {
  const [first, second = far] = points;
  return first !== undefined && apart(end, second) < apart(first, second) ? notBack(end, points.slice(1), far) : points;
};

/** A line one or both of whose ends moved: it passes by those route points next to that end which it would only go back to. */
const ledAgain = (line: Connection, isFromMoved: boolean, isToMoved: boolean, after: PortsById): Connection => {
  const [from, to] = [placeOf(after.get(line.fromPortId ?? '')), placeOf(after.get(line.toPortId ?? ''))];
  if (from === null || to === null) return line;
  let route = line.route as readonly Triple[];
  if (isFromMoved) route = notBack(from, route, to);
  if (isToMoved) route = notBack(to, [...route].reverse(), from).toReversed();
  return { ...line, route };
};

/**
 * The lines as they would be under a what-if. A port that moves makes each line that ends there longer or shorter by what the way
 * over its route points changes, those that it would only go back to passed by; what hangs through and bends stays as much as it is.
 */
export const changedRuns = (record: Recorded, { id }: Pick<RunCase, 'id'>): Changed => {
  const names = new Map(record.parts.map((part) => [part.id, part.name]));
  const changes = record.runChanges.filter(({ caseId }) => caseId === id).sort((a, b) => a.sequence - b.sequence);
  const [before, moves] = [portsById(record), new Map<string, RunChange>()];
  for (const change of changes) if (change.change === 'move a port' && change.portId !== null) moves.set(change.portId, change);
  const ports = record.ports.map((port): Port => {
    const move = moves.get(port.id);
    return move ? { ...port, xM: move.xM, yM: move.yM, zM: move.zM } : port;
  });
  const after = portsById({ ports });
  const [told, lacks]: [string[], string[]] = [[], []];
  for (const [portId, move] of moves) {
    const port = before.get(portId);
    if (port) told.push(`“${port.name}” from ${at(port)} to ${at(move)} mm`);
  }
  const byLine = new Map(changes.filter(({ change }) => change !== 'move a port').map((change) => [change.connectionId, change]));
  const connections = record.connections.flatMap((line): readonly Connection[] => {
    const name = names.get(line.partId) ?? '';
    const change = byLine.get(line.id);
    if (change?.change === 'leave out') {
      told.push(`${line.kind} of “${name}” left out`);
      return [];
    }
    if (change) {
      told.push(`${line.kind} of “${name}” ${metres(change.lengthEachM)} instead of ${metres(line.lengthEachM)}`);
      return [{ ...line, lengthEachM: change.lengthEachM }];
    }
    if (!moves.has(line.fromPortId ?? '') && !moves.has(line.toPortId ?? '')) return [line];
    const was = polylineM(line, before);
    const led = ledAgain(line, moves.has(line.fromPortId ?? ''), moves.has(line.toPortId ?? ''), after);
    const is = polylineM(led, after);
    if (was === null || is === null || line.lengthEachM === null) {
      lacks.push(`the ${line.kind} of “${name}”: ${line.lengthEachM === null ? 'its length' : 'the place of its ports'} is not recorded`);
      return [line];
    }
    const lengthEachM = line.lengthEachM + is - was;
    if (lengthEachM <= 0) {
      lacks.push(`the ${line.kind} of “${name}” would have no length left: is it still needed?`);
      return [line];
    }
    told.push(`${line.kind} of “${name}” ${inUnit(READ_IN.m, lengthEachM)} instead of ${inUnit(READ_IN.m, line.lengthEachM)}`);
    return [{ ...led, lengthEachM }];
  });
  return { connections, ports, told, lacks };
};
