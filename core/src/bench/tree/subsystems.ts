import { editOp, nextSequence, removalOps, removeOp, renamedOps, rowsOf, type StudyRecord, type Subsystem } from '../../record';
import { changed, refused, type TreeChange } from './change';

const named = (record: StudyRecord, id: string): Subsystem | undefined => record.subsystems.find((one) => one.id === id);

/** A subsystem and all below it. */
const withBelow = (record: StudyRecord, id: string): ReadonlySet<string> => {
  const all = new Set([id]);
  for (let grows = true; grows;) {
    const before = all.size;
    for (const one of record.subsystems) if (one.parentId !== null && all.has(one.parentId)) all.add(one.id);
    grows = all.size > before;
  }
  return all;
};

/** Moves a subsystem, on every vehicle, below another one; null is the top of the tree. */
export const moveSubsystem = (record: StudyRecord, id: string, parentId: string | null): TreeChange => {
  const subsystem = named(record, id);
  const parent = parentId === null ? null : named(record, parentId);
  if (!subsystem || parent === undefined) return refused('gone', 'The subsystem is not there any more');
  if (parentId !== null && withBelow(record, id).has(parentId))
    return refused('circle', `${subsystem.name} would be below itself; choose a subsystem outside of it`, 'parentId', id);
  const sequence = nextSequence(record.subsystems.filter((one) => one.parentId === parentId && one.id !== id));
  return changed(`${subsystem.name} ${parent ? `below ${parent.name}` : 'at the top'}`, [
    editOp('subsystem', subsystem, { parentId, sequence }),
  ]);
};

/** Merges a subsystem into another one: its parts, subsystems, packages, scope and all else go there, and it goes. */
export const mergeSubsystems = (record: StudyRecord, fromId: string, toId: string): TreeChange => {
  const [from, to] = [named(record, fromId), named(record, toId)];
  if (!from || !to) return refused('gone', 'The subsystem is not there any more');
  if (fromId === toId) return refused('same', 'Choose another subsystem to merge it with', 'parentId', fromId);
  if (withBelow(record, fromId).has(toId))
    return refused('circle', `${to.name} is below ${from.name}; move it out first, or merge the other way round`, 'parentId', toId);
  // a vehicle says once how deep a subsystem is opened: what the one that stays says, stays
  const said = new Set(record.scopes.filter((scope) => scope.subsystemId === toId).map((scope) => scope.vehicleId));
  const twice = rowsOf(record, 'scope').filter((scope) => scope.subsystemId === fromId && said.has(scope.vehicleId));
  const isTwice = new Set(twice.map((scope) => scope.id));
  return changed(`${from.name} merged into ${to.name}`, [
    ...renamedOps(record, 'subsystem', new Set([fromId]), toId).filter((op) => !isTwice.has(op.id)),
    ...twice.map((scope) => removeOp('scope', scope)),
    removeOp('subsystem', from),
  ]);
};

/** Deletes a subsystem with nothing in it; refused, with what is in it, while there is something. */
export const removeSubsystem = (record: StudyRecord, id: string): TreeChange => {
  const subsystem = named(record, id);
  if (!subsystem) return refused('gone', 'The subsystem is not there any more');
  const parts = record.parts.filter((part) => part.subsystemId === id).length;
  const below = record.subsystems.filter((one) => one.parentId === id).length;
  if (parts + below > 0)
    return refused(
      'full',
      `${subsystem.name} holds ${[parts > 0 ? `${parts} ${parts === 1 ? 'part' : 'parts'}` : '', below > 0 ? `${below} ${below === 1 ? 'subsystem' : 'subsystems'}` : ''].filter((text) => text !== '').join(' and ')}; move or merge them first`,
      null,
      id,
    );
  return changed(`${subsystem.name} deleted`, removalOps(record, 'subsystem', [id]));
};
