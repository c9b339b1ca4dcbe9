import { issue, type Issue } from '../../shared';
import type { Entity, Reading, RowOf, Session, Step } from '../entities';

const sessionFaults = (session: Session): readonly Issue[] =>
  session.closedAt !== null && session.closedAt < session.openedAt
    ? [issue('closed-before-opened', 'The session was closed before it was opened: one of the two times is wrong', 'closedAt', session.id)]
    : [];

const stepFaults = (step: Step): readonly Issue[] => [
  ...(step.after.includes(step.id) ? [issue('cycle', 'A step does not wait for itself', 'after', step.id)] : []),
  ...(step.startedAt !== null && step.endedAt !== null && step.endedAt < step.startedAt
    ? [issue('ended-before-begun', 'The step ended before it began: one of the two times is wrong', 'endedAt', step.id)]
    : []),
];

const readingFaults = (reading: Reading): readonly Issue[] => [
  ...((reading.value === null) === (reading.elements === null)
    ? [issue('reading-value', 'A reading holds either one value or fractions of elements', 'value', reading.id)]
    : []),
  ...(reading.stable === false
    ? [issue('unstable', 'The reading had not settled; wait until it stands still and take it again', 'stable', reading.id)]
    : []),
  ...(reading.stable !== null && reading.serial.trim() === ''
    ? [issue('no-serial', 'A reading of an instrument names its serial number', 'serial', reading.id)]
    : []),
];

const FAULTS: { readonly [E in Entity]?: (row: RowOf<E>) => readonly Issue[] } = {
  session: sessionFaults,
  step: stepFaults,
  reading: readingFaults,
};

/** Rules of one record of the bench that need more than one of its fields. */
export const benchFaults = <E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] => FAULTS[entity]?.(row) ?? [];
