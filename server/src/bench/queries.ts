import type { Db } from '../db/pool';
import { many } from '../db/rows';
import type { Broken } from '../record/queries';

/** Pieces that a change left hanging nowhere: vehicle, subsystem or parent missing, or parent on another vehicle. */
export const brokenPieces = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `select p.id, p.name, case
       when v.id is null then 'vehicle-missing'
       when p.subsystem_id is not null and s.id is null then 'subsystem-missing'
       when p.parent_id is not null and q.id is null then 'parent-missing'
       else 'parent-elsewhere' end as what
     from piece p
       left join vehicle v on v.id = p.vehicle_id and v.study_id = p.study_id
       left join subsystem s on s.id = p.subsystem_id and s.study_id = p.study_id
       left join piece q on q.id = p.parent_id and q.study_id = p.study_id
     where p.study_id = $1
       and (p.id = any($2) or p.parent_id = any($2) or p.vehicle_id = any($2) or p.subsystem_id = any($2))
       and (v.id is null or (p.subsystem_id is not null and s.id is null)
         or (p.parent_id is not null and (q.id is null or q.vehicle_id <> p.vehicle_id)))
     order by p.id`,
    [studyId, touched],
  );

/** Touched pieces that are inside themselves by way of others. */
export const circlingPieces = (db: Db, studyId: string, moved: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `with recursive above as (
       select p.id as start, p.parent_id as at from piece p where p.study_id = $1 and p.id = any($2)
       union
       select a.start, p.parent_id from above a join piece p on p.id = a.at
     )
     select p.id, p.name, 'cycle' as what from piece p
     where p.id in (select start from above where at = start) order by p.id`,
    [studyId, moved],
  );

/** Fastener and joint sets that a change left without their piece; the name is the kind of set. */
export const orphanSets = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `select f.id, f.count || ' ' || f.kind as name, 'piece-missing' as what from fastener_set f
       left join piece p on p.id = f.piece_id and p.study_id = f.study_id
     where f.study_id = $1 and (f.id = any($2) or f.piece_id = any($2)) and p.id is null
     union all
     select j.id, j.count || ' ' || j.kind, 'piece-missing' from joint_set j
       left join piece p on p.id = j.piece_id and p.study_id = j.study_id
     where j.study_id = $1 and (j.id = any($2) or j.piece_id = any($2)) and p.id is null
     order by id`,
    [studyId, touched],
  );

/** Pictures that a change left without their piece, their rig or their file. */
export const brokenPictures = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `select p.id, case when p.shows = '' then 'picture' else p.shows end as name,
       case when p.piece_id is not null and q.id is null then 'piece-missing' when p.rig_id is not null and g.id is null then 'rig-gone'
         else 'file-missing' end as what
     from picture p
       left join piece q on q.id = p.piece_id and q.study_id = p.study_id
       left join rig g on g.id = p.rig_id and g.study_id = p.study_id
       left join study_file f on f.study_id = p.study_id and f.sha256 = p.sha256
     where p.study_id = $1 and (p.id = any($2) or p.piece_id = any($2) or p.rig_id = any($2))
       and ((p.piece_id is not null and q.id is null) or (p.rig_id is not null and g.id is null) or f.sha256 is null)
     order by p.id`,
    [studyId, touched],
  );
