import { Matrix, solve } from 'ml-matrix';

/** A way between two nodes: how its pressure falls with the flow through it, and how fast that changes. */
export interface NetworkLink {
  readonly name: string;
  readonly from: string;
  readonly to: string;
  /** Pa at a flow in m³/s from `from` to `to`; a pump gives pressure: negative */
  readonly dropPa: (flowM3PerS: number) => number;
}

export interface NetworkNode {
  readonly name: string;
  /** a pressure that is held, Pa; null where it follows */
  readonly heldPa: number | null;
  /** taken out here, m³/s; fed in is negative */
  readonly takenM3PerS: number;
}

export interface NetworkState {
  /** m³/s by link in the order given */
  readonly flows: readonly number[];
  /** Pa by node in the order given */
  readonly pressures: readonly number[];
  readonly rounds: number;
}

const MOST_ROUNDS = 200;

/** Parts of the network that hang together. */
const partOf = (nodes: readonly NetworkNode[], links: readonly NetworkLink[]): ReadonlyMap<string, string> => {
  const parent = new Map(nodes.map(({ name }) => [name, name]));
  const root = (name: string): string => {
    const up = parent.get(name) ?? name;
    return up === name ? name : root(up);
  };
  for (const { from, to } of links) parent.set(root(from), root(to));
  return new Map(nodes.map(({ name }) => [name, root(name)]));
};

const check = (nodes: readonly NetworkNode[], links: readonly NetworkLink[]): void => {
  const names = new Set(nodes.map(({ name }) => name));
  for (const { name, from, to } of links)
    for (const end of [from, to]) if (!names.has(end)) throw new RangeError(`${name} ends at “${end}”, which is no node`);
  const parts = partOf(nodes, links);
  const held = new Set(nodes.filter(({ heldPa }) => heldPa !== null).map(({ name }) => parts.get(name)));
  const loose = nodes.find(({ name }) => !held.has(parts.get(name)));
  if (loose) throw new RangeError(`${loose.name} hangs together with no node whose pressure is held: its pressure cannot be told`);
};

/**
 * Flows and pressures of a network of pipes: continuity at each node and the pressure of each link together, by Newton with the
 * flows of the links as they are and the pressures of the nodes as unknowns (the global gradient method).
 *
 * @param scaleM3PerS a flow of the size that is expected: where it starts, and below a millionth of which a slope counts as that
 * of a laminar pipe
 * @throws RangeError for a link without a node, a part without a held pressure, or where no flow is found
 * @source E. Todini, S. Pilati, A gradient algorithm for the analysis of pipe networks (1987)
 */
export const solveNetwork = (nodes: readonly NetworkNode[], links: readonly NetworkLink[], scaleM3PerS: number): NetworkState => {
  check(nodes, links);
  const free = nodes.filter(({ heldPa }) => heldPa === null);
  const at = new Map(free.map(({ name }, i) => [name, i]));
  const held = new Map(nodes.flatMap(({ name, heldPa }) => (heldPa === null ? [] : [[name, heldPa] as const])));
  const small = scaleM3PerS * 1e-6;
  // none begins at no flow: there the slope of a turbulent pipe is nothing
  let flows = links.map(() => scaleM3PerS);
  let pressures = free.map(() => 0);
  for (let round = 1; round <= MOST_ROUNDS; round += 1) {
    const falls = links.map(({ dropPa }, i) => dropPa(flows[i]!));
    const slopes = links.map(({ dropPa }, i) => {
      const step = Math.max(Math.abs(flows[i]!) * 1e-5, small);
      return Math.max((dropPa(flows[i]! + step) - dropPa(flows[i]! - step)) / (2 * step), 1e-9);
    });
    const a = Matrix.zeros(free.length, free.length);
    const b = Matrix.zeros(free.length, 1);
    for (const [i, { takenM3PerS }] of free.entries()) b.set(i, 0, -takenM3PerS);
    for (const [i, link] of links.entries()) {
      const conductance = 1 / slopes[i]!;
      // flow of the link once the pressures at its ends are known: flow − (drop − (p from − p to)) × conductance
      const steady = flows[i]! - falls[i]! * conductance;
      for (const [end, sign] of [
        [link.from, 1],
        [link.to, -1],
      ] as const) {
        const row = at.get(end);
        if (row === undefined) continue;
        b.set(row, 0, b.get(row, 0) - sign * steady);
        for (const [other, otherSign] of [
          [link.from, 1],
          [link.to, -1],
        ] as const) {
          const by = sign * otherSign * conductance;
          const column = at.get(other);
          if (column === undefined) b.set(row, 0, b.get(row, 0) - by * held.get(other)!);
          else a.set(row, column, a.get(row, column) + by);
        }
      }
    }
    pressures = free.length === 0 ? [] : solve(a, b).to1DArray();
    const pressureOf = (name: string): number => held.get(name) ?? pressures[at.get(name)!]!;
    const next = links.map((link, i) => flows[i]! - (falls[i]! - (pressureOf(link.from) - pressureOf(link.to))) / slopes[i]!);
    const change = Math.max(0, ...next.map((flow, i) => Math.abs(flow - flows[i]!)));
    flows = next;
    if (!flows.every(Number.isFinite)) break;
    if (change <= 1e-10 * Math.max(scaleM3PerS, ...flows.map(Math.abs)))
      return { flows, pressures: nodes.map(({ name }) => pressureOf(name)), rounds: round };
  }
  throw new RangeError('No flow was found that fits the network: look for a pump that cannot lift, or a link that lets nothing through');
};

/** Names of loops that nothing drives: no pump in them and no difference of held pressures across them. */
export const isDriven = (nodes: readonly NetworkNode[], links: readonly NetworkLink[]): boolean =>
  links.some(({ dropPa }) => dropPa(0) < 0) ||
  nodes.some(({ takenM3PerS }) => takenM3PerS !== 0) ||
  new Set(nodes.flatMap(({ heldPa }) => (heldPa === null ? [] : [heldPa]))).size > 1;
