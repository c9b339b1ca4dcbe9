import { editOp, nextSequence, type Part, type StudyRecord } from '../../record';
import {
  changed,
  fieldsOfPlace,
  hangingAt,
  insideOf,
  namesOf,
  outermost,
  partNamed,
  placeText,
  refused,
  withInside,
  type Place,
  type TreeChange,
} from './change';

/** Removals of another vehicle than the one a part goes to, by name of the part. */
const removedElsewhere = (record: StudyRecord, parts: readonly Part[], vehicleId: string): readonly Part[] =>
  parts.filter((part) => part.vehicleId !== vehicleId && record.steps.some((step) => step.parts.includes(part.id)));

/**
 * Moves parts, with all inside them, to the end of another place. A part chosen together with one it is inside of goes with it.
 *
 * @param ids chosen parts
 * @param place where they go
 * @returns the ops of one change; refused where a part would be inside itself, or is in the removals of the vehicle it would leave
 */
export const moveParts = (record: StudyRecord, ids: readonly string[], place: Place): TreeChange => {
  const chosen = outermost(record, ids);
  const to = fieldsOfPlace(record, place);
  if (chosen.length === 0) return refused('nothing', 'Choose the parts first that are to be moved');
  if (to === null) return refused('gone', 'The place they were to go to is not there any more; choose another');
  const inside = insideOf(record);
  const all = chosen.flatMap((part) => withInside(part, inside));
  const target = place.kind === 'part' ? partNamed(record, place.id) : undefined;
  if (target && all.some((part) => part.id === target.id))
    return refused('circle', `${target.name} would be inside itself; choose a place outside of what is moved`, 'parentId', target.id);
  const [left] = removedElsewhere(record, all, to.vehicleId);
  if (left)
    return refused(
      'removed',
      `${left.name} is among the removals of its vehicle; take it out of them first, or copy it instead`,
      'vehicleId',
      left.id,
    );
  const behind = nextSequence(hangingAt(record, place));
  const moved = new Set(chosen.map((part) => part.id));
  return changed(
    `${namesOf(chosen)} ${placeText(record, place)}`,
    all.map((part) =>
      moved.has(part.id)
        ? editOp('part', part, { ...to, sequence: behind + chosen.indexOf(part) })
        : editOp('part', part, { vehicleId: to.vehicleId }),
    ),
  );
};
