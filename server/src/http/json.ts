import type { IncomingMessage } from 'node:http';
import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import { Problem, TOO_DEEP, tooDeep } from './problem';

/** Largest change that is read. An import of 50 000 parts fits. */
const LARGE = '96mb';
/** Forms are small. */
const SMALL = '16kb';
/** No kind of record nests its values deeper than a few levels. */
export const MOST_DEPTH = 32;

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

/** JSON that was sent as bytes; nested no deeper than a record is. */
export const readJson = (bytes: Uint8Array): unknown => {
  if (depthOf(bytes) > MOST_DEPTH) throw tooDeep();
  try {
    return JSON.parse(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('utf8')) as unknown;
  } catch {
    throw new Problem('malformed', 'The request is not valid JSON. Nothing was written');
  }
};

/** In the words of the reader of bodies, which knows no problems of ours. */
const shallow = (_request: IncomingMessage, _response: unknown, bytes: Buffer): void => {
  if (depthOf(bytes) > MOST_DEPTH) throw Object.assign(new Error('nested too deep'), { type: TOO_DEEP });
};

type Handler = (request: Request, response: Response, next: NextFunction) => void;

const needJson = (request: Request): void => {
  if (!request.is('application/json')) throw new Problem('not-json', 'Send application/json');
};

/** Reads a small JSON body, up to a limit which holds for what a packed body unpacks to as well; anything else is refused, which also keeps plain forms of other sites out. */
export const json: RequestHandler = (request, response, next) => {
  needJson(request);
  parseSmall(request, response, next);
};
const parseSmall = express.json({ limit: SMALL, strict: true, verify: shallow }) as Handler;

/** Takes a JSON body of any size up to a limit as its bytes: whoever needs what is in it reads it with `readJson`, aside when it is large. */
export const jsonBytes: RequestHandler = (request, response, next) => {
  needJson(request);
  if (/charset=(?!"?utf-?8)/i.test(request.get('Content-Type') ?? '')) throw new Problem('not-json', 'Send application/json in UTF-8');
  takeLarge(request, response, next);
};
const takeLarge = express.raw({ limit: LARGE, type: () => true }) as Handler;
