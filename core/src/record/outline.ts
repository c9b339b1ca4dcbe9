import { issue, type Issue } from '../shared';
import type { StudyRecord } from './entities';

type NodeKind = 'vehicle' | 'subsystem' | 'part';

export interface OutlineNode {
  readonly key: string;
  readonly kind: NodeKind;
  /** id of the vehicle, subsystem or part */
  readonly id: string;
  readonly vehicleId: string;
  /** place of the parent among the nodes, −1 at a vehicle */
  readonly parent: number;
  readonly depth: number;
  /** places of the children among the nodes */
  readonly children: readonly number[];
}

/** The record as one forest: vehicles, their subsystems, their parts; every parent stands before its children. */
export interface Outline {
  readonly nodes: readonly OutlineNode[];
  readonly placeOf: ReadonlyMap<string, number>;
  /** [node] place of its parent, −1 at a vehicle; the same as in `nodes`, packed for computations that pass over all of them */
  readonly parentOf: Int32Array;
  /** [node] how many nodes with something inside stand before it, −1 for a node with nothing inside */
  readonly innerOf: Int32Array;
  readonly innerCount: number;
  readonly issues: readonly Issue[];
}

/** Key of a node: a part or vehicle by its id, a subsystem by vehicle and subsystem. */
export const subsystemKey = (vehicleId: string, subsystemId: string): string => `${vehicleId}:${subsystemId}`;

interface Ordered {
  readonly id: string;
  readonly sequence: number;
}

const inOrder = (a: Ordered, b: Ordered): number => a.sequence - b.sequence || (a.id < b.id ? -1 : 1);

const grouped = <T extends Ordered>(rows: readonly T[], keyOf: (row: T) => string): ReadonlyMap<string, T[]> => {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const group = groups.get(key);
    if (group) group.push(row);
    else groups.set(key, [row]);
  }
  for (const group of groups.values()) group.sort(inOrder);
  return groups;
};

type Growing = Omit<OutlineNode, 'children'> & { readonly children: number[] };

const grown = (kind: NodeKind, key: string, id: string, vehicleId: string, parent: number, depth: number): Growing => ({
  key,
  kind,
  id,
  vehicleId,
  parent,
  depth,
  children: [],
});

/**
 * Arranges a study as a forest. Parts that hang nowhere (their parent is missing, or they are inside themselves by
 * way of others) are left out and named in `issues`.
 */
export const outline = (record: StudyRecord): Outline => {
  const subsystems = grouped(record.subsystems, (s) => s.parentId ?? '');
  const parts = grouped(record.parts, (p) => p.parentId ?? subsystemKey(p.vehicleId, p.subsystemId ?? ''));
  const nodes: Growing[] = [];
  const placeOf = new Map<string, number>();
  // a stack of our own rather than recursion: parts may be nested as deep as there are parts
  const waiting = [...record.vehicles]
    .sort(inOrder)
    .reverse()
    .map((v) => grown('vehicle', v.id, v.id, v.id, -1, 0));
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    const place = nodes.length;
    nodes.push(node);
    placeOf.set(node.key, place);
    if (node.parent >= 0) nodes[node.parent]!.children.push(place);
    const { vehicleId } = node;
    const depth = node.depth + 1;
    const hanging = node.kind === 'vehicle' ? undefined : parts.get(node.key);
    const inside = node.kind === 'part' ? undefined : subsystems.get(node.kind === 'vehicle' ? '' : node.id);
    for (let i = (hanging?.length ?? 0) - 1; i >= 0; i--) {
      const { id } = hanging![i]!;
      waiting.push(grown('part', id, id, vehicleId, place, depth));
    }
    for (let i = (inside?.length ?? 0) - 1; i >= 0; i--) {
      const { id } = inside![i]!;
      waiting.push(grown('subsystem', subsystemKey(vehicleId, id), id, vehicleId, place, depth));
    }
  }
  const issues = record.parts
    .filter((part) => !placeOf.has(part.id))
    .map((part) => issue('adrift', `“${part.name}” hangs nowhere: its parent is missing or it is inside itself`, 'parentId', part.id));
  const parentOf = Int32Array.from(nodes, (node) => node.parent);
  let innerCount = 0;
  const innerOf = Int32Array.from(nodes, (node) => (node.children.length === 0 ? -1 : innerCount++));
  return { nodes, placeOf, parentOf, innerOf, innerCount, issues };
};
