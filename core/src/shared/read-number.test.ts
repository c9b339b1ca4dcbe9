import { readNumber } from './read-number';

describe('a number as somebody types it', () => {
  it('takes a point or a comma for the decimal sign and keeps the step its digits show', () => {
    expect(readNumber('1.84')).toEqual({ kind: 'number', number: { value: 1.84, step: 0.01, text: '1.84' } });
    expect(readNumber('1,84')).toEqual({ kind: 'number', number: { value: 1.84, step: 0.01, text: '1.84' } });
    expect(readNumber('41')).toEqual({ kind: 'number', number: { value: 41, step: 1, text: '41' } });
    expect(readNumber('41.0')).toMatchObject({ number: { step: 0.1 } });
  });
  it('does not guess whether 1,840 is a decimal or thousands', () => {
    const read = readNumber('1,840');
    expect(read.kind === 'ambiguous' && read.readings.map((r) => r.value)).toEqual([1.84, 1840]);
  });
  it.each([
    ['apostrophes', "1'234", 1234, 1],
    ['a narrow space', '12\u202f500', 12500, 1],
    ['points and a decimal comma', '1.234,5', 1234.5, 0.1],
    ['commas and a decimal point', '1,234.5', 1234.5, 0.1],
    ['two thousands marks', '1.234.567', 1234567, 1],
    ['no whole part', '.5', 0.5, 0.1],
    ['a power of ten', '5e2', 500, 100],
    ['a fraction', '3/8', 0.375, 0.125],
    ['a whole and a fraction', '1-1/2', 1.5, 0.5],
    ['a fraction sign', '1½', 1.5, 0.5],
  ])('reads %s: %s is %s', (_, text, value, step) => expect(readNumber(text)).toMatchObject({ number: { value, step } }));
  it('reads back its own spelling as the same', () => {
    for (const text of ["1'234", '5e2', '3/8', '1-1/2', '1½', '.5', '1.234,5']) {
      const read = readNumber(text);
      expect(read.kind === 'number' && readNumber(read.number.text)).toEqual(read);
    }
  });
  it('asks about three digits behind a point only where they may be thousands', () => {
    expect(readNumber('1.840').kind).toBe('number');
    expect(readNumber('1.840', true).kind).toBe('ambiguous');
    expect(readNumber('0.840', true).kind).toBe('number');
  });
  it.each(['', '-1', '1e', '1.2.3', '1/0', 'NaN', 'Infinity', '１', '12345678901'])('does not take “%s” for a number', (text) => {
    expect(readNumber(text).kind).toBe('none');
  });
});
