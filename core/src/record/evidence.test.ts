import { FULL_ROWS, BARE_ROWS, ROW_ID } from '../../testing/rows';
import { impliedMark, isKnowing, evidenceFor, knowingFields } from './evidence-of';
import { countRange, evidence, isMassOfAll, massSaid, massUKg, rangeText } from './evidence';
import { ENTITIES } from './entities';

const part = { id: ROW_ID.part, version: 1, ...FULL_ROWS.part };
const bare = { id: ROW_ID.part, version: 1, ...BARE_ROWS.part };

describe('how a value is known', () => {
  it('is what somebody said of it', () =>
    expect(evidenceFor('part', part, 'wallThicknessM')).toMatchObject({ mark: 'M', u: 0.00003, instrument: 'caliper 4' }));
  it('is what goes without saying where nobody did: counts are counted, dimensions measured, a price is told', () =>
    expect(
      ['quantity', 'runLengthM', 'materialId', 'boughtPrice'].map((f) => evidenceFor('part', { ...part, evidence: {} }, f)?.mark),
    ).toEqual(['C', 'M', 'S', 'T']));
  it('of a mass is its mark, uncertainty and words; of a mass that is not there, nothing', () => {
    expect(evidenceFor('part', part, 'massEachKg')).toMatchObject({ mark: 'M', u: 0.00029, typed: '164 g' });
    expect([massUKg(part), isMassOfAll(part)]).toEqual([0.00029, false]);
    const some = { massEachKg: 0.005, evidence: { massEachKg: evidence('M', { u: 0.0001, typed: 'total 60 g' }) } };
    expect([massSaid(some)?.mark, isMassOfAll(some), isMassOfAll({ evidence: {} })]).toEqual(['M', true, false]);
    expect([massSaid({ ...some, massEachKg: null }), massUKg({ ...some, massEachKg: null })]).toEqual([null, null]);
  });
  it('of nothing is nothing: an absent value is not known as zero', () => {
    for (const field of knowingFields('part').filter((f) => bare[f as keyof typeof bare] === null || bare[f as keyof typeof bare] === ''))
      expect([field, evidenceFor('part', bare, field)]).toEqual([field, null]);
    expect(evidenceFor('part', bare, 'massEachKg')).toBeNull();
  });
  it('of a field that says nothing of the kind is nothing', () =>
    expect([evidenceFor('part', part, 'sequence'), impliedMark('part', 'sequence')]).toEqual([null, null]));
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
    expect(countRange(4, evidence('C'))).toEqual([4, 4]);
  });
  it('is open above where only the least is known, and begins at one where only the most is', () => {
    expect(countRange(20, evidence('C', { low: 20 }))).toEqual([20, Infinity]);
    expect(countRange(4, evidence('C', { high: 6 }))).toEqual([1, 6]);
  });
});
