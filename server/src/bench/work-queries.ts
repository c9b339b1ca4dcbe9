import type { TagSheetFields } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';
import type { Broken } from '../record/queries';

/** Connections, board contents, fluids, recounts and readings that a change left without what they belong to. */
export const orphanParts = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `with part as (
       select id, piece_id, count || ' ' || kind as name from connection where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, count || ' ' || component_class from component_set where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, 'board' from board where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, name from fluid where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, 'second count' from recount where study_id = $1 and (id = any($2) or piece_id = any($2))
     )
     select p.id, p.name, 'piece-missing' as what from part p
       where not exists (select from piece q where q.id = p.piece_id and q.study_id = $1)
     union all
     select max(b.id::text)::uuid, max(q.name), 'board-twice' from board b join piece q on q.id = b.piece_id
       where b.study_id = $1 and b.piece_id in (select piece_id from board where id = any($2)) group by b.piece_id having count(*) > 1
     union all
     select r.id, r.raw, 'about-gone' from reading r
       where r.study_id = $1 and (r.id = any($2) or r.about_id = any($2)) and not case r.about_kind
         when 'piece' then exists (select from piece x where x.id = r.about_id and x.study_id = $1)
         when 'fasteners' then exists (select from fastener_set x where x.id = r.about_id and x.study_id = $1)
         when 'connection' then exists (select from connection x where x.id = r.about_id and x.study_id = $1)
         when 'fluid' then exists (select from fluid x where x.id = r.about_id and x.study_id = $1)
         when 'step' then exists (select from removal_step x where x.id = r.about_id and x.study_id = $1)
         else exists (select from gate x where x.id = r.about_id and x.study_id = $1) end
     order by id`,
    [studyId, touched],
  );

/** Sessions, steps and tag sheets that name something which is not, or no more, in the study. */
export const brokenBench = (db: Db, studyId: string): Promise<readonly Broken[]> =>
  many(
    db,
    `with step as (select s.* from removal_step s where s.study_id = $1), broken as (
     select s.id, s.name, 'vehicle-gone' as what from bench_session s
       where s.study_id = $1 and not exists (select from vehicle v where v.id = s.vehicle_id and v.study_id = $1)
     union all
     select s.id, s.name, 'subsystem-gone' from bench_session s
       where s.study_id = $1 and s.subsystem_id is not null and not exists (select from subsystem b where b.id = s.subsystem_id and b.study_id = $1)
     union all
     select s.id, s.name, 'package-gone' from bench_session s
       where s.study_id = $1 and s.package_id is not null and not exists (select from work_package p where p.id = s.package_id and p.study_id = $1)
     union all
     select s.id, null, 'vehicle-gone' from step s where not exists (select from vehicle v where v.id = s.vehicle_id and v.study_id = $1)
     union all
     select s.id, null, 'session-gone' from step s
       where s.session_id is not null and not exists (select from bench_session b where b.id = s.session_id and b.study_id = $1)
     union all
     select s.id, null, 'rig-gone' from step s
       where s.rig_id is not null and not exists (select from rig g where g.id = s.rig_id and g.study_id = $1)
     union all
     select s.id, null, 'step-piece-gone' from step s cross join lateral jsonb_array_elements_text(s.pieces) p
       where not exists (select from piece q where q.id = p::uuid and q.study_id = $1 and q.vehicle_id = s.vehicle_id)
     union all
     select s.id, null, 'step-after-gone' from step s cross join lateral jsonb_array_elements_text(s.after) a
       where not exists (select from removal_step o where o.id = a::uuid and o.study_id = $1 and o.vehicle_id = s.vehicle_id)
     union all
     select s.id, null, 'step-part-gone' from step s cross join lateral jsonb_array_elements_text(s.connections) c
       where not exists (select from connection x where x.id = c::uuid and x.study_id = $1)
     union all
     select s.id, null, 'step-part-gone' from step s cross join lateral jsonb_array_elements_text(s.fluids) f
       where not exists (select from fluid x where x.id = f::uuid and x.study_id = $1)
     union all
     select t.id, t.prefix, 'vehicle-gone' from tag_sheet t
       where t.study_id = $1 and not exists (select from vehicle v where v.id = t.vehicle_id and v.study_id = $1)
     union all
     select t.id, t.prefix, 'subsystem-gone' from tag_sheet t
       where t.study_id = $1 and t.subsystem_id is not null and not exists (select from subsystem b where b.id = t.subsystem_id and b.study_id = $1)
     union all
     select t.id, t.prefix, 'package-gone' from tag_sheet t
       where t.study_id = $1 and t.package_id is not null and not exists (select from work_package p where p.id = t.package_id and p.study_id = $1)
     )
     select b.id, b.what, coalesce(b.name,
       (select string_agg(p.name, ', ') from removal_step s join piece p on p.study_id = $1 and s.pieces ? p.id::text where s.id = b.id),
       'a step') as name
     from broken b order by id, what`,
    [studyId],
  );

/** A step with those it waits for, and what comes off in it. */
export interface StepOrder {
  readonly id: string;
  readonly name: string;
  readonly after: readonly string[];
}

/** Every step of a study with those it waits for. */
export const stepOrders = (db: Db, studyId: string): Promise<readonly StepOrder[]> =>
  many(
    db,
    `select s.id, s.after, coalesce((select string_agg(p.name, ', ') from piece p where p.id = (s.pieces ->> 0)::uuid), 'a step') as name
     from removal_step s where s.study_id = $1 order by s.sequence, s.id`,
    [studyId],
  );

/** Pieces whose tag another piece of the study has too. */
export const taggedTwice = (db: Db, studyId: string, tagged: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `select p.id, p.tag || ' of ' || q.name as name, 'tag-twice' as what
     from piece p join piece q on q.study_id = p.study_id and q.tag = p.tag and q.id <> p.id
     where p.study_id = $1 and p.id = any($2) order by p.id`,
    [studyId, tagged],
  );

/** A sheet of tags with the words that are printed beside each. */
export interface PrintedSheet {
  readonly prefix: string;
  readonly firstNumber: number;
  readonly count: number;
  readonly stock: string;
  readonly vehicle: string;
  readonly subsystem: string | null;
  readonly package: string | null;
}

export const sheetById = (db: Db, studyId: string, id: string): Promise<(PrintedSheet & TagSheetFields) | null> =>
  maybeOne(
    db,
    `select t.prefix, t.first_number as "firstNumber", t.count, t.stock, v.name as vehicle, b.name as subsystem, p.name as package,
       t.vehicle_id as "vehicleId", t.subsystem_id as "subsystemId", t.package_id as "packageId", t.printed_at as "printedAt"
     from tag_sheet t join vehicle v on v.id = t.vehicle_id left join subsystem b on b.id = t.subsystem_id
       left join work_package p on p.id = t.package_id
     where t.study_id = $1 and t.id = $2`,
    [studyId, id],
  );
