import fc from 'fast-check';
import { BLANK, partNamed, recordOf, teardown, testId } from '../../testing/teardown';
import { applyOps, namedRows } from './apply-ops';
import { cellsOf, editOp, editTo, fieldsFrom, removeOp, sameValue } from './cells';
import type { Op, Part } from './entities';
import { evidence } from './evidence';
import { inverseOps, netEffect } from './net-effect';

const record = recordOf(teardown('plate 1 kg\n  4 clip\nlever 2 kg'));
const plate = partNamed(record, 'plate');
const effectOf = (ops: readonly Op[], now = record) => netEffect(ops, namedRows(now, ops), now.revision + 1);
const renamed = (now: typeof record, name: string) => applyOps(now, [editOp('part', plate, { name })!], now.revision + 1);

describe('an edit', () => {
  it('says only what differs, with what was there', () => {
    expect(editOp('part', plate, { name: 'panel', tag: '', quantity: 1 })).toEqual({
      kind: 'part.edit',
      id: plate.id,
      was: { name: 'plate' },
      fields: { name: 'panel' },
    });
    expect(editOp('part', plate, { name: 'plate' })).toBeNull();
  });
  it('touches what is said of one field only, and takes back what is said no more', () => {
    const marked: Part = { ...plate, evidence: { quantity: evidence('P'), materialId: evidence('T') } };
    expect(editOp('part', marked, { evidence: { quantity: evidence('R') } })).toMatchObject({
      was: { evidence: { quantity: { mark: 'P' } } },
      fields: { evidence: { quantity: { mark: 'R' } } },
    });
    expect(editTo('part', marked, { evidence: { materialId: evidence('T') } })).toMatchObject({ fields: { evidence: { quantity: null } } });
  });
  it('fits beside another’s edit of another field, and clashes on the same one', () => {
    const meanwhile = renamed(record, 'theirs');
    const beside = effectOf([editOp('part', plate, { tag: 'A' })!], meanwhile);
    expect([beside.conflicts, beside.effects[0]?.after]).toMatchObject([[], { name: 'theirs', tag: 'A' }]);
    expect(effectOf([editOp('part', plate, { name: 'mine' })!], meanwhile).conflicts).toMatchObject([
      { id: plate.id, verb: 'edit', cells: [{ cell: 'name', was: 'plate', yours: 'mine', theirs: 'theirs' }] },
    ]);
  });
  it('does not clash with one’s own edit just before, nor where both want the same', () => {
    const own = renamed(record, 'mine');
    const next = editOp('part', { ...plate, name: 'mine' }, { name: 'mine, better' })!;
    expect(effectOf([next], own).conflicts).toEqual([]);
    expect(effectOf([editOp('part', plate, { name: 'mine' })!], own).conflicts).toEqual([]);
  });
});

describe('a removal', () => {
  it('clashes with whatever was changed since it was seen', () => {
    const off = removeOp('part', plate);
    expect(effectOf([off]).effects[0]?.after).toBeNull();
    expect(effectOf([off], renamed(record, 'theirs')).conflicts).toMatchObject([
      { verb: 'remove', cells: [{ cell: 'name', theirs: 'theirs' }] },
    ]);
  });
  it('of a row that is gone comes back with no current row', () => {
    const gone = applyOps(record, [removeOp('part', plate)], 2);
    expect(effectOf([editOp('part', plate, { tag: 'A' })!], gone).conflicts).toMatchObject([{ current: null, cells: [] }]);
  });
});

describe('the inverse of any change', () => {
  const edits = fc.record(
    { name: fc.constantFrom('a', 'b', 'c'), tag: fc.constantFrom('', 'T'), quantity: fc.integer({ min: 1, max: 4 }) },
    { requiredKeys: [] },
  );
  it('puts every row back as it was', () => {
    fc.assert(
      fc.property(edits, edits, fc.boolean(), (first, second, remove) => {
        const lever = partNamed(record, 'lever');
        const one = editOp('part', lever, first);
        const after: Part = { ...lever, ...first };
        const two = remove ? removeOp('part', after) : editOp('part', after, second);
        const add: Op = { kind: 'part.add', id: testId(70), fields: { ...BLANK, name: 'arm' } };
        const ops = [one, two, add].flatMap((op) => op ?? []);
        const done = applyOps(record, ops, 2);
        const back = inverseOps(effectOf(ops).effects);
        expect(netEffect(back, namedRows(done, back), 3).conflicts).toEqual([]);
        const undone = applyOps(done, back, 3);
        const content = (parts: readonly Part[]) => parts.map(({ version: _, ...p }) => p).sort((a, b) => (a.id < b.id ? -1 : 1));
        expect(content(undone.parts)).toEqual(content(record.parts));
      }),
    );
  });
});

describe('cells', () => {
  it('put fields apart and together again', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom('name', 'tag', 'quantity'), fc.string()), (fields) => {
        expect(fieldsFrom(cellsOf({ ...fields, evidence: { quantity: evidence('P') } }))).toEqual({
          ...fields,
          evidence: { quantity: evidence('P') },
        });
      }),
    );
  });
  it('hold the same value whatever the order of its parts', () => {
    expect(sameValue({ a: 1, b: [1, { c: 2 }] }, { b: [1, { c: 2 }], a: 1 })).toBe(true);
    expect(sameValue({ a: 1 }, { a: 1, b: null })).toBe(false);
    expect(sameValue(null, {})).toBe(false);
  });
});
