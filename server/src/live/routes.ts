import type { Response, Router } from 'express';
import { check, isUuid } from '@each-bolt/core/shared';
import { HERE_NOW } from '@each-bolt/core/wire';
import type { Pool } from '../db/pool';
import { json } from '../http/json';
import { Problem } from '../http/problem';
import { personOf, routed, studyIdOf } from '../http/routes';
import { isGone, whenOver } from '../http/when-over';
import { revisionOf } from '../ledger/routes';
import { roleIn } from '../people/queries';
import { eventOf, type Follower, type Live } from './live';
import { sayGone, sayHere, touchHere } from './queries';

const PING_MS = 15_000;

/** A stream that reads nothing for so many pings is ended: a page that is still there connects again and is told what it missed. */
const MOST_MISSED = 2;

/** Tells a page of changes and of who is here, and pings it; gives what ends that. */
const follow = (
  response: Response,
  live: Live,
  from: Pick<Follower, 'studyId' | 'since'>,
  checkStillOf: () => Promise<void>,
  touch: () => Promise<unknown>,
): readonly (() => void)[] => {
  // what nobody reads is not piled up: changes wait in the ledger, and of who is here only the last is told
  let unread: Buffer | null = null;
  let missed = 0;
  const follower: Follower = {
    ...from,
    change: ({ isOfMembers }, event) => {
      response.write(event);
      if (isOfMembers) void checkStillOf().catch(() => response.end());
    },
    here: (event) => {
      if (response.writableNeedDrain) unread = event;
      else response.write(event);
    },
    isReady: () => !response.writableNeedDrain,
    end: () => response.end(),
  };
  response.on('drain', () => {
    missed = 0;
    if (unread) response.write(unread);
    unread = null;
    live.tellMore(follower);
  });
  const leave = live.follow(follower);
  const ping = setInterval(() => {
    if (response.writableNeedDrain) missed += 1;
    else response.write(': still here\n\n');
    if (missed > MOST_MISSED) response.destroy();
    else
      touch()
        .then(checkStillOf)
        .catch(() => response.end());
  }, PING_MS);
  return [leave, () => clearInterval(ping)];
};

/** What others change, and who is here, as it happens. */
export const liveRoutes = (pool: Pool, live: Live): Router => {
  const { router, on } = routed(pool);
  on('GET /api/studies/:id/events', async (request, response) => {
    const studyId = studyIdOf(request.params);
    const { connection } = request.query;
    if (!isUuid(connection)) throw new Problem('malformed', 'connection must be a UUID of the page’s own');
    const since = revisionOf(request.get('Last-Event-ID') ?? request.query.since, 'since');
    const person = personOf(response);
    const device = (typeof request.query.device === 'string' ? request.query.device : 'unnamed').slice(0, 100);
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    const checkStillOf = async (): Promise<void> => {
      if ((await roleIn(pool, studyId, person.id)) !== null) return;
      response.write(eventOf('off', '{}'));
      response.end();
    };
    // the page may be gone already, or go before it is said to be here
    let gone = isGone(response);
    const leaving: (() => void)[] = [];
    whenOver(response, () => {
      gone = true;
      for (const leave of leaving) leave();
      // what cannot be said now is over by itself before long
      sayGone(pool, connection).catch(() => undefined);
    });
    await sayHere(pool, { connection, studyId, personId: person.id, device, partId: null });
    if (gone) {
      await sayGone(pool, connection);
      return;
    }
    leaving.push(
      ...follow(response, live, { studyId, since }, checkStillOf, () => touchHere(pool, connection)),
      live.attend(request.sessionID, () => response.end()),
    );
  });
  on('POST /api/studies/:id/here', json, async (request, response) => {
    const here = check(HERE_NOW, request.body);
    if (!here.ok) throw new Problem('invalid', 'Where you are could not be read', here.issues);
    const device = (request.get('X-Device') ?? 'unnamed').slice(0, 100);
    await sayHere(pool, { ...here.value, studyId: studyIdOf(request.params), personId: personOf(response).id, device });
    response.json({});
  });
  return router;
};
