import { READ_IN, showUnits } from '@each-bolt/core/shared';
import { figureText, offText, unitText } from './figure-text';

const KG = { ...READ_IN.kg, digits: 4 };
const told = (value: number, u = 0) => ({ value, u, mark: null });

describe('figures of a finding', () => {
  afterEach(() => showUnits('metric'));
  it('are told with their ± at k = 2, at the digits of that', () => expect(figureText(told(5.3173, 0.00085), KG)).toBe('5.3173 ± 0.0017'));
  it('are told without ± where none is known, and without digits where they are whole', () =>
    expect([figureText(told(6.42), KG), figureText(told(12), { per: 1, unit: '', digits: 0 })]).toEqual(['6.4200', '12']));
  it('are off by recorded less against, with the sign', () => {
    expect(offText({ recorded: told(5.3173), against: told(6.42), readIn: KG })).toBe('−1.1027');
    expect(offText({ recorded: told(0.0635), against: told(0.0025), readIn: READ_IN.mm })).toBe('+61');
  });
  // 1 lb = 0.45359237 kg: 6.42 kg are 14.1537 lb
  it('follow the units that are read', () => {
    showUnits('inch-pound');
    expect([figureText(told(6.42), { ...READ_IN.kg, digits: 4 }), unitText({ recorded: told(1), against: told(1), readIn: KG })]).toEqual([
      '14.1537',
      'lb',
    ]);
  });
});
