import { chainDropPa, frictionFactor, operatingPoint, pipeDrop } from './pipe';

describe('friction in a pipe', () => {
  // Colebrook solved by bisection and by the Lambert W form, equal to 1e-12; the open library “fluids” 1.0.22 gives the same where it was asked
  it.each([
    [4e3, 0, 0.03990701],
    [4e3, 0.01, 0.04908227],
    [2e4, 0.002, 0.02978835],
    [1e5, 0, 0.01798977],
    [2e5, 0.002, 0.02430934],
    [1e8, 0.02, 0.04863788],
    [1e4, 0.001, 0.032382],
    [1e6, 0.0001, 0.013441],
  ])('Re %d and e/D %d: f = %d', (reynolds, relative, f) =>
    expect(frictionFactor(reynolds, relative)).toBeCloseTo(f, f.toString().length > 9 ? 8 : 6),
  );
  it('is 64/Re in laminar flow, and goes over without a step', () => {
    expect(frictionFactor(1500, 0.01)).toBeCloseTo(0.0426667, 7);
    expect(frictionFactor(2300.0001, 0)).toBeCloseTo(frictionFactor(2300, 0), 7);
    expect(frictionFactor(3999.9999, 0.002)).toBeCloseTo(frictionFactor(4000, 0.002), 7);
  });
});

/** Litres a minute in m³/s. */
const LPM = 1e-3 / 60;
const GLYCOL = { densityKgPerM3: 1060, viscosityPaS: 2.3e-3 };

describe('pressure drop', () => {
  // worked out independently in double precision from the same equations
  it('10 l/min through 3 m of 8 mm bore: 64.72 kPa at Re 12 225', () => {
    const drop = pipeDrop({ innerM: 0.008, lengthM: 3, roughnessM: 1.5e-6, minor: 0 }, GLYCOL, 10 * LPM);
    expect([drop.velocityMPerS, drop.reynolds, drop.friction]).toEqual([
      expect.closeTo(3.31573, 5),
      expect.closeTo(12224.9, 1),
      expect.closeTo(0.0296184, 7),
    ]);
    expect(drop.dropPa).toBeCloseTo(64718.24, 1);
  });
  it('2 l/min through 12 mm bore is laminar: 451.9 Pa on 3 m', () => {
    const drop = pipeDrop({ innerM: 0.012, lengthM: 3, roughnessM: 1.5e-6, minor: 0 }, GLYCOL, 2 * LPM);
    expect([drop.regime, drop.reynolds, drop.dropPa]).toEqual(['laminar', expect.closeTo(1629.99, 2), expect.closeTo(451.92, 2)]);
  });
  it('against the flow it is the same the other way', () => {
    const pipe = { innerM: 0.01, lengthM: 1, roughnessM: 0, minor: 2 };
    expect(pipeDrop(pipe, GLYCOL, -LPM).dropPa).toBe(-pipeDrop(pipe, GLYCOL, LPM).dropPa);
    expect(pipeDrop(pipe, GLYCOL, 0).dropPa).toBe(0);
  });
  const CHAIN = [
    { innerM: 0.016, lengthM: 2, roughnessM: 1.5e-6, minor: 1.2 },
    { innerM: 0.012, lengthM: 1, roughnessM: 1.5e-6, minor: 0.9 },
  ];
  it('two bores behind each other with their fittings at 12 l/min: 2838.4 + 5808.7 Pa', () => {
    const [first, second] = CHAIN.map((pipe) => pipeDrop(pipe, GLYCOL, 12 * LPM).dropPa);
    expect([first, second]).toEqual([expect.closeTo(2838.4, 2), expect.closeTo(5808.73, 2)]);
    expect(chainDropPa(CHAIN, GLYCOL, 12 * LPM)).toBeCloseTo(8647.13, 2);
  });
  it('a pump of 60 kPa and 20 l/min drives 17.06 l/min through them at 16.33 kPa', () => {
    const point = operatingPoint({ shutOffPa: 60_000, largestM3PerS: 20 * LPM }, (flow) => chainDropPa(CHAIN, GLYCOL, flow));
    expect([point.flowM3PerS / LPM, point.pressurePa]).toEqual([expect.closeTo(17.062042, 5), expect.closeTo(16333.01, 1)]);
  });
  it('laminar oil: 1 l/min through 1 m of 8 mm bore at 0.01 Pa s is 1657.9 Pa', () =>
    expect(
      pipeDrop({ innerM: 0.008, lengthM: 1, roughnessM: 0, minor: 0 }, { densityKgPerM3: 850, viscosityPaS: 0.01 }, LPM).dropPa,
    ).toBeCloseTo(1657.864, 3));
  it('what cannot be worked out is named', () => {
    const pipe = { innerM: 0.01, lengthM: 1, roughnessM: 0, minor: 0 };
    expect(() => pipeDrop({ ...pipe, innerM: 0 }, GLYCOL, LPM)).toThrow('A pipe needs its inner diameter');
    expect(() => pipeDrop(pipe, { ...GLYCOL, viscosityPaS: 0 }, LPM)).toThrow('The fluid needs its viscosity');
  });
});
