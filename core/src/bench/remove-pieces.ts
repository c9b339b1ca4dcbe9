import { editOp, removeOp, rowsOf, type Op, type StudyRecord } from '../record';
import { SET_KINDS } from './shorthand/to-fields';
import { withoutInSteps } from './steps/step-ops';

/**
 * The ops that take pieces off with all that hangs on them: sets, pictures, readings, scans and what was measured, second counts, lift steps;
 * and that take them out of the removals they came off in.
 *
 * @param ids the pieces, each with everything inside it
 */
export const removePiecesOps = (record: StudyRecord, ids: readonly string[]): readonly Op[] => {
  const pieces = new Set(ids);
  const sets = SET_KINDS.flatMap((kind) =>
    rowsOf(record, kind)
      .filter((row) => pieces.has(row.pieceId))
      .map((row) => ({ kind, row })),
  );
  const gone = new Set([...ids, ...sets.map(({ row }) => row.id)]);
  return [
    ...withoutInSteps(record, gone),
    ...measuredOn(record, pieces),
    ...record.readings.filter((r) => gone.has(r.aboutId)).map((r) => removeOp('reading', r)),
    ...record.recounts.filter((r) => pieces.has(r.pieceId)).map((r) => removeOp('recount', r)),
    ...record.unloads.filter((u) => u.pieceId !== null && pieces.has(u.pieceId)).map((u) => removeOp('unload', u)),
    ...record.pictures.filter((p) => p.pieceId !== null && pieces.has(p.pieceId)).map((p) => removeOp('picture', p)),
    ...sets.map(({ kind, row }) => removeOp(kind, row as never)),
    ...record.pieces.filter((p) => pieces.has(p.id)).map((p) => removeOp('piece', p)),
  ];
};

/** What was measured on pieces that go; a section of another piece that was cut from a scan of theirs stays, without it. */
const measuredOn = (record: StudyRecord, pieces: ReadonlySet<string>): readonly Op[] => {
  const scans = new Set(record.scans.filter((s) => pieces.has(s.pieceId)).map((s) => s.id));
  const staying = record.sections.filter((s) => !pieces.has(s.pieceId) && s.scanId !== null && scans.has(s.scanId));
  return [
    ...staying.flatMap((s) => editOp('section', s, { scanId: null }) ?? []),
    ...(['identification', 'section', 'pattern', 'scan'] as const).flatMap((kind) =>
      rowsOf(record, kind)
        .filter((row) => pieces.has(row.pieceId))
        .map((row) => removeOp(kind, row as never)),
    ),
  ];
};
