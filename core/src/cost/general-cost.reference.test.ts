import { generalCost, type ProcessCostInputs } from './part-cost';

/**
 * @source M. F. Ashby, Materials Selection in Mechanical Design, cost model C = m Cm/(1−f) + (Ct/n)⌈n/nt⌉ + (1/ṅ)(Cc/(L two) + Coh);
 * the inputs are our own, the totals worked by hand: m 1.5 kg, Cm 2, f 0.25, Ct 60 000, nt 100 000, Cc 400 000, L 1,
 * two 20 000 h, Coh 60 per hour, 60 parts per hour
 */
describe('the general cost model', () => {
  const at = (partsOverLife: number): number => {
    const inputs: ProcessCostInputs = {
      netMassKg: 1.5,
      pricePerKg: 2,
      scrapFraction: 0.25,
      tooling: 60_000,
      toolLifeParts: 100_000,
      partsOverLife,
      cycleS: 3600 / 60,
      ratePerH: 400_000 / 20_000 + 60,
      yieldFraction: 1,
    };
    const { material, tooling, conversion } = generalCost(inputs);
    return material + tooling + conversion;
  };
  it.each([
    [1000, 65.3333],
    [100_000, 5.9333],
    [100_001, 6.5333],
    [250_000, 6.0533],
  ])('%d parts cost %d each', (parts, cost) => expect(at(parts)).toBeCloseTo(cost, 4));
  it('needs a second set of tools for one part more', () => expect(at(100_001) - at(100_000)).toBeCloseTo(0.6, 4));
  it('spreads the time lost on bad parts over the good ones', () => {
    const inputs = {
      netMassKg: 1,
      pricePerKg: 0,
      scrapFraction: 0,
      tooling: 0,
      toolLifeParts: 1,
      partsOverLife: 1,
      cycleS: 3600,
      ratePerH: 90,
      yieldFraction: 0.9,
    };
    expect(generalCost(inputs).conversion).toBeCloseTo(100, 12);
  });
  it.each([
    ['scrap of everything', { scrapFraction: 1 }],
    ['scrap that is no number', { scrapFraction: Number.NaN }],
    ['a yield of nothing', { yieldFraction: 0 }],
    ['no parts', { partsOverLife: 0 }],
  ])('refuses %s', (_, wrong) => {
    const inputs = {
      netMassKg: 1,
      pricePerKg: 1,
      scrapFraction: 0,
      tooling: 0,
      toolLifeParts: 1,
      partsOverLife: 1,
      cycleS: 1,
      ratePerH: 1,
      yieldFraction: 1,
      ...wrong,
    };
    expect(() => generalCost(inputs)).toThrow(RangeError);
  });
});
