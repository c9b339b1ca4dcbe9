import fc from 'fast-check';
import { BARE_ROWS } from '../../../testing/rows';
import { recordOf, testId } from '../../../testing/teardown';
import { applyOps, type Op, type Step, type StudyRecord } from '../../record';
import { afterByNumber, joinWithBefore, moveStep, removeStep, splitStep, stepsOf, toggleAfter, waitsFor } from './step-ops';

const VAN = BARE_ROWS.step.vehicleId;

/** A morning's removals: each of one to three parts, with a time, waiting for some of those before. */
const MORNING = fc.array(
  fc.record({
    parts: fc.integer({ min: 1, max: 3 }),
    workedS: fc.option(fc.integer({ min: 10, max: 900 })),
    waits: fc.array(fc.nat(6), { maxLength: 2 }),
  }),
  { minLength: 1, maxLength: 7 },
);
const recordWith = (
  morning: readonly { readonly parts: number; readonly workedS: number | null; readonly waits: readonly number[] }[],
): StudyRecord => ({
  ...recordOf(),
  steps: morning.map(({ parts, workedS, waits }, n): Step => ({
    ...{ id: testId(100 + n), version: 1, ...BARE_ROWS.step, sequence: n, workedS },
    parts: Array.from({ length: parts }, (_, p) => testId(1000 + 10 * n + p)),
    after: [...new Set(waits.filter((before) => before < n))].map((before) => testId(100 + before)),
  })),
});

/** What people do to put removals right. */
const ACT = fc.record({ act: fc.constantFrom('toggle', 'join', 'split', 'up', 'down', 'remove'), at: fc.nat(6) });
let made = 0;
const opsOf = (steps: readonly Step[], { act, at }: { readonly act: string; readonly at: number }): readonly Op[] => {
  const step = stepsOf(steps, VAN)[at];
  if (!step) return [];
  switch (act) {
    case 'toggle':
      return toggleAfter(steps, step);
    case 'join':
      return joinWithBefore(steps, step);
    case 'split':
      return splitStep(steps, step, step.parts.slice(-1), testId(5000 + made++));
    case 'up':
      return moveStep(steps, step, -1);
    case 'down':
      return moveStep(steps, step, 1);
    default:
      return removeStep({ ...recordOf(), steps }, step);
  }
};

const partsOf = (record: StudyRecord): readonly string[] => record.steps.flatMap((s) => s.parts).sort();
const timeOf = (record: StudyRecord): number => record.steps.reduce((sum, s) => sum + (s.workedS ?? 0), 0);

describe('removals put right in any order', () => {
  it('lose no part and no time but those that are taken off, and never wait in a circle or for what is gone', () =>
    fc.assert(
      fc.property(MORNING, fc.array(ACT, { maxLength: 12 }), (morning, acts) => {
        let record = recordWith(morning);
        for (const [n, act] of acts.entries()) {
          const before = record;
          record = applyOps(record, opsOf(record.steps, act), n + 2);
          if (act.act !== 'remove') {
            expect(partsOf(record)).toEqual(partsOf(before));
            expect(timeOf(record)).toBeCloseTo(timeOf(before), 6);
          }
          const ids = new Set(record.steps.map((s) => s.id));
          for (const step of record.steps) {
            expect(step.after.filter((id) => !ids.has(id))).toEqual([]);
            expect(waitsFor(record.steps, step.id, step.id)).toBe(false);
            expect(step.parts.length).toBeGreaterThan(0);
          }
        }
      }),
      { numRuns: 400 },
    ));
  it('moved down and up again stand as they stood', () =>
    fc.assert(
      fc.property(MORNING, fc.nat(6), (morning, at) => {
        const record = recordWith(morning);
        const step = stepsOf(record.steps, VAN)[at];
        fc.pre(step !== undefined && at + 1 < record.steps.length);
        const down = applyOps(record, moveStep(record.steps, step, 1), 2);
        const moved = down.steps.find((s) => s.id === step.id)!;
        const up = applyOps(down, moveStep(down.steps, moved, -1), 3);
        expect(stepsOf(up.steps, VAN).map((s) => s.id)).toEqual(stepsOf(record.steps, VAN).map((s) => s.id));
      }),
      { numRuns: 200 },
    ));
  it('said by their numbers wait for those, unless one of them waits for it', () =>
    fc.assert(
      fc.property(MORNING, fc.nat(6), fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 3 }), (morning, at, numbers) => {
        const { steps } = recordWith(morning);
        const order = stepsOf(steps, VAN);
        const step = order[at % order.length]!;
        const read = afterByNumber(steps, step, numbers);
        const named = numbers.map((n) => order[n - 1]);
        const isRight = named.every((other) => other !== undefined && other.id !== step.id && !waitsFor(steps, other.id, step.id));
        expect(read.ok).toBe(isRight);
        if (read.ok) expect(read.after).toEqual(named.map((other) => other!.id));
        else expect(read.message).toMatch(/no step|itself|waits for this one/);
      }),
    ));
});
