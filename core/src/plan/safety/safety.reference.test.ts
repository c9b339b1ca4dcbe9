import { randomLcg, randomNormal } from 'd3-random';
import { capacitorDischarge } from './capacitor';
import { HAZARDS, gateFault } from './hazards';
import { hoistBalance, hullOf, outsideFraction } from './hoist-balance';
import { rigLoad } from './rig-load';
import { testId } from '../../../testing/teardown';
import type { Hoist, Unload } from '../../record';

describe('a link capacitor of 500 µF at 400 V with a bleeder of 100 kΩ', () => {
  // closed form: E = ½ C U², τ = R C, t = τ ln(U / Uₛ), worked out beside the formula
  const found = capacitorDischarge({ capacitanceF: 500e-6, voltageV: 400, resistanceOhm: 100_000, safeV: 60 });
  it('holds 40 J and is below 60 V after 94.9 s', () => {
    expect(found.energyJ).toBeCloseTo(40, 12);
    expect(found.timeConstantS).toBeCloseTo(50, 12);
    expect(found.timeToSafeS).toBeCloseTo(50 * Math.log(400 / 60), 12);
    expect(found.timeToSafeS).toBeCloseTo(94.856, 3);
    expect(found.energyAtSafeJ).toBeCloseTo(0.9, 12);
  });
  it('is at 1/e of its voltage after one time constant', () =>
    expect(capacitorDischarge({ capacitanceF: 1e-3, voltageV: 100, resistanceOhm: 1000, safeV: 100 / Math.E }).timeToSafeS).toBeCloseTo(
      1,
      12,
    ));
  it('needs no wait when it is below the safe voltage already', () =>
    expect(capacitorDischarge({ capacitanceF: 1e-3, voltageV: 48, resistanceOhm: 1000, safeV: 60 }).timeToSafeS).toBe(0));
  it('refuses a resistance of nothing', () =>
    expect(() => capacitorDischarge({ capacitanceF: 1e-3, voltageV: 48, resistanceOhm: 0, safeV: 60 })).toThrow(RangeError));
});

const FOUR = { massKg: 320, pullN: null, factor: 2, legs: 4, leanRad: Math.PI / 6, ratedN: 2000 } as const;

describe('a load on a rig', () => {
  // by hand: 2 × 320 kg × 9.80665 m/s² / (4 cos 30°) = 1811.8 N a leg
  it('shares itself among leaning legs, the factor included', () => {
    const found = rigLoad({ ...FOUR, isRigid: false });
    expect(found.bearing).toBe(4);
    expect(found.perLegN).toBeCloseTo(1811.8, 1);
    expect(found.holds).toBe(true);
    expect(found.useFraction).toBeCloseTo(0.906, 3);
  });
  // common practice, no source: legs are never all of one length, and what does not give hangs on two of them
  it('hangs on two legs of four when it is rigid: twice as much in each', () => {
    const found = rigLoad({ ...FOUR, isRigid: true });
    expect(found.bearing).toBe(2);
    expect(found.perLegN).toBeCloseTo(2 * 1811.8, 0);
    expect(found.holds).toBe(false);
    expect(rigLoad({ ...FOUR, legs: 2, isRigid: true }).bearing).toBe(2);
    expect(rigLoad({ ...FOUR, legs: 1, leanRad: 0, isRigid: true }).perLegN).toBeCloseTo(2 * 320 * 9.80665, 6);
  });
  it('is refused beyond a lean of 60°, where a leg bears twice its share', () => {
    expect(rigLoad({ ...FOUR, leanRad: Math.PI / 3, isRigid: false }).perLegN).toBeCloseTo((2 * 2 * 320 * 9.80665) / 4, 6);
    expect(() => rigLoad({ ...FOUR, leanRad: (61 * Math.PI) / 180, isRigid: false })).toThrow(/more than 60°/u);
    expect(() => rigLoad({ ...FOUR, leanRad: -0.1, isRigid: false })).toThrow(RangeError);
  });
  it('does not hold above the rating', () =>
    expect(rigLoad({ massKg: null, pullN: 9000, factor: 1.5, legs: 1, isRigid: true, leanRad: 0, ratedN: 12_000 }).holds).toBe(false));
});

const hoist = (fields: Partial<Hoist> = {}): Hoist => ({
  id: testId(1),
  version: 1,
  vehicleId: testId(2),
  resourceId: null,
  massKg: 2000,
  massUKg: 5,
  xM: 1.5,
  yM: 0,
  placeUM: 0.01,
  pads: [
    { xM: 0.5, yM: -0.8 },
    { xM: 0.5, yM: 0.8 },
    { xM: 2.5, yM: 0.8 },
    { xM: 2.5, yM: -0.8 },
  ],
  marginM: 0.1,
  ...fields,
});
const step = (label: string, massKg: number | null, xM: number, yM = 0, n = 0): Unload => ({
  ...{ id: testId(10 + n), version: 1, vehicleId: testId(2), sequence: n, label, pieceId: null, subsystemId: null },
  ...{ massKg, massUKg: massKg === null ? null : 0.5, xM, yM },
});
const lump = (u: Unload) => (u.massKg === null ? null : { massKg: u.massKg, massUKg: 0.5, xM: u.xM!, yM: u.yM!, placeUM: 0.01 });
const balance = (steps: readonly Unload[], set = hoist()) => hoistBalance(set, steps, steps.map(lump));

describe('a vehicle on a lift', () => {
  it('keeps its centre of mass where the hand calculation puts it', () => {
    // by hand: (2000·1.5 − 400·3.2) / 1600 = 1.075 m; then (1720 − 300·0.2) / 1300 = 1.276923 m
    const { steps, start, startState } = balance([step('rear axle', 400, 3.2), step('bonnet and radiator', 300, 0.2, 0, 1)]);
    expect([start.insideM, startState]).toEqual([0.8, 'stays']);
    expect(steps[0]!.after!.xM).toBeCloseTo(1.075, 12);
    expect(steps[0]!.after!.insideM).toBeCloseTo(0.575, 12);
    expect(steps[1]!.after!.xM).toBeCloseTo(1.276923, 6);
    expect(steps[1]!.after!.massKg).toBe(1300);
  });
  it('is warned of before the step that would tip it, not after', () => {
    // by hand: battery of 700 kg at 2.6 m off: (3000 − 1820) / 1300 = 0.9077; axle of 380 kg at 3.0 m: (1180 − 1140) / 920 = 0.0435 < 0.5
    const { steps, firstBad } = balance([step('battery', 700, 2.6), step('rear axle', 380, 3.0, 0, 1), step('doors', 60, 1.5, 0, 2)]);
    expect(steps.map((s) => s.state)).toEqual(['stays', 'tips', 'tips']);
    expect(steps[1]!.after!.xM).toBeCloseTo(0.0435, 4);
    expect(firstBad).toBe(1);
  });
  it('is near its limit within the margin, and tips already when two uncertainties reach the line', () => {
    expect(balance([step('lump', 1000, 2.4)]).steps[0]!.state).toBe('near');
    expect(balance([step('lump', 1000, 2.4)], hoist({ placeUM: 0.05 })).steps[0]!.state).toBe('tips');
  });
  // by simulation: the place of 200 000 vehicles drawn from its uncertainties, held against the pads
  it('gives the chance to tip over any edge that a simulation counts', () => {
    const draw = randomNormal.source(randomLcg(0.31))(0, 1);
    const hull = hullOf(hoist().pads);
    for (const [xM, yM, u, v, rho] of [
      [0.6, 0, 0.1, 0.1, 0],
      [0.55, 0.75, 0.05, 0.05, 0],
      [1.5, 0, 0.5, 0.5, 0],
      [0.7, -0.6, 0.2, 0.15, 0.7],
    ] as const) {
      let out = 0;
      for (let i = 0; i < 200_000; i++) {
        const [a, b] = [draw(), draw()];
        const x = xM + u * a;
        const y = yM + v * (rho * a + Math.sqrt(1 - rho * rho) * b);
        if (x < 0.5 || x > 2.5 || y < -0.8 || y > 0.8) out += 1;
      }
      expect(outsideFraction(hull, xM, yM, { xx: u * u, xy: rho * u * v, yy: v * v })).toBeCloseTo(out / 200_000, 2);
    }
  });
  it('is stopped from a chance of one in a hundred on, and refuses pads on one place', () => {
    // 1 % of a normal distribution lies beyond 2.326 u
    const at = (u: number) => hoistBalance(hoist({ xM: 0.5 + 0.2326, placeUM: u, massUKg: 1e-6, marginM: 0 }), [], []);
    expect(at(0.102).startState).toBe('tips');
    expect(at(0.098).startState).not.toBe('tips');
    expect(at(0.1).start.tipFraction).toBeCloseTo(0.01, 3);
    const twice = hoist({ pads: [...hoist().pads, { xM: 2.5, yM: -0.8 }] });
    expect(hoistBalance(twice, [], []).issues.map((i) => i.code)).toEqual(['pads-on-one-place']);
  });
  it('says from which step on the balance is not known', () => {
    const found = balance([step('door', 40, 1.5), step('unknown box', null, 1, 0, 1), step('seat', 30, 1, 0, 2)]);
    expect(found.steps.map((s) => s.state)).toEqual(['stays', 'unknown', 'unknown']);
    expect(found.firstBad).toBe(1);
    expect(found.issues[0]?.message).toContain('“unknown box” has no mass or no place');
  });
  it('refuses to take off more than there is', () =>
    expect(balance([step('everything', 2000, 1.5)]).issues[0]?.message).toContain('more has come off than the vehicle weighs'));
  it('moves sideways as well: 500 kg off the left brings the rest to the right', () =>
    // by hand: (0 − 500·(−0.6)) / 1500 = 0.2 m
    expect(balance([step('left side', 500, 1.5, -0.6)]).steps[0]!.after!.yM).toBeCloseTo(0.2, 12));
  it('stands on the outermost pads whatever their order', () => expect(hullOf([...hoist().pads, { xM: 1.5, yM: 0 }])).toHaveLength(4));
});

describe('readings before work', () => {
  const asked = HAZARDS.find((h) => h.id === 'high-voltage')!.gates[1]!;
  it('let work begin only within their limits', () => {
    expect(gateFault({ ...asked, value: null, said: '' })).toContain('not read yet');
    expect(gateFault({ ...asked, value: 61, said: '' })).toContain('61 V is above 60 V');
    expect(gateFault({ ...asked, value: 2, said: '' })).toBeNull();
  });
  it('let nothing pass that was answered with no', () => {
    const yes = HAZARDS.find((h) => h.id === 'hoist')!.gates[0]!;
    expect(gateFault({ ...yes, value: null, said: 'no' })).toContain('answered “no”');
    expect(gateFault({ ...yes, value: null, said: 'yes' })).toBeNull();
  });
});
