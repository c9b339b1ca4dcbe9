import { fixed, millimetres, withU } from './format';
import { standardU } from './uncertainty';

/** A unit that people read and type a figure in, where the record keeps SI. */
export interface ShownUnit {
  /** SI units in one of it */
  readonly per: number;
  readonly unit: string;
  /** decimals it is shown with where it is not whole */
  readonly digits: number;
}

/**
 * The units in which figures are read, as people name them.
 * @source BIPM SI Brochure, 9th edition, table 8: 1 h = 3600 s; 1 kWh = 3.6 MJ
 */
export const READ_IN = {
  kW: { per: 1000, unit: 'kW', digits: 1 },
  kWh: { per: 3.6e6, unit: 'kWh', digits: 1 },
  'kWh/100 km': { per: 36, unit: 'kWh/100 km', digits: 1 },
  V: { per: 1, unit: 'V', digits: 0 },
  'V to 2': { per: 1, unit: 'V', digits: 2 },
  mV: { per: 1e-3, unit: 'mV', digits: 2 },
  mΩ: { per: 1e-3, unit: 'mΩ', digits: 3 },
  kΩ: { per: 1000, unit: 'kΩ', digits: 2 },
  µF: { per: 1e-6, unit: 'µF', digits: 1 },
  'km/h': { per: 1 / 3.6, unit: 'km/h', digits: 0 },
  '%': { per: 0.01, unit: '%', digits: 1 },
  Ah: { per: 3600, unit: 'Ah', digits: 2 },
  'l/min': { per: 1e-3 / 60, unit: 'l/min', digits: 2 },
  kPa: { per: 1000, unit: 'kPa', digits: 2 },
  'mm²': { per: 1e-6, unit: 'mm²', digits: 2 },
  'mPa s': { per: 1e-3, unit: 'mPa s', digits: 2 },
  km: { per: 1000, unit: 'km', digits: 0 },
  m: { per: 1, unit: 'm', digits: 3 },
  mm: { per: 0.001, unit: 'mm', digits: 0 },
  'mm to 2': { per: 0.001, unit: 'mm', digits: 2 },
  'mm to 3': { per: 0.001, unit: 'mm', digits: 3 },
  kg: { per: 1, unit: 'kg', digits: 0 },
  g: { per: 0.001, unit: 'g', digits: 1 },
  kN: { per: 1000, unit: 'kN', digits: 2 },
  h: { per: 3600, unit: 'h', digits: 2 },
  min: { per: 60, unit: 'min', digits: 1 },
  weeks: { per: 7, unit: 'weeks', digits: 1 },
  times: { per: 1, unit: 'times', digits: 1 },
  'cm³': { per: 1e-6, unit: 'cm³', digits: 1 },
  l: { per: 1e-3, unit: 'l', digits: 3 },
  'cm²': { per: 1e-4, unit: 'cm²', digits: 1 },
  'cm⁴': { per: 1e-8, unit: 'cm⁴', digits: 2 },
} as const satisfies Readonly<Record<string, ShownUnit>>;

/** The same unit for an uncertainty: typed and shown expanded, k = 2, where the record keeps the standard one. */
export const expandedIn = (shown: ShownUnit): ShownUnit => ({ ...shown, per: standardU(shown.per) });

/** Units figures are read in: metric, or inch and pound. */
export const UNIT_SYSTEMS = ['metric', 'inch-pound'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

/**
 * What stands for a metric unit where inches and pounds are read.
 * @source pound, inch, foot, mile of 1959: 0.45359237 kg, 25.4 mm, 0.3048 m, 1609.344 m exactly; US gallon 231 in³;
 * pound-force with the standard acceleration 9.80665 m/s² (CGPM 1901)
 */
const INCH_POUND: Readonly<Record<string, ShownUnit>> = {
  kg: { per: 0.45359237, unit: 'lb', digits: 0 },
  g: { per: 0.45359237 / 16, unit: 'oz', digits: 2 },
  mm: { per: 0.0254, unit: 'in', digits: 3 },
  m: { per: 0.3048, unit: 'ft', digits: 3 },
  km: { per: 1609.344, unit: 'mi', digits: 0 },
  'km/h': { per: 1609.344 / 3600, unit: 'mph', digits: 0 },
  'kWh/100 km': { per: 3.6e6 / 160_934.4, unit: 'kWh/100 mi', digits: 1 },
  kN: { per: 0.45359237 * 9.80665, unit: 'lbf', digits: 0 },
  Nm: { per: 0.3048 * 0.45359237 * 9.80665, unit: 'lbf·ft', digits: 1 },
  'N m': { per: 0.3048 * 0.45359237 * 9.80665, unit: 'lbf·ft', digits: 1 },
  'cm³': { per: 0.0254 ** 3, unit: 'in³', digits: 2 },
  l: { per: 231 * 0.0254 ** 3, unit: 'US gal', digits: 3 },
  'mm²': { per: 0.0254 ** 2, unit: 'in²', digits: 4 },
  'cm²': { per: 0.0254 ** 2, unit: 'in²', digits: 2 },
  'cm⁴': { per: 0.0254 ** 4, unit: 'in⁴', digits: 3 },
  'cm⁶': { per: 0.0254 ** 6, unit: 'in⁶', digits: 3 },
  'kN m²': { per: 0.45359237 * 9.80665 * 0.3048 ** 2, unit: 'lbf·ft²', digits: 0 },
  'kg/m': { per: 0.45359237 / 0.3048, unit: 'lb/ft', digits: 3 },
  'kg/m³': { per: 0.45359237 / 0.3048 ** 3, unit: 'lb/ft³', digits: 1 },
};

/** SI units in one of each metric unit that has another. */
const METRIC_PER: Readonly<Record<string, number>> = {
  ...Object.fromEntries(Object.values(READ_IN).map(({ unit, per }) => [unit, per])),
  Nm: 1,
  'N m': 1,
  'mm²': 1e-6,
  'cm⁶': 1e-12,
  'kN m²': 1000,
  'kg/m': 1,
  'kg/m³': 1,
};

let system: UnitSystem = 'metric';

/** Chooses the units figures are shown and typed in from here on, as a language is chosen: once, before anything is shown. */
export const showUnits = (wanted: UnitSystem): void => {
  system = wanted;
};

/** What is made while metric units are shown, whatever was chosen: files are metric. */
export const inMetric = <T>(make: () => T): T => {
  const chosen = system;
  system = 'metric';
  try {
    return make();
  } finally {
    system = chosen;
  }
};

/** The units that were chosen. */
export const unitsShown = (): UnitSystem => system;

/** The unit a figure is shown in under the units that were chosen; one that has no other stays. */
export const asShown = <S extends ShownUnit>(shown: S): S => {
  const other = system === 'metric' ? undefined : INCH_POUND[shown.unit];
  // in proportion: a reading that is kept in millimetres, not in metres, and an uncertainty that is shown expanded stay what they are
  return other === undefined ? shown : { ...shown, ...other, per: (shown.per * other.per) / METRIC_PER[shown.unit]! };
};

/** The word of a unit under the units that were chosen: “kg” or “lb”. */
export const unitWord = (metric: string): string => (system === 'metric' ? metric : (INCH_POUND[metric]?.unit ?? metric));

/** A value in SI as a number of the unit people read it in. */
export const readAs = (shown: ShownUnit, si: number): number => si / asShown(shown).per;

/** The number of a length, m, with so many decimals of a millimetre; an inch has two more. */
export const lengthFixed = (metres: number, decimals: number): string =>
  fixed(readAs(READ_IN.mm, metres), decimals + (system === 'metric' ? 0 : 2));

/** A mass, kg, with its unit and so many decimals. */
export const massText = (kg: number, decimals: number): string => `${fixed(readAs(READ_IN.kg, kg), decimals)} ${unitWord('kg')}`;

/** A mass and its expanded uncertainty, with the unit. */
export const massWithU = (kg: number, uKg: number, most?: number): string =>
  `${withU(readAs(READ_IN.kg, kg), readAs(READ_IN.kg, uKg), most)} ${unitWord('kg')}`;

/** A small mass, kg, in grams or ounces. */
export const gramsText = (kg: number, decimals: number): string =>
  `${fixed(readAs(READ_IN.g, kg), decimals + (system === 'metric' ? 0 : 1))} ${unitWord('g')}`;

/** The number of a length, m, without float noise: millimetres, or inches to a thousandth, below one inch to a ten-thousandth. */
export const lengthNumber = (metres: number): number => {
  if (system === 'metric') return millimetres(metres);
  const inches = readAs(READ_IN.mm, metres);
  return Number(inches.toFixed(Math.abs(inches) < 1 ? 4 : 3));
};

/** A length, m, with its unit. */
export const lengthText = (metres: number): string => `${lengthNumber(metres)} ${unitWord('mm')}`;

/** A value with the unit people read it in. */
export const inUnit = (of: ShownUnit, value: number): string => {
  const shown = asShown(of);
  const digits = Number.isInteger(Number((value / shown.per).toPrecision(9))) ? 0 : shown.digits;
  return `${fixed(value / shown.per, digits)} ${shown.unit}`;
};
