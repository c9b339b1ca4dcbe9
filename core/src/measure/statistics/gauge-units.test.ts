import { GAUGE_UNITS, gaugeReadingText, gaugeShown, gaugeSquareShown, readGaugeReading } from './gauge-units';

describe('what a gauge R&R study measures', () => {
  // 1 g = 0.001 kg and 1 mm = 0.001 m (BIPM SI Brochure, 9th edition)
  it('is read in grams or millimetres, and kept in kilograms or metres', () => {
    expect([GAUGE_UNITS.mass.unit, GAUGE_UNITS.length.unit]).toEqual(['g', 'mm']);
    expect(readGaugeReading('mass', '41.3')).toBe(0.0413);
    expect(readGaugeReading('length', '0,82')).toBe(0.00082);
    expect([readGaugeReading('length', ' '), readGaugeReading('length', 'thin')]).toEqual([null, undefined]);
    expect([gaugeReadingText('length', 0.00082), gaugeReadingText('mass', null)]).toEqual(['0.82', '']);
  });
  it('has squares of that unit in its table', () => {
    expect(gaugeShown('length', 0.002)).toBeCloseTo(2, 12);
    expect(gaugeSquareShown('length', 4e-6)).toBeCloseTo(4, 12);
  });
});
