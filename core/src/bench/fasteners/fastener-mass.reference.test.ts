import { pitchDiameterMm } from './metric-threads';
import { hexScrewMassKg, nutMassKg, socketScrewMassKg, standardFastenerMass, washerMassKg } from './fastener-mass';
import { HEX_HEAD, HEX_NUT, PLAIN_WASHER, SOCKET_HEAD, type HeadAcrossFlats, type SocketHead, type Washer } from './standard-sizes';

const within = (kg: number, grams: number, fraction: number): void => {
  expect(Math.abs((kg * 1000) / grams - 1)).toBeLessThanOrEqual(fraction);
};
const at = <T>(table: Readonly<Record<string, T>>, key: string): T => {
  const row = table[key];
  if (row === undefined) throw new Error(`no size ${key}`);
  return row;
};

/** @source ISO 7089 / DIN 125 mass tables, g per part, from memory and recomputed; tolerance 0.5 % */
describe('plain washers', () => {
  it.each([
    ['5', 0.443],
    ['6', 1.02],
    ['8', 1.83],
    ['10', 3.57],
    ['12', 6.27],
    ['16', 11.3],
    ['20', 17.2],
  ] as const)('M%s weighs %d g', (size, grams) => {
    within(washerMassKg(at<Washer>(PLAIN_WASHER, size)), grams, 0.005);
  });
});

/** @source DIN 934 mass table, g per part, from memory; the formula leaves chamfers out; tolerance 4 % */
describe('hexagon nuts of DIN 934', () => {
  const cases: readonly (readonly [number, number, HeadAcrossFlats, number])[] = [
    [3, 0.5, { acrossFlatsMm: 5.5, heightMm: 2.4 }, 0.384],
    [4, 0.7, { acrossFlatsMm: 7, heightMm: 3.2 }, 0.81],
    [5, 0.8, { acrossFlatsMm: 8, heightMm: 4 }, 1.23],
    [6, 1, { acrossFlatsMm: 10, heightMm: 5 }, 2.5],
    [8, 1.25, { acrossFlatsMm: 13, heightMm: 6.5 }, 5.2],
    [10, 1.5, { acrossFlatsMm: 17, heightMm: 8 }, 11.6],
    [12, 1.75, { acrossFlatsMm: 19, heightMm: 10 }, 17.3],
    [16, 2, { acrossFlatsMm: 24, heightMm: 13 }, 33.3],
    [20, 2.5, { acrossFlatsMm: 30, heightMm: 16 }, 64.4],
    [24, 3, { acrossFlatsMm: 36, heightMm: 19 }, 110],
  ];
  it.each(cases)('M%d', (d, pitch, size, grams) => within(nutMassKg(size, pitchDiameterMm(d, pitch)), grams, 0.04));
});

/** @source ISO 4032 sizes; masses computed by hand from them, g */
describe('hexagon nuts of ISO 4032, as the catalogue has them', () => {
  it.each([
    ['5', 0.8, 1.46],
    ['6', 1, 2.62],
    ['8', 1.25, 5.65],
    ['10', 1.5, 10.4],
    ['12', 1.75, 15.93],
    ['16', 2, 38.23],
  ] as const)('M%s', (size, pitch, grams) => {
    within(nutMassKg(at<HeadAcrossFlats>(HEX_NUT, size), pitchDiameterMm(Number(size), pitch)), grams, 0.005);
  });
});

/** @source ISO 4762 mass table, g per part, from memory; tolerance 5 % */
describe('socket cap screws', () => {
  it.each([
    ['6', 1, 16, 5.75],
    ['6', 1, 20, 6.53],
    ['8', 1.25, 20, 13.4],
    ['8', 1.25, 30, 16.9],
    ['10', 1.5, 30, 27.9],
  ] as const)('M%s, pitch %d, %d long', (size, pitch, length, grams) => {
    within(socketScrewMassKg(at<SocketHead>(SOCKET_HEAD, size), pitchDiameterMm(Number(size), pitch), length), grams, 0.05);
  });
});

/** @source ISO 4017 / DIN 933 mass table, g per part, from memory; tolerance 2 % */
describe('hexagon head screws', () => {
  it.each([
    ['8', 1.25, 20, 12.3],
    ['8', 1.25, 30, 15.7],
  ] as const)('M%s, pitch %d, %d long', (size, pitch, length, grams) => {
    within(hexScrewMassKg(at<HeadAcrossFlats>(HEX_HEAD, size), pitchDiameterMm(Number(size), pitch), length), grams, 0.02);
  });
});

/** @source ISO 724: M6 has a pitch diameter of 5.350 mm, M10 of 9.026 mm */
describe('pitch diameters', () => {
  it.each([
    [6, 1, 5.35],
    [10, 1.5, 9.026],
  ] as const)('M%d', (d, pitch, d2) => expect(pitchDiameterMm(d, pitch)).toBeCloseTo(d2, 3));
});

describe('the mass of a fastener that was not weighed', () => {
  const m6 = { kind: 'bolt', threadM: 0.006, pitchM: null, lengthM: 0.016, drive: 'H5' } as const;
  it('is inferred from standard sizes, never called measured', () => {
    expect(standardFastenerMass(m6)).toMatchObject({ mark: 'I', kg: expect.closeTo(0.00601, 5) as number });
  });
  it('is less certain when the drive does not say what the head looks like', () => {
    const known = standardFastenerMass(m6);
    const unknown = standardFastenerMass({ ...m6, drive: 'T30' });
    expect(unknown?.uKg).toBeGreaterThan(3 * (known?.uKg ?? 0));
  });
  it('stays unknown for a clip, a thread that is in no table, or a bolt without length', () => {
    expect(standardFastenerMass({ ...m6, kind: 'clip' })).toBeNull();
    expect(standardFastenerMass({ ...m6, threadM: 0.0061 })).toBeNull();
    expect(standardFastenerMass({ ...m6, lengthM: null })).toBeNull();
  });
});
