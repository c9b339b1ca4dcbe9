import { mod37_36 } from 'cdigit';
import fc from 'fast-check';
import { checkCharacter } from './check-character';
import { readTag, tagText } from './tag';

const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const CHARACTERS = ALPHABET.split(/(?=.)/);
const text = fc.string({ unit: fc.constantFrom(...CHARACTERS), minLength: 1, maxLength: 18 });

describe('the check character of a tag, ISO 7064 MOD 37,36', () => {
  // worked example of the hybrid system, from memory; recomputed by the npm package cdigit 4.0.3 (MIT or Apache-2.0)
  it('is M for A12425GABC1234002', () => {
    expect(checkCharacter('A12425GABC1234002')).toBe('M');
    expect(mod37_36.compute('A12425GABC1234002')).toBe('M');
  });
  it('is what an independent program computes, for any text', () => {
    fc.assert(
      fc.property(text, (t) => checkCharacter(t) === mod37_36.compute(t)),
      { numRuns: 2000 },
    );
  });
  it('tells every single wrong character', () => {
    fc.assert(
      fc.property(text, fc.nat(), fc.constantFrom(...CHARACTERS), (t, at, other) => {
        const place = at % t.length;
        const wrong = t.slice(0, place) + other + t.slice(place + 1);
        return wrong === t || checkCharacter(wrong) !== checkCharacter(t);
      }),
      { numRuns: 5000 },
    );
  });
  it('refuses anything but digits and capitals', () => {
    for (const bad of ['', 'a03', 'A-03', 'Ä']) expect(() => checkCharacter(bad)).toThrow(RangeError);
  });
});

describe('a tag', () => {
  it('reads back as it was made, typed small and with spaces too', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999_999 }), (number) => {
        const made = tagText({ prefix: 'A03', number });
        expect(readTag(` ${made.toLowerCase().replace('-', ' -')} `)).toEqual({ kind: 'tag', tag: { prefix: 'A03', number } });
      }),
    );
  });
  it('with one digit misread is known to be so, with what it would be', () => {
    const tag = tagText({ prefix: 'A03', number: 17 });
    const misread = tag.replace('017', '071');
    expect(readTag(misread)).toMatchObject({ kind: 'misread', tag: { number: 71 }, expected: checkCharacter('A03071') });
  });
  it('of a team’s own kind is left alone', () => expect(readTag('DR2-1-1')).toEqual({ kind: 'other' }));
});
