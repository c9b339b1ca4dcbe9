import { arrowHead, radiusOf } from './mark-shapes';

const mark = { kind: 'arrow', fromX: 0.1, fromY: 0.5, toX: 0.6, toY: 0.5, text: '' } as const;
const points = (path: string): readonly (readonly number[])[] =>
  path
    .split(/[ML]/)
    .filter(Boolean)
    .map((p) => p.trim().split(' ').map(Number));

describe('marks over a picture', () => {
  it('have an arrow head behind the point, the same on both sides', () => {
    const [up = [], tip = [], down = []] = points(arrowHead(mark, 1));
    expect(tip).toEqual([600, 500]);
    expect(up[0]).toBeLessThan(600);
    expect(up[0]).toBeCloseTo(down[0] ?? 0);
    expect(500 - (up[1] ?? 0)).toBeCloseTo((down[1] ?? 0) - 500);
  });
  it('have circles that are round as seen, whatever the picture’s proportions', () => {
    const [rx, ry] = radiusOf({ ...mark, kind: 'circle', toX: 0.2 }, 2);
    // twice as wide as high: in the stretched square the circle is twice as high as wide
    expect(ry / rx).toBeCloseTo(2);
    expect(rx).toBeCloseTo(100);
  });
});
