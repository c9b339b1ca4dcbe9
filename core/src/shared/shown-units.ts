import { fixed } from './format';
import { standardU } from './uncertainty';

/** A unit that people read and type a figure in, where the record keeps SI. */
export interface ShownUnit {
  /** SI units in one of it */
  readonly per: number;
  readonly unit: string;
  /** decimals it is shown with where it is not whole */
  readonly digits: number;
  /** true for an uncertainty: typed and shown expanded, k = 2 */
  readonly isExpanded?: boolean;
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
  km: { per: 1000, unit: 'km', digits: 0 },
  m: { per: 1, unit: 'm', digits: 3 },
  mm: { per: 0.001, unit: 'mm', digits: 0 },
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
export const expandedIn = (shown: ShownUnit): ShownUnit => ({ ...shown, per: standardU(shown.per), isExpanded: true });

/** A value in SI as a number of the unit people read it in. */
export const readAs = ({ per }: Pick<ShownUnit, 'per'>, si: number): number => si / per;

/** A value with the unit people read it in. */
export const inUnit = (shown: ShownUnit, value: number): string => {
  const digits = Number.isInteger(Number((value / shown.per).toPrecision(9))) ? 0 : shown.digits;
  return `${fixed(value / shown.per, digits)} ${shown.unit}`;
};
