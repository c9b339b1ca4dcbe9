import fc from 'fast-check';
import { BLANK, STUDY, recordOf, teardown, testId } from '../../testing/teardown';
import { applyOps } from './apply-ops';
import { editOp, removeOp } from './cells';
import { fieldLabel } from './field-words';
import type { Op, PartFields } from './entities';
import { evidence } from './evidence';
import { newStudyOps } from './new-study';
import { readChange } from './read-change';
import { rowFaults } from './row-faults';

const ADD = { kind: 'part.add', id: testId(50), fields: { ...BLANK, name: 'plate' } };
const change = (...ops: readonly unknown[]): unknown => ({ id: testId(9), ops, undoes: null });
const codes = (input: unknown): readonly string[] => {
  const read = readChange(input);
  return read.ok ? [] : read.issues.map((i) => `${i.field}: ${i.message}`);
};

describe('a change from outside', () => {
  it('is taken when all of it is right', () => expect(readChange(change(ADD)).ok).toBe(true));
  it.each([
    ['no object at all', 'hello', /null: /],
    ['no ops', { id: testId(9), undoes: null, ops: [] }, /ops: A change needs at least one op/],
    ['an id that is no UUID', { id: '7', ops: [ADD] }, /id: Change must be a UUID/],
    ['a kind that is not known', change({ ...ADD, kind: 'part.explode' }), /ops\[0\]\.kind: Op 1 is of a kind/],
    ['an unknown field', change({ ...ADD, fields: { ...ADD.fields, colour: 'red' } }), /ops\[0\]\.fields: .*colour/],
    ['a missing field', change({ ...ADD, fields: { ...ADD.fields, tag: undefined } }), /ops\[0\]\.fields\.tag/],
    ['text for a number', change({ ...ADD, fields: { ...ADD.fields, quantity: '3' } }), /quantity: Quantity must be a number/],
    ['a negative mass', change({ ...ADD, fields: { ...ADD.fields, massEachKg: -1 } }), /massEachKg: Mass each must be more than 0 kg/],
    [
      'an infinite mass',
      change({ ...ADD, fields: { ...ADD.fields, massEachKg: JSON.parse('1e999') as number } }),
      /massEachKg: Mass each must be a finite number/,
    ],
    ['a mass that is no number', change({ ...ADD, fields: { ...ADD.fields, massEachKg: Number.NaN } }), /massEachKg: Mass each must be a/],
    ['a control character', change({ ...ADD, fields: { ...ADD.fields, name: 'pl\u0000ate' } }), /name: Name holds control characters/],
    ['half a character', change({ ...ADD, fields: { ...ADD.fields, notes: '\ud800' } }), /notes: Notes holds control characters/],
    ['a blank name', change({ ...ADD, fields: { ...ADD.fields, name: '   ' } }), /name: Name must not be empty/],
    [
      'a name of 5 MB',
      change({ ...ADD, fields: { ...ADD.fields, name: 'x'.repeat(5_000_000) } }),
      /name: Name may have at most 200 characters/,
    ],
    [
      'an edit that does not say what was there',
      change({ kind: 'part.edit', id: testId(50), fields: { tag: 'A' } }),
      /was: What it was must be defined/,
    ],
    [
      'an edit that says it of another field',
      change({ kind: 'part.edit', id: testId(50), was: { name: 'x' }, fields: { tag: 'A' } }),
      /must say what each of its fields was/,
    ],
    [
      'a mark that is none',
      change({ ...ADD, fields: { ...ADD.fields, evidence: { quantity: { ...evidence('C'), mark: 'X' } } } }),
      /evidence: Evidence must be one of/,
    ],
    [
      'a mark on a field that has none',
      change({ ...ADD, fields: { ...ADD.fields, evidence: { sequence: evidence('C') } } }),
      /sequence does not say how/,
    ],
    ['an id in capital letters', change({ ...ADD, id: 'ABCDEF00-0000-4000-8000-000000000001' }), /small letters/],
    [
      'a date that does not exist',
      change({ kind: 'vehicle.edit', id: testId(2), was: { builtOn: null }, fields: { builtOn: '2026-02-30' } }),
      /builtOn: Built on must be a date/,
    ],
  ])('is refused for %s', (_, input, fault) => expect(codes(input).join('\n')).toMatch(fault));
  it('is told every fault of every op at once', () => {
    expect(codes(change({ ...ADD, fields: { ...ADD.fields, name: '', quantity: 0 } }, { ...ADD, id: 'x' })).length).toBe(3);
  });
  it('may edit a part of the fields', () =>
    expect(readChange(change({ kind: 'part.edit', id: testId(50), was: { tag: '' }, fields: { tag: 'A' } })).ok).toBe(true));
  it('never throws, whatever arrives', () => {
    fc.assert(
      fc.property(fc.oneof(fc.anything(), fc.record({ id: fc.constant(testId(9)), ops: fc.array(fc.anything()) })), (input) =>
        expect(typeof readChange(input).ok).toBe('boolean'),
      ),
    );
  });
});

describe('rules across the fields of a row', () => {
  const part = (fields: Partial<PartFields>) =>
    rowFaults('part', { ...BLANK, name: 'plate', id: testId(50), version: 1, ...fields }).map((i) => i.code);
  it.each([
    ['place', { parentId: testId(51) }],
    ['place', { subsystemId: null }],
    ['cycle', { subsystemId: null, parentId: testId(50) }],
    ['mass-incomplete', { massEachKg: 1 }],
    ['envelope-incomplete', { lengthM: 1 }],
    ['price-basis', { boughtPrice: '4.20' }],
    ['closed-reason', { opened: 'closed' as const }],
  ])('%s', (code, fields) => expect(part(fields)).toContain(code));
  it('are satisfied by a blank part', () => expect(part({})).toEqual([]));
  it('keep lengths to joints that run', () => {
    const [spot] = teardown('x\n  3 spot').jointSets;
    expect(spot && rowFaults('joints', { ...spot, lengthEachM: 1 }).map((i) => i.code)).toEqual(['joint-length']);
  });
});

describe('a record after a change', () => {
  const record = recordOf(teardown('plate 1 kg\n  4 clip\nlever'));
  it('is a new record that shares what was not touched', () => {
    const edit = editOp('part', record.parts[0]!, { tag: 'DR2-1' });
    const after = applyOps(record, [edit!], 2);
    expect(after.parts[0]).toMatchObject({ tag: 'DR2-1', version: 2, name: 'plate' });
    expect(after.revision).toBe(2);
    expect(after.fastenerSets).toBe(record.fastenerSets);
    expect(record.parts[0]?.tag).toBe('');
  });
  it('adds, removes, and takes several ops on one row in order', () => {
    const ops: readonly Op[] = [
      removeOp('part', record.parts[1]!),
      { kind: 'part.add', id: testId(60), fields: { ...BLANK, name: 'arm' } },
      { kind: 'part.edit', id: testId(60), was: { tag: '' }, fields: { tag: 'A1' } },
      { kind: 'study.edit', id: STUDY.id, was: { fastenersIn: true }, fields: { fastenersIn: false } },
    ];
    const after = applyOps(record, ops, 2);
    expect(after.parts.map((p) => [p.name, p.tag])).toEqual([
      ['plate', ''],
      ['arm', 'A1'],
    ]);
    expect(after.study).toMatchObject({ fastenersIn: false, version: 2 });
  });
});

describe('labels and the shipped tree', () => {
  it('names fields for people, never by their code', () =>
    expect([fieldLabel('part', 'massEachKg'), fieldLabel('part', 'processId'), fieldLabel('fasteners', 'note')]).toEqual([
      'Mass each',
      'Made by',
      'Remark',
    ]));
  it('begins a study with subsystems that the ledger takes', () => {
    const { id: _id, version: _version, ...fields } = STUDY;
    let n = 100;
    expect(readChange({ id: testId(9), undoes: null, ops: newStudyOps(STUDY.id, fields, testId(8), () => testId(n++)) }).ok).toBe(true);
  });
});
