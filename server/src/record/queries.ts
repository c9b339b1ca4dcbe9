import type { Member, Question, Role, Study, StudyFields, Subsystem, Vehicle } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';

/** A study as the list shows it. */
export interface StudyLine {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly state: Study['state'];
  readonly vehicles: readonly string[];
  readonly pieces: number;
  readonly openQuestions: number;
  readonly changedAt: Date | null;
  /** the role of the person who asks */
  readonly role: Role;
}

/** The studies a person is in, the one changed last first. */
export const studyLines = (db: Db, personId: string): Promise<readonly StudyLine[]> =>
  many(
    db,
    `select s.id, s.title, s.revision, s.state, m.role,
       array(select v.name from vehicle v where v.study_id = s.id order by v.sequence, v.id) as vehicles,
       (select count(*) from piece p where p.study_id = s.id) as pieces,
       (select count(*) from question q where q.study_id = s.id and q.state = 'open') as "openQuestions",
       (select c.made_at from change c where c.study_id = s.id and c.revision = s.revision) as "changedAt"
     from study s join member m on m.study_id = s.id and m.person_id = $1
     order by s.state desc, "changedAt" desc nulls last, s.id`,
    [personId],
  );

export const anyStudy = async (db: Db): Promise<boolean> =>
  (await maybeOne<{ id: string }>(db, 'select id from study order by id limit 1')) !== null;

const STUDY = `id, version, title, questions, lead, currency, price_year as "priceYear", volume_per_year as "volumePerYear",
  production_years as "productionYears", region, fasteners_in as "fastenersIn", assemblies_as as "assembliesAs", state`;

/** Revision and state of a study, or null when there is none. */
export const studyHead = (db: Db, studyId: string): Promise<{ readonly revision: number; readonly state: Study['state'] } | null> =>
  maybeOne(db, 'select revision, state from study where id = $1', [studyId]);

export const studyById = (db: Db, studyId: string): Promise<Study | null> =>
  maybeOne(db, `select ${STUDY} from study where id = $1`, [studyId]);

export const insertStudy = (db: Db, study: Study): Promise<unknown> =>
  db.query(
    `insert into study (id, version, revision, title, questions, lead, currency, price_year, volume_per_year, production_years, region, fasteners_in, assemblies_as, state)
     values ($1, $2, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [study.id, study.version, ...studyValues(study)],
  );

export const updateStudy = (db: Db, study: Study): Promise<unknown> =>
  db.query(
    `update study set version = $2, title = $3, questions = $4, lead = $5, currency = $6, price_year = $7, volume_per_year = $8,
       production_years = $9, region = $10, fasteners_in = $11, assemblies_as = $12, state = $13 where id = $1`,
    [study.id, study.version, ...studyValues(study)],
  );

const studyValues = (s: StudyFields): readonly unknown[] => [
  s.title,
  s.questions,
  s.lead,
  s.currency,
  s.priceYear,
  s.volumePerYear,
  s.productionYears,
  s.region,
  s.fastenersIn,
  s.assembliesAs,
  s.state,
];

export const setRevision = (db: Db, studyId: string, revision: number): Promise<unknown> =>
  db.query('update study set revision = $2 where id = $1', [studyId, revision]);

const VEHICLE = `id, version, sequence, name, maker, role, model_year as "modelYear", built_on as "builtOn", acquired_on as "acquiredOn", notes`;

export const vehiclesOf = (db: Db, studyId: string): Promise<readonly Vehicle[]> =>
  many(db, `select ${VEHICLE} from vehicle where study_id = $1 order by sequence, id`, [studyId]);

export const vehiclesById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly Vehicle[]> =>
  many(db, `select ${VEHICLE} from vehicle where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const VEHICLE_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, sequence integer, name text, maker text, role text,
  "modelYear" integer, "builtOn" date, "acquiredOn" date, notes text)`;

export const insertVehicles = (db: Db, studyId: string, rows: readonly Vehicle[]): Promise<unknown> =>
  db.query(
    `insert into vehicle (study_id, id, version, sequence, name, maker, role, model_year, built_on, acquired_on, notes)
     select $1, r.id, r.version, r.sequence, r.name, r.maker, r.role, r."modelYear", r."builtOn", r."acquiredOn", r.notes from ${VEHICLE_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updateVehicles = (db: Db, studyId: string, rows: readonly Vehicle[]): Promise<unknown> =>
  db.query(
    `update vehicle v set version = r.version, sequence = r.sequence, name = r.name, maker = r.maker, role = r.role, model_year = r."modelYear",
       built_on = r."builtOn", acquired_on = r."acquiredOn", notes = r.notes
     from ${VEHICLE_ROWS} where v.study_id = $1 and v.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deleteVehicles = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from vehicle where study_id = $1 and id = any($2)', [studyId, ids]);

const SUBSYSTEM = `id, version, parent_id as "parentId", sequence, name`;

export const subsystemsOf = (db: Db, studyId: string): Promise<readonly Subsystem[]> =>
  many(db, `select ${SUBSYSTEM} from subsystem where study_id = $1 order by sequence, id`, [studyId]);

export const subsystemsById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly Subsystem[]> =>
  many(db, `select ${SUBSYSTEM} from subsystem where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const SUBSYSTEM_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, "parentId" uuid, sequence integer, name text)`;

export const insertSubsystems = (db: Db, studyId: string, rows: readonly Subsystem[]): Promise<unknown> =>
  db.query(
    `insert into subsystem (study_id, id, version, parent_id, sequence, name)
     select $1, r.id, r.version, r."parentId", r.sequence, r.name from ${SUBSYSTEM_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updateSubsystems = (db: Db, studyId: string, rows: readonly Subsystem[]): Promise<unknown> =>
  db.query(
    `update subsystem s set version = r.version, parent_id = r."parentId", sequence = r.sequence, name = r.name
     from ${SUBSYSTEM_ROWS} where s.study_id = $1 and s.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deleteSubsystems = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from subsystem where study_id = $1 and id = any($2)', [studyId, ids]);

/** A row that others still hang on, or that hangs on one that is not there; `what` says which rule. */
export interface Broken {
  readonly id: string;
  readonly name: string;
  readonly what: string;
}

/** Subsystems and vehicles left with dangling parents or children after a change. */
export const brokenSubsystems = (db: Db, studyId: string): Promise<readonly Broken[]> =>
  many(
    db,
    `with recursive below as (
       select id from subsystem where study_id = $1 and parent_id is null
       union all
       select s.id from subsystem s join below b on s.parent_id = b.id where s.study_id = $1
     )
     select s.id, s.name, case when p.id is null and s.parent_id is not null then 'parent-missing' else 'cycle' end as what
     from subsystem s left join subsystem p on p.id = s.parent_id and p.study_id = s.study_id
     where s.study_id = $1 and s.id not in (select id from below) order by s.id`,
    [studyId],
  );

const MEMBER = `id, version, person_id as "personId", role`;

export const membersOf = (db: Db, studyId: string): Promise<readonly Member[]> =>
  many(db, `select ${MEMBER} from member where study_id = $1 order by id`, [studyId]);

export const membersById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly Member[]> =>
  many(db, `select ${MEMBER} from member where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const MEMBER_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, "personId" uuid, role text)`;

export const insertMembers = (db: Db, studyId: string, rows: readonly Member[]): Promise<unknown> =>
  db.query(
    `insert into member (study_id, id, version, person_id, role) select $1, r.id, r.version, r."personId", r.role from ${MEMBER_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updateMembers = (db: Db, studyId: string, rows: readonly Member[]): Promise<unknown> =>
  db.query(
    `update member m set version = r.version, person_id = r."personId", role = r.role from ${MEMBER_ROWS} where m.study_id = $1 and m.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deleteMembers = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from member where study_id = $1 and id = any($2)', [studyId, ids]);

/** Makes somebody lead of a study that has none, outside the ledger. */
export const insertMember = (db: Db, studyId: string, id: string, personId: string): Promise<unknown> =>
  db.query(
    `insert into member (study_id, id, version, person_id, role) select s.id, $2, s.revision, $3, 'lead' from study s where s.id = $1`,
    [studyId, id, personId],
  );

/** What is wrong with the members of a study: nobody leads it, or one of them has no account. */
export const brokenMembers = (db: Db, studyId: string): Promise<readonly Broken[]> =>
  many(
    db,
    `select s.id, s.title as name, 'lead-missing' as what from study s
     where s.id = $1 and not exists (select from member m where m.study_id = s.id and m.role = 'lead')
     union all
     select m.id, '', 'person-missing' from member m left join person p on p.id = m.person_id where m.study_id = $1 and p.id is null
     order by id`,
    [studyId],
  );

const QUESTION = `id, version, kind, about_kind as "aboutKind", about_id as "aboutId", about_field as "aboutField", text, owner_id as "ownerId",
  due_on as "dueOn", owed_to as "owedTo", state, answer`;

export const questionsOf = (db: Db, studyId: string): Promise<readonly Question[]> =>
  many(db, `select ${QUESTION} from question where study_id = $1 order by id`, [studyId]);

export const questionsById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly Question[]> =>
  many(db, `select ${QUESTION} from question where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const QUESTION_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, kind text, "aboutKind" text, "aboutId" uuid, "aboutField" text,
  text text, "ownerId" uuid, "dueOn" date, "owedTo" text, state text, answer text)`;

export const insertQuestions = (db: Db, studyId: string, rows: readonly Question[]): Promise<unknown> =>
  db.query(
    `insert into question (study_id, id, version, kind, about_kind, about_id, about_field, text, owner_id, due_on, owed_to, state, answer)
     select $1, r.id, r.version, r.kind, r."aboutKind", r."aboutId", r."aboutField", r.text, r."ownerId", r."dueOn", r."owedTo", r.state, r.answer
     from ${QUESTION_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updateQuestions = (db: Db, studyId: string, rows: readonly Question[]): Promise<unknown> =>
  db.query(
    `update question q set version = r.version, kind = r.kind, about_kind = r."aboutKind", about_id = r."aboutId", about_field = r."aboutField",
       text = r.text, owner_id = r."ownerId", due_on = r."dueOn", owed_to = r."owedTo", state = r.state, answer = r.answer
     from ${QUESTION_ROWS} where q.study_id = $1 and q.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deleteQuestions = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from question where study_id = $1 and id = any($2)', [studyId, ids]);

/** Touched questions whose owner is not of the study. */
export const ownerlessQuestions = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `select q.id, left(q.text, 60) as name, 'owner-missing' as what from question q
     where q.study_id = $1 and q.id = any($2) and q.owner_id is not null
       and not exists (select from member m where m.study_id = q.study_id and m.person_id = q.owner_id)
     order by q.id`,
    [studyId, touched],
  );
