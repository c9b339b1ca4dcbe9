import {
  applyOps,
  CARRIED,
  blank,
  editOp,
  removalOps,
  removeOp,
  type Carried,
  type Op,
  type Session,
  type Step,
  type StepFields,
  type StudyRecord,
} from '../../record';

/** Steps in the order of work; the number people call a step by is its place among those of its vehicle, from 1. */
export const inStepOrder = (steps: readonly Step[]): readonly Step[] =>
  [...steps].sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));

/** The steps of one vehicle in their order. */
export const stepsOf = (steps: readonly Step[], vehicleId: string): readonly Step[] =>
  inStepOrder(steps.filter((s) => s.vehicleId === vehicleId));

const edit = (step: Step, fields: Partial<StepFields>): readonly Op[] => {
  const op = editOp('step', step, fields);
  return op === null ? [] : [op];
};

/** The step before one on its vehicle, or null. */
const stepBefore = (steps: readonly Step[], step: Step): Step | null => {
  const order = stepsOf(steps, step.vehicleId);
  return order[order.findIndex((s) => s.id === step.id) - 1] ?? null;
};

/**
 * A new step at the end of a session. What had to come off first is, until somebody knows better, the step before it
 * in the same session; the first step of a session waits for nothing.
 */
export const nextStep = (steps: readonly Step[], session: Session, fields: Partial<StepFields>): StepFields => {
  const order = stepsOf(steps, session.vehicleId);
  const before = order.filter((s) => s.sessionId === session.id).at(-1);
  return {
    ...blank('step', { vehicleId: session.vehicleId, sessionId: session.id, sequence: (order.at(-1)?.sequence ?? -1) + 1 }),
    after: before ? [before.id] : [],
    ...fields,
  };
};

/** What is said of a removal, which is then no longer only carried over from the one before. */
export const saidOf = (step: Pick<Step, 'carried'>, fields: Partial<StepFields>): Partial<StepFields> => {
  const carried = step.carried.filter((field) => !(field in fields));
  return carried.length === step.carried.length ? fields : { ...fields, carried };
};

/** What goes on from one removal to the next, and that it was not said of it. */
export const carriedFrom = ({ tool, bit, people }: Pick<Step, 'tool' | 'bit' | 'people'>): Partial<StepFields> => {
  const goesOn = { tool, bit, people };
  return { ...goesOn, carried: CARRIED.filter((field) => goesOn[field] !== '' && goesOn[field] !== null) };
};

/** What was carried over into a removal does not hold for it. */
export const dropCarried = (step: Step): readonly Op[] =>
  edit(step, { ...Object.fromEntries(step.carried.map((field) => [field, field === 'people' ? null : ''])), carried: [] });

/** What was carried over into removals holds for them. */
export const confirmCarried = (steps: readonly Step[]): readonly Op[] => steps.flatMap((step) => edit(step, { carried: [] }));

/** Corrects what had to come off first with one key: the step before, or nothing. */
export const toggleAfter = (steps: readonly Step[], step: Step): readonly Op[] => {
  const before = stepBefore(steps, step);
  if (!before) return step.after.length > 0 ? edit(step, { after: [] }) : [];
  const has = step.after.includes(before.id);
  return edit(step, { after: has ? step.after.filter((id) => id !== before.id) : [...step.after, before.id] });
};

type ReadSteps = { readonly ok: true; readonly after: readonly string[] } | { readonly ok: false; readonly message: string };

/** What had to come off first, said by the numbers of the steps. */
export const afterByNumber = (steps: readonly Step[], step: Pick<Step, 'id' | 'vehicleId'>, numbers: readonly number[]): ReadSteps => {
  const order = stepsOf(steps, step.vehicleId);
  const after: string[] = [];
  for (const number of numbers) {
    const found = order[number - 1];
    if (!found) return { ok: false, message: `There is no step ${number}; they go from 1 to ${order.length}` };
    if (found.id === step.id) return { ok: false, message: 'A step does not wait for itself' };
    if (waitsFor(order, found.id, step.id))
      return { ok: false, message: `Step ${number} itself waits for this one: one of the two must come first` };
    after.push(found.id);
  }
  return { ok: true, after };
};

/** True when a step waits for another, by way of others too. */
export const waitsFor = (steps: readonly Step[], stepId: string, otherId: string): boolean => {
  const byId = new Map(steps.map((s) => [s.id, s]));
  const seen = new Set<string>();
  const waiting = [stepId];
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    for (const id of byId.get(at)?.after ?? []) {
      if (id === otherId) return true;
      if (!seen.has(id)) {
        seen.add(id);
        waiting.push(id);
      }
    }
  }
  return false;
};

const orNull = (a: number | null, b: number | null): number | null => (a === null && b === null ? null : (a ?? 0) + (b ?? 0));
const joinText = (a: string, b: string): string => [...new Set([a, b].filter((text) => text !== ''))].join('; ');
const union = (a: readonly string[], b: readonly string[]): readonly string[] => [...new Set([...a, ...b])];

/** Of two removals the one that tells a field better: that it was said of, else carried over into, else the first. */
const tellsBetter = (before: Step, step: Step, field: Carried): Step => {
  const rank = (of: Step): number => (of[field] === '' || of[field] === null ? 0 : of.carried.includes(field) ? 1 : 2);
  return rank(step) > rank(before) ? step : before;
};

/**
 * Joins a step with the one before it: it becomes part of that one. Whatever waited for it waits for the joined step;
 * its time is added.
 */
export const joinWithBefore = (steps: readonly Step[], step: Step): readonly Op[] => {
  const before = stepBefore(steps, step);
  if (!before) return [];
  // what was said of either goes before what was only carried over, and of two said the first
  const kept = {
    tool: tellsBetter(before, step, 'tool'),
    bit: tellsBetter(before, step, 'bit'),
    people: tellsBetter(before, step, 'people'),
  };
  const joined = edit(before, {
    parts: union(before.parts, step.parts),
    after: union(
      before.after,
      step.after.filter((id) => id !== before.id && !waitsFor(steps, id, before.id)),
    ),
    connections: union(before.connections, step.connections),
    fluids: union(before.fluids, step.fluids),
    tool: kept.tool.tool,
    bit: kept.bit.bit,
    carried: CARRIED.filter((field) => kept[field].carried.includes(field)),
    direction: before.direction ?? step.direction,
    people: kept.people.people,
    seen: before.seen ?? step.seen,
    holdsItself: before.holdsItself ?? step.holdsItself,
    oneWay: before.oneWay ?? step.oneWay,
    rigId: before.rigId ?? step.rigId,
    endedAt: step.endedAt ?? before.endedAt,
    workedS: orNull(before.workedS, step.workedS),
    otherwise: joinText(before.otherwise, step.otherwise),
    note: joinText(before.note, step.note),
  });
  const waiting = steps.filter((s) => s.id !== step.id && s.id !== before.id && s.after.includes(step.id));
  return [
    ...joined,
    ...waiting.flatMap((s) =>
      edit(s, {
        after: union(
          s.after.filter((id) => id !== step.id),
          [before.id],
        ),
      }),
    ),
    removeOp('step', step),
  ];
};

/**
 * Splits parts off a step into one of their own right after it. Time is shared by the number of parts; tool and the
 * rest are copied, what was released and let out stays with the first.
 *
 * @param newId id of the new step
 */
export const splitStep = (steps: readonly Step[], step: Step, off: readonly string[], newId: string): readonly Op[] => {
  const stay = step.parts.filter((id) => !off.includes(id));
  const go = step.parts.filter((id) => off.includes(id));
  if (stay.length === 0 || go.length === 0) return [];
  const share = go.length / step.parts.length;
  const { id: _id, version: _version, ...fields } = step;
  const later = stepsOf(steps, step.vehicleId).filter((s) => s.sequence > step.sequence);
  return [
    ...edit(step, { parts: stay, workedS: step.workedS === null ? null : step.workedS * (1 - share) }),
    ...later.flatMap((s) => edit(s, { sequence: s.sequence + 1 })),
    {
      kind: 'step.add',
      id: newId,
      fields: {
        ...fields,
        sequence: step.sequence + 1,
        parts: go,
        after: [step.id],
        connections: [],
        fluids: [],
        workedS: step.workedS === null ? null : step.workedS * share,
      },
    },
  ];
};

/**
 * Moves a step one place up or down in the order of its vehicle. Where one of the two waits for the other, the wait is
 * turned round with them, so that what comes later never holds up what comes earlier.
 */
export const moveStep = (steps: readonly Step[], step: Step, by: -1 | 1): readonly Op[] => {
  const order = stepsOf(steps, step.vehicleId);
  const other = order[order.findIndex((s) => s.id === step.id) + by];
  if (!other) return [];
  const [first, second] = by === -1 ? [other, step] : [step, other];
  const sequences = first.sequence === second.sequence ? [first.sequence + 1, first.sequence] : [second.sequence, first.sequence];
  const turns = second.after.includes(first.id);
  const secondAfter = turns
    ? union(
        second.after.filter((id) => id !== first.id),
        first.after,
      )
    : second.after;
  const firstAfter = turns ? [second.id] : first.after;
  return [...edit(first, { sequence: sequences[0]!, after: firstAfter }), ...edit(second, { sequence: sequences[1]!, after: secondAfter })];
};

/** Removes a step; what waited for it waits for what it waited for. */
export const removeStep = (record: StudyRecord, step: Step): readonly Op[] => {
  const waiting = record.steps
    .filter((s) => s.after.includes(step.id))
    .flatMap((s) =>
      edit(s, {
        after: union(
          s.after.filter((id) => id !== step.id),
          step.after,
        ),
      }),
    );
  return [...waiting, ...removalOps(applyOps(record, waiting, record.revision), 'step', [step.id])];
};
