import { DOOR, LEFT, recordOf, teardown, testId } from '../../testing/teardown';
import type { SignOff, StudyRecord } from '../record';
import { reconcile } from './run';
import { subsystemStates } from './sign-off';

const plain = recordOf(teardown('module 3 kg\n  lock 1 kg\n  plate 2 kg'));
const SIGNED: SignOff = {
  ...{ id: testId(700), version: 2, vehicleId: LEFT.id, subsystemId: DOOR.id, by: 'Wenna Tarn', at: '2026-06-01T08:00:00.000Z' },
  ...{ revision: 1, parts: 3, open: 0, explained: 0, leftOpen: '' },
};
const stateOf = (record: StudyRecord) => {
  const { causes, explained } = reconcile(record, '2026-06-01');
  return subsystemStates(record, causes, explained)[0]!;
};

describe('a subsystem', () => {
  it('that closes may be signed off', () => expect(stateOf(plain)).toMatchObject({ parts: 3, causes: [], signed: null, changed: [] }));
  it('signed off stays so while nothing in it changes', () =>
    expect(stateOf({ ...plain, signOffs: [SIGNED] })).toMatchObject({ signed: SIGNED, changed: [] }));
  it('is open again by the name of what changed, also when something on a part did', () => {
    const set = { ...teardown('lock\n  2 M6x20').fastenerSets[0]!, partId: plain.parts[1]!.id, version: 5 };
    const parts = plain.parts.map((part) => (part.name === 'plate' ? { ...part, version: 4 } : part));
    expect(stateOf({ ...plain, parts, fastenerSets: [set], signOffs: [SIGNED] }).changed).toEqual(['plate', 'lock']);
  });
  it('is open again when a part was taken off', () => {
    const parts = plain.parts.filter((part) => part.name !== 'plate');
    expect(stateOf({ ...plain, parts, signOffs: [SIGNED] }).changed).toEqual(['1 taken off']);
  });
  it('counts what does not close in it', () => {
    const parts = plain.parts.map((part) => (part.name === 'plate' ? { ...part, massEachKg: 0.002 } : part));
    expect(stateOf({ ...plain, parts }).causes).toHaveLength(1);
  });
});
