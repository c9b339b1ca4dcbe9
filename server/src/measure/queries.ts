import type { Db } from '../db/pool';
import { many } from '../db/rows';
import type { Broken } from '../record/queries';

/** Scans, identifications, sections and patterns that a change left without what they belong to. */
export const orphanMeasures = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `with measured as (
       select id, piece_id, file_name as name from scan where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, 'identification' from identification where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, name from section where study_id = $1 and (id = any($2) or piece_id = any($2))
       union all
       select id, piece_id, name from pattern where study_id = $1 and (id = any($2) or piece_id = any($2))
     )
     select m.id, m.name, 'piece-missing' as what from measured m
       where not exists (select from piece q where q.id = m.piece_id and q.study_id = $1)
     union all
     select s.id, s.file_name, 'scan-file-missing' from scan s
       where s.study_id = $1 and s.id = any($2)
         and not exists (select from study_file f join file x on x.sha256 = f.sha256
                         where f.study_id = $1 and f.sha256 = s.sha256 and x.media_type like 'model/%')
     union all
     select i.id, 'identification', 'reading-gone' from identification i
       where i.study_id = $1 and i.reading_id is not null and (i.id = any($2) or i.reading_id = any($2))
         and not exists (select from reading r where r.id = i.reading_id and r.study_id = $1)
     union all
     select s.id, s.name, 'scan-gone' from section s
       where s.study_id = $1 and s.scan_id is not null and (s.id = any($2) or s.scan_id = any($2))
         and not exists (select from scan c where c.id = s.scan_id and c.study_id = $1)
     order by id, what`,
    [studyId, touched],
  );
