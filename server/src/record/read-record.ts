import { ENTITIES, LIST_OF, type Study } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { STORES } from '../db/stores';
import { studyHead } from './queries';

export const studyById = async (db: Db, studyId: string): Promise<Study | null> =>
  (await STORES.study.rows(db, studyId, [studyId]))[0] ?? null;

/** A record as JSON that the database wrote: a record of any size passes through without being read here. */
interface RecordText {
  readonly revision: number;
  readonly study: string;
  /** each list of the record, by its name */
  readonly lists: Map<string, string>;
}

/** The parts of a record’s JSON, in order. */
export const recordJson = ({ revision, study, lists }: RecordText): readonly string[] => [
  `{"revision":${revision},"study":${study}`,
  ...[...lists].flatMap(([name, text]) => [`,"${name}":`, text]),
  '}',
];

/** The whole record of a study as of one moment, or null when there is none. Runs in a transaction of its own. */
export const readRecordText = async (db: Db, studyId: string): Promise<RecordText | null> => {
  await db.query('set transaction isolation level repeatable read, read only');
  const head = await studyHead(db, studyId);
  const study = await studyById(db, studyId);
  if (head === null || study === null) return null;
  const lists = new Map<string, string>();
  for (const entity of ENTITIES) if (entity !== 'study') lists.set(LIST_OF[entity], await STORES[entity].allText(db, studyId));
  return { revision: head.revision, study: JSON.stringify(study), lists };
};
