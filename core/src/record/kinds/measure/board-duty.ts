import { READ_IN, issue } from '../../../shared';
import { EVIDENCE, REMARK, length, number, optional, positive, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';
import { STATE, stateFaults } from './state-of';

const thin = { readIn: READ_IN['mm to 3'], evidence: 'M' } as const;
const known = { ...optional, evidence: 'P' } as const;

/** What a circuit board has to do and how its heat gets out: shunts and phases, the store behind the supply, the way of the heat. */
export const BOARD_DUTY = kind({
  list: 'boardDuties',
  table: 'board_duty',
  words: ['board duty', 'board duties'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    ...STATE,
    shuntOhm: positive('Shunt', 'Ω', 1e6, { readIn: READ_IN['mΩ'], ...optional, evidence: 'S' }),
    shuntV: number('Voltage over the shunt', 'V', { readIn: READ_IN.mV, min: -1e4, max: 1e4, ...optional, evidence: 'M' }),
    phaseOneA: number('Current of phase 1', 'A', { min: -1e5, max: 1e5, ...optional, evidence: 'M' }),
    phaseTwoA: number('Current of phase 2', 'A', { min: -1e5, max: 1e5, ...optional, evidence: 'M' }),
    capacitanceF: positive('Capacitance of the store', 'F', 1e4, { readIn: READ_IN['µF'], ...optional, evidence: 'S' }),
    storeV: positive('Voltage of the store', 'V', 1e5, { ...optional, evidence: 'M' }),
    bleedOhm: positive('Discharge resistor', 'Ω', 1e9, { readIn: READ_IN['kΩ'], ...optional, evidence: 'S' }),
    safeV: positive('Voltage to come down to', 'V', 1e5, { ...optional, blank: 60, evidence: 'P' }),
    lossW: positive('Heat of the part', 'W', 1e6, { ...optional, evidence: 'I' }),
    sinkC: number('Coolant or air', '°C', { min: -273.15, max: 500, ...optional, evidence: 'M' }),
    limitC: number('Hottest it may be', '°C', { min: -273.15, max: 1000, ...optional, evidence: 'P' }),
    viaCount: whole('Vias', 1, 1_000_000, { ...optional, evidence: 'C' }),
    viaOuterM: length('Via, drilled', 0.01, thin),
    viaWallM: length('Via, plating', 0.001, thin),
    viaLengthM: length('Via, length', 0.1, thin),
    viaWPerMK: positive('Via, conductivity', 'W/(m K)', 1e4, known),
    compoundM: length('Compound, thickness', 0.1, thin),
    compoundM2: positive('Compound, area', 'm²', 10, { readIn: READ_IN['cm²'], ...optional, evidence: 'M' }),
    compoundWPerMK: positive('Compound, conductivity', 'W/(m K)', 1e4, known),
    plateM: length('Plate, thickness', 1, thin),
    plateM2: positive('Plate, area', 'm²', 100, { readIn: READ_IN['cm²'], ...optional, evidence: 'M' }),
    plateWPerMK: positive('Plate, conductivity', 'W/(m K)', 1e4, known),
    plateWPerM2K: positive('Plate to coolant', 'W/(m² K)', 1e6, { ...optional, evidence: 'I' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (duty) => [
    ...stateFaults(duty),
    ...(duty.viaOuterM !== null && duty.viaWallM !== null && 2 * duty.viaWallM > duty.viaOuterM
      ? [issue('via-wall', 'The plating of a via is at most half of what was drilled', 'viaWallM', duty.id)]
      : []),
  ],
});
