import {
  applyOps,
  blank,
  editOp,
  evidence,
  fieldLabel,
  fieldsOf,
  knowingFields,
  nextSequence,
  removalOps,
  renamedOps,
  rowsOf,
  sameValue,
  type Evidence,
  type Op,
  type Part,
  type PartFields,
  type StudyRecord,
} from '../../record';
import type { EvidenceMark } from '../../shared';
import {
  DESCRIBES,
  changed,
  hangingAt,
  insideOf,
  namesOf,
  outermost,
  partNamed,
  placeOf,
  placeText,
  refused,
  type TreeChange,
} from './change';

/** Fields in which two lines of the same part may differ: their place, count and tag, and how each is known. */
const MAY_DIFFER: ReadonlySet<string> = new Set(['sequence', 'quantity', 'tag', 'evidence', 'notes', 'location']);

/** Names of fields in which another part says something else than the first. */
const differing = (first: Part, other: Part): readonly string[] =>
  Object.keys(fieldsOf<'part'>(first))
    .filter((field) => !MAY_DIFFER.has(field) && !sameValue(first[field as keyof Part], other[field as keyof Part]))
    .map((field) => fieldLabel('part', field as keyof PartFields).toLowerCase());

/** What describes a part, in an order in which two descriptions can be held against each other. */
const description = (record: StudyRecord, id: string): readonly (readonly string[])[] =>
  DESCRIBES.map((entity) =>
    rowsOf(record, entity)
      .filter((row) => row.partId === id)
      .map((row) => JSON.stringify({ ...fieldsOf<typeof entity>(row), partId: '', sequence: 0, evidence: 0 }))
      .sort(),
  );

/** How a sum of counts is known: a range where one of them is, else as the least certain. */
const ofSum = (parts: readonly Part[]): object => {
  const said = parts.map((part) => part.evidence.quantity ?? null);
  if (said.every((one) => one === null)) return {};
  const isRange = said.some((one) => one !== null && (one.low !== null || one.high !== null));
  const end = (of: 'low' | 'high'): number => parts.reduce((sum, part, i) => sum + (said[i]?.[of] ?? part.quantity), 0);
  const weakest = said.some((one) => one?.mark === '?') ? '?' : (said.find((one) => one !== null)?.mark ?? 'C');
  return { evidence: { quantity: evidence(weakest, isRange ? { low: end('low'), high: end('high') } : {}) } };
};

/**
 * Merges lines that hold the same part into the first of them: the counts add up, and readings, pictures and removals of the others
 * go with it.
 *
 * @returns refused where they hang in different places, hold parts inside, or say different things: what differs is named
 */
export const mergeParts = (record: StudyRecord, ids: readonly string[]): TreeChange => {
  const parts = outermost(record, ids);
  const [first, ...others] = parts;
  if (!first || others.length === 0) return refused('one', 'Choose two lines or more that hold the same part');
  const inside = insideOf(record);
  for (const part of parts) {
    if (!sameValue(placeOf(part), placeOf(first)))
      return refused('places', `${part.name} hangs in another place than ${first.name}; move it there first`, 'parentId', part.id);
    if (inside.has(part.id)) return refused('inside', `${part.name} has parts inside; dissolve it or move them out first`, null, part.id);
  }
  for (const other of others) {
    const differs = differing(first, other);
    if (differs.length > 0)
      return refused(
        'differs',
        `The lines differ in ${differs.join(', ')}; make them alike first, so that nothing is lost`,
        null,
        other.id,
      );
    if (!sameValue(description(record, other.id), description(record, first.id)))
      return refused('sets', `Fasteners, joints or connections of ${other.name} differ; make them alike first`, null, other.id);
  }
  const quantity = parts.reduce((sum, part) => sum + part.quantity, 0);
  const gone = new Set(others.map((part) => part.id));
  // the sets that describe the other lines go with them; everything else names the first line by then
  const renamed = renamedOps(record, 'part', gone, first.id).filter((op) => !isDescribing(op));
  return changed(`${namesOf(parts)} merged into one line of ${quantity}`, [
    editOp('part', first, { quantity, ...ofSum(parts) }),
    ...renamed,
    ...removalOps(applyOps(record, renamed, record.revision), 'part', [...gone]),
  ]);
};

const isDescribing = (op: Op): boolean => DESCRIBES.some((entity) => op.kind.startsWith(`${entity}.`));

/**
 * Makes an assembly of parts that hang in one place: it takes the place of the first, and they go inside.
 *
 * @param name what the assembly is called
 * @param newId gives the id of the assembly
 */
export const assembleParts = (record: StudyRecord, ids: readonly string[], name: string, newId: () => string): TreeChange => {
  const parts = outermost(record, ids);
  const [first] = parts;
  if (!first) return refused('nothing', 'Choose the parts first that make the assembly');
  if (name.trim() === '') return refused('name', 'Give the assembly a name', 'name');
  const apart = parts.find((part) => !sameValue(placeOf(part), placeOf(first)));
  if (apart) return refused('places', `${apart.name} hangs in another place than ${first.name}; move it there first`, 'parentId', apart.id);
  const id = newId();
  const { vehicleId, subsystemId, parentId, sequence } = first;
  const fields = blank('part', { vehicleId, subsystemId, parentId, sequence, name: name.trim(), opened: 'opened' });
  return changed(`${name.trim()} made of ${namesOf(parts)}`, [
    { kind: 'part.add', id, fields },
    ...parts.map((part, at) => editOp('part', part, { subsystemId: null, parentId: id, sequence: at })),
  ]);
};

/**
 * Dissolves an assembly: what is inside hangs where it hung, counted as often as the assembly was there. What was recorded of the
 * assembly itself goes.
 *
 * @returns the ops of one change, with the removals last; refused where it has nothing inside
 */
export const dissolvePart = (record: StudyRecord, id: string): TreeChange => {
  const part = partNamed(record, id);
  if (!part) return refused('gone', 'The part is not there any more');
  const children = insideOf(record).get(id) ?? [];
  if (children.length === 0) return refused('empty', `${part.name} has nothing inside`, null, id);
  const behind = nextSequence(hangingAt(record, placeOf(part)));
  const { subsystemId, parentId } = part;
  const out = children.flatMap(
    (child, at) => editOp('part', child, { subsystemId, parentId, sequence: behind + at, quantity: child.quantity * part.quantity }) ?? [],
  );
  return changed(`${part.name} dissolved, ${namesOf(children)} ${placeText(record, placeOf(part))}`, [
    ...out,
    ...removalOps(applyOps(record, out, record.revision), 'part', [id]),
  ]);
};

/** What several parts may be given at once. */
export type Given = Partial<Pick<Part, 'materialId' | 'materialDetail' | 'processId' | 'processDetail' | 'supplier' | 'location'>>;

/**
 * Gives several parts the same values; what was there stays in the history.
 *
 * @param mark how the values are known; null leaves what goes without saying
 */
export const giveParts = (record: StudyRecord, ids: readonly string[], given: Given, mark: EvidenceMark | null): TreeChange => {
  const chosen = new Set(ids);
  const parts = record.parts.filter((part) => chosen.has(part.id));
  if (parts.length === 0) return refused('nothing', 'Choose the parts first that are given this');
  const fields = Object.keys(given);
  if (fields.length === 0) return refused('empty', 'Say at least one value that they are given');
  const knowing = knowingFields('part');
  const said: Readonly<Record<string, Evidence | null>> = Object.fromEntries(
    fields.filter((field) => knowing.includes(field)).map((field) => [field, mark === null ? null : evidence(mark)]),
  );
  const ops = parts.map((part) => editOp('part', part, { ...given, evidence: said }));
  if (ops.every((op) => op === null)) return refused('same', 'All of them have these values already');
  return changed(
    `${namesOf(parts)}: ${fields.map((field) => fieldLabel('part', field as keyof PartFields).toLowerCase()).join(', ')}`,
    ops,
  );
};
