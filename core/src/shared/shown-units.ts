import { fixed } from './format';

interface ShownUnit {
  /** SI units in one shown unit */
  readonly per: number;
  readonly unit: string;
  readonly digits: number;
}

/**
 * Fields that people read in another unit than the record keeps, by name.
 * @source BIPM SI Brochure, 9th edition, table 8: 1 h = 3600 s; 1 kWh = 3.6 MJ
 */
export const SHOWN_UNITS: Readonly<Record<string, ShownUnit>> = {
  powerW: { per: 1000, unit: 'kW', digits: 1 },
  batteryJ: { per: 3.6e6, unit: 'kWh', digits: 1 },
  voltageV: { per: 1, unit: 'V', digits: 0 },
  rangeM: { per: 1000, unit: 'km', digits: 0 },
  odometerM: { per: 1000, unit: 'km', digits: 0 },
  consumptionJPerM: { per: 36, unit: 'kWh/100 km', digits: 1 },
  turningCircleM: { per: 1, unit: 'm', digits: 2 },
  wheelbaseM: { per: 0.001, unit: 'mm', digits: 0 },
  trackM: { per: 0.001, unit: 'mm', digits: 0 },
  kerbMassKg: { per: 1, unit: 'kg', digits: 0 },
  optimisticS: { per: 3600, unit: 'h', digits: 2 },
  mostLikelyS: { per: 3600, unit: 'h', digits: 2 },
  pessimisticS: { per: 3600, unit: 'h', digits: 2 },
  workedS: { per: 3600, unit: 'h', digits: 2 },
  remainingS: { per: 3600, unit: 'h', digits: 2 },
  expectedS: { per: 3600, unit: 'h', digits: 1 },
  timeToMakeS: { per: 3600, unit: 'h', digits: 1 },
  ratedN: { per: 1000, unit: 'kN', digits: 2 },
};

/** A value with the unit people read it in, or null for a field that has none of its own. */
export const inShownUnit = (field: string, value: number): string | null => {
  const shown = SHOWN_UNITS[field];
  if (!shown) return null;
  const digits = Number.isInteger(Number((value / shown.per).toPrecision(9))) ? 0 : shown.digits;
  return `${fixed(value / shown.per, digits)} ${shown.unit}`;
};
