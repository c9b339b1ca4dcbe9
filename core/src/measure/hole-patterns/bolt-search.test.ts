import fc from 'fast-check';
import { apart, bestFit, moved, type Freedom, type Place } from './best-fit';
import { boltSearch } from './bolt-search';
import { moveWithin, nearest } from './move-within';

const FLAT: Freedom = { isMirrored: false, isFlat: true };
const SPACE: Freedom = { isMirrored: false, isFlat: false };
const mm = (...points: readonly (readonly [number, number, number?])[]): readonly Place[] =>
  points.map(([x, y, z = 0]): Place => [x / 1000, y / 1000, z / 1000]);
/** Turned about the origin and shifted, in the plane. */
const turned = (points: readonly Place[], degrees: number): readonly Place[] => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return points.map(([x, y, z]): Place => [c * x - s * y + 0.3, s * x + c * y - 0.2, z]);
};
/** Four holes that look alike in no other way round. */
const BRACKET = mm([0, 0], [80, 0], [80, 50], [10, 60]);

describe('the search for a way to bolt on', () => {
  it('finds the pairs and the move, whatever else is there', () => {
    const onto = [...turned(BRACKET, 200), [0.5, 0.5, 0] as const, [0.1, 0.9, 0] as const];
    const { bolted, isWhole } = boltSearch(
      BRACKET,
      [4, 2, 0, 5, 3, 1].map((i) => onto[i]!),
      0.0005,
      FLAT,
    );
    expect([bolted?.pairs, isWhole]).toEqual([[[0, 2], [1, 5], [2, 1], [3, 4]], true]); // prettier-ignore
    expect(bolted!.worstM).toBeLessThan(1e-9);
  });
  it('takes the better of two ways round', () => {
    // a rectangle fits two ways; one hole of the other is 0.3 mm off, which the right way round spares the most
    const rectangle = mm([0, 0], [100, 0], [100, 60], [0, 60]);
    const other = mm([0.3, 0], [100, 0.2], [100, 60], [0, 60]);
    const { bolted } = boltSearch(rectangle, other, 0.0005, FLAT);
    const ways = [[0, 1, 2, 3], [2, 3, 0, 1]].map((way) => nearest(way.map((k, i) => ({ from: rectangle[i]!, onto: other[k]! })), Number.POSITIVE_INFINITY, FLAT).worstM); // prettier-ignore
    expect(bolted!.worstM).toBeCloseTo(Math.min(...ways), 5);
  });
  it('finds none, and says that there is none, for a hole that is 1.2 mm off, and for more holes than there are', () => {
    const off = turned(mm([0, 0], [80, 1.2], [80, 50], [10, 60]), 30);
    expect(boltSearch(BRACKET, off, 0.0003, FLAT)).toEqual({ bolted: null, isWhole: true });
    expect(boltSearch([...BRACKET, [1, 1, 0]], BRACKET, 0.0005, FLAT)).toEqual({ bolted: null, isWhole: true });
  });
  it('holds to the clearance to the last digit: two holes 100 and 100.8 mm apart bolt on at 0.4 mm and not at 0.399', () => {
    const [a, b] = [mm([0, 0], [100, 0]), mm([0, 0], [100.8, 0])];
    expect(boltSearch(a, b, 0.0004, FLAT).bolted?.worstM).toBeCloseTo(0.0004, 9);
    expect(boltSearch(a, b, 0.000399, FLAT)).toEqual({ bolted: null, isWhole: true });
  });
  it('rules out most pairings of forty holes by the distances between them, so that every one is tried', () => {
    const ring = (stretch: number): readonly Place[] =>
      Array.from({ length: 40 }, (_, i): Place => [0.2 * stretch * Math.cos((i * Math.PI) / 20), 0.2 * Math.sin((i * Math.PI) / 20), 0]);
    expect(boltSearch(ring(1), ring(1.01), 0.0005, FLAT)).toEqual({ bolted: null, isWhole: true });
  });
  it('stops where a clearance lets holes be paired in too many ways, and says so', () => {
    const grid = Array.from({ length: 16 }, (_, i): Place => [(i % 4) / 100, Math.floor(i / 4) / 100, 0]);
    const other = grid.map(([x, y], i): Place => [x + (((i * 7) % 5) - 2) / 100, y + (((i * 3) % 5) - 2) / 100, 0]);
    expect(boltSearch(grid, other, 0.02, FLAT).isWhole).toBe(false);
  });
});

describe('the move whose largest distance is smallest', () => {
  it('shares what is off between both ends, and knows that nothing is better', () => {
    const pairs = [mm([0, 0], [0, 0]), mm([100, 0], [100.8, 0])].map(([from, onto]) => ({ from: from!, onto: onto! }));
    const { worstM, boundM, distances } = nearest(pairs, 0.001, FLAT);
    expect([worstM, boundM, ...distances].map((x) => Number((x * 1000).toFixed(3)))).toEqual([0.4, 0.4, 0.4, 0.4]);
  });
  it('is bounded from below by its weighted fits: no move near it is better', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -1, max: 1 }), fc.integer({ min: -1, max: 1 })), { minLength: 4, maxLength: 4 }),
        fc.double({ min: -1e-3, max: 1e-3, noNaN: true }),
        fc.double({ min: -5e-4, max: 5e-4, noNaN: true }),
        (offs, turn, shift) => {
          const onto = BRACKET.map(([x, y], i): Place => [x + offs[i]![0] * 4e-4, y + offs[i]![1] * 4e-4, 0]);
          const pairs = BRACKET.map((from, i) => ({ from, onto: onto[i]! }));
          // with no clearance to hold to, the search goes on until its bound is met
          const { boundM } = nearest(pairs, Number.POSITIVE_INFINITY, FLAT);
          const worst = Math.max(...BRACKET.map(([x, y], i) => apart([x - turn * y + shift, y + turn * x - shift, 0], onto[i]!)));
          expect(worst).toBeGreaterThanOrEqual(boundM * (1 - 1e-6) - 1e-9);
        },
      ),
      { numRuns: 200, seed: 3 },
    ));
});

describe('the move that brings most holes together', () => {
  const pairsOf = (onto: readonly Place[]): { from: Place; onto: Place }[] => onto.map((to, i) => ({ from: PLATE[i]!, onto: to }));
  const PLATE = mm([0, 0], [40, 3], [80, 0], [83, 50], [10, 60], [45, 90], [95, 20]);
  it('leaves out the holes that are out of place, and those alone', () => {
    const off = turned(PLATE, 70).map((p, i): Place => (i === 2 || i === 5 ? [p[0] + 0.004, p[1] - 0.003, 0] : p));
    const move = moveWithin(pairsOf(off), 0.0005, FLAT)!;
    expect(PLATE.map((p, i) => apart(moved(move, p), off[i]!) < 0.0005)).toEqual([true, true, false, true, true, false, true]);
  });
  it('is none where fewer than half come together, or fewer than are asked for', () => {
    const wild = PLATE.map(([x, y], i): Place => [x + i * i * 0.003, y - i * 0.007, 0]);
    expect(moveWithin(pairsOf(wild), 0.0002, FLAT)).toBeNull();
    const off = PLATE.map((p, i): Place => (i === 0 ? [p[0] + 0.01, p[1], 0] : p));
    expect(moveWithin(pairsOf(off), 0.0005, FLAT, 6)).not.toBeNull();
    expect(moveWithin(pairsOf(off), 0.0005, FLAT, 7)).toBeNull();
    expect(moveWithin(pairsOf(PLATE), 0.0005, FLAT, 8)).toBeNull();
  });
});

describe('the best rigid fit', () => {
  it('weighs pairs: one that weighs nothing is not looked at', () => {
    const off = turned(BRACKET, 30).map((p, i): Place => (i === 3 ? [p[0] + 0.01, p[1], 0] : p));
    for (const freedom of [FLAT, SPACE]) {
      const move = bestFit(BRACKET, off, freedom, [1, 1, 1, 0]);
      for (const i of [0, 1, 2]) expect(apart(moved(move, BRACKET[i]!), off[i]!)).toBeLessThan(1e-9);
      expect(apart(moved(move, BRACKET[3]!), off[3]!)).toBeCloseTo(0.01, 9);
    }
  });
  it('moves one point onto another without a turn', () => {
    const { rows, shift } = bestFit(mm([10, 20]), mm([30, 50]), FLAT);
    expect([rows, shift.map((x) => Number(x.toFixed(9)))]).toEqual([[[1, -0, 0], [0, 1, 0], [0, 0, 1]], [0.02, 0.03, 0]]); // prettier-ignore
  });
  it('is a turn of its own hand in space, mirrored only where it may be', () => {
    const corner = mm([0, 0, 0], [100, 0, 0], [0, 200, 0], [0, 0, 300]);
    const left = corner.map(([x, y, z]): Place => [-x + 0.1, y, z - 0.2]);
    const mirrored = bestFit(corner, left, { isMirrored: true, isFlat: false });
    for (const [i, p] of corner.entries()) expect(apart(moved(mirrored, p), left[i]!)).toBeLessThan(1e-9);
    const hand = (m: readonly (readonly number[])[]): number => {
      const [[a, b, c], [d, e, f], [g, h, i]] = m as [[number, number, number], [number, number, number], [number, number, number]];
      return a * e * i + b * f * g + c * d * h - c * e * g - b * d * i - a * f * h;
    };
    expect(hand(mirrored.rows)).toBeCloseTo(-1, 9);
    expect(hand(bestFit(corner, left, SPACE).rows)).toBeCloseTo(1, 9);
  });
  it('needs as many points on both sides, one at least', () => {
    expect(() => bestFit(BRACKET, BRACKET.slice(1), FLAT)).toThrow(/as many points on both sides/);
    expect(() => bestFit([], [], FLAT)).toThrow(/one at least/);
  });
});
