import { FULL_ROWS, BARE_ROWS, ROW_ID } from '../../testing/rows';
import { impliedMark, isKnowing, knownAs, knowingFields } from './evidence-of';
import { countRange, known, rangeText } from './known';
import { ENTITIES } from './entities';

const piece = { id: ROW_ID.piece, version: 1, ...FULL_ROWS.piece };
const bare = { id: ROW_ID.piece, version: 1, ...BARE_ROWS.piece };

describe('how a value is known', () => {
  it('is what somebody said of it', () =>
    expect(knownAs('piece', piece, 'wallThicknessM')).toMatchObject({ mark: 'M', u: 0.00003, instrument: 'caliper 4' }));
  it('is what goes without saying where nobody did: counts are counted, dimensions measured, a price is told', () =>
    expect(['quantity', 'runLengthM', 'materialId', 'boughtPrice'].map((f) => knownAs('piece', { ...piece, known: {} }, f)?.mark)).toEqual([
      'C',
      'M',
      'S',
      'T',
    ]));
  it('of a mass is its own mark, uncertainty and words, whatever else was said', () => {
    expect(knownAs('piece', piece, 'massEachKg')).toMatchObject({ mark: 'M', u: 0.00029, typed: '164 g' });
    const said = { ...piece, known: { massEachKg: known('T', { instrument: 'Bench scale' }) } };
    expect(knownAs('piece', said, 'massEachKg')).toMatchObject({ mark: 'M', u: 0.00029, instrument: 'Bench scale' });
  });
  it('of nothing is nothing: an absent value is not known as zero', () => {
    for (const field of knowingFields('piece').filter((f) => bare[f as keyof typeof bare] === null || bare[f as keyof typeof bare] === ''))
      expect([field, knownAs('piece', bare, field)]).toEqual([field, null]);
    expect(knownAs('piece', bare, 'massEachKg')).toBeNull();
  });
  it('of a field that says nothing of the kind is nothing', () =>
    expect([knownAs('piece', piece, 'sequence'), impliedMark('piece', 'sequence')]).toEqual([null, null]));
  it.each(ENTITIES.filter(isKnowing).map((entity) => [entity] as const))(
    '%s: every field that says how it is known is one it has',
    (entity) => {
      for (const field of knowingFields(entity)) expect([field, field in FULL_ROWS[entity]]).toEqual([field, true]);
    },
  );
});

describe('a range', () => {
  it.each([
    [{ low: 2, high: 3 }, '2 to 3'],
    [{ low: 20, high: null }, 'at least 20'],
    [{ low: null, high: 6 }, 'at most 6'],
    [{ low: null, high: null }, null],
  ])('%j is told as %s', (range, text) => expect(rangeText(range)).toBe(text));
  it('of a count is the count itself where nothing was said', () => {
    expect(countRange(4, undefined)).toEqual([4, 4]);
    expect(countRange(4, known('C'))).toEqual([4, 4]);
  });
  it('is open above where only the least is known, and begins at one where only the most is', () => {
    expect(countRange(20, known('C', { low: 20 }))).toEqual([20, Infinity]);
    expect(countRange(4, known('C', { high: 6 }))).toEqual([1, 6]);
  });
});
