import type { Db } from '../db/pool';
import { many, maybeOne, one } from '../db/rows';

/** A file as it is kept; only a picture has a size in pixels and a thumbnail. */
export interface StoredFile {
  readonly sha256: string;
  readonly mediaType: string;
  readonly widthPx: number | null;
  readonly heightPx: number | null;
  readonly bytes: Buffer;
  readonly thumbnail: Buffer | null;
}

export const insertFile = (db: Db, f: StoredFile): Promise<unknown> =>
  db.query(
    `insert into file (sha256, media_type, width_px, height_px, bytes, thumbnail) values ($1, $2, $3, $4, $5, $6)
     on conflict (sha256) do nothing`,
    [f.sha256, f.mediaType, f.widthPx, f.heightPx, f.bytes, f.thumbnail],
  );

/** Lets a study use a file. */
export const linkFile = (db: Db, studyId: string, sha256: string): Promise<unknown> =>
  db.query('insert into study_file (study_id, sha256) values ($1, $2) on conflict do nothing', [studyId, sha256]);

/** A file of a study: what it is and how many bytes. */
export const fileOf = (db: Db, studyId: string, sha256: string): Promise<{ readonly mediaType: string; readonly bytes: number } | null> =>
  maybeOne(
    db,
    `select f.media_type as "mediaType", octet_length(f.bytes) as bytes from study_file s join file f on f.sha256 = s.sha256
     where s.study_id = $1 and s.sha256 = $2`,
    [studyId, sha256],
  );

/** A file is read by stretches of so much, each in a moment: nobody holds a connection, or the whole of it, at the pace of a reader. */
const STRETCH_BYTES = 1024 * 1024;

/** The bytes of a file that is kept, stretch by stretch; what is under a sum never changes. */
export async function* stretchesOf(db: Db, sha256: string): AsyncGenerator<Buffer> {
  for (let from = 1; ; from += STRETCH_BYTES) {
    const { stretch } = await one<{ stretch: Buffer }>(
      db,
      'select substring(bytes from $2 for $3) as stretch from file where sha256 = $1',
      [sha256, from, STRETCH_BYTES],
    );
    if (stretch.length > 0) yield stretch;
    if (stretch.length < STRETCH_BYTES) return;
  }
}

export const thumbnailOf = (db: Db, studyId: string, sha256: string): Promise<{ readonly thumbnail: Buffer } | null> =>
  maybeOne(
    db,
    `select f.thumbnail from study_file s join file f on f.sha256 = s.sha256 where s.study_id = $1 and s.sha256 = $2 and f.thumbnail is not null`,
    [studyId, sha256],
  );

/** The files a study holds. */
export const filesOf = (
  db: Db,
  studyId: string,
): Promise<readonly { readonly sha256: string; readonly mediaType: string; readonly bytes: number }[]> =>
  many(
    db,
    `select s.sha256, f.media_type as "mediaType", octet_length(f.bytes) as bytes from study_file s join file f on f.sha256 = s.sha256 where s.study_id = $1 order by s.sha256`,
    [studyId],
  );
