import { editOp, removeOp } from '@each-bolt/core/record';
import { partNamed, recordOf, teardown } from '../../../testing/record';
import { choiceKey, faultyFields, resolved, retyped } from './mend';
import type { ToldConflict } from '@each-bolt/core/wire';
import { over, rest } from './undo-service';

const record = recordOf(teardown('plate 1 kg\nlever'));
const plate = partNamed(record, 'plate');
const edit = editOp('part', plate, { name: 'mine', tag: 'M1' })!;
const theirs = { ...plate, name: 'theirs', version: 4 };
const clash: ToldConflict = {
  entity: 'part',
  id: plate.id,
  verb: 'edit',
  current: theirs,
  by: 'Odo Farrow',
  at: null,
  cells: [{ cell: 'name', was: 'plate', yours: 'mine', theirs: 'theirs', by: 'Odo Farrow', at: null }],
};
const chose = (which: 'mine' | 'theirs', cell = 'name') => new Map([[choiceKey(clash, cell), which]]);

describe('a change that clashed', () => {
  it('goes over the other’s value when that is chosen, standing on it', () =>
    expect(resolved([edit], [clash], chose('mine'))).toMatchObject([
      { was: { name: 'theirs', tag: '' }, fields: { name: 'mine', tag: 'M1' } },
    ]));
  it('leaves the other’s value and keeps the rest of one’s own', () =>
    expect(resolved([edit], [clash], chose('theirs'))).toEqual([expect.objectContaining({ was: { tag: '' }, fields: { tag: 'M1' } })]));
  it('takes a row off only when that is chosen, as it now stands', () => {
    const removal = { ...clash, verb: 'remove' as const };
    expect(resolved([removeOp('part', plate)], [removal], new Map())).toEqual([]);
    expect(resolved([removeOp('part', plate)], [removal], chose('mine', ''))).toMatchObject([
      { kind: 'part.remove', was: { name: 'theirs' } },
    ]);
  });
  it('drops what was to be done to a row that is gone', () =>
    expect(resolved([edit], [{ ...clash, current: null }], chose('mine'))).toEqual([]));
});

describe('an undo that meets what was changed since', () => {
  it('goes over it, or undoes only the rest', () => {
    expect(over(edit, clash)).toMatchObject([{ was: { name: 'theirs', tag: '' } }]);
    expect(rest(edit, clash.cells)).toMatchObject([{ was: { tag: '' }, fields: { tag: 'M1' } }]);
    expect(rest(removeOp('part', plate), clash.cells)).toEqual([]);
  });
});

describe('a change with faults', () => {
  const issues = [{ field: 'ops[0].fields.name', recordId: null, message: 'Name must not be empty' }];
  it('offers each faulty field to be typed anew', () => {
    const [fault] = faultyFields([edit], issues);
    expect(fault).toMatchObject({ op: 0, field: 'name', value: 'mine', message: 'Name must not be empty' });
    expect(retyped([edit], fault!, 'panel')).toMatchObject([{ fields: { name: 'panel', tag: 'M1' } }]);
  });
  it('finds the field by its record when the server names no op, and offers nothing where nothing can be typed', () => {
    expect(faultyFields([edit], [{ field: 'tag', recordId: plate.id, message: 'x' }])).toMatchObject([
      { op: 0, field: 'tag', value: 'M1' },
    ]);
    expect(faultyFields([edit], [{ field: 'subsystemId', recordId: plate.id, message: 'x' }])).toEqual([]);
  });
});
