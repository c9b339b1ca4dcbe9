import { applyOps, editOp, evidence, removeOp, type Op } from '@each-bolt/core/record';
import { studyRollUp } from '@each-bolt/core/cost';
import { subsystemKey } from '@each-bolt/core/record';
import { totalsOf } from '@each-bolt/core/bench';
import { BLANK, DOOR, LEFT, STUDY, partNamed, recordOf, teardown, testId } from '../../../testing/record';
import { afterKept, effectOf, holdStudy, inverseOf, touchedParts, withWaiting, withoutWaiting } from './held-study';

const record = recordOf(teardown('plate 1 kg\n  4 clip\nlever'));
const plate = partNamed(record, 'plate');
const lever = partNamed(record, 'lever');
const rename = (name: string): Op => editOp('part', plate, { name })!;
const weigh = (massEachKg: number): Op => editOp('part', lever, { massEachKg, evidence: { massEachKg: evidence('M', { u: 0.1 }) } })!;
const door = subsystemKey(LEFT.id, DOOR.id);

describe('a study with changes that wait', () => {
  it('shows them over what the server has kept, and forgets one that is refused', () => {
    const held = withWaiting(withWaiting(holdStudy(record), 'a', [rename('panel')]), 'b', [weigh(2)]);
    expect(held.view.parts.map((p) => [p.name, p.massEachKg])).toEqual([
      ['panel', 1],
      ['lever', 2],
    ]);
    expect(withoutWaiting(held, 'a').view.parts.map((p) => p.name)).toEqual(['plate', 'lever']);
  });
  it('has totals to the last bit as if it were rolled up anew, whatever came in between', () => {
    let held = withWaiting(holdStudy(record), 'a', [weigh(2)]);
    held = afterKept(
      held,
      'x',
      [
        {
          kind: 'part.add',
          id: testId(60),
          fields: { ...BLANK, name: 'arm', massEachKg: 3, evidence: { massEachKg: evidence('I', { u: 0.1 }) } },
        },
      ],
      2,
    );
    held = afterKept(held, 'a', [weigh(2)], 3);
    held = afterKept(held, 'y', [rename('panel')], 4);
    expect(held.waiting).toEqual([]);
    expect(totalsOf(held.rollUp.rolled, door)).toEqual(totalsOf(studyRollUp(held.view).rolled, door));
    expect(held.view.parts.map((p) => p.name).sort()).toEqual(held.base.parts.map((p) => p.name).sort());
    expect(held.view.revision).toBe(4);
  });
  it('lays a change that waits over what another did to the same row', () => {
    const held = afterKept(
      withWaiting(holdStudy(record), 'a', [rename('mine')]),
      'x',
      [editOp('part', plate, { name: 'theirs', tag: 'A' })!],
      2,
    );
    expect(held.view.parts[0]).toMatchObject({ name: 'mine', tag: 'A' });
    expect(held.base.parts[0]?.name).toBe('theirs');
  });
  it('drops an edit of a row that someone took off', () => {
    const off = [removeOp('fasteners', record.fastenerSets[0]!), removeOp('part', plate)];
    const held = afterKept(withWaiting(holdStudy(record), 'a', [rename('mine')]), 'x', off, 2);
    expect(held.view.parts.map((p) => p.name)).toEqual(['lever']);
  });
  it('knows faults and the way back before anything is sent', () => {
    const held = holdStudy(record);
    expect(effectOf(held, [editOp('part', plate, { evidence: { massEachKg: null } })!]).issues.map((i) => i.code)).toEqual([
      'mass-incomplete',
    ]);
    const back = inverseOf(held, [rename('panel')]);
    expect(applyOps(applyOps(record, [rename('panel')], 2), back, 3).parts[0]?.name).toBe('plate');
  });
});

describe('which parts a change touches', () => {
  it('counts the part that a set holds', () => {
    const set = record.fastenerSets[0]!;
    expect(touchedParts(record, [editOp('fasteners', set, { count: 5 })!])).toEqual([plate.id]);
    expect(touchedParts(record, [removeOp('part', plate)])).toEqual([plate.id]);
  });
  it('is none for what no figure hangs on, and unknown for anything else', () => {
    const question = {
      kind: 'question',
      aboutKind: 'part',
      aboutId: plate.id,
      aboutField: null,
      text: 'x',
      ownerId: null,
      dueOn: null,
      owedTo: '',
      state: 'open',
      answer: '',
    } as const;
    expect(touchedParts(record, [{ kind: 'question.add', id: testId(70), fields: question }])).toEqual([]);
    expect(touchedParts(record, [editOp('study', STUDY, { fastenersIn: false })!])).toBeNull();
  });
});
