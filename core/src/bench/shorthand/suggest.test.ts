import { recordOf, teardown } from '../../../testing/teardown';
import { suggest, takeSuggestion, wordBook } from './suggest';

const BOOK = wordBook(recordOf(teardown('bracket, hose guide\nbracket, cable guide\nroller carriage, upper\nroller carriage, lower')));
const texts = (line: string): readonly string[] => suggest(BOOK, line, line.length).map((s) => s.text);

describe('typing help', () => {
  it('goes on with the words of the study, the most used first', () => {
    expect(texts('2x brac')[0]).toBe('bracket');
    expect(texts('roller c')).toEqual([]);
    expect(texts('carr')[0]).toBe('carriage');
  });
  it('knows abbreviations by their letters', () => expect(texts('brkt')).toContain('bracket'));
  it('leads from a synonym to the word of the glossary', () => {
    expect(suggest(BOOK, 'upper bushing', 13)[0]).toMatchObject({ text: 'bush', why: 'for bushing', start: 6 });
    expect(texts('bushin')[0]).toBe('bush');
  });
  it('knows materials, processes and the words of the shorthand', () => {
    expect(texts('pa66-g')).toContain('pa66-gf30');
    expect(texts('secon')).toContain('secondary lock');
  });
  it('keeps quiet about figures, tags, one letter, and a word that is whole', () => {
    for (const line of ['41', '#A03', 'b', '~1', 'epdm ', '>']) expect(texts(line)).toEqual([]);
  });
  it('takes the place of the word, wherever it stands in the line', () => {
    const line = '2x brac pa66 41 g';
    const [first] = suggest(BOOK, line, 7);
    expect(takeSuggestion(line, first!)).toEqual({ line: '2x bracket pa66 41 g', cursor: 11 });
  });
  it('offers at most six', () => expect(texts('st').length).toBeLessThanOrEqual(6));
  describe('for what holds a part', () => {
    const book = wordBook(
      recordOf(teardown('plate 41 g\n4 M6x16 T30 8.8 -z 6.1 g\n2 M6x16 T30 8.8 -z\n3 M6x20 T30 8.8 -z\n2 nut M8 SW13')),
    );
    const sets = (line: string): readonly string[] => suggest(book, line, line.length).map((s) => s.text);
    it('offers the sets of the study that go on so, the most used first, without count and mass', () => {
      expect(sets('4 M6')).toEqual(['M6x16 T30 8.8 -z', 'M6x20 T30 8.8 -z']);
      expect(sets('12x m6x2')).toEqual(['M6x20 T30 8.8 -z']);
      expect(sets('1 nu')[0]).toBe('nut M8 SW13');
    });
    it('puts the set behind the count that was typed', () => {
      const [first] = suggest(book, '4 M6', 4);
      expect(takeSuggestion('4 M6', first!)).toEqual({ line: '4 M6x16 T30 8.8 -z ', cursor: 19 });
    });
    it('keeps quiet where nothing goes on so, and once a set is whole', () =>
      expect([sets('4 M9'), sets('4 M6x20 T30 8.8 -z'), sets('plate M6')]).toEqual([[], [], []]));
  });
});
