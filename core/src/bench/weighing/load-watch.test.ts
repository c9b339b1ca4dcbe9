import { isEmpty, isSameLoad, watchLoad, type TakenLoad } from './load-watch';

/** A scale of 6 kg that reads to 0.1 g: u = 0.1 g, so that two readings of one load differ by less than 0.28 g, 19 times of 20. */
const MOST_KG = 6;
const read = (value: number | null): { readonly value: number | null; readonly u: number } => ({ value, u: 0.0001 });
const TAKEN: TakenLoad = { partId: 'bracket', count: 1, valueKg: 0.492 };

describe('a load on the scale', () => {
  it('is the one taken before while it weighs the same and was not lifted off', () => {
    expect(isSameLoad(TAKEN, read(0.492))).toBe(true);
    expect(isSameLoad(TAKEN, read(0.4922))).toBe(true);
    expect(isSameLoad(TAKEN, read(0.4923))).toBe(false);
    expect(isSameLoad(TAKEN, read(0.533))).toBe(false);
    expect(isSameLoad(TAKEN, read(null))).toBe(false);
    expect(isSameLoad(null, read(0.492))).toBe(false);
  });
  it('is forgotten once the scale stands empty, or was set to nothing with the load on it', () => {
    expect(watchLoad(TAKEN, read(0.533), MOST_KG)).toBe(TAKEN);
    expect(watchLoad(TAKEN, read(null), MOST_KG)).toBe(TAKEN);
    expect(watchLoad(TAKEN, read(0), MOST_KG)).toBeNull();
    // it may not come to rest at nothing before the next is put on
    expect([watchLoad(TAKEN, read(0.247), MOST_KG), watchLoad(TAKEN, read(0.245), MOST_KG)]).toEqual([TAKEN, null]);
    expect(watchLoad(TAKEN, read(-0.492), MOST_KG)).toBeNull();
    expect(watchLoad(null, read(0.492), MOST_KG)).toBeNull();
  });
  it('is nothing below a fifty-thousandth of the range', () => {
    expect([isEmpty(read(0.00011), MOST_KG), isEmpty(read(0.00013), MOST_KG), isEmpty(read(null), MOST_KG)]).toEqual([true, false, false]);
  });
});
