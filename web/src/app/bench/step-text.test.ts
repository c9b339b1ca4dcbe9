import type { Part, Step } from '@each-bolt/core/record';
import { FULL_ROWS, BARE_ROWS, ROW_ID } from '../../../../core/testing/rows';
import { testId } from '../../../testing/record';
import { clockText } from './clock-text';
import { afterText, carriedText, stepManner, stepParts, stepText } from './step-text';

const step = (fields: Partial<Step>): Step => ({ id: ROW_ID.step, version: 1, ...BARE_ROWS.step, ...fields });
const parts = new Map<string, Part>([[ROW_ID.part, { id: ROW_ID.part, version: 1, ...FULL_ROWS.part }]]);

describe('a removal in words', () => {
  it('that is told whole', () =>
    expect(stepText({ id: ROW_ID.step, version: 1, ...FULL_ROWS.step }, [], parts)).toBe(
      // ratchet and T30 were carried over into it, and are told beside it
      'bracket · +Y to the right, 2 people, blind, holds itself, fits more than one way · nothing before',
    ));
  it('tells what was only carried over by itself', () => {
    expect(carriedText({ id: ROW_ID.step, version: 1, ...FULL_ROWS.step })).toBe('ratchet T30');
    expect(carriedText(step({ tool: 'lever', people: 2, carried: ['people'] }))).toBe('2 people');
    expect(carriedText(step({ tool: 'lever', people: 2 }))).toBe('');
    expect(stepText(step({ tool: 'lever', people: 2, carried: ['people'] }), [], parts)).toBe('nothing yet · lever · nothing before');
  });
  it('of which nothing is known yet says so instead of staying blank', () =>
    expect(stepText(step({}), [], parts)).toBe('nothing yet · no tool yet · nothing before'));
  it('names what came off, and a part that is gone as a part', () =>
    expect(stepParts(step({ parts: [ROW_ID.part, testId(77)] }), parts)).toBe('bracket, a part'));
  it('tells what had to come off first by the numbers of the list, leaving out what is there no more', () => {
    const order = [1, 2, 3].map((n) => step({ id: testId(n) }));
    expect(afterText(step({ after: [testId(3), testId(1), testId(9)] }), order)).toBe('after 3, 1');
  });
  it('tells how only as far as it is known', () => {
    expect(stepManner(step({ people: 1, seen: true, holdsItself: false, oneWay: true }))).toBe(
      '1 person, seen, must be held, fits one way',
    );
    expect(stepManner(step({}))).toBe('');
  });
});

describe('a clock', () => {
  it.each([
    [0, '0:00'],
    [42.9, '0:42'],
    [727, '12:07'],
    [3600 + 3 * 60 + 20, '1:03:20'],
    [-5, '0:00'],
  ])('of %s s reads %s', (seconds, text) => expect(clockText(seconds)).toBe(text));
});
