import { DOOR, LEFT, recordOf, teardown, testId } from '../../../testing/teardown';
import { applyOps, removalOps, type Op, type Session, type StudyRecord } from '../../record';
import type { Entry } from '../shorthand/entry';
import { parseLine } from '../shorthand/parse-line';
import { entriesText, lineChange, type LinePlace } from './line-change';
import {
  afterByNumber,
  confirmCarried,
  dropCarried,
  joinWithBefore,
  moveStep,
  removeStep,
  saidOf,
  splitStep,
  stepsOf,
  toggleAfter,
  waitsFor,
} from './step-ops';

const SESSION: Session = {
  ...{ id: testId(90), version: 1, sequence: 0, name: 'Door off', packageId: null, vehicleId: LEFT.id, subsystemId: DOOR.id },
  ...{
    remover: 'Odo',
    recorder: 'Wenna',
    openedAt: '2026-06-01T08:00:00.000Z',
    closedAt: null,
    pauseAfterS: 600,
    acknowledged: [],
    waived: [],
    note: '',
  },
};
const EMPTY: StudyRecord = { ...recordOf(teardown('')), sessions: [SESSION] };
const AT: LinePlace = {
  place: { vehicleId: LEFT.id, subsystemId: DOOR.id, parentId: null },
  holderId: null,
  session: SESSION,
  time: { begunAt: '2026-06-01T08:00:00.000Z', endedAt: '2026-06-01T08:05:00.000Z', workedS: 300 },
  otherwise: '',
  carries: null,
};
let ids = 1000;
const newId = (): string => testId((ids += 1));
const entry = (line: string): Entry => {
  const parsed = parseLine(line);
  if (!parsed.entry) throw new Error(`${line}: ${parsed.questions[0]?.message}`);
  return parsed.entry;
};
/** The record after lines typed one after the other, each its own change, as at the bench. */
const typed = (lines: readonly string[], record = EMPTY, at = AT): StudyRecord => {
  let [now, holderId] = [record, at.holderId];
  for (const line of lines) {
    const change = lineChange(now, [entry(line)], { ...at, holderId }, newId);
    if (!change.ok) throw new Error(change.message);
    now = applyOps(now, change.ops, now.revision + 1);
    holderId = change.partId ?? holderId;
  }
  return now;
};
const told = (record: StudyRecord): readonly string[] => {
  const order = stepsOf(record.steps, LEFT.id);
  const nameOf = new Map(record.parts.map((p) => [p.id, p.name]));
  return order.map(
    (s) =>
      `${s.parts.map((id) => nameOf.get(id)).join(' + ')} after ${s.after.map((id) => order.findIndex((o) => o.id === id) + 1).join(',') || '-'}`,
  );
};
const after = (record: StudyRecord, ops: readonly Op[]): StudyRecord => applyOps(record, ops, record.revision + 1);
const THREE = typed(['trim', '9 clip', '> lever -y', 'bracket', '1 connector 4p', '+ cable', 'lock']);

describe('lines of a session', () => {
  it('make each part a removal that waits for the one before, and one with “+” part of it', () =>
    expect(told(THREE)).toEqual(['trim after -', 'bracket + cable after 1', 'lock after 2']));
  it('keep tool, what was released, and the time since the line before', () => {
    const [trim, bracket] = stepsOf(THREE.steps, LEFT.id);
    expect(trim).toMatchObject({ tool: 'lever', direction: '-y', workedS: 900, startedAt: '2026-06-01T08:00:00.000Z' });
    expect(bracket?.connections).toEqual([THREE.connections[0]?.id]);
  });
  it('put sets on the part of the line before, numbered', () => {
    const record = typed(['plate', '4 M6x16', '2 M8x20', '34 spot']);
    expect(record.fastenerSets.map((s) => [s.count, s.sequence])).toEqual([
      [4, 0],
      [2, 1],
    ]);
    expect(record.jointSets[0]?.partId).toBe(record.parts[0]?.id);
  });
  it('of a batch are one change', () => {
    const entries = ['plate 1 kg', '4 M6x16', '1 hose id8 0.4 m', '> by hand', 'lever'].map(entry);
    const change = lineChange(EMPTY, entries, AT, newId);
    if (!change.ok) throw new Error(change.message);
    const record = after(EMPTY, change.ops);
    expect(told(record)).toEqual(['plate after -', 'lever after 1']);
    expect(stepsOf(record.steps, LEFT.id)[0]).toMatchObject({ tool: 'by hand', connections: [record.connections[0]?.id] });
    expect(entriesText(entries)).toBe('2 parts, 2 sets, 1 line about removals');
  });
  it('without a session make no removals', () => expect(typed(['plate', 'lever'], EMPTY, { ...AT, session: null }).steps).toEqual([]));
  it('that cannot be kept say why', () => {
    const fault = (line: string, at = AT) => lineChange(EMPTY, [entry(line)], at, newId);
    expect(fault('4 M6x16')).toMatchObject({ ok: false, code: 'no-part' });
    expect(fault('> lever')).toMatchObject({ ok: false, code: 'no-step' });
    expect(fault('plate', { ...AT, place: null })).toMatchObject({ ok: false, code: 'no-subsystem' });
  });
  it('carry the tool on until another is said, and the reason for doing it otherwise', () => {
    const record = typed(['plate'], EMPTY, { ...AT, carries: { tool: 'lever', bit: 'T30', people: null }, otherwise: 'no cover there' });
    expect(record.steps[0]).toMatchObject({ tool: 'lever', bit: 'T30', otherwise: 'no cover there' });
  });
  it('mark what was carried over, until it is said, dropped or confirmed', () => {
    const carries = { tool: 'ratchet', bit: 'T30', people: 2 };
    const first = typed(['plate'], EMPTY, { ...AT, carries });
    expect(first.steps[0]).toMatchObject({ ...carries, carried: ['tool', 'bit', 'people'] });
    // “> SW10” says the bit; the tool and the people are still only carried over
    const said = typed(['plate', '> lever T40'], EMPTY, { ...AT, carries });
    expect(said.steps[0]).toMatchObject({ tool: 'lever', bit: 'T40', people: 2, carried: ['people'] });
    expect(typed(['plate'], EMPTY, { ...AT, carries: { tool: '', bit: '', people: null } }).steps[0]?.carried).toEqual([]);
    const [step] = first.steps;
    expect(after(first, dropCarried(step!)).steps[0]).toMatchObject({ tool: '', bit: '', people: null, carried: [] });
    expect(after(first, confirmCarried(first.steps)).steps[0]).toMatchObject({ ...carries, carried: [] });
    expect([dropCarried({ ...step!, carried: [], tool: 'lever' }), saidOf(step!, { note: 'x' })]).toEqual([[], { note: 'x' }]);
  });
  it('change the board of a part that has one, and never make a second', () => {
    const record = typed(['control unit', 'board 100x60', 'board 120x60 2-sided']);
    expect(record.boards).toMatchObject([{ lengthM: 0.12, sides: 2 }]);
  });
});

describe('removals put right later', () => {
  const [trim, bracket, lock] = stepsOf(THREE.steps, LEFT.id);
  const now = (ops: readonly Op[]): readonly string[] => told(after(THREE, ops));
  it('one key says that a removal did not wait for the one before, or did', () => {
    expect(now(toggleAfter(THREE.steps, lock!))).toEqual(['trim after -', 'bracket + cable after 1', 'lock after -']);
    const free = after(THREE, toggleAfter(THREE.steps, lock!));
    expect(
      told(
        after(
          free,
          toggleAfter(
            free.steps,
            free.steps.find((s) => s.id === lock!.id)!,
          ),
        ),
      ),
    ).toEqual(told(THREE));
  });
  it('are joined: the time adds up, and what waited for one waits for both', () => {
    const joined = after(THREE, joinWithBefore(THREE.steps, bracket!));
    expect(told(joined)).toEqual(['trim + bracket + cable after -', 'lock after 1']);
    expect(joined.steps.find((s) => s.id === trim!.id)?.workedS).toBe(trim!.workedS! + bracket!.workedS!);
    expect(joinWithBefore(THREE.steps, trim!)).toEqual([]);
  });
  it('are joined: what was said of either goes before what was only carried over', () => {
    const [before, step] = [
      { ...trim!, tool: 'lever', bit: '', people: 2, carried: ['tool', 'people'] as const },
      { ...bracket!, tool: 'ratchet', bit: 'T30', people: 1, carried: ['bit', 'people'] as const },
    ];
    const [op] = joinWithBefore([before, step, lock!], step);
    // the tool was said of the second; its bit was carried into it; people were carried into both, and the first stand
    expect(op).toMatchObject({ kind: 'step.edit', id: before.id, fields: { tool: 'ratchet', bit: 'T30', carried: ['bit', 'people'] } });
    expect((op as unknown as { readonly fields: object }).fields).not.toHaveProperty('people');
  });
  it('are split: the time is shared by parts, what was released stays', () => {
    const split = after(THREE, splitStep(THREE.steps, bracket!, bracket!.parts.slice(-1), testId(95)));
    expect(told(split)).toEqual(['trim after -', 'bracket after 1', 'cable after 2', 'lock after 2']);
    expect(split.steps.find((s) => s.id === testId(95))).toMatchObject({ workedS: bracket!.workedS! / 2, connections: [] });
    expect(splitStep(THREE.steps, trim!, trim!.parts, testId(96))).toEqual([]);
  });
  it('are moved, and the wait turns round with them', () => {
    expect(now(moveStep(THREE.steps, lock!, -1))).toEqual(['trim after -', 'lock after 1', 'bracket + cable after 2']);
    expect(now(moveStep(THREE.steps, trim!, 1))).toEqual(['bracket + cable after -', 'trim after 1', 'lock after 1']);
    expect(moveStep(THREE.steps, trim!, -1)).toEqual([]);
  });
  it('are taken off: what waited waits for what came before', () =>
    expect(now(removeStep(THREE, bracket!))).toEqual(['trim after -', 'lock after 1']));
  it('wait for others by number, never for themselves or in a circle', () => {
    expect(afterByNumber(THREE.steps, lock!, [1, 2])).toEqual({ ok: true, after: [trim!.id, bracket!.id] });
    expect(afterByNumber(THREE.steps, lock!, [9])).toMatchObject({ ok: false, message: 'There is no step 9; they go from 1 to 3' });
    expect(afterByNumber(THREE.steps, lock!, [3])).toMatchObject({ ok: false, message: 'A step does not wait for itself' });
    expect(afterByNumber(THREE.steps, trim!, [3])).toMatchObject({
      ok: false,
      message: expect.stringContaining('itself waits for this one') as string,
    });
    expect([waitsFor(THREE.steps, lock!.id, trim!.id), waitsFor(THREE.steps, trim!.id, lock!.id)]).toEqual([true, false]);
  });
  it('let go of parts that are taken off, with all that hung on them', () => {
    const part = THREE.parts.find((p) => p.name === 'bracket')!;
    const record = after(THREE, removalOps(THREE, 'part', [part.id]));
    expect(told(record)).toEqual(['trim after -', 'cable after 1', 'lock after 2']);
    expect(record.connections).toEqual([]);
    expect(stepsOf(record.steps, LEFT.id)[1]?.connections).toEqual([]);
  });
});

describe('a part and how it came off in one line', () => {
  it('are a part and its removal, as on two lines', () => {
    const [one, two] = [typed(['2x bracket 41 g > trim lever T30 -z 2p']), typed(['2x bracket 41 g', '> trim lever T30 -z 2p'])];
    const { id: _one, parts: _a, ...first } = one.steps[0]!;
    const { id: _two, parts: _b, version: _v, ...second } = two.steps[0]!;
    expect(first).toMatchObject({ ...second, workedS: 300 });
    expect(one.steps[0]).toMatchObject({ tool: 'trim lever', bit: 'T30', direction: '-z', people: 2, parts: [one.parts[0]!.id] });
  });
  it('without a session is refused whole, with the reason', () => {
    const change = lineChange(EMPTY, [entry('bracket > T30')], { ...AT, session: null }, newId);
    expect(change).toMatchObject({ ok: false, line: 0, code: 'no-step' });
  });
});
