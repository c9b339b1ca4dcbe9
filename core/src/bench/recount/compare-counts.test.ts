import { recordOf, teardown } from '../../../testing/teardown';
import { blindSets, differences, recountState } from './compare-counts';

const { fastenerSets, jointSets } = recordOf(teardown('plate\n  12 M6x16 T30 8.8 -z 6 g\n  10-12 M5x12\n  34 spot lower side'));
const sets = [...fastenerSets, ...jointSets];
const counted = (a: number, b: number, c: number) =>
  sets.map((s, i) => ({ kind: i < 2 ? ('fasteners' as const) : ('joints' as const), setId: s.id, first: s.count, second: [a, b, c][i]! }));

describe('a blind recount', () => {
  it('shows what is to be counted, never how many', () => {
    const words = blindSets(fastenerSets, jointSets).map((s) => s.words);
    expect(words).toEqual(['M6x16 T30 8.8 -z', 'M5x12', 'spot']);
    expect(words.join(' ')).not.toMatch(/\b(12|10|34)\b/);
  });
  it('agrees where both found the same, and where the first was a range around it', () => {
    expect(differences(counted(12, 11, 34), sets)).toEqual([]);
    expect(recountState(counted(12, 11, 34), '', sets)).toBe('agrees');
  });
  it('names what differs, and counts what was found besides as a difference', () => {
    expect(differences(counted(11, 13, 34), sets).map((d) => [d.first, d.second])).toEqual([
      [12, 11],
      [10, 13],
    ]);
    expect(recountState(counted(12, 11, 34), '2 clips behind', sets)).toBe('differs');
  });
});
