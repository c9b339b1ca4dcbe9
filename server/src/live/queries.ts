import type { Here } from '@each-bolt/core/wire';
import type { Db } from '../db/pool';
import { many } from '../db/rows';

/** A presence not heard of for this long is over. */
const STALE_S = 45;

export const present = (db: Db, studyId: string): Promise<readonly Here[]> =>
  many(
    db,
    `select h.connection, h.person_id as "personId", p.name, h.device, h.part_id as "partId"
     from presence h join person p on p.id = h.person_id
     where h.study_id = $1 and h.seen_at > now() - make_interval(secs => ${STALE_S}) order by p.name, h.connection`,
    [studyId],
  );

/** Says that a connection is there, and tells everybody when it came or opened another part. */
export const sayHere = (db: Db, here: Omit<Here, 'name'> & { readonly studyId: string }): Promise<unknown> =>
  db.query(
    `with old as (select part_id, device from presence where connection = $1),
       put as (
         insert into presence (connection, study_id, person_id, device, part_id) values ($1, $2, $3, $4, $5)
         on conflict (connection) do update set part_id = excluded.part_id, seen_at = now()
           where presence.person_id = excluded.person_id
         returning 1)
     select pg_notify('study_here', $2::text) from put where not exists (select from old where part_id is not distinct from $5)`,
    [here.connection, here.studyId, here.personId, here.device, here.partId],
  );

/** Keeps a presence alive without saying anything new. */
export const touchHere = (db: Db, connection: string): Promise<unknown> =>
  db.query('update presence set seen_at = now() where connection = $1', [connection]);

export const sayGone = (db: Db, connection: string): Promise<unknown> =>
  db.query(
    `with gone as (delete from presence where connection = $1 returning study_id) select pg_notify('study_here', study_id::text) from gone`,
    [connection],
  );

/** Which of these sessions there still are. */
export const livingSessions = async (db: Db, sids: readonly string[]): Promise<readonly string[]> =>
  (await many<{ sid: string }>(db, 'select sid from session where sid = any($1) and expire > now()', [sids])).map(({ sid }) => sid);
