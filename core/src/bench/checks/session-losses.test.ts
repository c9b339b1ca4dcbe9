import { DOOR, LEFT, recordOf, teardown, testId } from '../../../testing/teardown';
import { blank, outline, type Part, type Session, type StudyRecord, type Waiver } from '../../record';
import { closedAndDamaged, closedBelow, closedWords } from './closed-and-damaged';
import { lossGroups, sessionLosses } from './session-losses';

const SESSION: Session = {
  ...{ id: testId(90), version: 1, sequence: 0, name: 'Door off', packageId: null, vehicleId: LEFT.id, subsystemId: DOOR.id },
  ...{ remover: '', recorder: '', openedAt: '2026-06-01T08:00:00.000Z', closedAt: null, pauseAfterS: 600, acknowledged: [], note: '' },
  waived: [],
};
/** A record whose parts straight under the door all came off in one session, with a tool. */
const session = (outline: string, edit: (part: Part) => Partial<Part> = () => ({})): StudyRecord => {
  const record = recordOf(teardown(outline));
  const parts = record.parts.map((p) => ({ ...p, ...edit(p) }));
  const tops = parts.filter((p) => p.parentId === null);
  const steps = tops.map((p, i) => ({
    id: testId(200 + i),
    version: 1,
    ...blank('step', { vehicleId: LEFT.id, sessionId: SESSION.id, sequence: i }),
    parts: [p.id],
    tool: 'by hand',
  }));
  return { ...record, parts, steps };
};
const losses = (record: StudyRecord, waived: readonly Waiver[] = []): readonly string[] =>
  sessionLosses(record, { ...SESSION, waived }).map((l) => l.message);

describe('what a session probably lost', () => {
  it('is nothing when all is weighed, paired and cabled', () => expect(losses(session('plate 1 kg\n  4 M6x16\nlever 1 kg'))).toEqual([]));
  it('an assembly opened with nothing inside it', () =>
    expect(losses(session('lock 1 kg', () => ({ opened: 'opened' })))).toEqual(['“lock” was opened, and nothing is recorded inside it']));
  it('not one that has its parts', () =>
    expect(losses(session('lock 1 kg\n  pawl 20 g', (p) => (p.name === 'lock' ? { opened: 'opened' } : {})))).toEqual([]));
  it('one hand of a pair', () => {
    expect(losses(session('hinge, left lh 1 kg'))).toEqual(['“hinge, left” is the left one; the right one is not recorded']);
    expect(losses(session('hinge, left lh 1 kg\nhinge, right rh 1 kg'))).toEqual([]);
    expect(losses(session('armrest lh/rh 1 kg'))).toEqual([]);
  });
  it('fewer fasteners than the neighbour on the other side', () => {
    const [message] = losses(session('hinge, upper 1 kg\n  4 M8x25\nhinge, lower 1 kg\n  3 M8x25'));
    expect(message).toBe('“hinge, lower” has 3 fasteners, its neighbour “hinge, upper” 4 (4 M8x25)');
    expect(losses(session('hinge, upper 1 kg\n  4 M8x25\nstriker, lower 1 kg\n  3 M8x25'))).toEqual([]);
  });
  it('not the mass of a part that is missing, destroyed or returned', () =>
    expect(losses(session('lock\nclip', (p) => (p.name === 'clip' ? { state: 'destroyed' } : {})))).toEqual(['“lock” has no mass']));
  it('tells real losses first, and the same gap on many removals or parts once, for all of them', () => {
    const record = session('plate\nbracket\nhinge, left lh 1 kg');
    const steps = record.steps.map((s, at) => ({ ...s, bit: 'T30', carried: at < 2 ? (['tool', 'bit'] as const) : [] }));
    const found = sessionLosses({ ...record, steps }, SESSION);
    expect(found.map((l) => l.check)).toEqual(['one-hand', 'carried-tool', 'carried-tool', 'no-mass', 'no-mass']);
    expect(lossGroups(found).map(({ message, losses: own }) => [message, own.length])).toEqual([
      ['“hinge, left” is the left one; the right one is not recorded', 1],
      ['On 2 removals the tool was carried over and never said', 2],
      ['2 parts have no mass', 2],
    ]);
    expect(found[1]?.message).toBe('The tool of removal 1, by hand T30, was carried over and never said');
  });
  it('a part without mass, also deep inside', () =>
    expect(losses(session('lock 1 kg\n  pawl\n  spring 4 g'))).toEqual(['“pawl” has no mass']));
  it('a connector without its cable', () => {
    const record = session('motor 1 kg');
    const plug = { id: testId(300), version: 1, ...blank('connection', { partId: record.parts[0]!.id, kind: 'connector' }) };
    expect(losses({ ...record, connections: [plug] })).toEqual(['A connector of “motor” is recorded without its cable']);
    expect(losses({ ...record, connections: [plug, { ...plug, id: testId(301), kind: 'cable' }] })).toEqual([]);
  });
  it('a removal without a tool, and one without a part', () => {
    const record = session('plate 1 kg');
    expect(losses({ ...record, steps: record.steps.map((s) => ({ ...s, tool: '' })) })).toEqual(['Removal 1 names no tool']);
    expect(losses({ ...record, steps: record.steps.map((s) => ({ ...s, parts: [] })) })).toEqual(['Removal 1 names no part that came off']);
  });
  it('is not told again once it is left so with a reason', () => {
    const record = session('lock 1 kg\n  pawl');
    const waived = [{ check: 'no-mass', aboutId: record.parts[1]!.id, reason: 'riveted in', by: 'Odo' }];
    expect(losses(record, waived)).toEqual([]);
  });
  it('is looked for in this session only', () => {
    const record = session('pawl');
    expect(losses({ ...record, steps: record.steps.map((s) => ({ ...s, sessionId: testId(91) })) })).toEqual([]);
  });
});

describe('left closed and damaged', () => {
  it('are listed, and a total says what it does not hold', () => {
    const record = session('latch 1 kg\nplate 1 kg', (p) =>
      p.name === 'latch' ? { opened: 'closed', closedReason: 'riveted' } : { damage: 'bent' },
    );
    const register = closedAndDamaged(record);
    expect([register.closed.map((p) => p.name), register.damaged.map((p) => p.name)]).toEqual([['latch'], ['plate']]);
    const tree = session('module\n  latch 1 kg\n  lock 2 kg\nplate 1 kg', (p) =>
      p.name === 'latch' || p.name === 'lock' ? { opened: 'closed' } : {},
    );
    const forest = outline(tree);
    const below = closedBelow(forest, new Map(tree.parts.map((p) => [p.id, p])));
    const at = (name: string): number => below[forest.placeOf.get(tree.parts.find((p) => p.name === name)!.id)!]!;
    expect([at('module'), at('latch'), at('plate'), below[0]]).toEqual([2, 1, 0, 2]);
    expect([closedWords(0), closedWords(1), closedWords(3)]).toEqual([
      '',
      '1 part left closed: what is inside it is not in this figure',
      '3 parts left closed: what is inside them is not in this figure',
    ]);
  });
});
