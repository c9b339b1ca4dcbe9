import type { Change, Op } from '@each-bolt/core/record';
import type { Refusal } from '@each-bolt/core/wire';

/** A change that waits to be sent, or was refused and waits to be mended. */
export interface OutboxEntry {
  /** place in the order of sending */
  readonly seq: number;
  readonly studyId: string;
  readonly personId: string;
  readonly change: Change;
  /** what takes it back, as far as this device knows */
  readonly inverse: readonly Op[];
  /** when it was made here, ISO 8601 */
  readonly madeAt: string;
  /** the line it was typed as, or empty */
  readonly typed: string;
  readonly refusal: Refusal | null;
}

/** A change of one's own as undoing needs it, kept across reloads. */
export interface OwnEntry {
  readonly id: string;
  readonly studyId: string;
  readonly personId: string;
  readonly undoes: string | null;
  readonly inverse: readonly Op[];
  readonly seq: number;
}

/** A change applied since the study was last stored whole. */
export interface LogEntry {
  readonly studyId: string;
  readonly revision: number;
  readonly ops: readonly Op[];
}
