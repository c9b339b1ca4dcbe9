import type { Study, StudyFields, Subsystem, Vehicle } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';

/** A study as the list shows it. */
export interface StudyLine {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly vehicles: readonly string[];
  readonly pieces: number;
}

export const studyLines = (db: Db): Promise<readonly StudyLine[]> =>
  many(
    db,
    `select s.id, s.title, s.revision,
       array(select v.name from vehicle v where v.study_id = s.id order by v.sequence, v.id) as vehicles,
       (select count(*) from piece p where p.study_id = s.id) as pieces
     from study s order by s.title, s.id`,
  );

const STUDY = `id, version, title, questions, lead, currency, price_year as "priceYear", volume_per_year as "volumePerYear",
  production_years as "productionYears", region, fasteners_in as "fastenersIn", assemblies_as as "assembliesAs"`;

export const studyRevision = async (db: Db, studyId: string): Promise<number | null> =>
  (await maybeOne<{ revision: number }>(db, 'select revision from study where id = $1', [studyId]))?.revision ?? null;

export const studyById = (db: Db, studyId: string): Promise<Study | null> =>
  maybeOne(db, `select ${STUDY} from study where id = $1`, [studyId]);

export const insertStudy = (db: Db, study: Study): Promise<unknown> =>
  db.query(
    `insert into study (id, version, revision, title, questions, lead, currency, price_year, volume_per_year, production_years, region, fasteners_in, assemblies_as)
     values ($1, $2, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [study.id, study.version, ...studyValues(study)],
  );

export const updateStudy = (db: Db, study: Study): Promise<unknown> =>
  db.query(
    `update study set version = $2, title = $3, questions = $4, lead = $5, currency = $6, price_year = $7, volume_per_year = $8,
       production_years = $9, region = $10, fasteners_in = $11, assemblies_as = $12 where id = $1`,
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
