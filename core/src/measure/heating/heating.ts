import { READ_IN, fixed, threeDigits, withU } from '../../shared';
import { fieldInput, type Heating, type Vehicle } from '../../record';
import { carried, carriedDifference, type Carried, type Model } from '../systems/carried';
import type { FigureWord, FormulaLine } from '../systems/figure-rows';

export const HEATING_FIGURES = [
  ...(['heaterW', 'idealCop', 'cop', 'pumpW', 'plainRangeM', 'heaterRangeM', 'pumpRangeM', 'gainM', 'savedJPerM'] as const),
];
export type HeatingFigure = (typeof HEATING_FIGURES)[number];

const KELVIN = 273.15;

/**
 * Heat for work of an ideal cycle that takes heat in at one temperature and gives it at another: T / (T − T cold), in kelvin.
 *
 * @throws RangeError when it does not give heat warmer than it takes it
 */
export const idealCop = (evaporatesC: number, condensesC: number): number => {
  if (condensesC <= evaporatesC) throw new RangeError('To heat, it must condense warmer than it evaporates');
  return (condensesC + KELVIN) / (condensesC - evaporatesC);
};

/** Range of a battery while so much power is drawn besides driving, m: energy over what a metre takes. */
export const rangeM = (batteryJ: number, drivingJPerM: number, besidesW: number, speedMPerS: number): number =>
  batteryJ / (drivingJPerM + besidesW / speedMPerS);

/** A heating with what its vehicle states of itself: the two are worked out together. */
export type HeatingOf = Heating & Pick<Vehicle, 'batteryJ' | 'consumptionJPerM'>;

export const heatingOf = (heating: Heating, { batteryJ, consumptionJPerM, evidence }: Vehicle): HeatingOf => ({
  ...{ ...heating, batteryJ, consumptionJPerM },
  evidence: {
    ...heating.evidence,
    ...(evidence.batteryJ && { batteryJ: evidence.batteryJ }),
    ...(evidence.consumptionJPerM && { consumptionJPerM: evidence.consumptionJPerM }),
  },
});

const copOf = (heating: HeatingOf): { readonly ideal: number | null; readonly cop: number | null } => {
  const { evaporatesC, condensesC, ofIdeal } = heating;
  const ideal = evaporatesC === null || condensesC === null || condensesC <= evaporatesC ? null : idealCop(evaporatesC, condensesC);
  return { ideal, cop: heating.cop ?? (ideal === null || ofIdeal === null ? null : ideal * ofIdeal) };
};

const valuesOf = (heating: HeatingOf): Readonly<Record<HeatingFigure, number | null>> => {
  const { heatW, heaterEfficiency, speedMPerS, batteryJ, consumptionJPerM, besidesW } = heating;
  const { ideal, cop } = copOf(heating);
  const heaterW = heatW === null || heaterEfficiency === null ? null : heatW / heaterEfficiency;
  const pumpW = heatW === null || cop === null ? null : heatW / cop + (besidesW ?? 0);
  const range = (besides: number | null): number | null =>
    besides === null || batteryJ === null || consumptionJPerM === null || speedMPerS === null
      ? null
      : rangeM(batteryJ, consumptionJPerM, besides, speedMPerS);
  const [heaterRangeM, pumpRangeM] = [range(heaterW), range(pumpW)];
  return {
    ...{ heaterW, idealCop: ideal, cop, pumpW, heaterRangeM, pumpRangeM },
    plainRangeM: batteryJ === null || consumptionJPerM === null ? null : batteryJ / consumptionJPerM,
    gainM: heaterRangeM === null || pumpRangeM === null ? null : pumpRangeM - heaterRangeM,
    savedJPerM: heaterW === null || pumpW === null || speedMPerS === null ? null : (heaterW - pumpW) / speedMPerS,
  };
};

const OWN_INPUTS = [...(['heatW', 'speedMPerS', 'heaterEfficiency', 'cop', 'evaporatesC', 'condensesC', 'ofIdeal', 'besidesW'] as const)];
/** Fields whose uncertainty goes into what the heating comes to. */
export const HEATING_U_FIELDS: readonly (keyof Heating)[] = OWN_INPUTS;
const MODEL: Model<HeatingOf, HeatingFigure> = {
  inputs: [...OWN_INPUTS, 'batteryJ', 'consumptionJPerM'],
  figures: HEATING_FIGURES,
  valuesOf,
};

const kilometres = { ...READ_IN.km, digits: 1 };
export const HEATING_WORDS: readonly FigureWord<HeatingFigure>[] = [
  { figure: 'heaterW', word: 'Heater takes', shown: READ_IN.kW },
  { figure: 'idealCop', word: 'COP of the ideal cycle', shown: { per: 1, unit: '', digits: 2 } },
  { figure: 'cop', word: 'COP reckoned with', shown: { per: 1, unit: '', digits: 2 } },
  { figure: 'pumpW', word: 'Heat pump takes', shown: READ_IN.kW },
  { figure: 'savedJPerM', word: 'Saved', shown: READ_IN['kWh/100 km'] },
  { figure: 'plainRangeM', word: 'Range without heating', shown: kilometres },
  { figure: 'heaterRangeM', word: 'Range with the heater', shown: kilometres },
  { figure: 'pumpRangeM', word: 'Range with the heat pump', shown: kilometres },
  { figure: 'gainM', word: 'Gained by the heat pump', shown: kilometres },
];

export interface HeatingReport extends Carried<HeatingFigure> {
  readonly lines: readonly FormulaLine[];
  readonly missing: readonly string[];
  /** what a stated COP cannot be; empty where it can */
  readonly doubt: string;
  readonly sentence: string;
}

const NEEDED = ['heatW', 'speedMPerS', 'heaterEfficiency'] as const;

const linesOf = (heating: HeatingOf, { values, us }: Carried<HeatingFigure>): readonly FormulaLine[] => {
  const text = (figure: HeatingFigure, per: number, unit: string): string =>
    `${us[figure] === 0 ? threeDigits(values[figure]! / per) : withU(values[figure]! / per, us[figure] / per, 4)}${unit}`;
  const kW = (watt: number): string => fixed(watt / 1000, 2);
  const lines: FormulaLine[] = [];
  if (values.heaterW !== null)
    lines.push({
      word: 'Heater',
      text: text('heaterW', 1000, ' kW'),
      formula: `${kW(heating.heatW!)} kW / ${fixed(100 * heating.heaterEfficiency!, 0)} %`,
    });
  if (heating.cop === null && values.cop !== null)
    lines.push({
      word: 'COP',
      text: text('cop', 1, ''),
      formula: `${fixed(100 * heating.ofIdeal!, 0)} % × ${fixed(heating.condensesC! + KELVIN, 2)} K / (${fixed(heating.condensesC!, 1)} °C − ${fixed(heating.evaporatesC!, 1)} °C)`,
    });
  if (values.pumpW !== null)
    lines.push({
      word: 'Heat pump',
      text: text('pumpW', 1000, ' kW'),
      formula: `${kW(heating.heatW!)} kW / ${fixed(values.cop!, 2)} + ${heating.besidesW === null ? 'fans and pumps not said' : `${fixed(heating.besidesW, 0)} W`}`,
    });
  if (values.heaterRangeM !== null)
    lines.push({
      word: 'Range with the heater',
      text: text('heaterRangeM', 1000, ' km'),
      formula: `${fixed(heating.batteryJ! / 3.6e6, 1)} kWh / (${fixed(heating.consumptionJPerM! / READ_IN['kWh/100 km'].per, 1)} kWh/100 km + ${kW(values.heaterW!)} kW / ${fixed(heating.speedMPerS! * 3.6, 0)} km/h)`,
    });
  return lines;
};

const doubtOf = (heating: HeatingOf, { values }: Carried<HeatingFigure>): string =>
  heating.cop !== null && values.idealCop !== null && heating.cop > values.idealCop
    ? `A COP of ${fixed(heating.cop, 2)} is above the ${fixed(values.idealCop, 2)} of an ideal cycle between these temperatures: one of the three is wrong`
    : '';

/** What heating the cab takes from the battery, by a heater and by a heat pump, and what that does to the range. */
export const heatingReport = (heating: HeatingOf): HeatingReport => {
  const worked = carried(MODEL, heating);
  const { values, us } = worked;
  const label = (field: keyof Heating): string => fieldInput(`heating.${field}` as never).label;
  const cop = values.cop === null ? [heating.evaporatesC === null && heating.condensesC === null ? 'cop' : 'ofIdeal'] : [];
  return {
    ...worked,
    lines: linesOf(heating, worked),
    missing: [
      ...[...NEEDED.filter((field) => heating[field] === null), ...(cop as (keyof Heating)[])].map(label),
      ...(heating.batteryJ === null ? ['battery energy of the vehicle'] : []),
      ...(heating.consumptionJPerM === null ? ['consumption of the vehicle'] : []),
    ],
    doubt: doubtOf(heating, worked),
    sentence:
      values.gainM === null || values.pumpW === null || values.heaterW === null
        ? ''
        : `The heat pump takes ${fixed(values.pumpW / 1000, 2)} kW where the heater takes ${fixed(values.heaterW / 1000, 2)} kW, and leaves ${us.gainM === 0 ? fixed(values.gainM / 1000, 0) : withU(values.gainM / 1000, us.gainM / 1000, 1)} km more of range${heating.besidesW === null ? ', its fans and pumps left out' : ''}`,
  };
};

export const heatingDifference = (before: HeatingOf, now: HeatingOf): Carried<HeatingFigure> => carriedDifference(MODEL, before, now);
