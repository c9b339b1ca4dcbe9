import { blank, type Vehicle } from '../../record';
import { testId } from '../../../testing/teardown';
import { likelySlip, packDoubts, statedDoubts } from './plausible';

const van = (fields: Partial<Vehicle>): Vehicle => ({
  ...{ id: testId(1), version: 1, ...blank('vehicle', { name: 'Drayman II', role: 'subject', sequence: 0 }) },
  ...fields,
});
const KWH = 3.6e6;
/** 75 kWh, 362 km at 23.4 kWh/100 km: 84.7 kWh from the socket for 75 in the battery. */
const WELL = van({ batteryJ: 75 * KWH, rangeM: 362_000, consumptionJPerM: 842.4, voltageV: 400 });

describe('figures that contradict each other', () => {
  it('range × consumption is about the battery, a little more from the socket', () => expect(statedDoubts(WELL)).toEqual([]));
  it('a range in miles read as kilometres is named by its factor', () => {
    const [found] = statedDoubts({ ...WELL, rangeM: 362_000 * 1.609344 });
    expect(found).toMatchObject({ code: 'range-and-battery', field: 'batteryJ' });
    expect(found?.message).toMatch(
      /583 km at 23\.4 kWh\/100 km take 136\.3 kWh.*1\.82 times apart\. It looks like miles taken for kilometres$/,
    );
  });
  it.each([
    ['MJ typed as kWh in the battery', { batteryJ: 75 * 3.6 * KWH }, 'MJ taken for kWh'],
    ['kWh per km in place of 100 km', { consumptionJPerM: 84_240 }, 'per kilometre taken for per 100 km'],
  ])('%s', (_, wrong, says) => expect(statedDoubts({ ...WELL, ...wrong })[0]?.message).toContain(says));
  it('what is not stated is not compared', () => expect(statedDoubts({ ...WELL, rangeM: null })).toEqual([]));
  it('a factor that no slip explains is told without one', () =>
    expect(statedDoubts({ ...WELL, batteryJ: 30 * KWH })[0]?.message).toMatch(/2\.82 times apart$/));
});

describe('cells against what is stated', () => {
  it('agree within a tenth; a voltage class within a fifth', () => expect(packDoubts(WELL, 75.3 * KWH, 350.4)).toEqual([]));
  it('name the slip: 75 kWh against 270 said to be kWh', () =>
    expect(packDoubts(van({ batteryJ: 270 * KWH }), 75.3 * KWH, null).map((i) => i.message)).toEqual([
      'The cells hold 75.3 kWh, Drayman II is said to have 270 kWh. It looks like MJ taken for kWh',
    ]));
  it('half the voltage is no round figure any more', () =>
    expect(packDoubts(van({ voltageV: 800 }), null, 394.2).map((i) => [i.field, i.message])).toEqual([
      ['voltageV', 'The bricks in series come to 394 V, Drayman II is said to have 800 V'],
    ]));
  it('a ratio near one has no slip, and a slip of lengths explains no energy', () => {
    const near = { from: 0.9, to: 1.1 };
    expect([likelySlip(1.02, near, ['any']), likelySlip(2, near, ['any']), likelySlip(1.6, near, ['energy', 'any'])]).toEqual([
      null,
      '',
      '',
    ]);
    expect(likelySlip(1.6, near, ['length'])).toBe('miles taken for kilometres');
  });
});
