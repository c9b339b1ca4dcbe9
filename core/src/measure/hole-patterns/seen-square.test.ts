import type { Place } from './best-fit';
import { drawnLonger, seenSquare } from './seen-square';

const apart = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((x, i) => x - b[i]!));

describe('a hole pattern as it is drawn', () => {
  it('lies as it was typed when it has no third coordinate', () =>
    expect(seenSquare([[3, 4, 0], [10, 4, 0]])).toEqual([[3, 4], [10, 4]])); // prettier-ignore
  it('that stands askew in space keeps all its distances, for it is seen square to its own plane', () => {
    const [cos, sin] = [Math.cos(0.7), Math.sin(0.7)];
    const flat: readonly Place[] = [[0, 0, 0], [94, 0, 0], [94, 22, 0], [47, 24, 0]]; // prettier-ignore
    // turned about x, then shifted
    const askew = flat.map(([x, y]): Place => [x + 5, y * cos - 8, y * sin + 30]);
    const seen = seenSquare(askew);
    flat.forEach((p, i) => flat.forEach((q, j) => expect(apart(seen[i]!, seen[j]!)).toBeCloseTo(apart(p, q), 9)));
    // the longer way lies across
    const width = (k: 0 | 1): number => Math.max(...seen.map((p) => p[k])) - Math.min(...seen.map((p) => p[k]));
    expect(width(0)).toBeGreaterThan(width(1));
  });
  it('of two points is a line', () => {
    const [a, b] = seenSquare([[0, 0, 1], [3, 4, 1]]); // prettier-ignore
    expect(apart(a!, b!)).toBeCloseTo(5, 12);
  });
  it('has its misfits drawn longer by a round factor', () =>
    expect([drawnLonger(0.0003, 1000, 20), drawnLonger(0.03, 1000, 20), drawnLonger(0, 1000, 20)]).toEqual([50, 1, 1]));
});
