import { UNANSWERED, applyOps, editOp, removalOps, type HoldPoint, type Op, type StudyRecord, type WorkPackage } from '../../record';
import { hazardById } from '../safety/hazards';

type Plan = Pick<StudyRecord, 'packages' | 'holdPoints'>;

/** Packages in the order of the plan; the number people call them by is their place in it, from 1. */
export const numbered = (packages: readonly WorkPackage[]): readonly WorkPackage[] =>
  [...packages].sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));

/** Predecessors typed by their numbers: "3, 5". */
export const readAfter = (
  text: string,
  pack: WorkPackage,
  packages: readonly WorkPackage[],
): { readonly ok: true; readonly after: readonly string[] } | { readonly ok: false; readonly message: string } => {
  const order = numbered(packages);
  const words = text.split(/[\s,;]+/).filter((word) => word !== '');
  const after: string[] = [];
  for (const word of words) {
    const found = /^\d+$/.test(word) ? order[Number(word) - 1] : undefined;
    if (!found) return { ok: false, message: `There is no package ${word}; the numbers go from 1 to ${order.length}` };
    if (found.id === pack.id) return { ok: false, message: 'A package does not wait for itself' };
    if (!after.includes(found.id)) after.push(found.id);
  }
  return { ok: true, after };
};

/** The numbers of the packages one comes after, as typed in its field: “2, 5”. */
export const printAfter = (pack: WorkPackage, packages: readonly WorkPackage[]): string => {
  const placeOf = new Map(numbered(packages).map((p, at) => [p.id, at + 1]));
  return pack.after
    .flatMap((id) => placeOf.get(id) ?? [])
    .sort((a, b) => a - b)
    .join(', ');
};

const isAnswered = (holdPoint: HoldPoint): boolean => holdPoint.value !== null || holdPoint.said.trim() !== '';

/**
 * What it takes to give a package other hazards: readings of the new ones are asked for, unanswered ones of those that
 * went are taken off; what was answered stays.
 */
export const hazardOps = ({ holdPoints }: Plan, pack: WorkPackage, hazards: readonly string[], newId: () => string): readonly Op[] => {
  const edit = editOp('package', pack, { hazards });
  if (!edit) return [];
  const own = holdPoints.filter((g) => g.packageId === pack.id);
  let sequence = own.reduce((last, g) => Math.max(last, g.sequence), -1);
  const added = hazards
    .filter((id) => !pack.hazards.includes(id))
    .flatMap((hazard) =>
      (hazardById.get(hazard)?.holdPoints ?? [])
        .filter((ask) => !own.some((g) => g.hazard === hazard && g.asks === ask.asks))
        .map((ask): Op => {
          sequence += 1;
          return { kind: 'holdPoint.add', id: newId(), fields: { packageId: pack.id, sequence, hazard, ...ask, ...UNANSWERED } };
        }),
    );
  const dropped = own
    .filter((g) => g.hazard !== '' && !hazards.includes(g.hazard) && pack.hazards.includes(g.hazard) && !isAnswered(g))
    .map(({ id, version: _version, ...was }): Op => ({ kind: 'holdPoint.remove', id, was }));
  return [edit, ...added, ...dropped];
};

/** What it takes to take a package off: what waited for it waits for what it waited for, and its readings go with it. */
export const removePackageOps = (record: StudyRecord, pack: WorkPackage): readonly Op[] => {
  const waiting = record.packages
    .filter((p) => p.after.includes(pack.id))
    .flatMap((p) => editOp('package', p, { after: [...new Set([...p.after.filter((id) => id !== pack.id), ...pack.after])] }) ?? []);
  return [...waiting, ...removalOps(applyOps(record, waiting, record.revision), 'package', [pack.id])];
};

/** Two packages change places in the list. */
export const swapOps = (packages: readonly WorkPackage[], pack: WorkPackage, by: -1 | 1): readonly Op[] => {
  const order = numbered(packages);
  const other = order[order.findIndex((p) => p.id === pack.id) + by];
  if (!other) return [];
  const [a, b] = other.sequence === pack.sequence ? [pack.sequence + by, other.sequence] : [other.sequence, pack.sequence];
  return [editOp('package', pack, { sequence: Math.max(0, a) }), editOp('package', other, { sequence: b })].flatMap((op) => op ?? []);
};
