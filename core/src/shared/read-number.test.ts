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
  it.each(['', '-1', '1e5', '1.2.3', 'NaN', 'Infinity', '１', '12345678901'])('does not take “%s” for a number', (text) => {
    expect(readNumber(text).kind).toBe('none');
  });
});
