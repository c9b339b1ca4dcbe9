/** A unit as a ratio to SI: value in SI = value × times ÷ over. Two whole-ish factors keep 41 g exactly 0.041 kg. */
export interface Unit {
  readonly symbol: string;
  readonly times: number;
  readonly over: number;
}

const unit = (symbol: string, times: number, over = 1): Unit => ({ symbol, times, over });

/**
 * Units of mass people may type; the SI unit is kg.
 * @source pound: international yard and pound agreement of 1959, 0.45359237 kg exactly; ounce = lb/16
 */
export const MASS_UNITS = {
  kg: unit('kg', 1),
  g: unit('g', 1, 1000),
  mg: unit('mg', 1, 1_000_000),
  t: unit('t', 1000),
  lb: unit('lb', 0.45359237),
  oz: unit('oz', 0.45359237, 16),
} as const satisfies Record<string, Unit>;

/**
 * Units of length people may type; the SI unit is m.
 * @source inch: international yard and pound agreement of 1959, 25.4 mm exactly; foot = 12 in
 */
export const LENGTH_UNITS = {
  mm: unit('mm', 1, 1000),
  cm: unit('cm', 1, 100),
  m: unit('m', 1),
  in: unit('in', 25.4, 1000),
  ft: unit('ft', 304.8, 1000),
} as const satisfies Record<string, Unit>;

/**
 * Units of volume people may type; the SI unit is m³. A gallon does not say which it is: `usgal` and `impgal` do.
 * @source litre: BIPM, 1 dm³; US gallon: 231 in³; imperial gallon: 4.54609 l (Weights and Measures Act 1985)
 */
export const VOLUME_UNITS = {
  l: unit('l', 1, 1000),
  ml: unit('ml', 1, 1_000_000),
  cl: unit('cl', 1, 100_000),
  dl: unit('dl', 1, 10_000),
  cm3: unit('cm3', 1, 1_000_000),
  usgal: unit('usgal', 3.785411784, 1000),
  impgal: unit('impgal', 4.54609, 1000),
} as const satisfies Record<string, Unit>;

/**
 * Units of torque people may type; the SI unit is N m.
 * @source pound-force and inch of 1959, standard acceleration 9.80665 m/s² (CGPM 1901)
 */
export const TORQUE_UNITS = {
  nm: unit('Nm', 1),
  ncm: unit('Ncm', 1, 100),
  kgfm: unit('kgfm', 9.80665),
  kgfcm: unit('kgfcm', 9.80665, 100),
  lbfft: unit('lbfft', 0.3048 * 0.45359237 * 9.80665),
  lbfin: unit('lbfin', 0.0254 * 0.45359237 * 9.80665),
} as const satisfies Record<string, Unit>;

type LengthUnit = keyof typeof LENGTH_UNITS;

/** Value in the SI unit of the unit's quantity. `toSi(41, MASS_UNITS.g) // => 0.041` */
export const toSi = (value: number, from: Unit): number => (value * from.times) / from.over;

/** Value in the given unit of a value in SI. `fromSi(0.041, MASS_UNITS.g) // => 41` */
export const fromSi = (si: number, to: Unit): number => (si * to.over) / to.times;

/** Whether a word is a unit of length this record reads. */
export const isLengthUnit = (word: string): word is LengthUnit => Object.hasOwn(LENGTH_UNITS, word);
