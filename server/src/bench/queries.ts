import type { FastenerSet, JointSet, Picture, Piece } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many } from '../db/rows';
import type { Broken } from '../record/queries';

const PIECE = `id, version, vehicle_id as "vehicleId", subsystem_id as "subsystemId", parent_id as "parentId", sequence, tag, name, function,
  quantity, hand, material_id as "materialId", material_detail as "materialDetail", process_id as "processId", process_detail as
  "processDetail", mass_each_kg as "massEachKg", mass_u_kg as "massUKg", mass_evidence as "massEvidence", mass_typed as
  "massTyped", length_m as "lengthM", width_m as "widthM", height_m as "heightM", wall_thickness_m as "wallThicknessM",
  run_length_m as "runLengthM", location, markings, supplier, opened, closed_reason as "closedReason", damage, notes,
  bought_price::text as "boughtPrice", bought_currency as "boughtCurrency", bought_price_year as "boughtPriceYear",
  bought_volume_per_year as "boughtVolumePerYear", bought_region as "boughtRegion", known`;

export const piecesOf = (db: Db, studyId: string): Promise<readonly Piece[]> =>
  many(db, `select ${PIECE} from piece where study_id = $1 order by sequence, id`, [studyId]);

export const piecesById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly Piece[]> =>
  many(db, `select ${PIECE} from piece where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const PIECE_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, "vehicleId" uuid, "subsystemId" uuid, "parentId" uuid, sequence integer, tag text, name text, function
  text, quantity integer, hand text, "materialId" text, "materialDetail" text, "processId" text, "processDetail" text,
  "massEachKg" float8, "massUKg" float8, "massEvidence" text, "massTyped" text, "lengthM" float8, "widthM" float8, "heightM"
  float8, "wallThicknessM" float8, "runLengthM" float8, location text, markings text, supplier text, opened text, "closedReason"
  text, damage text, notes text, "boughtPrice" numeric, "boughtCurrency" text, "boughtPriceYear" integer, "boughtVolumePerYear"
  integer, "boughtRegion" text, known jsonb)`;

export const insertPieces = (db: Db, studyId: string, rows: readonly Piece[]): Promise<unknown> =>
  db.query(
    `insert into piece (study_id, id, version, vehicle_id, subsystem_id, parent_id, sequence, tag, name, function, quantity, hand, material_id,
       material_detail, process_id, process_detail, mass_each_kg, mass_u_kg, mass_evidence, mass_typed, length_m, width_m,
       height_m, wall_thickness_m, run_length_m, location, markings, supplier, opened, closed_reason, damage, notes, bought_price,
       bought_currency, bought_price_year, bought_volume_per_year, bought_region, known)
     select $1, r.id, r.version, r."vehicleId", r."subsystemId", r."parentId", r.sequence, r.tag, r.name, r.function, r.quantity, r.hand,
       r."materialId", r."materialDetail", r."processId", r."processDetail", r."massEachKg", r."massUKg", r."massEvidence",
       r."massTyped", r."lengthM", r."widthM", r."heightM", r."wallThicknessM", r."runLengthM", r.location, r.markings,
       r.supplier, r.opened, r."closedReason", r.damage, r.notes, r."boughtPrice", r."boughtCurrency", r."boughtPriceYear",
       r."boughtVolumePerYear", r."boughtRegion", r.known
     from ${PIECE_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updatePieces = (db: Db, studyId: string, rows: readonly Piece[]): Promise<unknown> =>
  db.query(
    `update piece p set version = r.version, vehicle_id = r."vehicleId", subsystem_id = r."subsystemId", parent_id = r."parentId", sequence = r.sequence,
       tag = r.tag, name = r.name, function = r.function, quantity = r.quantity, hand = r.hand, material_id = r."materialId",
       material_detail = r."materialDetail", process_id = r."processId", process_detail = r."processDetail", mass_each_kg =
       r."massEachKg", mass_u_kg = r."massUKg", mass_evidence = r."massEvidence", mass_typed = r."massTyped", length_m =
       r."lengthM", width_m = r."widthM", height_m = r."heightM", wall_thickness_m = r."wallThicknessM", run_length_m =
       r."runLengthM", location = r.location, markings = r.markings, supplier = r.supplier, opened = r.opened, closed_reason =
       r."closedReason", damage = r.damage, notes = r.notes, bought_price = r."boughtPrice", bought_currency = r."boughtCurrency",
       bought_price_year = r."boughtPriceYear", bought_volume_per_year = r."boughtVolumePerYear", bought_region = r."boughtRegion", known = r.known
     from ${PIECE_ROWS} where p.study_id = $1 and p.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deletePieces = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from piece where study_id = $1 and id = any($2)', [studyId, ids]);

const FASTENER_SET = `id, version, piece_id as "pieceId", sequence, count, kind, thread_m as "threadM", pitch_m as "pitchM", length_m as "lengthM",
  drive, grade, direction, mass_each_kg as "massEachKg", mass_u_kg as "massUKg", mass_evidence as "massEvidence", mass_typed as
  "massTyped", note, known`;

export const fastenerSetsOf = (db: Db, studyId: string): Promise<readonly FastenerSet[]> =>
  many(db, `select ${FASTENER_SET} from fastener_set where study_id = $1 order by sequence, id`, [studyId]);

export const fastenerSetsById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly FastenerSet[]> =>
  many(db, `select ${FASTENER_SET} from fastener_set where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const FASTENER_SET_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, "pieceId" uuid, sequence integer, count integer, kind text, "threadM" float8, "pitchM" float8, "lengthM"
  float8, drive text, grade text, direction text, "massEachKg" float8, "massUKg" float8, "massEvidence" text, "massTyped" text,
  note text, known jsonb)`;

export const insertFastenerSets = (db: Db, studyId: string, rows: readonly FastenerSet[]): Promise<unknown> =>
  db.query(
    `insert into fastener_set (study_id, id, version, piece_id, sequence, count, kind, thread_m, pitch_m, length_m, drive, grade, direction, mass_each_kg,
       mass_u_kg, mass_evidence, mass_typed, note, known)
     select $1, r.id, r.version, r."pieceId", r.sequence, r.count, r.kind, r."threadM", r."pitchM", r."lengthM", r.drive, r.grade,
       r.direction, r."massEachKg", r."massUKg", r."massEvidence", r."massTyped", r.note, r.known
     from ${FASTENER_SET_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updateFastenerSets = (db: Db, studyId: string, rows: readonly FastenerSet[]): Promise<unknown> =>
  db.query(
    `update fastener_set f set version = r.version, piece_id = r."pieceId", sequence = r.sequence, count = r.count, kind = r.kind, thread_m = r."threadM",
       pitch_m = r."pitchM", length_m = r."lengthM", drive = r.drive, grade = r.grade, direction = r.direction, mass_each_kg =
       r."massEachKg", mass_u_kg = r."massUKg", mass_evidence = r."massEvidence", mass_typed = r."massTyped", note = r.note, known = r.known
     from ${FASTENER_SET_ROWS} where f.study_id = $1 and f.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deleteFastenerSets = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from fastener_set where study_id = $1 and id = any($2)', [studyId, ids]);

const JOINT_SET = `id, version, piece_id as "pieceId", sequence, count, kind, length_each_m as "lengthEachM", note, known`;

export const jointSetsOf = (db: Db, studyId: string): Promise<readonly JointSet[]> =>
  many(db, `select ${JOINT_SET} from joint_set where study_id = $1 order by sequence, id`, [studyId]);

export const jointSetsById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly JointSet[]> =>
  many(db, `select ${JOINT_SET} from joint_set where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const JOINT_SET_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, "pieceId" uuid, sequence integer, count integer, kind text, "lengthEachM" float8, note text, known jsonb)`;

export const insertJointSets = (db: Db, studyId: string, rows: readonly JointSet[]): Promise<unknown> =>
  db.query(
    `insert into joint_set (study_id, id, version, piece_id, sequence, count, kind, length_each_m, note, known)
     select $1, r.id, r.version, r."pieceId", r.sequence, r.count, r.kind, r."lengthEachM", r.note, r.known
     from ${JOINT_SET_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updateJointSets = (db: Db, studyId: string, rows: readonly JointSet[]): Promise<unknown> =>
  db.query(
    `update joint_set j set version = r.version, piece_id = r."pieceId", sequence = r.sequence, count = r.count, kind = r.kind, length_each_m =
       r."lengthEachM", note = r.note, known = r.known
     from ${JOINT_SET_ROWS} where j.study_id = $1 and j.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deleteJointSets = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from joint_set where study_id = $1 and id = any($2)', [studyId, ids]);

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

const PICTURE = `id, version, piece_id as "pieceId", sequence, sha256, width_px as "widthPx", height_px as "heightPx", shows, marks`;

export const picturesOf = (db: Db, studyId: string): Promise<readonly Picture[]> =>
  many(db, `select ${PICTURE} from picture where study_id = $1 order by sequence, id`, [studyId]);

export const picturesById = (db: Db, studyId: string, ids: readonly string[]): Promise<readonly Picture[]> =>
  many(db, `select ${PICTURE} from picture where study_id = $1 and id = any($2) order by id`, [studyId, ids]);

const PICTURE_ROWS = `jsonb_to_recordset($2::jsonb) as r(id uuid, version bigint, "pieceId" uuid, sequence integer, sha256 text, "widthPx" integer,
  "heightPx" integer, shows text, marks jsonb)`;

export const insertPictures = (db: Db, studyId: string, rows: readonly Picture[]): Promise<unknown> =>
  db.query(
    `insert into picture (study_id, id, version, piece_id, sequence, sha256, width_px, height_px, shows, marks)
     select $1, r.id, r.version, r."pieceId", r.sequence, r.sha256, r."widthPx", r."heightPx", r.shows, r.marks from ${PICTURE_ROWS}`,
    [studyId, JSON.stringify(rows)],
  );

export const updatePictures = (db: Db, studyId: string, rows: readonly Picture[]): Promise<unknown> =>
  db.query(
    `update picture p set version = r.version, piece_id = r."pieceId", sequence = r.sequence, sha256 = r.sha256, width_px = r."widthPx",
       height_px = r."heightPx", shows = r.shows, marks = r.marks
     from ${PICTURE_ROWS} where p.study_id = $1 and p.id = r.id`,
    [studyId, JSON.stringify(rows)],
  );

export const deletePictures = (db: Db, studyId: string, ids: readonly string[]): Promise<unknown> =>
  db.query('delete from picture where study_id = $1 and id = any($2)', [studyId, ids]);

/** Pictures that a change left without their piece or their file. */
export const brokenPictures = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Broken[]> =>
  many(
    db,
    `select p.id, case when p.shows = '' then 'picture' else p.shows end as name,
       case when q.id is null then 'piece-missing' else 'file-missing' end as what
     from picture p
       left join piece q on q.id = p.piece_id and q.study_id = p.study_id
       left join study_file f on f.study_id = p.study_id and f.sha256 = p.sha256
     where p.study_id = $1 and (p.id = any($2) or p.piece_id = any($2)) and (q.id is null or f.sha256 is null)
     order by p.id`,
    [studyId, touched],
  );
