import fc from 'fast-check';
import { mixed, type Schema } from 'yup';
import { check, finite, requiredText, shape, text, uuid, whole } from './contract';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly count: number;
  readonly known: object;
}

const ROW = shape<Row>({
  id: uuid('Id'),
  name: requiredText('Name', 10),
  // a rule more than its text has
  note: text('Note', 10).matches(/^[a-z]*$/, 'Note must be in small letters'),
  count: whole('Count', 1, 9),
  known: mixed<object>((value): value is object => typeof value === 'object' && value !== null).defined(),
});
const GOOD: Row = { id: '0c4f7f0e-32b6-4a4e-9c3e-2f3f5ad0a001', name: 'plate', note: 'worn', count: 2, known: { mark: 'M' } };
const isGood = (row: object): boolean => check(ROW, { ...GOOD, ...row }).ok;

describe('rows by the thousand, checked field by field', () => {
  it('are good again when they were good before', () => expect([isGood({}), isGood({}), isGood({ count: 3 })]).toEqual([true, true, true]));
  it('are refused as by the schema itself, however much of them was good before', () => {
    const bad: readonly object[] = [
      { id: 'plate' },
      { id: '00000000-0000-0000-0000-00000000000' },
      { name: ' ' },
      { name: 'a name too long' },
      { name: 'a\u0000' },
      { note: 'WORN' },
      { count: 0 },
      { count: 2.5 },
      { count: '2' },
      { count: Number.NaN },
      { known: null },
      { more: 1 },
      { name: undefined },
    ];
    expect(bad.map(isGood)).toEqual(Array(bad.length).fill(false));
    const [fault] = [check(ROW, { ...GOOD, note: 'WORN' })];
    expect(!fault.ok && fault.issues.map(({ message }) => message)).toEqual(['Note must be in small letters']);
  });
  it('do not take a text for the value it is the text of', () => {
    expect(isGood({ known: { mark: 'I' } })).toBe(true);
    expect(['{"mark":"I"}', '{}{"mark":"I"}', '\u0000{"mark":"I"}'].map((known) => isGood({ known }))).toEqual([false, false, false]);
  });
  it('pass quickly only what the schema passes, whatever the value', () => {
    const ids = fc
      .tuple(fc.uuid({ version: [1, 2, 3, 4, 5, 6, 7, 8] }), fc.boolean())
      .map(([id, upper]) => (upper ? id.toUpperCase() : id));
    const values = fc.oneof(ids, fc.string({ unit: 'binary', maxLength: 14 }), fc.constantFrom(null, undefined, 7, '', ' ', {}, []));
    const schemas = [uuid('Id'), text('Text', 10), requiredText('Text', 10)];
    fc.assert(
      fc.property(values, fc.constantFrom(...schemas), (value, schema) => {
        expect(check(schema as Schema<unknown>, value).ok).toBe(schema.isValidSync(value, { strict: true }));
      }),
      { numRuns: 2000 },
    );
  });
  it('are held to every rule that was added after a quick one was said', () => {
    const short = shape<{ readonly x: number }>({ x: finite('X').max(5) });
    expect([check(short, { x: 5 }).ok, check(short, { x: 6 }).ok]).toEqual([true, false]);
  });
});
