import { slipsInWords } from './words';

describe('figures in words', () => {
  // common practice, no source: a spread of 7 °F between cells is 3.9 K
  it('a difference of temperatures converted as a temperature is named, with the right one', () => {
    const [slip] = slipsInWords('The hottest cell is 7 °F (-13.9 °C) cooler with two passes.');
    expect(slip).toMatchObject({ right: '7 °F (3.9 K', wrong: '7 °F (-13.9 °C' });
    expect(slipsInWords('The spread is 3.5 °F (1.9 K).')).toEqual([]);
    expect(slipsInWords('The hottest cell is 7 °F (3.9 °C) cooler.')).toEqual([]);
  });
  it('a temperature is left alone', () => expect(slipsInWords('The coolant enters at 77 °F (25 °C).')).toEqual([]));
  it('an energy in kilowatts is named, a power is not', () => {
    expect(slipsInWords('The battery holds 60 kW.').map(({ right }) => right)).toEqual(['60 kWh']);
    expect(slipsInWords('The motor has 60 kW of power. The battery holds 60 kWh.')).toEqual([]);
  });
  // common practice, no source: 11.15 kg over 4.81 kg is 2.32 times, 132 % heavier
  it('a ratio called a difference is named', () => {
    expect(slipsInWords('It is 2.32 times as heavy, that is 232 % heavier.')[0]?.says).toBe(
      '2.32 times is 132 % heavier, not 232 % heavier',
    );
    expect(slipsInWords('It is 2.32 times as heavy, that is 132 % heavier.')).toEqual([]);
  });
  it('text without figures says nothing', () => expect(slipsInWords('the pack was cold')).toEqual([]));
});
