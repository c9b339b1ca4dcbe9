import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import { Problem } from './problem';

/** Largest change that is read. An import of 50 000 pieces fits. */
const LIMIT = '96mb';

const parse = express.json({ limit: LIMIT, strict: true }) as (request: Request, response: Response, next: NextFunction) => void;

/** Reads a JSON body; anything else is refused, which also keeps plain forms of other sites out. */
export const json: RequestHandler = (request, response, next) => {
  if (!request.is('application/json')) throw new Problem('not-json', 'Send application/json');
  parse(request, response, next);
};
