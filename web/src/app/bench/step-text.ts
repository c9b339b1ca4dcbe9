import type { Part, Step } from '@each-bolt/core/record';
import { DIRECTION_WORD } from '@each-bolt/core/record';

/** The parts of a step by name. */
export const stepParts = (step: Step, parts: ReadonlyMap<string, Part>): string =>
  step.parts.map((id) => parts.get(id)?.name ?? 'a part').join(', ') || 'nothing yet';

/** What had to come off first, by the numbers of the steps. */
export const afterText = (step: Step, order: readonly Step[]): string => {
  const numbers = step.after.map((id) => order.findIndex((s) => s.id === id) + 1).filter((n) => n > 0);
  return numbers.length === 0 ? 'nothing before' : `after ${numbers.join(', ')}`;
};

/** How it came off: direction, people, seen or blind, and what it does by itself. */
export const stepManner = (step: Step): string =>
  [
    step.direction === null ? '' : DIRECTION_WORD[step.direction],
    step.people === null ? '' : step.people === 1 ? '1 person' : `${step.people} people`,
    step.seen === null ? '' : step.seen ? 'seen' : 'blind',
    step.holdsItself === null ? '' : step.holdsItself ? 'holds itself' : 'must be held',
    step.oneWay === null ? '' : step.oneWay ? 'fits one way' : 'fits more than one way',
  ]
    .filter((text) => text !== '')
    .join(', ');

/** A step in one line. */
export const stepText = (step: Step, order: readonly Step[], parts: ReadonlyMap<string, Part>): string =>
  [
    stepParts(step, parts),
    [step.tool, step.bit].filter((t) => t !== '').join(' ') || 'no tool yet',
    stepManner(step),
    afterText(step, order),
  ]
    .filter((text) => text !== '')
    .join(' · ');
