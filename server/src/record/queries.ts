import type { Role, Study, StudyFields } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';
import { VERSION } from '../db/table';

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

const STUDY = `id, ${VERSION} as version, title, questions, lead, currency, price_year as "priceYear", volume_per_year as "volumePerYear",
  production_years as "productionYears", region, fasteners_in as "fastenersIn", assemblies_as as "assembliesAs", state,
  choice_weights as "choiceWeights", usual_hazards as "usualHazards", calendar`;

/** Revision and state of a study, or null when there is none. */
export const studyHead = (db: Db, studyId: string): Promise<{ readonly revision: number; readonly state: Study['state'] } | null> =>
  maybeOne(db, 'select revision, state from study where id = $1', [studyId]);

export const studyById = (db: Db, studyId: string): Promise<Study | null> =>
  maybeOne(db, `select ${STUDY} from study t where id = $1`, [studyId]);

export const holdStudy = (db: Db, studyId: string): Promise<unknown> =>
  db.query('select id from study where id = $1 for no key update', [studyId]);

export const insertStudy = (db: Db, study: Study): Promise<unknown> =>
  db.query(
    `insert into study (id, version, revision, title, questions, lead, currency, price_year, volume_per_year, production_years, region, fasteners_in, assemblies_as, state,
       choice_weights, usual_hazards, calendar)
     values ($1, $2, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16)`,
    [study.id, study.version, ...studyValues(study)],
  );

export const updateStudy = (db: Db, study: Study): Promise<unknown> =>
  db.query(
    `update study set version = $2, title = $3, questions = $4, lead = $5, currency = $6, price_year = $7, volume_per_year = $8,
       production_years = $9, region = $10, fasteners_in = $11, assemblies_as = $12, state = $13,
       choice_weights = $14, usual_hazards = $15, calendar = $16 where id = $1`,
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
  JSON.stringify(s.choiceWeights),
  JSON.stringify(s.usualHazards),
  JSON.stringify(s.calendar),
];

/** Says of which study another is a copy; the copy of a copy is one of the first. */
export const setCopyOf = (db: Db, studyId: string, originalId: string): Promise<unknown> =>
  db.query('update study set copy_of = coalesce((select copy_of from study where id = $2), $2) where id = $1', [studyId, originalId]);

export const setRevision = (db: Db, studyId: string, revision: number): Promise<unknown> =>
  db.query('update study set revision = $2 where id = $1', [studyId, revision]);

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
