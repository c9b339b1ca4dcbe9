import type { IncomingMessage } from 'node:http';
import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import { Problem } from './problem';

/** Largest change that is read. An import of 50 000 pieces fits. */
const LARGE = '96mb';
/** Forms are small. */
const SMALL = '16kb';
/** No kind of record nests its values deeper than a few levels. */
const MOST_DEPTH = 32;

const [QUOTE, BACKSLASH, OPEN, OPEN_LIST, CLOSE, CLOSE_LIST] = Buffer.from('"\\{[}]');

/** Deepest nesting of lists and objects in JSON, without parsing it. */
export const depthOf = (json: Uint8Array): number => {
  let [depth, most, isText] = [0, 0, false];
  for (let i = 0; i < json.length; i++) {
    const byte = json[i];
    if (isText) {
      if (byte === BACKSLASH) i += 1;
      else if (byte === QUOTE) isText = false;
    } else if (byte === QUOTE) isText = true;
    else if (byte === OPEN || byte === OPEN_LIST) most = Math.max(most, (depth += 1));
    else if (byte === CLOSE || byte === CLOSE_LIST) depth -= 1;
  }
  return most;
};

const shallow = (_request: IncomingMessage, _response: unknown, bytes: Buffer): void => {
  if (depthOf(bytes) > MOST_DEPTH) throw Object.assign(new Error('nested too deep'), { type: 'entity.too.deep' });
};

/** Reads a JSON body up to a limit, which holds for what a packed body unpacks to as well; anything else is refused, which also keeps plain forms of other sites out. */
const jsonUpTo = (limit: string): RequestHandler => {
  const parse = express.json({ limit, strict: true, verify: shallow }) as (
    request: Request,
    response: Response,
    next: NextFunction,
  ) => void;
  return (request, response, next) => {
    if (!request.is('application/json')) throw new Problem('not-json', 'Send application/json');
    parse(request, response, next);
  };
};

export const json = jsonUpTo(SMALL);
export const largeJson = jsonUpTo(LARGE);
