import { fixed, issue, type Issue } from '../../shared';
import type { Passage, StudyRecord } from '../../record';
import { isDriven, solveNetwork, type NetworkLink, type NetworkNode } from './network';
import { pipeDrop, pumpPa, type FluidData } from './pipe';
import { ENDS, SMOOTH_M, type Run } from './runs';

/** A line or a way through a part, with what goes through it. */
export interface CircuitLink {
  readonly name: string;
  readonly does: 'line' | 'resists' | 'pumps';
  readonly flowM3PerS: number;
  /** falls from its first end to its second; a pump gives: negative */
  readonly dropPa: number;
  /** of lines */
  readonly velocityMPerS: number | null;
  /** the sum its drop comes from, with its numbers */
  readonly formula: string;
}

export interface Circuit {
  readonly links: readonly CircuitLink[];
  /** of all pumps: pressure they give × flow through them, W */
  readonly pumpW: number;
  /** lines and ways that could not be in it, and loops that cannot run, named */
  readonly issues: readonly Issue[];
}

type Recorded = Pick<StudyRecord, 'ports' | 'passages' | 'parts'>;

/** Ports of a part with neither a passage nor a line of its own are one place: a tee, a tank. */
const nodeNames = ({ ports, passages }: Recorded, runs: readonly Run[]): ReadonlyMap<string, string> => {
  const through = new Set([...passages.map(({ partId }) => partId), ...runs.map(({ part }) => part.id)]);
  return new Map(ports.map((port) => [port.id, through.has(port.partId) ? port.id : `part ${port.partId}`]));
};

const linkOf = (passage: Passage): NetworkLink['dropPa'] => {
  const [pressurePa, flow] = [passage.pressurePa!, passage.flowM3PerS!];
  return passage.does === 'pumps'
    ? (q) => -pumpPa({ shutOffPa: pressurePa, largestM3PerS: flow }, q)
    : (q) => pressurePa * (q / flow) * Math.abs(q / flow);
};

/** Darcy–Weisbach with its numbers. */
const lineFormula = ({ connection, pieces }: Run, fluid: FluidData, flow: number): string => {
  const pipe = { innerM: connection.innerM!, lengthM: connection.lengthEachM!, roughnessM: SMOOTH_M, minor: ENDS };
  const { friction, velocityMPerS } = pipeDrop(pipe, fluid, flow / pieces);
  return `(${fixed(friction, 4)} × ${fixed(pipe.lengthM, 3)} m / ${fixed(pipe.innerM * 1000, 1)} mm + ${fixed(ENDS, 1)}) × ½ × ${fixed(fluid.densityKgPerM3, 0)} kg/m³ × (${fixed(Math.abs(velocityMPerS), 2)} m/s)²`;
};

const passageFormula = ({ does, pressurePa, flowM3PerS }: Passage, flow: number): string => {
  const share = `(${fixed(flow * 60e3, 2)} / ${fixed(flowM3PerS! * 60e3, 2)})²`;
  const kPa = fixed(pressurePa! / 1000, 2);
  return does === 'pumps' ? `−${kPa} kPa × (1 − ${share})` : `${kPa} kPa × ${share}`;
};

/** What cannot be solved is told, not thrown: the other loops still are. */
const solvedOr = <T>(solve: () => T, tell: (message: string) => void): T | null => {
  try {
    return solve();
  } catch (fault) {
    if (!(fault instanceof RangeError)) throw fault;
    tell(fault.message);
    return null;
  }
};

/** Links that hang together, each set by itself. */
const loopsOf = (links: readonly (NetworkLink & { readonly id: string })[]): readonly (readonly (typeof links)[number][])[] => {
  const of = new Map<string, (typeof links)[number][]>();
  for (const link of links) {
    const joined = [link, ...new Set([of.get(link.from) ?? [], of.get(link.to) ?? []].flat())];
    for (const { from, to } of joined) {
      of.set(from, joined);
      of.set(to, joined);
    }
  }
  return [...new Set(of.values())];
};

/** Ends that only one link meets lead nowhere: nothing flows there. Taken away one by one, with what they leave loose. */
const withoutDeadEnds = <L extends NetworkLink>(links: readonly L[]): { readonly links: readonly L[]; readonly dead: readonly L[] } => {
  let [left, dead]: [readonly L[], readonly L[]] = [links, []];
  for (;;) {
    const meets = new Map<string, number>();
    for (const { from, to } of left) for (const end of [from, to]) meets.set(end, (meets.get(end) ?? 0) + 1);
    const loose = left.filter(({ from, to }) => meets.get(from) === 1 || meets.get(to) === 1);
    if (loose.length === 0) return { links: left, dead };
    left = left.filter((link) => !loose.includes(link));
    dead = [...dead, ...loose];
  }
};

/**
 * Hoses, pipes, pumps and what resists as they are joined by their ports, solved for the flow through each. Lines side by side
 * share their flow evenly. What cannot be in it is named, and what can still be worked out is.
 *
 * @param runs lines of one fluid and one vehicle
 * @source pumps and resistances by the square of the flow; lines by Darcy–Weisbach with Colebrook–White
 */
export const circuitOf = (record: Recorded, runs: readonly Run[], fluid: FluidData): Circuit => {
  const nodes = nodeNames(record, runs);
  const issues: Issue[] = [];
  const names = new Map(record.parts.map((part) => [part.id, part.name]));
  const links: (NetworkLink & { readonly id: string; readonly does: CircuitLink['does']; readonly run: Run | null })[] = [];
  const vehicleOf = new Map(record.parts.map((part) => [part.id, part.vehicleId]));
  const onVehicle = new Map(record.ports.map((port) => [port.id, vehicleOf.get(port.partId)]));
  for (const run of runs) {
    const { connection: line } = run;
    const strays = [line.fromPortId, line.toPortId].some((id) => id !== null && onVehicle.get(id) !== run.part.vehicleId);
    const [from, to] = [nodes.get(line.fromPortId ?? ''), nodes.get(line.toPortId ?? '')];
    if (run.kind === 'cable') continue;
    if (strays)
      issues.push(issue('other-vehicle', `The ${run.kind} of “${run.part.name}” is not in the circuit: it leads to a port of another vehicle`, 'toPortId', line.id)); // prettier-ignore
    else if (from === undefined || to === undefined)
      issues.push(issue('run-without-end', `The ${run.kind} of “${run.part.name}” is not in the circuit: it lacks the port it leads ${from === undefined ? 'from' : 'to'}`, from === undefined ? 'fromPortId' : 'toPortId', line.id)); // prettier-ignore
    else if (line.innerM === null || line.lengthEachM === null)
      issues.push(issue('run-without-size', `The ${run.kind} of “${run.part.name}” is not in the circuit: it lacks its ${line.innerM === null ? 'inner diameter' : 'length'}`, line.innerM === null ? 'innerM' : 'lengthEachM', line.id)); // prettier-ignore
    else {
      const pipe = { innerM: line.innerM, lengthM: line.lengthEachM, roughnessM: SMOOTH_M, minor: ENDS };
      const dropPa = (flow: number): number => pipeDrop(pipe, fluid, flow / run.pieces).dropPa;
      links.push({ id: line.id, name: run.part.name, does: 'line', from, to, run, dropPa });
    }
  }
  const reached = new Set(links.flatMap(({ from, to }) => [from, to]));
  for (const passage of record.passages) {
    const [from, to] = [nodes.get(passage.fromPortId ?? ''), nodes.get(passage.toPortId ?? '')];
    const name = `${names.get(passage.partId) ?? ''}, ${passage.name}`;
    if (from === undefined || to === undefined) {
      if (reached.has(from ?? '') || reached.has(to ?? ''))
        issues.push(issue('passage-without-end', `“${name}” lacks the port it leads ${from === undefined ? 'from' : 'to'}`, from === undefined ? 'fromPortId' : 'toPortId', passage.id)); // prettier-ignore
      continue;
    }
    if (!reached.has(from) && !reached.has(to)) continue;
    if (passage.pressurePa === null || passage.flowM3PerS === null)
      issues.push(issue('passage-without-data', `“${name}” is not in the circuit: it lacks its ${passage.pressurePa === null ? 'pressure' : 'flow'}`, passage.pressurePa === null ? 'pressurePa' : 'flowM3PerS', passage.id)); // prettier-ignore
    else links.push({ id: passage.id, name, does: passage.does, from, to, run: null, dropPa: linkOf(passage) });
  }
  const { links: live, dead } = withoutDeadEnds(links);
  for (const link of dead) issues.push(issue('dead-end', `Nothing flows through “${link.name}”: the circuit is open there`, null, link.id));
  const solved: CircuitLink[] = [];
  for (const loop of loopsOf(live) as readonly (readonly (typeof live)[number][])[]) {
    const ends = [...new Set(loop.flatMap(({ from, to }) => [from, to]))];
    const pump = loop.find(({ does }) => does === 'pumps');
    const held = pump?.from ?? ends[0]!;
    const at = ends.map((name): NetworkNode => ({ name, takenM3PerS: 0, heldPa: name === held ? 0 : null }));
    if (!pump || !isDriven(at, loop)) {
      issues.push(issue('loop-without-pump', `No pump drives the loop of ${loop.slice(0, 3).map(({ name }) => `“${name}”`).join(', ')}${loop.length > 3 ? ` and ${loop.length - 3} more` : ''}: nothing flows`, null, loop[0]!.id)); // prettier-ignore
      continue;
    }
    const scale = record.passages.find(({ id }) => id === pump.id)!.flowM3PerS! / 2;
    const flows = solvedOr(
      () => solveNetwork(at, loop, scale).flows,
      (message) => issues.push(issue('no-flow', message, null, pump.id)),
    );
    if (flows === null) continue;
    for (const [i, link] of loop.entries()) {
      const flow = flows[i]!;
      const bore = link.run?.connection.innerM ?? null;
      solved.push({
        ...{ name: link.name, does: link.does, flowM3PerS: flow, dropPa: link.dropPa(flow) },
        velocityMPerS: bore === null || !link.run ? null : Math.abs(flow) / link.run.pieces / ((Math.PI / 4) * bore ** 2),
        formula: link.run
          ? lineFormula(link.run, fluid, flow)
          : passageFormula(
              record.passages.find(({ id }) => id === link.id)!,
              flow,
            ),
      });
    }
  }
  const pumps = solved.filter(({ does }) => does === 'pumps');
  return { links: solved, pumpW: pumps.reduce((sum, pump) => sum - pump.dropPa * pump.flowM3PerS, 0), issues };
};
