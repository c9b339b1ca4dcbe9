import { applyOps, inverseOps, namedRows, netEffect, splitKind, type NetEffect, type Op, type StudyRecord } from '@each-bolt/core/record';
import { onlyPart, studyRollUp, studyRollUpAfter, type StudyRollUp } from '@each-bolt/core/cost';

/** A study as this device holds it: what the server has kept, and over it what waits to be sent. */
export interface HeldStudy {
  /** as of the last change of the server that was heard of */
  readonly base: StudyRecord;
  /** ops that wait, in order, by change */
  readonly waiting: readonly { readonly id: string; readonly ops: readonly Op[] }[];
  /** the base with all that waits: what people see */
  readonly view: StudyRecord;
  readonly rollUp: StudyRollUp;
}

/** Ids of the parts that ops touch, directly or by their fastener and joint sets; null when an op touches something that figures hang on. */
export const touchedParts = (record: StudyRecord, ops: readonly Op[]): readonly string[] | null => {
  const found: string[] = [];
  for (const op of ops) {
    const { entity } = splitKind(op.kind);
    if (entity === 'part') found.push(op.id);
    else if (entity === 'fasteners' || entity === 'joints') {
      const sets = entity === 'fasteners' ? record.fastenerSets : record.jointSets;
      const before = sets.find((set) => set.id === op.id);
      if (before) found.push(before.partId);
      if ('fields' in op && 'partId' in op.fields && typeof op.fields.partId === 'string') found.push(op.fields.partId);
    } else if (entity === 'study' || entity === 'vehicle' || entity === 'subsystem') return null;
  }
  return found;
};

const rolledAfter = (held: Pick<HeldStudy, 'view' | 'rollUp'>, view: StudyRecord, ops: readonly Op[]): StudyRollUp => {
  const touched = touchedParts(held.view, ops);
  if (touched?.length === 0) return held.rollUp;
  return touched === null ? studyRollUp(view) : studyRollUpAfter(held.rollUp, held.view, view, onlyPart(touched));
};

const viewOf = (base: StudyRecord, waiting: HeldStudy['waiting']): StudyRecord =>
  waiting.reduce((view, { ops }) => applyOps(view, ops, base.revision), base);

export const holdStudy = (base: StudyRecord, waiting: HeldStudy['waiting'] = []): HeldStudy => {
  const view = viewOf(base, waiting);
  return { base, waiting, view, rollUp: studyRollUp(view) };
};

/** What ops would do to what people see: faults come back before anything is kept. */
export const effectOf = (held: HeldStudy, ops: readonly Op[]): NetEffect => netEffect(ops, namedRows(held.view, ops), held.base.revision);

export const inverseOf = (held: HeldStudy, ops: readonly Op[]): readonly Op[] => inverseOps(effectOf(held, ops).effects);

/** With a change more that waits; the same when it waits already. */
export const withWaiting = (held: HeldStudy, id: string, ops: readonly Op[]): HeldStudy => {
  if (held.waiting.some((w) => w.id === id)) return held;
  const view = applyOps(held.view, ops, held.base.revision);
  return { ...held, waiting: [...held.waiting, { id, ops }], view, rollUp: rolledAfter(held, view, ops) };
};

const rowsNamed = (changes: HeldStudy['waiting']): ReadonlySet<string> => new Set(changes.flatMap(({ ops }) => ops.map((op) => op.id)));

/** After the server kept a change at the next revision: one of those that wait, or somebody else's. */
export const afterKept = (held: HeldStudy, id: string, ops: readonly Op[], revision: number): HeldStudy => {
  const base = applyOps(held.base, ops, revision);
  const isFirst = held.waiting[0]?.id === id;
  const waiting = held.waiting.filter((w) => w.id !== id);
  // the first that waits is already in the view, with nothing under it that it could have hidden
  if (isFirst) return { ...held, base, waiting, view: { ...held.view, revision } };
  const named = rowsNamed(held.waiting);
  if (waiting.length === held.waiting.length && !ops.some((op) => named.has(op.id))) {
    const view = applyOps(held.view, ops, revision);
    return { base, waiting, view, rollUp: rolledAfter(held, view, ops) };
  }
  return holdStudy(base, waiting);
};

/** Without a change that was refused or dropped. */
export const withoutWaiting = (held: HeldStudy, id: string): HeldStudy =>
  held.waiting.some((w) => w.id === id)
    ? holdStudy(
        held.base,
        held.waiting.filter((w) => w.id !== id),
      )
    : held;
