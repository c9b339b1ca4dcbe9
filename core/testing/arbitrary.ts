import fc, { type Arbitrary } from 'fast-check';
import { EVIDENCE_MARKS, isDay } from '../src/shared';
import { KINDS, fieldsIn, isKnowing, knowingFields, type Entity, type Field, type Fields, type Evidence } from '../src/record';

// Rows of every kind as anybody might write them, from the declarations: whatever is allowed, and what is not.

const words = (most: number, isNeeded: boolean): Arbitrary<string> =>
  fc.string({ unit: 'grapheme-ascii', maxLength: Math.min(most, 40) }).map((text) => (isNeeded && text.trim() === '' ? 'x' : text));

const two = (n: number): string => String(n).padStart(2, '0');
const DAY = fc
  .tuple(fc.integer({ min: 1950, max: 2090 }), fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 31 }))
  .map(([y, m, d]) => `${y}-${two(m)}-${two(d)}`)
  .filter(isDay);
const CLOCK = fc.tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 })).map(([h, m]) => `${two(h)}:${two(m)}`);

const numberOf = (field: Extract<Field, { readonly type: 'number' }>): Arbitrary<number> => {
  const max = field.max ?? 1e12;
  if (field.whole) return fc.integer({ min: field.min ?? 0, max: Math.min(max, 2_147_483_647) });
  const min = field.above ?? field.min ?? -1e12;
  return fc.double({ min, max, noNaN: true, minExcluded: field.above !== undefined }).filter((x) => x === 0 || Math.abs(x) > 1e-300);
};

/** Words that look as a pattern of the declarations wants them. */
const LOOKING_LIKE: readonly Arbitrary<string>[] = [fc.constantFrom('EUR', 'USD', 'CHF'), fc.constantFrom('A03', 'B', 'X9Y8')];

const bare = (field: Field): Arbitrary<unknown> => {
  switch (field.type) {
    case 'text':
      return field.pattern
        ? fc.oneof(...LOOKING_LIKE).filter((text) => field.pattern!.is.test(text))
        : words(field.max, field.needed === true);
    case 'number':
      return numberOf(field);
    case 'choice':
      return fc.constantFrom(...field.choices);
    case 'flag':
      return fc.boolean();
    case 'date':
      return DAY;
    case 'instant':
      return fc.tuple(DAY, CLOCK).map(([day, clock]) => `${day}T${clock}:07.125Z`);
    case 'local time':
      return fc.tuple(DAY, CLOCK).map(([day, clock]) => `${day}T${clock}`);
    case 'price':
      return fc.tuple(fc.nat(999_999_999), fc.nat(9999)).map(([units, parts]) => `${units}.${String(parts).padStart(4, '0')}`);
    case 'reference':
    case 'any reference':
    case 'person':
      return fc.uuid({ version: 4 });
    case 'library':
      return words(60, true);
    case 'file':
      return fc.array(fc.constantFrom(...'0123456789abcdef'), { minLength: 64, maxLength: 64 }).map((digits) => digits.join(''));
    case 'list':
      return fc.array(valueOf(field.item as Field), { maxLength: Math.min(3, field.most) });
    case 'tuple':
      return fc.tuple(...Array.from({ length: field.size }, () => valueOf(field.item as Field)));
    case 'group':
      return rowOf(field.fields as Fields).filter((value) => field.rule?.holds(value as never) ?? true);
    case 'by name':
      return fc.dictionary(fc.constantFrom('Fe', 'Al', 'Si'), valueOf(field.item as Field), { maxKeys: 3 });
    case 'evidence':
      return fc.constant({});
  }
};

/** What a field may hold. */
export const valueOf = (field: Field): Arbitrary<unknown> => (field.optional ? fc.option(bare(field), { nil: null }) : bare(field));

const rowOf = (fields: Fields): Arbitrary<Readonly<Record<string, unknown>>> =>
  fc.record(Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, valueOf(field)])));

const EVIDENCE: Arbitrary<Evidence> = fc.record({
  mark: fc.constantFrom(...EVIDENCE_MARKS),
  u: fc.option(fc.double({ min: 1e-9, max: 1e9, noNaN: true }), { nil: null }),
  low: fc.option(fc.integer({ min: 0, max: 10 }), { nil: null }),
  high: fc.option(fc.integer({ min: 10, max: 20 }), { nil: null }),
  typed: fc.option(words(60, false), { nil: null }),
  instrument: words(200, false),
  source: words(400, false),
});

/** What a record of a kind may hold, each field by itself: rules that need more than one field may be broken. */
export const fieldsOf = (entity: Entity): Arbitrary<Readonly<Record<string, unknown>>> =>
  isKnowing(entity)
    ? fc
        .tuple(rowOf(fieldsIn(entity)), fc.dictionary(fc.constantFrom(...knowingFields(entity)), EVIDENCE, { maxKeys: 3 }))
        .map(([row, evidence]) => ({ ...row, evidence }))
    : rowOf(KINDS[entity].fields);

/** What a field may not hold. */
export const notValueOf = (field: Field): Arbitrary<unknown> => {
  const wrong: unknown[] = [undefined, { colour: ['red'] }, Number.NaN];
  if (!field.optional) wrong.push(null);
  switch (field.type) {
    case 'text':
      wrong.push('x'.repeat(field.max + 1), 'a\u0000b', 7);
      if (field.needed) wrong.push(' ');
      break;
    case 'number':
      wrong.push('7', Number.POSITIVE_INFINITY);
      if (field.max !== undefined) wrong.push(field.max * 1.1 + 1);
      if (field.min !== undefined) wrong.push(field.min - 1);
      if (field.above !== undefined) wrong.push(field.above);
      if (field.whole) wrong.push((field.min ?? 0) + 0.5);
      break;
    case 'choice':
      wrong.push('no such word', '');
      break;
    case 'flag':
      wrong.push('yes', 1);
      break;
    case 'date':
      wrong.push('2026-02-30', '3.4.2026');
      break;
    case 'instant':
    case 'local time':
      wrong.push('2026-05-01', 'noon');
      break;
    case 'price':
      wrong.push('4,20', '-1', 4.2);
      break;
    case 'reference':
    case 'any reference':
    case 'person':
      wrong.push('7', '3F2504E0-4F89-41D3-9A0C-0305E82C3301');
      break;
    case 'library':
      wrong.push('x'.repeat(61), 7);
      break;
    case 'file':
      wrong.push('A'.repeat(64), 'abc');
      break;
    case 'list':
      wrong.push('a, b', [undefined]);
      break;
    case 'tuple':
      wrong.push([], 'x');
      break;
    case 'group':
    case 'by name':
    case 'evidence':
      wrong.push('x', 7, []);
  }
  return fc.constantFrom(...wrong);
};
