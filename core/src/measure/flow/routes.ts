import { fixed, issue, type Issue } from '../../shared';
import type { Connection, Port, StudyRecord, Triple } from '../../record';

export interface Route {
  /** between the ends, as the crow flies; null where an end or its place is not known */
  readonly straightM: number | null;
  /** over the route points; null as above */
  readonly overPointsM: number | null;
  /** length of the line over the straight line of its ends */
  readonly overStraight: number | null;
  readonly issues: readonly Issue[];
}

export type PortsById = ReadonlyMap<string, Port>;

export const placeOf = (port: Port | undefined): Triple | null =>
  port === undefined || port.xM === null || port.yM === null || port.zM === null ? null : [port.xM, port.yM, port.zM];

export const apart = (a: Triple, b: Triple): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** A length and places are each read to some millimetres: nearer than this they are not held against each other. Assumed. */
const READ_TO_M = 0.01;

/** Length over the ends of a line and the points between them; null where an end has no place. */
export const polylineM = (line: Pick<Connection, 'fromPortId' | 'toPortId' | 'route'>, ports: PortsById): number | null => {
  const [from, to] = [placeOf(ports.get(line.fromPortId ?? '')), placeOf(ports.get(line.toPortId ?? ''))];
  if (from === null || to === null) return null;
  const points = [from, ...(line.route as readonly Triple[]), to];
  return points.slice(1).reduce((sum, point, i) => sum + apart(points[i]!, point), 0);
};

/** A line against the straight line of its ends; what cannot be is named. */
export const routeOf = (line: Connection, name: string, ports: PortsById): Route => {
  const straightM = polylineM({ ...line, route: [] }, ports);
  const overPointsM = polylineM(line, ports);
  const issues: Issue[] = [];
  const hasOne = (line.fromPortId === null) !== (line.toPortId === null);
  if (hasOne)
    issues.push(issue('run-without-end', `The ${line.kind} of “${name}” has one end only: say which port it leads ${line.toPortId === null ? 'to' : 'from'}`, line.toPortId === null ? 'toPortId' : 'fromPortId', line.id)); // prettier-ignore
  if (straightM !== null && line.lengthEachM !== null && line.lengthEachM < straightM - READ_TO_M)
    issues.push(
      issue(
        'shorter-than-straight',
        `The ${line.kind} of “${name}” is ${fixed(line.lengthEachM, 3)} m long, and its ends are ${fixed(straightM, 3)} m apart: the length or the place of a port is wrong`,
        'lengthEachM',
        line.id,
      ),
    );
  return {
    ...{ straightM, overPointsM, issues },
    overStraight: straightM === null || line.lengthEachM === null || straightM === 0 ? null : line.lengthEachM / straightM,
  };
};

export const portsById = ({ ports }: Pick<StudyRecord, 'ports'>): PortsById => new Map(ports.map((port) => [port.id, port]));
