import fc from 'fast-check';
import { bestFit, moved, type Place, type RigidMove } from './best-fit';
import { matchPatterns } from './match-patterns';

const turnedBy = (degrees: number, [dx, dy]: readonly [number, number]) => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return ([x, y]: Place): Place => [c * x - s * y + dx, s * x + c * y + dy, 0];
};
/** Four holes of a bracket that look alike in no other way round, m. */
const BRACKET: readonly Place[] = [[0, 0, 0], [0.08, 0, 0], [0.08, 0.05, 0], [0.01, 0.06, 0]]; // prettier-ignore

describe('the best rigid fit', () => {
  it('of points turned by 30° and shifted is that turn, closed form, with nothing left over', () => {
    const onto = BRACKET.map(turnedBy(30, [0.2, -0.1]));
    const { rows, shift, isMirrored } = bestFit(BRACKET, onto, true);
    expect(rows[0][0]).toBeCloseTo(Math.cos(Math.PI / 6), 12);
    expect(rows[0][1]).toBeCloseTo(-0.5, 12);
    expect(shift.map((x) => Number(x.toFixed(12)))).toEqual([0.2, -0.1, 0]);
    expect(isMirrored).toBe(false);
  });
  it('in space undoes any turn', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 3, maxLength: 3 }), (v) => {
        const angle = Math.hypot(...v);
        const k = angle === 0 ? [0, 0, 1] : v.map((x) => x / angle);
        const [c, s] = [Math.cos(angle), Math.sin(angle)];
        const turn = (p: Place): Place => {
          const along = (k[0]! * p[0] + k[1]! * p[1] + k[2]! * p[2]) * (1 - c);
          const cross = [k[1]! * p[2] - k[2]! * p[1], k[2]! * p[0] - k[0]! * p[2], k[0]! * p[1] - k[1]! * p[0]];
          return p.map((x, i) => x * c + cross[i]! * s + k[i]! * along + i) as unknown as Place;
        };
        const points: readonly Place[] = [[0, 0, 0], [1, 0, 0], [0, 2, 0], [0, 0, 3]]; // prettier-ignore
        const move: RigidMove = bestFit(points, points.map(turn), false);
        for (const p of points) for (const [i, x] of moved(move, p).entries()) expect(x).toBeCloseTo(turn(p)[i]!, 9);
      }),
      { numRuns: 40 },
    ));
});

describe('two patterns of holes', () => {
  const plate = [...BRACKET.map(turnedBy(200, [0.3, 0.4])), [0.5, 0.5, 0] as const, [0.1, 0.9, 0] as const];
  const shuffled = [4, 2, 0, 5, 3, 1].map((i) => plate[i]!);
  it('that are the same, turned, written in another order, with two holes more in one, would bolt on', () => {
    const fit = matchPatterns(BRACKET, shuffled, 0.0005, false);
    expect(fit.bolts).toBe(true);
    expect(fit.worstM).toBeLessThan(1e-9);
    expect(fit.points.map((p) => p.onto)).toEqual([2, 5, 1, 4]);
    expect(fit.left).toEqual([0, 3]);
  });
  it('of which one hole lies 3 mm off would not, and that point alone is named, by its whole 3 mm', () => {
    const off = shuffled.map((p, i): Place => (i === 5 ? [p[0] + 0.003, p[1], 0] : p));
    const fit = matchPatterns(BRACKET, off, 0.0005, false);
    expect(fit.bolts).toBe(false);
    expect(fit.points.filter((p) => !p.isWithin).map((p) => p.from)).toEqual([1]);
    expect(fit.points.find((p) => p.from === 1)?.residualM).toBeCloseTo(0.003, 3);
  });
  it('would bolt on when some move brings every hole within the clearance, where least squares leaves one outside', () => {
    // by hand: three holes in a row, the middle one 0.8 mm to the side; shifted by half of it all lie 0.4 mm off,
    // while least squares shifts by a third and leaves the middle one 0.53 mm off
    const row: readonly Place[] = [[0, 0, 0], [0.05, 0, 0], [0.1, 0, 0]]; // prettier-ignore
    const bent = row.map((p, i): Place => (i === 1 ? [p[0], 0.0008, 0] : p));
    expect(matchPatterns(row, bent, 0.00039, false).bolts).toBe(false);
    const fit = matchPatterns(row, bent, 0.00042, false);
    expect([fit.bolts, fit.worstM < 0.00042, fit.worstM > 0.0004 - 1e-9]).toEqual([true, true, true]);
  });
  it('that agree nowhere are told by least squares, for no half of their points comes together', () => {
    const other: readonly Place[] = [[0, 0, 0], [0.3, 0, 0], [0.1, 0.25, 0], [0.5, 0.4, 0]]; // prettier-ignore
    const fit = matchPatterns(BRACKET, other, 0.0005, false);
    expect([fit.bolts, fit.points.some((p) => p.isWithin)]).toEqual([false, false]);
  });
  it('of a left and a right part fit mirrored only', () => {
    const mirrored = BRACKET.map(([x, y]): Place => [-x, y, 0]).map(turnedBy(40, [1, 1]));
    expect(matchPatterns(BRACKET, mirrored, 0.0005, false).bolts).toBe(false);
    const fit = matchPatterns(BRACKET, mirrored, 0.0005, true);
    expect([fit.bolts, fit.move.isMirrored]).toEqual([true, true]);
  });
  it('with a point more than the other has leaves one without a partner', () => {
    const fit = matchPatterns(shuffled, BRACKET, 0.0005, false);
    expect([fit.bolts, fit.points.length]).toEqual([false, 4]);
  });
  it('of one point are refused', () => expect(() => matchPatterns([[0, 0, 0]], BRACKET, 0.001, false)).toThrow(/two points/));
});
