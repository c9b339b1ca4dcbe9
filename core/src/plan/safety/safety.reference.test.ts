import { randomLcg, randomNormal } from 'd3-random';
import { capacitorDischarge } from './capacitor';
import { HAZARDS, holdPointFault } from './hazards';
import { liftBalance, hullOf, lumpOf, outsideFraction } from './lift-balance';
import { rigLoad } from './rig-load';
import { testId } from '../../../testing/teardown';
import { blank, type LiftSetUp, type LiftStep } from '../../record';

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
  it('refuses a capacitance, a voltage or a resistance of nothing', () => {
    for (const none of ['capacitanceF', 'voltageV', 'resistanceOhm', 'safeV'])
      expect(() => capacitorDischarge({ capacitanceF: 1e-3, voltageV: 400, resistanceOhm: 1000, safeV: 60, [none]: 0 })).toThrow(
        'must be above 0',
      );
  });
  it('below the safe voltage holds at the end what it holds now', () =>
    expect(capacitorDischarge({ capacitanceF: 1e-3, voltageV: 48, resistanceOhm: 1000, safeV: 60 }).energyAtSafeJ).toBeCloseTo(1.152, 12));
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
  it('does not hold above the rating, and does at it', () => {
    const pull = { massKg: null, pullN: 9000, factor: 1.5, legs: 1, isRigid: true, leanRad: 0 };
    expect(rigLoad({ ...pull, ratedN: 12_000 }).holds).toBe(false);
    expect(rigLoad({ ...pull, ratedN: 13_500 })).toMatchObject({ holds: true, useFraction: 1, perLegN: 13_500, bearing: 1 });
  });
  it('needs a load, a leg, a rating, and a factor that takes nothing away', () => {
    for (const wrong of [{ massKg: 0 }, { massKg: null }, { legs: 0 }, { ratedN: 0 }, { factor: 0.9 }])
      expect(() => rigLoad({ ...FOUR, isRigid: false, ...wrong })).toThrow('a load needs a mass or pull');
    expect(rigLoad({ ...FOUR, factor: 1, legs: 1, leanRad: 0, isRigid: false }).perLegN).toBeCloseTo(320 * 9.80665, 9);
  });
  it('of three legs hangs on two when it is rigid, and on three when it gives', () => {
    expect(rigLoad({ ...FOUR, legs: 3, isRigid: true }).bearing).toBe(2);
    expect(rigLoad({ ...FOUR, legs: 3, isRigid: false }).bearing).toBe(3);
  });
});

const liftSetUp = (fields: Partial<LiftSetUp> = {}): LiftSetUp => ({
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
const step = (label: string, massKg: number | null, xM: number, yM = 0, n = 0): LiftStep => ({
  ...{ id: testId(10 + n), version: 1, vehicleId: testId(2), sequence: n, label, partId: null, subsystemId: null },
  ...{ massKg, massUKg: massKg === null ? null : 0.5, xM, yM },
});
const lump = (u: LiftStep) => (u.massKg === null ? null : { massKg: u.massKg, massUKg: 0.5, xM: u.xM!, yM: u.yM!, placeUM: 0.01 });
const balance = (steps: readonly LiftStep[], set = liftSetUp()) => liftBalance(set, steps, steps.map(lump));

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
    expect(balance([step('lump', 1000, 2.4)], liftSetUp({ placeUM: 0.05 })).steps[0]!.state).toBe('tips');
  });
  // by simulation: the place of 60 000 vehicles drawn from its uncertainties, held against the pads
  it('gives the chance to tip over any edge that a simulation counts', () => {
    const draw = randomNormal.source(randomLcg(0.31))(0, 1);
    const hull = hullOf(liftSetUp().pads);
    for (const [xM, yM, u, v, rho] of [
      [0.6, 0, 0.1, 0.1, 0],
      [0.55, 0.75, 0.05, 0.05, 0],
      [1.5, 0, 0.5, 0.5, 0],
      [0.7, -0.6, 0.2, 0.15, 0.7],
    ] as const) {
      let out = 0;
      for (let i = 0; i < 60_000; i++) {
        const [a, b] = [draw(), draw()];
        const x = xM + u * a;
        const y = yM + v * (rho * a + Math.sqrt(1 - rho * rho) * b);
        if (x < 0.5 || x > 2.5 || y < -0.8 || y > 0.8) out += 1;
      }
      expect(outsideFraction(hull, xM, yM, { xx: u * u, xy: rho * u * v, yy: v * v })).toBeCloseTo(out / 60_000, 2);
    }
  });
  // by simulation: 60 000 times every mass and place is drawn from its uncertainty, and the rest put together again
  it('is as unsure of its place, and as likely to tip, as masses and places drawn from their uncertainties say', () => {
    const draw = randomNormal.source(randomLcg(0.77))(0, 1);
    const set = liftSetUp({ massUKg: 40, placeUM: 0.06, xM: 1.2 });
    const off = [step('axle', 500, 2.6, 0.3), step('battery', 600, 1.7, -0.2, 1)];
    const lumps = off.map((u) => ({ massKg: u.massKg!, massUKg: 30, xM: u.xM!, yM: u.yM!, placeUM: 0.08 }));
    const after = liftBalance(set, off, lumps).steps[1]!.after!;
    const runs = 60_000;
    let [sum, squares, out] = [0, 0, 0];
    for (let i = 0; i < runs; i++) {
      let m = set.massKg + set.massUKg * draw();
      let [mx, my] = [m * (set.xM + set.placeUM * draw()), m * (set.yM + set.placeUM * draw())];
      for (const l of lumps) {
        const taken = l.massKg + l.massUKg * draw();
        mx -= taken * (l.xM + l.placeUM * draw());
        my -= taken * (l.yM + l.placeUM * draw());
        m -= taken;
      }
      const [x, y] = [mx / m, my / m];
      // the line between the two front pads is the nearest
      sum += x - 0.5;
      squares += (x - 0.5) ** 2;
      if (x < 0.5 || x > 2.5 || y < -0.8 || y > 0.8) out += 1;
    }
    const mean = sum / runs;
    // by hand: (2000·1.2 − 500·2.6 − 600·1.7) / 900 = 0.0889 m: far outside the front pads
    expect(after.xM).toBeCloseTo(80 / 900, 9);
    expect(after.insideM).toBeCloseTo(80 / 900 - 0.5, 9);
    expect(mean).toBeCloseTo(after.insideM, 1);
    // first order: within 5 % of the simulation
    expect(after.uM / Math.sqrt(squares / runs - mean * mean)).toBeGreaterThan(0.95);
    expect(after.uM / Math.sqrt(squares / runs - mean * mean)).toBeLessThan(1.05);
    expect(Math.abs(after.tipFraction - out / runs)).toBeLessThan(0.005);
  });
  it('of which only the engine and gearbox come off tips as often as the simulation counts', () => {
    const draw = randomNormal.source(randomLcg(0.13))(0, 1);
    const set = liftSetUp({ massUKg: 20, placeUM: 0.05 });
    const off = [step('drive unit', 700, 2.35, 0.1)];
    const lumps = [{ massKg: 700, massUKg: 60, xM: 2.35, yM: 0.1, placeUM: 0.1 }];
    const after = liftBalance(set, off, lumps).steps[0]!.after!;
    const runs = 60_000;
    let out = 0;
    for (let i = 0; i < runs; i++) {
      const [m, taken] = [2000 + 20 * draw(), 700 + 60 * draw()];
      const x = (m * (1.5 + 0.05 * draw()) - taken * (2.35 + 0.1 * draw())) / (m - taken);
      if (x < 0.85) out += 1;
    }
    const narrow = set.pads.map((pad) => ({ ...pad, xM: Math.max(pad.xM, 0.85) }));
    const found = liftBalance(liftSetUp({ massUKg: 20, placeUM: 0.05, pads: narrow }), off, lumps).steps[0]!.after!;
    // three standard deviations of the count; to first order alone it would be 0.009 off
    expect(Math.abs(found.tipFraction - out / runs)).toBeLessThan(0.003);
    expect(found.tipFraction).toBeGreaterThan(0.02);
    expect(after.tipFraction).toBeLessThan(found.tipFraction);
  });
  it('on three pads tips over the sloping sides too', () => {
    // pads at (0, −1), (0, 1), (2, 0): the sides slope by ½; the place (0.5, 0.7) lies 0.05 · 2/√5 inside one of them
    const three = [{ xM: 0, yM: -1 }, { xM: 0, yM: 1 }, { xM: 2, yM: 0 }]; // prettier-ignore
    const { start } = liftBalance(liftSetUp({ pads: three, xM: 0.5, yM: 0.7, massUKg: 1e-9, placeUM: 0.02 }), [], []);
    expect(start.insideM).toBeCloseTo(0.1 / Math.sqrt(5), 9);
    expect(start.uM).toBeCloseTo(0.02, 6);
    // one side alone: Φ(−0.0447 / 0.02)
    expect(start.tipFraction).toBeCloseTo(0.01267, 4);
  });
  it('without any uncertainty stands or tips, nothing between; on two pads it does not stand', () => {
    const hull = hullOf(liftSetUp().pads);
    expect(outsideFraction(hull, 0.6, 0, { xx: 0, xy: 0, yy: 0 })).toBe(0);
    expect(outsideFraction(hull, 0.4, 0, { xx: 0, xy: 0, yy: 0 })).toBe(1);
    expect(outsideFraction(hull, 2.6, 0, { xx: 0, xy: 0, yy: 0.01 })).toBe(1);
    expect(outsideFraction(hull.slice(0, 2), 1, 0, { xx: 0.01, xy: 0, yy: 0.01 })).toBe(1);
  });
  it('needs pads that do not stand in one line', () => {
    const line = [0.5, 1, 2].map((xM) => ({ xM, yM: 0.3 }));
    expect(liftBalance(liftSetUp({ pads: line }), [], []).issues.map((i) => i.code)).toEqual(['pads-in-line']);
    expect(balance([]).issues).toEqual([]);
    expect(balance([]).firstBad).toBeNull();
  });
  it('takes what is typed of a step before what is recorded, a place whole or not at all', () => {
    const part = {
      ...blank('part', { vehicleId: testId(2), subsystemId: null, parentId: null }),
      id: testId(40),
      version: 1,
      xM: 1.1,
      yM: 0.2,
    };
    const untyped = { ...step('axle', null, 0), xM: null, yM: null };
    expect(lumpOf(untyped, part, 180, 3)).toEqual({ massKg: 180, massUKg: 3, xM: 1.1, yM: 0.2, placeUM: 0.05 });
    expect(lumpOf({ ...untyped, massKg: 190, massUKg: 9 }, part, 180, 3)).toMatchObject({ massKg: 190, massUKg: 9, xM: 1.1 });
    expect(lumpOf({ ...untyped, xM: 3, yM: 0 }, part, 180, 3)).toMatchObject({ xM: 3, yM: 0 });
    expect(lumpOf(untyped, part, 180, null)?.massUKg).toBe(0);
    expect(lumpOf(untyped, part, null, null)).toBeNull();
    expect(lumpOf(untyped, null, 180, 3)).toBeNull();
    expect(lumpOf(untyped, { ...part, yM: null }, 180, 3)).toBeNull();
  });
  it('is stopped from a chance of one in a hundred on, and refuses pads on one place', () => {
    // 1 % of a normal distribution lies beyond 2.326 u
    const at = (u: number) => liftBalance(liftSetUp({ xM: 0.5 + 0.2326, placeUM: u, massUKg: 1e-6, marginM: 0 }), [], []);
    expect(at(0.102).startState).toBe('tips');
    expect(at(0.098).startState).not.toBe('tips');
    expect(at(0.1).start.tipFraction).toBeCloseTo(0.01, 3);
    const twice = liftSetUp({ pads: [...liftSetUp().pads, { xM: 2.5, yM: -0.8 }] });
    expect(liftBalance(twice, [], []).issues.map((i) => i.code)).toEqual(['pads-on-one-place']);
  });
  it('says from which step on the balance is not known', () => {
    const found = balance([step('door', 40, 1.5), step('unknown box', null, 1, 0, 1), step('seat', 30, 1, 0, 2)]);
    expect(found.steps.map((s) => s.state)).toEqual(['stays', 'unknown', 'unknown']);
    expect(found.firstBad).toBe(1);
    expect(found.issues[0]?.message).toContain('“unknown box” has no mass or no place');
    expect(found.issues).toHaveLength(1);
    expect(found.steps.map((s) => s.after === null)).toEqual([false, true, true]);
  });
  it('refuses to take off more than there is, also in parts', () => {
    expect(balance([step('everything', 2000, 1.5)]).issues[0]?.message).toContain('more has come off than the vehicle weighs');
    const parts = balance([step('front', 1200, 1.5), step('rear', 900, 1.5, 0, 1), step('rest', 1, 1.5, 0, 2)]);
    expect(parts.steps.map((s) => s.state)).toEqual(['stays', 'unknown', 'unknown']);
    expect(parts.issues.map((i) => [i.code, i.recordId])).toEqual([['more-than-all', testId(11)]]);
  });
  it('moves sideways as well: 500 kg off the left brings the rest to the right', () =>
    // by hand: (0 − 500·(−0.6)) / 1500 = 0.2 m
    expect(balance([step('left side', 500, 1.5, -0.6)]).steps[0]!.after!.yM).toBeCloseTo(0.2, 12));
  it('stands on the outermost pads whatever their order', () => expect(hullOf([...liftSetUp().pads, { xM: 1.5, yM: 0 }])).toHaveLength(4));
});

describe('hold points', () => {
  const asked = HAZARDS.find((h) => h.id === 'high-voltage')!.holdPoints[1]!;
  it('let work begin only within their limits', () => {
    expect(holdPointFault({ ...asked, value: null, said: '' })).toContain('not read yet');
    expect(holdPointFault({ ...asked, value: 61, said: '' })).toContain('61 V is above 60 V');
    expect(holdPointFault({ ...asked, value: 2, said: '' })).toBeNull();
  });
  it('stand at their limits, and know a lowest one', () => {
    const holdPoint = { ...asked, low: 12, high: 60, said: '' };
    expect(holdPointFault({ ...holdPoint, value: 60 })).toBeNull();
    expect(holdPointFault({ ...holdPoint, value: 12 })).toBeNull();
    expect(holdPointFault({ ...holdPoint, value: 11.9 })).toContain('11.9 V is below 12 V');
    expect(holdPointFault({ ...holdPoint, low: null, high: null, value: 900 })).toBeNull();
  });
  it('that are words need an answer, and any answer will do', () => {
    const words = { ...asked, kind: 'text' as const, value: null };
    expect(holdPointFault({ ...words, said: '  ' })).toContain('not answered yet');
    expect(holdPointFault({ ...words, said: 'no' })).toBeNull();
  });
  it('let nothing pass that was answered with no', () => {
    const yes = HAZARDS.find((h) => h.id === 'hoist')!.holdPoints[0]!;
    expect(holdPointFault({ ...yes, value: null, said: 'no' })).toContain('answered “no”');
    expect(holdPointFault({ ...yes, value: null, said: '' })).toContain('not answered yet');
    expect(holdPointFault({ ...yes, value: null, said: 'yes' })).toBeNull();
  });
});
