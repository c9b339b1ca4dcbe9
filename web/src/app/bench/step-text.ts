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

const peopleText = (people: number | null): string => (people === null ? '' : people === 1 ? '1 person' : `${people} people`);

/** How it came off: direction, people, seen or blind, and what it does by itself; what was only carried over is left out. */
export const stepManner = (step: Step): string =>
  [
    step.direction === null ? '' : DIRECTION_WORD[step.direction],
    step.carried.includes('people') ? '' : peopleText(step.people),
    step.seen === null ? '' : step.seen ? 'seen' : 'blind',
    step.holdsItself === null ? '' : step.holdsItself ? 'holds itself' : 'must be held',
    step.oneWay === null ? '' : step.oneWay ? 'fits one way' : 'fits more than one way',
  ]
    .filter((text) => text !== '')
    .join(', ');

/** What a removal only took over from the one before: "ratchet T30, 2 people". */
export const carriedText = (step: Step): string =>
  [
    [step.carried.includes('tool') ? step.tool : '', step.carried.includes('bit') ? step.bit : ''].filter((t) => t !== '').join(' '),
    step.carried.includes('people') ? peopleText(step.people) : '',
  ]
    .filter((text) => text !== '')
    .join(', ');

/** A step in one line; what was carried over stands beside it. */
export const stepText = (step: Step, order: readonly Step[], parts: ReadonlyMap<string, Part>): string => {
  const said = [step.carried.includes('tool') ? '' : step.tool, step.carried.includes('bit') ? '' : step.bit].filter((t) => t !== '');
  return [
    stepParts(step, parts),
    said.join(' ') || (carriedText(step) === '' ? 'no tool yet' : ''),
    stepManner(step),
    afterText(step, order),
  ]
    .filter((text) => text !== '')
    .join(' · ');
};
