import { STUDY, recordOf, teardown, testId } from '../../testing/teardown';
import { person } from '../../testing/plan';
import { newStudyOps, templateOps } from './new-study';
import { readChange } from './read-change';

const ids = () => {
  let n = 500;
  return () => testId(n++);
};
const tree = [
  { id: testId(4), version: 1, parentId: null, sequence: 0, name: 'Doors' },
  { id: testId(5), version: 1, parentId: testId(4), sequence: 0, name: 'Sliding cargo door' },
];
const away = [{ from: '2026-06-01', to: '2026-06-05', why: 'away' }];
const record = { ...recordOf(teardown('plate 1 kg')), subsystems: tree, resources: [{ ...person(1, 'Odo', ['welding']), daysOff: away }] };

describe('a study begun like another', () => {
  const ops = templateOps(record, testId(600), 'Cab heaters', testId(8), ids());
  it('has its tree with the same order and depth, its basis and rule, and nothing recorded', () => {
    expect(ops.map((op) => op.kind)).toEqual(['study.add', 'member.add', 'subsystem.add', 'subsystem.add', 'resource.add']);
    expect(ops[0]).toMatchObject({ id: testId(600), fields: { title: 'Cab heaters', currency: STUDY.currency, state: 'open' } });
    const [doors, sliding] = ops.slice(2) as unknown as readonly { id: string; fields: { parentId: string | null; name: string } }[];
    expect(sliding?.fields).toMatchObject({ name: 'Sliding cargo door', parentId: doors?.id });
    expect(doors?.id).not.toBe(testId(4));
  });
  it('has the people and places of the plan, without their days off and without a first day', () => {
    expect(ops[4]).toMatchObject({ fields: { name: 'Odo', skills: ['welding'], daysOff: [] } });
    expect(ops[0]).toMatchObject({ fields: { calendar: { startsOn: null, daysOff: [] } } });
  });
  it('is led by whoever copies it, and taken by the ledger', () => {
    expect(ops[1]).toMatchObject({ fields: { personId: testId(8), role: 'lead' } });
    expect(readChange({ id: testId(9), ops, undoes: null }).ok).toBe(true);
  });
  it('or from nothing, with the shipped tree', () => {
    const { id: _id, version: _version, ...fields } = STUDY;
    expect(newStudyOps(testId(601), fields, testId(8), ids()).filter((op) => op.kind === 'subsystem.add')).toHaveLength(17);
  });
});
