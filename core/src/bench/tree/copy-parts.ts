import {
  evidence,
  fieldsOf,
  isKnowing,
  knowingFields,
  nextSequence,
  rowsOf,
  type Entity,
  type Op,
  type Part,
  type StudyRecord,
} from '../../record';
import {
  DESCRIBES,
  changed,
  fieldsOfPlace,
  hangingAt,
  insideOf,
  namesOf,
  outermost,
  partNamed,
  placeOf,
  placeText,
  refused,
  withInside,
  type Place,
  type TreeChange,
} from './change';

interface Copying {
  readonly record: StudyRecord;
  readonly newId: () => string;
  /** where the values of a copy come from, in words; null for a copy of what is itself known there */
  readonly from: ((part: Part) => string) | null;
}

/** The evidence of a copy on another vehicle: every value is to be confirmed there; a figure keeps the uncertainty it had. */
const toConfirm = (entity: Entity, row: object, from: string): object => {
  if (!isKnowing(entity)) return {};
  const values = row as Readonly<Record<string, unknown>>;
  const said = (row as Part).evidence;
  return {
    evidence: Object.fromEntries(
      knowingFields(entity)
        .filter((field) => ![null, undefined, ''].includes(values[field] as string))
        .map((field) => [field, evidence('?', { u: said[field]?.u ?? null, source: `copied from ${from}` })]),
    ),
  };
};

/** Where a line led is not where its copy leads: its ends and its route are recorded anew. */
const NOWHERE = { fromPortId: null, toPortId: null, route: [] } as const;

/** Ops that add a part again, with all inside it and the sets that describe it. */
const copyOps = (
  part: Part,
  placed: Partial<Part>,
  inside: ReadonlyMap<string, readonly Part[]>,
  { record, newId, from }: Copying,
): readonly Op[] => {
  const all = withInside(part, inside);
  const idOf = new Map(all.map((one) => [one.id, newId()]));
  const vehicleId = placed.vehicleId ?? part.vehicleId;
  const known = (entity: Entity, row: object, of: Part): object => (from === null ? {} : toConfirm(entity, row, from(of)));
  return all.flatMap((one) => {
    const id = idOf.get(one.id)!;
    const place = one === part ? placed : { parentId: idOf.get(one.parentId ?? '') };
    const fields = { ...fieldsOf<'part'>(one), tag: '', vehicleId, ...place, ...known('part', one, one) };
    const sets = DESCRIBES.flatMap((entity) =>
      rowsOf(record, entity)
        .filter((row) => row.partId === one.id)
        .map((row) => ({
          kind: `${entity}.add`,
          id: newId(),
          fields: { ...fieldsOf<typeof entity>(row), ...(entity === 'connection' ? NOWHERE : {}), partId: id, ...known(entity, row, one) },
        })),
    );
    return [{ kind: 'part.add', id, fields }, ...sets] as unknown as readonly Op[];
  });
};

/**
 * Copies parts, with all inside them and the sets that describe them, to another place as a start. Tags, readings, pictures and
 * removals stay with the original; on another vehicle every value is marked as to be confirmed, with where it comes from.
 *
 * @param newId gives the id of each new record
 */
export const copyParts = (record: StudyRecord, ids: readonly string[], place: Place, newId: () => string): TreeChange => {
  const chosen = outermost(record, ids);
  const to = fieldsOfPlace(record, place);
  if (chosen.length === 0) return refused('nothing', 'Choose the parts first that are to be copied');
  if (to === null) return refused('gone', 'The place the copy was to go to is not there any more; choose another');
  const inside = insideOf(record);
  const vehicleOf = new Map(record.vehicles.map((v) => [v.id, v.name]));
  const behind = nextSequence(hangingAt(record, place));
  const ops = chosen.flatMap((part, at) =>
    copyOps(part, { ...to, sequence: behind + at }, inside, {
      record,
      newId,
      from: part.vehicleId === to.vehicleId ? null : (one) => `${vehicleOf.get(one.vehicleId) ?? ''}, ${one.name}`,
    }),
  );
  return changed(`${namesOf(chosen)} copied ${placeText(record, place)}`, ops);
};

/**
 * Splits a count into two lines: so many of a part become a line of their own, to be recorded apart.
 *
 * @param count how many go into the new line, at least 1 and fewer than there are
 */
export const splitPart = (record: StudyRecord, id: string, count: number, newId: () => string): TreeChange => {
  const part = partNamed(record, id);
  if (!part) return refused('gone', 'The part is not there any more');
  if (part.quantity < 2) return refused('one', `${part.name} is one part; only a count of two or more can be split`, 'quantity', id);
  const said = part.evidence.quantity;
  if (said && (said.low !== null || said.high !== null))
    return refused('range', `The count of ${part.name} is a range; count it again before it is split`, 'quantity', id);
  if (!Number.isInteger(count) || count < 1 || count >= part.quantity)
    return refused('count', `Say how many of the ${part.quantity} go into a line of their own: 1 to ${part.quantity - 1}`, 'quantity', id);
  const sequence = nextSequence(hangingAt(record, placeOf(part)));
  return changed(`${part.name} split into ${part.quantity - count} and ${count}`, [
    { kind: 'part.edit', id, was: { quantity: part.quantity }, fields: { quantity: part.quantity - count } },
    ...copyOps(part, { parentId: part.parentId, quantity: count, sequence }, insideOf(record), { record, newId, from: null }),
  ]);
};
