import { CONDUCTOR_METALS, conductorKg, lossAt, resistanceOhm, sameResistance } from './conductors';

const [copper, aluminium] = CONDUCTOR_METALS as readonly [(typeof CONDUCTOR_METALS)[number], (typeof CONDUCTOR_METALS)[number]];

describe('conductors', () => {
  it('a kilometre of 1 mm²: copper 17.241 Ω and 8.89 kg, aluminium 28.264 Ω and 2.703 kg', () => {
    expect([resistanceOhm(copper, 1e-6, 1000, 20), conductorKg(copper, 1e-6, 1000)]).toEqual([
      expect.closeTo(17.241, 3),
      expect.closeTo(8.89, 9),
    ]);
    expect([resistanceOhm(aluminium, 1e-6, 1000, 20), conductorKg(aluminium, 1e-6, 1000)]).toEqual([
      expect.closeTo(28.264, 9),
      expect.closeTo(2.703, 9),
    ]);
  });
  it('aluminium of the same resistance takes 1.6393 times the area and weighs 0.4984 of the copper', () => {
    const { area, mass, cost } = sameResistance(copper, aluminium, [10, 4]);
    // at 4 for 10 a kilogram its metal costs 0.4 of half the mass
    expect([area, mass, cost]).toEqual([expect.closeTo(1.6393, 4), expect.closeTo(0.4984, 4), expect.closeTo(0.19937, 4)]);
  });
  // largest resistance at 20 °C in Ω/km of ISO 6722 and ISO 19642, copper, from memory
  it.each([
    [0.35, 54.4],
    [0.5, 37.1],
    [1, 18.5],
    [2.5, 7.6],
    [10, 1.82],
    [50, 0.368],
    [95, 0.196],
  ])('a vehicle cable of %d mm² of at most %d Ω/km is 5 to 16 %% above solid metal', (mm2, most) => {
    const above = most / resistanceOhm(copper, mm2 * 1e-6, 1000, 20);
    expect([above > 1.05, above < 1.16]).toEqual([true, true]);
  });
  it('10 A out and back over 5 m of 7.60 Ω/km drop 0.760 V and lose 7.6 W', () => {
    const { dropV, lossW } = lossAt(0.0076 * 10, 10);
    expect([dropV, lossW]).toEqual([expect.closeTo(0.76, 12), expect.closeTo(7.6, 12)]);
    // at 80 °C by 0.00393 per kelvin: 0.9392 V
    const warmer = resistanceOhm(copper, 1e-6, 1, 80) / resistanceOhm(copper, 1e-6, 1, 20);
    expect(0.76 * warmer).toBeCloseTo(0.9392, 4);
  });
  it('without a cross-section there is none', () =>
    expect(() => resistanceOhm(copper, 0, 1, 20)).toThrow('A conductor needs its cross-section'));
});
