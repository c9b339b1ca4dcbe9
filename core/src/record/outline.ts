import { issue, type Issue } from '../shared';
import type { Piece, StudyRecord, Subsystem } from './contract';

export type NodeKind = 'vehicle' | 'subsystem' | 'piece';

export interface OutlineNode {
  readonly key: string;
  readonly kind: NodeKind;
  /** id of the vehicle, subsystem or piece */
  readonly id: string;
  readonly vehicleId: string;
  /** place of the parent among the nodes, −1 at a vehicle */
  readonly parent: number;
  readonly depth: number;
  /** places of the children among the nodes */
  readonly children: readonly number[];
}

/** The record as one forest: vehicles, their subsystems, their pieces; every parent stands before its children. */
export interface Outline {
  readonly nodes: readonly OutlineNode[];
  readonly placeOf: ReadonlyMap<string, number>;
  readonly issues: readonly Issue[];
}

/** Key of a node: a piece or vehicle by its id, a subsystem by vehicle and subsystem. */
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

interface Pending {
  readonly key: string;
  readonly kind: NodeKind;
  readonly id: string;
  readonly vehicleId: string;
  readonly parent: number;
  readonly depth: number;
}

const childrenOf = (
  node: Pending,
  place: number,
  subsystems: ReadonlyMap<string, readonly Subsystem[]>,
  pieces: ReadonlyMap<string, readonly Piece[]>,
): readonly Pending[] => {
  const { vehicleId } = node;
  const below = { vehicleId, parent: place, depth: node.depth + 1 };
  const groups = node.kind === 'piece' ? [] : (subsystems.get(node.kind === 'vehicle' ? '' : node.id) ?? []);
  const hanging = node.kind === 'vehicle' ? [] : (pieces.get(node.key) ?? []);
  return [
    ...groups.map((s): Pending => ({ ...below, key: subsystemKey(vehicleId, s.id), kind: 'subsystem', id: s.id })),
    ...hanging.map((p): Pending => ({ ...below, key: p.id, kind: 'piece', id: p.id })),
  ];
};

/**
 * Arranges a study as a forest. Pieces that hang nowhere (their parent is missing, or they are inside themselves by
 * way of others) are left out and named in `issues`.
 */
export const outline = (record: StudyRecord): Outline => {
  const subsystems = grouped(record.subsystems, (s) => s.parentId ?? '');
  const pieces = grouped(record.pieces, (p) => p.parentId ?? subsystemKey(p.vehicleId, p.subsystemId ?? ''));
  const nodes: (Pending & { children: number[] })[] = [];
  const placeOf = new Map<string, number>();
  const waiting: Pending[] = [...record.vehicles]
    .sort(inOrder)
    .reverse()
    .map((v) => ({ key: v.id, kind: 'vehicle', id: v.id, vehicleId: v.id, parent: -1, depth: 0 }));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const place = nodes.length;
    nodes.push({ ...next, children: [] });
    placeOf.set(next.key, place);
    if (next.parent >= 0) nodes[next.parent]?.children.push(place);
    const below = childrenOf(next, place, subsystems, pieces);
    for (let i = below.length - 1; i >= 0; i--) waiting.push(below[i]!);
  }
  const issues = record.pieces
    .filter((piece) => !placeOf.has(piece.id))
    .map((piece) => issue('adrift', `“${piece.name}” hangs nowhere: its parent is missing or it is inside itself`, 'parentId', piece.id));
  return { nodes, placeOf, issues };
};
