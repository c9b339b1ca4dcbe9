import type { HeldVehicle } from '@each-bolt/core/plan';
import type { OrganisationRig, RecordedDay } from '@each-bolt/core/wire';
import type { Db } from '../db/pool';
import { many } from '../db/rows';

/** Earlier studies, one row per vehicle and subsystem that was recorded: what the plan expects is learnt from them. */
export interface ExperienceRow {
  readonly studyId: string;
  readonly study: string;
  readonly vehicle: string;
  readonly subsystem: string;
  readonly depth: string | null;
  /** lines of parts times how many there are of each below its parent */
  readonly parts: number;
  /** working time of people spent on packages of this vehicle and subsystem that are all done; null where it is not known */
  readonly peopleS: number | null;
}

/**
 * Studies that are others than $1: neither it nor a copy of it, nor a copy of one that is looked at itself.
 * A copy says the same once more and is no experience of its own.
 *
 * @param lookedAt a table of the studies that are looked at
 */
const otherStudies = (lookedAt: string): string => `other as (
  select s.id from study s
  where coalesce(s.copy_of, s.id) <> (select coalesce(t.copy_of, t.id) from study t where t.id = $1)
    and not exists (select from ${lookedAt} o where o.id = s.copy_of)
)`;

/** What the studies of a person, this one apart, hold of every subsystem of every vehicle. */
export const experienceOf = (db: Db, studyId: string, personId: string): Promise<readonly ExperienceRow[]> =>
  many(
    db,
    `with recursive ${otherStudies('(select study_id as id from member where person_id = $2)')}, hung as (
       select p.id, p.study_id, p.vehicle_id, p.subsystem_id, p.quantity::float8 as parts, 0 as level from part p
         join member m on m.study_id = p.study_id and m.person_id = $2
         join other o on o.id = p.study_id
         where p.parent_id is null
       union all
       select c.id, c.study_id, h.vehicle_id, h.subsystem_id, h.parts * c.quantity, h.level + 1 from part c join hung h on c.parent_id = h.id
         where h.level < 40
     ), loose as (
       select h.study_id, h.vehicle_id, h.subsystem_id, sum(h.parts) as parts from hung h
         where not exists (select from part c where c.parent_id = h.id)
         group by h.study_id, h.vehicle_id, h.subsystem_id
     ), worked as (
       select w.study_id, w.vehicle_id, w.subsystem_id,
         case when bool_and(w.done_on is not null and w.worked_s is not null) then sum(w.worked_s * greatest(w.people, 1)) end as people_s
       from work_package w where w.vehicle_id is not null and w.subsystem_id is not null group by w.study_id, w.vehicle_id, w.subsystem_id
     )
     select s.id as "studyId", s.title as study, v.name as vehicle, b.name as subsystem, c.depth, l.parts, w.people_s as "peopleS"
     from loose l
       join study s on s.id = l.study_id
       join vehicle v on v.id = l.vehicle_id
       join subsystem b on b.id = l.subsystem_id
       left join scope c on c.vehicle_id = l.vehicle_id and c.subsystem_id = l.subsystem_id
       left join worked w on w.vehicle_id = l.vehicle_id and w.subsystem_id = l.subsystem_id
     order by s.title, v.sequence, b.sequence, b.id`,
    [studyId, personId],
  );

/** Every vehicle of the organisation in other studies; which one it is, is told to people of its study only. */
export const heldVehicles = (db: Db, studyId: string, personId: string): Promise<readonly HeldVehicle[]> =>
  many(
    db,
    `with ${otherStudies('study')}
     select case when m.id is not null then v.name end as name, case when m.id is not null then s.title end as study,
       v.vehicle_class as "vehicleClass", v.drive, v.voltage_v as "voltageV", v.model_year as "modelYear"
     from vehicle v join study s on s.id = v.study_id
       join other o on o.id = v.study_id
       left join member m on m.study_id = v.study_id and m.person_id = $2
     order by v.model_year desc nulls last, v.id`,
    [studyId, personId],
  );

/** Parts recorded per day, by vehicle and subsystem: the day a part was first written. */
export const recordedByDay = (db: Db, studyId: string): Promise<readonly RecordedDay[]> =>
  many(
    db,
    `with recursive hung as (
       select id, vehicle_id, subsystem_id, 0 as level from part where study_id = $1 and parent_id is null
       union all
       select c.id, h.vehicle_id, h.subsystem_id, h.level + 1 from part c join hung h on c.parent_id = h.id where h.level < 40
     ), first as (
       select r.row_id, min(w.revision) as revision from change_row r join change w on w.id = r.change_id
       where r.study_id = $1 and r.entity = 'part' group by r.row_id
     )
     select to_char(c.made_at, 'YYYY-MM-DD') as day, h.vehicle_id as "vehicleId", h.subsystem_id as "subsystemId", count(*) as lines
     from hung h join first f on f.row_id = h.id join change c on c.study_id = $1 and c.revision = f.revision
     group by day, h.vehicle_id, h.subsystem_id order by day, h.vehicle_id, h.subsystem_id`,
    [studyId],
  );

/** Rigs of the other studies a person is of. */
export const organisationRigs = (db: Db, studyId: string, personId: string): Promise<readonly OrganisationRig[]> =>
  many(
    db,
    `select g.id, s.id as "studyId", s.title as study, g.name, g.made_for as "madeFor", g.hazards, g.design, g.time_to_make_s as "timeToMakeS",
       g.rated_n as "ratedN", g.factor, g.went_wrong as "wentWrong", g.state, g.copies
     from rig g join study s on s.id = g.study_id join member m on m.study_id = s.id and m.person_id = $2
     where s.id <> $1 order by s.title, g.sequence, g.id`,
    [studyId, personId],
  );
