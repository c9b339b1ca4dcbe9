import { Problem, toProblem, type ProblemBody } from '../http/problem';
import { LoggedElsewhere, serialized } from '../http/log';

/** A failure as it crosses from one thread to another. */
export interface Crossed {
  readonly problem: ProblemBody;
  /** what the log is told, when it is nothing that the person could help */
  readonly cause: object | null;
}

export const crossed = (error: unknown): Crossed => ({
  problem: toProblem(error).body,
  cause: error instanceof Problem ? null : serialized(error),
});

/** The failure again, on the other side. */
export const arrived = ({ problem, cause }: Crossed): Problem => {
  const { code, message, issues, conflicts } = problem;
  const failure = new Problem(code, message, issues, conflicts);
  if (cause !== null) failure.cause = new LoggedElsewhere(cause);
  return failure;
};
