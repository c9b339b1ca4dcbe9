import { STUDY, recordOf, teardown } from '../../testing/teardown';
import { withLaterFields, withLaterRows } from './later-fields';
import { readChange } from './read-change';
import { blank } from './blank';

const ID = '00000000-0000-4000-8000-000000000001';

describe('what an older version wrote', () => {
  it('is a record of today: new kinds are empty, new fields hold nothing, old values stay', () => {
    const today = recordOf(teardown('plate 1 kg'));
    const { candidates: _c, packages: _p, ...rest } = today;
    const { choiceWeights: _w, calendar: _k, ...study } = today.study;
    const pieces = today.pieces.map(({ xM: _x, yM: _y, zM: _z, ...piece }) => piece);
    const old = { ...rest, study, pieces } as unknown as typeof today;
    expect(withLaterRows(old)).toEqual(today);
    expect(withLaterRows({ ...today, study: { ...STUDY, title: 'kept' } }).study.title).toBe('kept');
  });
  it('is still a valid change', () => {
    const { xM: _x, yM: _y, zM: _z, ...fields } = { ...blank('piece', { vehicleId: ID, subsystemId: ID, parentId: null }), name: 'plate' };
    const read = readChange({ id: ID, ops: [{ kind: 'piece.add', id: ID, fields }], undoes: null });
    expect(read.ok && read.value.ops[0]).toMatchObject({ fields: { name: 'plate', xM: null } });
  });
  it('does not come to hold what it must: a change without a name stays wrong', () => {
    const { name: _name, ...fields } = blank('piece', { vehicleId: ID, subsystemId: ID, parentId: null });
    expect(readChange({ id: ID, ops: [{ kind: 'piece.add', id: ID, fields }], undoes: null }).ok).toBe(false);
  });
  it('is not touched where it is no addition', () => {
    for (const op of [null, 'x', { kind: 'piece.edit', fields: {} }, { kind: 'joints.add', fields: {} }])
      expect(withLaterFields(op)).toBe(op);
  });
});
