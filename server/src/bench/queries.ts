import type { TagSheetFields } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';
import type { Named } from '../record/queries';

/** Parts whose tag another part of the study has too. */
export const taggedTwice = (db: Db, studyId: string, tagged: readonly string[]): Promise<readonly Named[]> =>
  many(
    db,
    `select p.id, p.tag || ' of ' || q.name as name
     from part p join part q on q.study_id = p.study_id and q.tag = p.tag and q.id <> p.id
     where p.study_id = $1 and p.id = any($2) order by p.id`,
    [studyId, tagged],
  );

/** A sheet of tags with the words that are printed beside each. */
interface PrintedSheet {
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
