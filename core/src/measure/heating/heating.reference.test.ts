import { blank, evidence, type Heating, type Vehicle } from '../../record';
import { testId } from '../../../testing/teardown';
import { heatingDifference, heatingOf, heatingReport, idealCop, rangeM } from './heating';

const VAN: Vehicle = {
  ...{ id: testId(1), version: 1, ...blank('vehicle', { sequence: 0, name: 'Drayman II', role: 'subject' }) },
  ...{ batteryJ: 75 * 3.6e6, consumptionJPerM: 23.4 * 36 },
};
const HEATING: Heating = {
  ...{ id: testId(2), version: 1, ...blank('heating', { vehicleId: VAN.id, name: 'as recorded', isWhatIf: false }) },
  ...{ heatW: 3600, speedMPerS: 36 / 3.6, heaterEfficiency: 1, cop: 3 },
};
const report = (fields: Partial<Heating>, van: Partial<Vehicle> = {}) =>
  heatingReport(heatingOf({ ...HEATING, ...fields }, { ...VAN, ...van }));

describe('a cab heated by a heat pump or a heater', () => {
  // common practice, no source: a heat pump about three times as efficient takes a third of the electricity for the same heat
  it('a COP of 3 takes a third of what a heater takes', () => {
    const { values } = report({});
    expect(values.pumpW! / values.heaterW!).toBeCloseTo(1 / 3, 12);
  });
  // worked out by hand: 3.6 kW at 36 km/h are 10 kWh/100 km; 75 kWh / 33.4 = 224.6 km, with 1.2 kW 75 / 26.73 = 280.5 km
  it('heating 3.6 kW at 36 km/h costs 10 kWh/100 km, 56 km more by the heater than by the pump', () => {
    const { values, sentence } = report({});
    expect([values.plainRangeM, values.heaterRangeM, values.pumpRangeM].map((m) => m! / 1000)).toEqual([
      expect.closeTo(320.51, 2),
      expect.closeTo(224.55, 2),
      expect.closeTo(280.55, 2),
    ]);
    expect(values.savedJPerM! / 36).toBeCloseTo(6.6667, 4);
    expect(sentence).toBe(
      'The heat pump takes 1.20 kW where the heater takes 3.60 kW, and leaves 56 km more of range, its fans and pumps left out',
    );
    expect(report({ besidesW: 100 }).sentence).toMatch(/takes 1\.30 kW .* more of range$/);
  });
  // T / ΔT in kelvin: 50 °C over 0 °C is 323.15 / 50
  it('the ideal cycle from 0 to 50 °C gives 6.463, and a stated COP above it is doubted', () => {
    expect(idealCop(0, 50)).toBeCloseTo(6.463, 9);
    expect(() => idealCop(50, 50)).toThrow(/condense warmer/);
    expect(report({ cop: null, evaporatesC: 0, condensesC: 50, ofIdeal: 0.5 }).values.cop).toBeCloseTo(3.2315, 9);
    expect(report({ cop: 7, evaporatesC: 0, condensesC: 50 }).doubt).toMatch(/above the 6.46 of an ideal cycle/);
    expect(report({ evaporatesC: 0, condensesC: 50 }).doubt).toBe('');
  });
  it('what nothing is said of is named, and the rest is worked out', () => {
    const { missing, values } = report({ speedMPerS: null, cop: null }, { batteryJ: null });
    expect(missing).toEqual(['Speed', 'Heat pump, stated COP', 'battery energy of the vehicle']);
    expect([values.heaterW, values.pumpW, values.heaterRangeM]).toEqual([3600, null, null]);
  });
  it('standing still or not, no power besides driving is the plain range', () => expect(rangeM(1000, 10, 0, 5)).toBe(100));
  it('± of the heat carries into both and mostly cancels in what a better pump gains', () => {
    const known = { evidence: { heatW: evidence('I', { u: 360 }) } };
    const one = heatingOf({ ...HEATING, ...known }, VAN);
    const better = heatingOf({ ...HEATING, ...known, id: testId(3), cop: 3.3 }, VAN);
    const { values, us } = heatingDifference(one, better);
    expect(values.pumpW).toBeCloseTo(3600 / 3.3 - 1200, 9);
    expect(us.pumpW).toBeCloseTo(360 * (1 / 3 - 1 / 3.3), 6);
    expect(heatingReport(one).us.pumpW).toBeCloseTo(120, 6);
  });
});
