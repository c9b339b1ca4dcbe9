import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';

/** A file as it is kept; only a picture has a size in pixels and a thumbnail. */
export interface StoredFile {
  readonly sha256: string;
  readonly mediaType: string;
  readonly widthPx: number | null;
  readonly heightPx: number | null;
  readonly bytes: Buffer;
  readonly thumbnail: Buffer | null;
}

/** Width and height of a file that is kept already, or null. */
export const fileSize = (db: Db, sha256: string): Promise<{ readonly widthPx: number; readonly heightPx: number } | null> =>
  maybeOne(db, 'select width_px as "widthPx", height_px as "heightPx" from file where sha256 = $1', [sha256]);

export const insertFile = (db: Db, f: StoredFile): Promise<unknown> =>
  db.query(
    `insert into file (sha256, media_type, width_px, height_px, bytes, thumbnail) values ($1, $2, $3, $4, $5, $6)
     on conflict (sha256) do nothing`,
    [f.sha256, f.mediaType, f.widthPx, f.heightPx, f.bytes, f.thumbnail],
  );

/** Lets a study use a file. */
export const linkFile = (db: Db, studyId: string, sha256: string): Promise<unknown> =>
  db.query('insert into study_file (study_id, sha256) values ($1, $2) on conflict do nothing', [studyId, sha256]);

export const originalOf = (
  db: Db,
  studyId: string,
  sha256: string,
): Promise<{ readonly mediaType: string; readonly bytes: Buffer } | null> =>
  maybeOne(
    db,
    `select f.media_type as "mediaType", f.bytes from study_file s join file f on f.sha256 = s.sha256 where s.study_id = $1 and s.sha256 = $2`,
    [studyId, sha256],
  );

export const thumbnailOf = (db: Db, studyId: string, sha256: string): Promise<{ readonly thumbnail: Buffer } | null> =>
  maybeOne(
    db,
    `select f.thumbnail from study_file s join file f on f.sha256 = s.sha256 where s.study_id = $1 and s.sha256 = $2 and f.thumbnail is not null`,
    [studyId, sha256],
  );

/** Hashes of the files a study holds. */
export const filesOf = (db: Db, studyId: string): Promise<readonly { readonly sha256: string; readonly mediaType: string }[]> =>
  many(
    db,
    `select s.sha256, f.media_type as "mediaType" from study_file s join file f on f.sha256 = s.sha256 where s.study_id = $1 order by s.sha256`,
    [studyId],
  );
