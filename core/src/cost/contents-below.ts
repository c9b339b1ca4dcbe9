import type { FastenerSet, JointSet, Part, StudyRecord } from '../record';
import { groupByPart, ownAt, type OwnRead } from '../bench';
import type { StudyMeasures } from './cost-measures';
import type { StudyRollUp } from './study-roll-up';

/** One part below a node, with what it adds by itself and how many of it one vehicle has. */
export interface PartBelow {
  readonly part: Part;
  readonly own: OwnRead<StudyMeasures>;
  readonly perVehicle: number;
  /** the same as it enters mass and cost: the middle of ranges */
  readonly meanPerVehicle: number;
  readonly isLeaf: boolean;
  /** place in the outline, and that of what it is inside of */
  readonly place: number;
  readonly parentPlace: number;
}

interface ContentsBelow {
  /** parents before what is inside them */
  readonly parts: readonly PartBelow[];
  readonly fastenersOf: (partId: string) => readonly FastenerSet[];
  readonly jointsOf: (partId: string) => readonly JointSet[];
}

/** All parts below a node of the outline, at every level. */
export const contentsBelow = (record: StudyRecord, { rolled, perVehicle, meanPerVehicle }: StudyRollUp, key: string): ContentsBelow => {
  const { nodes, placeOf } = rolled.outline;
  const root = nodes[placeOf.get(key) ?? -1];
  const byId = new Map(record.parts.map((part) => [part.id, part]));
  const fasteners = groupByPart(record.fastenerSets);
  const joints = groupByPart(record.jointSets);
  const parts: PartBelow[] = [];
  const waiting = [...(root?.children ?? [])].reverse();
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    const node = nodes[place];
    const own = ownAt(rolled, place);
    if (!node || !own) continue;
    const part = node.kind === 'part' ? byId.get(node.id) : undefined;
    if (part)
      parts.push({
        part,
        own,
        perVehicle: perVehicle[place] ?? 1,
        meanPerVehicle: meanPerVehicle[place] ?? 1,
        isLeaf: node.children.length === 0,
        place,
        parentPlace: node.parent,
      });
    for (let i = node.children.length - 1; i >= 0; i--) waiting.push(node.children[i]!);
  }
  return { parts, fastenersOf: (id) => fasteners.get(id) ?? [], jointsOf: (id) => joints.get(id) ?? [] };
};
