import express, { type RequestHandler } from 'express';
import { Problem } from './problem';

/** Largest change that is read. An import of 50 000 pieces fits. */
const LIMIT = '96mb';

const parse = express.json({ limit: LIMIT, strict: true });

/** Reads a JSON body; anything else is refused, which also keeps plain forms of other sites out. */
export const json: RequestHandler = (request, response, next) => {
  if (!request.is('application/json')) throw new Problem('not-json', 'Send application/json');
  parse(request, response, next);
};
