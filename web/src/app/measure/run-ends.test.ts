import { readRoute } from './run-ends';

describe('points of a route as they are typed', () => {
  it.each([
    ['1300 -670 320', [[1.3, -0.67, 0.32]]],
    ['1300 −670 320; 500,5 -650 395', [[1.3, -0.67, 0.32], [0.5005, -0.65, 0.395]]], // prettier-ignore
    ['', []],
    [' ; ', []],
  ])('“%s” in mm', (text, points) => expect(readRoute(text)).toEqual(points));
  it.each(['1300 -670', '1300 -670 320 4', '1 m 2 3', 'front'])('“%s” is no point', (text) => expect(readRoute(text)).toBeNull());
});
