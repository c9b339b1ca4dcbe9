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
});
