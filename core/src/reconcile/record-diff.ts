import type { Row, Study, StudyRecord } from '../record';

export type ListName = Exclude<keyof StudyRecord, 'revision' | 'study'>;

/** The lists of a record. */
export const listsOf = (record: StudyRecord): readonly ListName[] =>
  (Object.keys(record) as (keyof StudyRecord)[]).filter((name): name is ListName => name !== 'revision' && name !== 'study');

/** A row before and after; undefined where it was not there. */
export interface RowChange {
  readonly was: Row | undefined;
  readonly now: Row | undefined;
}

/** Rows that are not what they were, where each stands where it stood; null where rows came, went or moved. */
const inPlace = (was: readonly Row[], now: readonly Row[]): readonly RowChange[] | null => {
  if (was.length !== now.length) return null;
  const changes: RowChange[] = [];
  for (let at = 0; at < now.length; at++) {
    if (was[at] === now[at]) continue;
    if (was[at]!.id !== now[at]!.id) return null;
    changes.push({ was: was[at], now: now[at] });
  }
  return changes;
};

/** Rows of a list that are not what they were. */
export const changedRows = (was: readonly Row[], now: readonly Row[]): readonly RowChange[] => {
  if (was === now) return [];
  const stayed = inPlace(was, now);
  if (stayed) return stayed;
  const before = new Map(was.map((row) => [row.id, row]));
  const changes: RowChange[] = [];
  for (const row of now) {
    const old = before.get(row.id);
    if (old !== row) changes.push({ was: old, now: row });
    before.delete(row.id);
  }
  for (const row of before.values()) changes.push({ was: row, now: undefined });
  return changes;
};

/** What is different between two states of one record, small where little is. */
export interface RecordDiff {
  readonly revision: number;
  /** null where it is the same */
  readonly study: Study | null;
  readonly lists: readonly { readonly list: ListName; readonly put: readonly Row[]; readonly gone: readonly string[] }[];
}

/** What has to be sent to whoever holds the record as it was. */
export const recordDiff = (was: StudyRecord, now: StudyRecord): RecordDiff => ({
  revision: now.revision,
  study: was.study === now.study ? null : now.study,
  lists: listsOf(now).flatMap((list) => {
    const changes = changedRows(was[list], now[list]);
    if (changes.length === 0) return [];
    return [
      { list, put: changes.flatMap((c) => c.now ?? []), gone: changes.flatMap((c) => (c.now === undefined && c.was ? [c.was.id] : [])) },
    ];
  }),
});

/** The record as it is now, from what it was: rows keep their place, new ones stand at the end. */
export const withDiff = (was: StudyRecord, { revision, study, lists }: RecordDiff): StudyRecord => {
  const changed = lists.map(({ list, put, gone }) => {
    const left = new Map(put.map((row) => [row.id, row]));
    const off = new Set(gone);
    const rows = (was[list] as readonly Row[]).flatMap((row): readonly Row[] => {
      if (off.has(row.id)) return [];
      const now = left.get(row.id);
      left.delete(row.id);
      return [now ?? row];
    });
    return [list, [...rows, ...left.values()]] as const;
  });
  return { ...was, revision, study: study ?? was.study, ...Object.fromEntries(changed) };
};
