import type { RequestHandler } from 'express';
import { Problem } from './problem';
import { personOf } from './routes';

/** So many requests of one person may wait for their turn. */
const MOST_WAITING = 30;

/** Who is being answered, and what of theirs waits. */
const waiting = new Map<string, (() => void)[]>();

/**
 * Of what takes the server long, one at a time is answered to one person, on whichever route: whoever asks for more waits for
 * themselves, not others for them.
 */
export const inTurn: RequestHandler = (_request, response, next) => {
  const { id } = personOf(response);
  const queue = waiting.get(id);
  const begin = (): void => {
    // whoever waited may have gone meanwhile
    if (response.destroyed) {
      end();
      return;
    }
    response.once('close', end);
    next();
  };
  const end = (): void => {
    const following = waiting.get(id)?.shift();
    if (following) following();
    else waiting.delete(id);
  };
  if (!queue) {
    waiting.set(id, []);
    begin();
  } else if (queue.length < MOST_WAITING) queue.push(begin);
  else throw new Problem('too-many', 'You ask for more than can be answered at once; wait for what you asked for');
};
