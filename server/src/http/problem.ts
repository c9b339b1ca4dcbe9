import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Issue } from '@each-bolt/core/shared';

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

export type ProblemCode = keyof typeof STATUS;

/** What the client is told: the kind, a sentence, and every fault or conflict. */
export interface ProblemBody {
  readonly code: ProblemCode;
  readonly message: string;
  readonly issues: readonly Issue[];
  readonly conflicts: readonly unknown[];
}

/** A failure that the person on the other side can be told about. */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    message: string,
    readonly issues: readonly Issue[] = [],
    readonly conflicts: readonly unknown[] = [],
  ) {
    super(message);
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

const UNAVAILABLE = new Set(['ECONNREFUSED', 'ECONNRESET', '57P01', '57P02', '57P03', '08006', '08001', '53300']);

const isUnavailable = (error: unknown): boolean => {
  if (typeof error !== 'object' || error === null) return false;
  if ('code' in error && typeof error.code === 'string' && UNAVAILABLE.has(error.code)) return true;
  return error instanceof Error && /Connection terminated|timeout exceeded when trying to connect/.test(error.message);
};

const fromHttpError = (error: HttpError): Problem => {
  if (error.type === 'entity.too.large') return new Problem('too-large', 'The request is too large; send it in parts. Nothing was written');
  if (error.type === 'entity.parse.failed') return new Problem('malformed', 'The request is not valid JSON. Nothing was written');
  if (error.status === 404) return new Problem('not-found', 'There is no such file');
  return new Problem('malformed', 'The request could not be read. Nothing was written');
};

export const toProblem = (error: unknown): Problem => {
  if (error instanceof Problem) return error;
  if (isHttpError(error)) return fromHttpError(error);
  if (isUnavailable(error)) return new Problem('unavailable', 'The database does not answer. Nothing was written; try again in a moment');
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
    if (problem.status >= 500) log.error({ err: error as unknown, url: request.url }, problem.message);
    // what of the request is still on its way is read and dropped: a connection that is reset would hide the answer
    if (!request.complete) request.unpipe().resume();
    response.status(problem.status).json(problem.body);
  };

export const noSuchRoute: RequestHandler = (request) => {
  throw new Problem('not-found', `There is nothing at ${request.path}`);
};
