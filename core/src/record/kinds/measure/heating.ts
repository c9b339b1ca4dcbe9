import { READ_IN, issue } from '../../../shared';
import { EVIDENCE, REMARK, SEQUENCE, fraction, number, optional, positive, reference } from '../field';
import { RECORDED, kind } from '../kind';
import { STATE, stateFaults } from './state-of';

const celsius = (label: string) => number(label, '°C', { min: -100, max: 200, ...optional, evidence: 'I' });

/** The cab of a vehicle heated by a heat pump or by a resistance heater, while it is driven. */
export const HEATING = kind({
  list: 'heatings',
  table: 'heating',
  words: ['cab heating', 'cab heatings'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'remove too', { unsaid: true }),
    sequence: SEQUENCE,
    ...STATE,
    heatW: positive('Heat that the cab needs', 'W', 1e6, { readIn: READ_IN.kW, ...optional, evidence: 'I' }),
    speedMPerS: positive('Speed', 'm/s', 100, { readIn: READ_IN['km/h'], ...optional, evidence: 'I' }),
    /** electricity that becomes heat in the cab */
    heaterEfficiency: fraction('Heater, efficiency', { ...optional, evidence: 'I' }),
    /** heat for electricity, as stated; where it is, the cycle is not asked */
    cop: positive('Heat pump, stated COP', '', 100, { ...optional, evidence: 'P' }),
    evaporatesC: celsius('Evaporates at'),
    condensesC: celsius('Condenses at'),
    /** of what an ideal cycle between the two temperatures would reach */
    ofIdeal: fraction('Of the ideal cycle', { ...optional, evidence: 'I' }),
    /** fans and pumps that only the heat pump needs */
    besidesW: positive('Fans and pumps of the heat pump', 'W', 1e5, { ...optional, evidence: 'I' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (heating) => [
    ...stateFaults(heating),
    ...(heating.evaporatesC !== null && heating.condensesC !== null && heating.evaporatesC >= heating.condensesC
      ? [issue('cycle-turned', 'To heat, it must condense warmer than it evaporates', 'condensesC', heating.id)]
      : []),
  ],
});
