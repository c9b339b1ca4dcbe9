import { READ_IN, fixed, inUnit, threeDigits, type Issue, issue } from '../../shared';
import type { Vehicle } from '../../record';

/** What figures that may be mistaken are of: a length, an energy, or any. */
type SlipOf = 'length' | 'energy' | 'any';

/** A slip of units that people make, as the factor it leaves behind. */
interface Slip {
  readonly of: SlipOf;
  readonly factor: number;
  readonly says: string;
}

/** @source 1 mile = 1609.344 m exactly; 1 kWh = 3.6 MJ (SI Brochure) */
const SLIPS: readonly Slip[] = [
  { of: 'length', factor: 1.609344, says: 'miles taken for kilometres' },
  { of: 'length', factor: 1 / 1.609344, says: 'kilometres taken for miles' },
  { of: 'energy', factor: 3.6, says: 'kWh taken for MJ' },
  { of: 'energy', factor: 1 / 3.6, says: 'MJ taken for kWh' },
  { of: 'any', factor: 1000, says: 'a thousand too much, as of W for kW' },
  { of: 'any', factor: 1 / 1000, says: 'a thousand too little, as of kW for W' },
  { of: 'length', factor: 100, says: 'per kilometre taken for per 100 km' },
  { of: 'length', factor: 1 / 100, says: 'per 100 km taken for per kilometre' },
  { of: 'any', factor: 10, says: 'a decimal point one place off' },
  { of: 'any', factor: 1 / 10, says: 'a decimal point one place off' },
];

/** Two figures that tell of the same thing, by how far they may be apart. */
export interface Allowed {
  readonly from: number;
  readonly to: number;
}

/**
 * What a ratio that should be near one looks like: nothing where it is, else the slip that would explain it, where one does.
 *
 * @param ratio one figure over the other
 * @param allowed how far apart both may be and still agree
 * @param kinds of what the figures are; slips of other figures explain nothing
 * @returns null where they agree, empty where no slip explains it
 * @example
 * likelySlip(3.5, { from: 0.9, to: 1.1 }, ['energy']) // => 'kWh taken for MJ'
 */
export const likelySlip = (ratio: number, { from, to }: Allowed, kinds: readonly SlipOf[]): string | null => {
  if (ratio >= from && ratio <= to) return null;
  return SLIPS.find(({ of, factor }) => kinds.includes(of) && ratio / factor >= from && ratio / factor <= to)?.says ?? '';
};

/** Range × consumption is the battery, more where consumption is told from the socket, less where not all of it is used. Assumed. */
export const BY_RANGE: Allowed = { from: 0.8, to: 1.25 };
/** What the cells hold against what the maker says: a few percent are held back or rounded. Assumed. */
export const BY_CELLS: Allowed = { from: 0.9, to: 1.1 };
/** A voltage class is a round figure for packs of some fifth below to above. Assumed. */
export const BY_VOLTAGE: Allowed = { from: 0.8, to: 1.25 };

const doubt = (code: string, said: string, slip: string | null, field: string, id: string): readonly Issue[] =>
  slip === null ? [] : [issue(code, slip === '' ? said : `${said}. It looks like ${slip}`, field, id)];

type Stated = Pick<Vehicle, 'id' | 'name' | 'batteryJ' | 'rangeM' | 'consumptionJPerM' | 'voltageV'>;

/**
 * Figures stated of a vehicle that contradict each other: range × consumption against the battery. What is not stated is not
 * compared.
 */
export const statedDoubts = ({ id, name, batteryJ, rangeM, consumptionJPerM }: Stated): readonly Issue[] => {
  if (batteryJ === null || rangeM === null || consumptionJPerM === null || batteryJ <= 0) return [];
  const neededJ = rangeM * consumptionJPerM;
  const ratio = neededJ / batteryJ;
  const said = `${inUnit(READ_IN.km, rangeM)} at ${inUnit(READ_IN['kWh/100 km'], consumptionJPerM)} take ${inUnit(READ_IN.kWh, neededJ)}; the battery of ${name} is said to hold ${inUnit(READ_IN.kWh, batteryJ)}, ${threeDigits(ratio)} times apart`;
  return doubt('range-and-battery', said, likelySlip(ratio, BY_RANGE, ['length', 'energy', 'any']), 'batteryJ', id);
};

/**
 * What the cells come to against what is stated of the vehicle: energy and voltage.
 *
 * @param energyJ energy by the cells, J; null where it is not known
 * @param nominalV voltage by the bricks in series, V
 */
export const packDoubts = (vehicle: Stated, energyJ: number | null, nominalV: number | null): readonly Issue[] => {
  const { id, name, batteryJ, voltageV } = vehicle;
  const byEnergy =
    energyJ === null || batteryJ === null || batteryJ <= 0
      ? []
      : doubt(
          'cells-and-battery',
          `The cells hold ${inUnit(READ_IN.kWh, energyJ)}, ${name} is said to have ${inUnit(READ_IN.kWh, batteryJ)}`,
          likelySlip(energyJ / batteryJ, BY_CELLS, ['energy', 'any']),
          'batteryJ',
          id,
        );
  const byVoltage =
    nominalV === null || voltageV === null || voltageV <= 0
      ? []
      : doubt(
          'bricks-and-voltage',
          `The bricks in series come to ${fixed(nominalV, 0)} V, ${name} is said to have ${fixed(voltageV, 0)} V`,
          likelySlip(nominalV / voltageV, BY_VOLTAGE, ['any']),
          'voltageV',
          id,
        );
  return [...byEnergy, ...byVoltage];
};
