import { measuredText } from './part-words';

describe('what was measured, in the words of the history', () => {
  it.each([
    ['dimensions', { width: 0.034, outerRadius: 0.0025 }, 'width 34 mm, outer radius 2.5 mm'],
    ['cues', ['parting-line', 'draft'], 'parting line, draft'],
    ['readings', [[[0.001, null]], [[0.002, 0.003]]], '3 of 4 taken'],
    ['elements', { Si: { fraction: 0.104, u: 0.002 }, Al: { fraction: 0.8862, u: 0.003 } }, 'Al 88.6 %, Si 10.4 %'],
    [
      'figures',
      { volumeM3: 20.87e-6, smallestM: [0.118, 0.086, 0.042], openEdges: 0 },
      'volume 20.87 cm³, smallest box 118 × 86 × 42 mm, watertight',
    ],
    [
      'figures',
      { volumeM3: null, smallestM: [0.1, 0.1, 0], openEdges: 4 },
      'encloses nothing, smallest box 100 × 100 × 0 mm, 4 open edges',
    ],
  ])('%s', (field, value, words) => expect(measuredText(field, value)).toBe(words));
  it('leaves other fields alone', () => expect(measuredText('calendar', {})).toBeNull());
});
