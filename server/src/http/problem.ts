import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import pg from 'pg';
import { issue, type Issue } from '@each-bolt/core/shared';
import { routeOf } from './request-log';

/** Every way a request can fail, with its HTTP status. */
const STATUS = {
  malformed: 400,
  'signed-out': 401,
  forbidden: 403,
  'cross-site': 403,
  'not-found': 404,
  conflict: 409,
  'too-large': 413,
  'not-json': 415,
  'wrong-type': 415,
  invalid: 422,
  locked: 429,
  'too-many': 429,
  unavailable: 503,
  failed: 500,
} as const;

type ProblemCode = keyof typeof STATUS;

/** What the client is told: the kind, a sentence, and every fault or conflict. */
export interface ProblemBody {
  readonly code: ProblemCode;
  readonly message: string;
  readonly issues: readonly Issue[];
  readonly conflicts: readonly unknown[];
}

/** So many faults are told at once. */
const MOST_FAULTS = 100;

/** A failure that the person on the other side can be told about. */
export class Problem extends Error {
  readonly issues: readonly Issue[];

  constructor(
    readonly code: ProblemCode,
    message: string,
    issues: readonly Issue[] = [],
    readonly conflicts: readonly unknown[] = [],
  ) {
    super(issues.length > MOST_FAULTS ? `${message}. Of its ${issues.length} faults the first ${MOST_FAULTS} are listed` : message);
    this.issues = issues.slice(0, MOST_FAULTS);
  }

  get status(): number {
    return STATUS[this.code];
  }

  get body(): ProblemBody {
    return { code: this.code, message: this.message, issues: this.issues, conflicts: this.conflicts };
  }
}

interface HttpError {
  readonly expose: boolean;
  readonly status: number;
  readonly type?: string;
}

const isHttpError = (error: unknown): error is HttpError =>
  typeof error === 'object' && error !== null && 'expose' in error && 'status' in error;

const AWAY = 'The database does not answer';
/** Conditions of the database that pass, in words. @source PostgreSQL 17, Appendix A, error codes; errno(3) */
const PASSING: Readonly<Record<string, string>> = {
  ...{ ECONNREFUSED: AWAY, ECONNRESET: AWAY, EPIPE: AWAY, ETIMEDOUT: AWAY, '08001': AWAY, '08006': AWAY, '57P01': AWAY, '57P02': AWAY },
  '55P03': 'Somebody else is writing the same rows',
  '57P03': 'The database is starting up or recovering',
  '25006': 'The database is recovering and only read',
  '53100': 'The disk of the server is full',
  '53200': 'The server is out of memory',
  '53300': 'The database has no connection free',
  '58030': 'The disk of the server fails to read or write',
};

/** The code of an error of the system, the database or a stream; empty when it has none. */
export const codeOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error && typeof error.code === 'string' ? error.code : '';

/** What keeps the database from answering just now, in words; null when it is something else. */
const passingReason = (error: unknown): string | null => {
  const reason = PASSING[codeOf(error)];
  if (reason !== undefined) return reason;
  return error instanceof Error && /Connection terminated|timeout exceeded when trying to connect/.test(error.message) ? AWAY : null;
};

/** A rule of the database that a value breaks: data exceptions and integrity constraints. @source PostgreSQL 17, Appendix A, classes 22 and 23 */
const brokenRule = (error: unknown): Issue | null => {
  if (!(error instanceof pg.DatabaseError) || !/^2[23]/.test(error.code ?? '')) return null;
  const where = [error.table, error.column]
    .filter((text) => text !== undefined)
    .join(', ')
    .replaceAll('_', ' ');
  return issue('rule', `A value breaks a rule of the database${where === '' ? '' : ` (${where})`}: change it or leave it out`, null);
};

export const TOO_DEEP = 'entity.too.deep';
export const tooDeep = (): Problem =>
  new Problem('malformed', 'The request nests lists and objects deeper than any record does. Nothing was written');

const fromHttpError = (error: HttpError): Problem => {
  if (error.type === 'entity.too.large') return new Problem('too-large', 'The request is too large; send it in parts. Nothing was written');
  if (error.type === TOO_DEEP) return tooDeep();
  if (error.type === 'entity.parse.failed') return new Problem('malformed', 'The request is not valid JSON. Nothing was written');
  if (error.status === 404) return new Problem('not-found', 'There is no such file');
  return new Problem('malformed', 'The request could not be read. Nothing was written');
};

export const toProblem = (error: unknown): Problem => {
  if (error instanceof Problem) return error;
  if (isHttpError(error)) return fromHttpError(error);
  if (error instanceof URIError) return new Problem('malformed', 'The address holds a % that stands for nothing. Nothing was written');
  const passing = passingReason(error);
  if (passing !== null) return new Problem('unavailable', `${passing}. Nothing was written; try again in a moment`);
  const rule = brokenRule(error);
  if (rule) return new Problem('invalid', 'The database refused this. Nothing was written', [rule]);
  return new Problem('failed', 'Something failed on the server. Nothing was written; it is in the server’s log');
};

/** Answers every failure with a problem; the cause goes to the log, never to the client. */
export const problemHandler =
  (log: Logger): ErrorRequestHandler =>
  (error, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const problem = toProblem(error);
    // a rule that only the database knows is a rule that was forgotten before
    const cause: unknown = error instanceof Problem ? error.cause : error;
    if (cause !== undefined && (problem.status >= 500 || error instanceof Problem || brokenRule(error)))
      log.error({ err: cause, route: routeOf(request) }, problem.message);
    // what of the request is still on its way is read and dropped: a connection that is reset would hide the answer
    if (!request.complete) request.unpipe().resume();
    response.status(problem.status).json(problem.body);
  };

export const noSuchRoute: RequestHandler = (request) => {
  throw new Problem('not-found', `There is nothing at ${request.originalUrl.replace(/\?.*/s, '')}`);
};
