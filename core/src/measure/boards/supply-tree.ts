import { fixed, issue, threeDigits, type Issue } from '../../shared';
import type { Connection, Part, StudyRecord, Supply } from '../../record';
import { conductorOhm } from '../flow/runs';

/** A supply point in its tree, with what reaches it. */
export interface SupplyNode {
  readonly point: Supply;
  readonly part: Part;
  /** 0 at the root */
  readonly depth: number;
  /** whether a source stands above it */
  readonly isFed: boolean;
  /** what it takes from its feed, A; null where a load below it does not say what it takes */
  readonly takesA: number | null;
  /** lost in the line that leads to it, out and back, V; null where that cannot be told; nothing from one point to another of a part */
  readonly dropV: number | null;
  /** what reaches it, V */
  readonly reachesV: number | null;
  /** a line on the way is not recorded, so that less may reach it */
  readonly isAtMost: boolean;
  /** the line that leads to it, in words; empty where none is recorded */
  readonly line: string;
  /** what it takes and what reaches it, with their numbers; empty where neither follows from another figure */
  readonly formula: string;
}

export interface SupplyTree {
  /** from the roots down, each followed by what it feeds */
  readonly nodes: readonly SupplyNode[];
  readonly issues: readonly Issue[];
}

/** A voltage further than this from what a part is made for is another supply, not a tolerance. Assumed. */
const ANOTHER_SUPPLY = 1.5;
const LINE_C = 20;

/** A line in a few words: how many, what, how thick, how long. */
export const lineText = (line: Connection): string => {
  const size = line.crossSectionM2 === null ? '' : ` ${fixed(line.crossSectionM2 * 1e6, 2)} mm²`;
  const long = line.lengthEachM === null ? '' : ` ${fixed(line.lengthEachM, 2)} m`;
  return `${line.count} ${line.kind}${size}${long}`;
};

/** Out and back through two conductors; through one alone where only one is recorded, for the body carries the way back. */
const lineOhm = (line: Connection): number | null => {
  const one = conductorOhm(line, LINE_C);
  return one === null ? null : one * (line.count * (line.poles ?? 1) >= 2 ? 2 : 1);
};

/** The voltage a point gives to what it feeds. */
const givesV = ({ point, reachesV }: Pick<SupplyNode, 'point' | 'reachesV'>): number | null =>
  point.role === 'source' || point.role === 'converts' ? point.voltageV : reachesV;

interface Known {
  readonly points: ReadonlyMap<string, Supply>;
  readonly parts: ReadonlyMap<string, Part>;
  readonly lines: ReadonlyMap<string, Connection>;
  readonly below: ReadonlyMap<string, readonly Supply[]>;
}

/** What a point takes from its feed, worked up from the loads. */
const takes = (point: Supply, known: Known): number | null => {
  const below = known.below.get(point.id) ?? [];
  const currents = below.map((child) => takes(child, known));
  const out = currents.every((a) => a !== null) ? currents.reduce((sum, a) => sum + a, 0) : null;
  if (point.role === 'load') {
    const own = point.currentA;
    return below.length === 0 ? own : own === null || out === null ? null : own + out;
  }
  if (point.role !== 'converts') return out;
  const inV = point.feedId === null ? null : nominalV(point.feedId, known);
  if (out === null || point.voltageV === null || point.efficiency === null || inV === null) return below.length === 0 ? 0 : null;
  return (out * point.voltageV) / (point.efficiency * inV);
};

const amps = (value: number | null): string => (value === null ? '? A' : `${threeDigits(value)} A`);

const takesFormula = (point: Supply, known: Known): string => {
  const below = known.below.get(point.id) ?? [];
  if (below.length === 0) return '';
  const sum = below.map((child) => amps(takes(child, known))).join(' + ');
  if (point.role !== 'converts') return `gives ${sum}`;
  const inV = point.feedId === null ? null : nominalV(point.feedId, known);
  if (point.voltageV === null || point.efficiency === null || inV === null) return `gives ${sum}`;
  return `takes (${sum}) × ${threeDigits(point.voltageV)} V / (${fixed(100 * point.efficiency, 0)} % × ${threeDigits(inV)} V)`;
};

const dropFormula = (upV: number | null, takesA: number | null, ohm: number | null): string =>
  upV === null || takesA === null || ohm === null || ohm === 0
    ? ''
    : `gets ${fixed(upV, 2)} V − ${amps(takesA)} × ${fixed(ohm * 1000, 2)} mΩ`;

/** The voltage of the nearest point above that makes one: what a converter takes its current at. */
const nominalV = (id: string, known: Known): number | null => {
  const point = known.points.get(id);
  if (!point) return null;
  if (point.role === 'source' || point.role === 'converts') return point.voltageV;
  return point.feedId === null ? null : nominalV(point.feedId, known);
};

const faultsOf = (node: SupplyNode, feed: SupplyNode | null, known: Known): readonly Issue[] => {
  const { point, takesA } = node;
  const below = known.below.get(point.id) ?? [];
  const say = (code: string, message: string, field: string): Issue => issue(code, message, field, point.id);
  const faults: Issue[] = [];
  const elsewhere = feed === null ? known.points.get(point.feedId ?? '') : undefined;
  if (elsewhere) faults.push(say('other-vehicle', `“${point.name}” is fed from “${elsewhere.name}” of another vehicle`, 'feedId'));
  else if (feed === null && point.role !== 'source')
    faults.push(
      say(
        'unfed',
        point.role === 'load'
          ? `“${point.name}” is a load that nothing feeds: record what it is fed from, or that it is not connected`
          : `Nothing feeds “${point.name}”, nor what hangs on it: record what it is fed from`,
        'feedId',
      ),
    );
  if (feed && !feed.isFed && feed.point.role === 'load' && feed.point.feedId === null)
    faults.push(say('fed-by-unfed', `“${point.name}” hangs on “${feed.point.name}”, which nothing feeds`, 'feedId'));
  if (point.role === 'load' && below.length > 0)
    faults.push(
      say('load-feeds', `“${point.name}” is a load and feeds “${below[0]!.name}”: a point that feeds passes on or converts`, 'role'),
    );
  if (point.role === 'source' && below.length === 0)
    faults.push(say('source-feeds-nothing', `“${point.name}” is a source that feeds nothing`, 'role'));
  if (feed && point.role !== 'converts' && point.voltageV !== null && node.reachesV !== null) {
    const ratio = point.voltageV / node.reachesV;
    if (ratio > ANOTHER_SUPPLY || ratio < 1 / ANOTHER_SUPPLY)
      faults.push(
        say(
          'other-voltage',
          `“${point.name}” is made for ${fixed(point.voltageV, 0)} V and gets ${fixed(node.reachesV, 0)} V: one of the two, or its feed, is wrong`,
          'voltageV',
        ),
      );
  }
  const given = point.role === 'converts' || point.role === 'source' ? drawnFrom(below, known) : null;
  if (given !== null && point.currentA !== null && given > point.currentA)
    faults.push(
      say('overdrawn', `“${point.name}” gives at most ${threeDigits(point.currentA)} A and ${threeDigits(given)} A are drawn`, 'currentA'),
    );
  if (point.fuseA !== null && takesA !== null && takesA > point.fuseA)
    faults.push(say('fuse', `“${point.name}” takes ${threeDigits(takesA)} A through a fuse of ${threeDigits(point.fuseA)} A`, 'fuseA'));
  return faults;
};

/** All that is drawn from a point; null where a load does not say. */
const drawnFrom = (below: readonly Supply[], known: Known): number | null => {
  const currents = below.map((child) => takes(child, known));
  return currents.every((a) => a !== null) ? currents.reduce((sum, a) => sum + a, 0) : null;
};

/**
 * The supply of a vehicle as a tree: currents worked up from the loads, voltages down from the sources through the recorded lines
 * (conductors at 20 °C), and every point named that nothing feeds, that is fed with another voltage or that draws too much.
 * Where a load does not say what it takes, what is above it does not either.
 */
export const supplyTree = (record: Pick<StudyRecord, 'supplies' | 'parts' | 'connections'>, vehicleId: string): SupplyTree => {
  const parts = new Map(record.parts.map((part) => [part.id, part]));
  const own = record.supplies.filter(({ partId }) => parts.get(partId)?.vehicleId === vehicleId).sort((a, b) => a.sequence - b.sequence);
  const points = new Map(record.supplies.map((point) => [point.id, point]));
  const below = new Map<string, readonly Supply[]>();
  for (const point of own) if (point.feedId !== null) below.set(point.feedId, [...(below.get(point.feedId) ?? []), point]);
  const known: Known = { points, parts, below, lines: new Map(record.connections.map((line) => [line.id, line])) };
  const nodes: SupplyNode[] = [];
  const issues: Issue[] = [];
  const walk = (point: Supply, feed: SupplyNode | null): void => {
    const line = known.lines.get(point.connectionId ?? '');
    const takesA = takes(point, known);
    const isOnePart = feed?.part.id === point.partId;
    const ohm = line === undefined ? (isOnePart ? 0 : null) : lineOhm(line);
    const dropV = feed === null || ohm === null ? null : ohm === 0 ? 0 : takesA === null ? null : takesA * ohm;
    const makesOwn = feed?.point.role === 'source' || feed?.point.role === 'converts';
    const isAtMost = feed !== null && ((feed.isAtMost && !makesOwn) || (line === undefined && !isOnePart));
    const upV = feed === null ? null : givesV(feed);
    const isFed = feed === null ? point.role === 'source' : feed.isFed;
    const reachesV =
      feed === null
        ? point.role === 'source'
          ? point.voltageV
          : null
        : !isFed || upV === null || (dropV === null && line !== undefined)
          ? null
          : upV - (dropV ?? 0);
    const node: SupplyNode = {
      ...{ point, part: parts.get(point.partId)!, depth: feed === null ? 0 : feed.depth + 1, isFed, takesA, dropV, reachesV, isAtMost },
      line: line === undefined ? '' : lineText(line),
      formula: [takesFormula(point, known), dropFormula(upV, takesA, ohm)].filter((text) => text !== '').join('; '),
    };
    nodes.push(node);
    issues.push(...faultsOf(node, feed, known));
    if (feed !== null && line !== undefined && ohm === null)
      issues.push(
        issue(
          'line-without-conductor',
          `The drop to “${point.name}” cannot be told: its line, ${lineText(line)}, lacks a metal, cross-section or length`,
          'connectionId',
          point.id,
        ),
      );
    for (const child of below.get(point.id) ?? []) walk(child, node);
  };
  // what is fed from another vehicle stands as a root, and is named
  for (const root of own.filter(({ feedId }) => feedId === null || parts.get(points.get(feedId)?.partId ?? '')?.vehicleId !== vehicleId))
    walk(root, null);
  return { nodes, issues };
};
