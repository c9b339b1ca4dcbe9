import type { RequestHandler } from 'express';
import { Problem } from './problem';
import { doing } from './request-log';
import { personOf } from './routes';
import { isGone, whenOver } from './when-over';

/** So many large answers are on their way to one person at a time, and so many more requests of theirs may wait. */
const AT_ONCE = 4;
const MOST_WAITING = 30;

interface Asked {
  running: number;
  readonly waiting: (() => void)[];
}

const asked = new Map<string, Asked>();

/**
 * A large answer is held in memory until it is taken. Of those a few are on their way to one person at a time, on whichever
 * route: whoever asks for more waits for themselves, not others for them.
 */
export const fewAtOnce: RequestHandler = (_request, response, next) => {
  const { id } = personOf(response);
  const of = asked.get(id) ?? { running: 0, waiting: [] };
  asked.set(id, of);
  const end = (): void => {
    const following = of.waiting.shift();
    if (following) {
      following();
      return;
    }
    of.running -= 1;
    if (of.running === 0) asked.delete(id);
  };
  const begin = (): void => {
    // whoever waited may have gone meanwhile
    if (isGone(response)) {
      end();
      return;
    }
    whenOver(response, end);
    doing(response, 'begins');
    next();
  };
  if (of.running < AT_ONCE) {
    of.running += 1;
    begin();
  } else if (of.waiting.length < MOST_WAITING) {
    doing(response, `waits for ${of.running} answers on their way to the same person`);
    of.waiting.push(begin);
  } else throw new Problem('too-many', 'You ask for more than can be answered at once; wait for what you asked for');
};
