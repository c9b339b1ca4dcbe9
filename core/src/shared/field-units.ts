import { LENGTH_UNITS, MASS_UNITS, TORQUE_UNITS, VOLUME_UNITS, toSi, type Unit } from './units';

/** Units that may be typed into one field: SI units in one of each, by the words for it in lower case. */
type Family = Readonly<Record<string, number>>;

/** The units of one table, by their symbols. */
const unitsOf = (table: Readonly<Record<string, Unit>>): Family =>
  Object.fromEntries(Object.values(table).map(({ symbol, times, over }) => [symbol.toLowerCase(), times / over]));
const { lb: LB, in: INCH } = { ...MASS_UNITS, ...LENGTH_UNITS };
const LB_KG = LB.times;
const INCH_M = toSi(1, INCH);
const NM_LBFFT = TORQUE_UNITS.lbfft.times;

/**
 * Mass, length, torque and volume come from the tables of units; the rest stands here.
 *
 * @source BIPM SI Brochure, 9th edition, tables 7 and 8; mile 1609.344 m;
 * metric horsepower 75 kgf m/s = 735.49875 W
 */
const FAMILIES: readonly Family[] = [
  { ...unitsOf(MASS_UNITS), lbs: LB_KG },
  { ...unitsOf(LENGTH_UNITS), km: 1000, µm: 1e-6, um: 1e-6, inch: INCH_M, '"': INCH_M, mi: 1609.344, miles: 1609.344 },
  { s: 1, min: 60, h: 3600, hr: 3600, hrs: 3600, hours: 3600 },
  { w: 1, kw: 1000, mw: 1e6, ps: 735.49875 },
  { j: 1, kj: 1000, mj: 1e6, wh: 3600, kwh: 3.6e6 },
  { v: 1, mv: 1e-3, kv: 1000 },
  { n: 1, dan: 10, kn: 1000, lbf: LB_KG * 9.80665 },
  {
    ...unitsOf(TORQUE_UNITS),
    'n·m': 1,
    'lbf·ft': NM_LBFFT,
    'lbf ft': NM_LBFFT,
    'lb ft': NM_LBFFT,
    'lb-ft': NM_LBFFT,
    'lbf·in': TORQUE_UNITS.lbfin.times,
  },
  { ω: 1, ohm: 1, kω: 1000, kohm: 1000, mω: 1e6 },
  { f: 1, mf: 1e-3, µf: 1e-6, uf: 1e-6, nf: 1e-9 },
  { 'kwh/100 km': 36, 'kwh/100km': 36, 'wh/km': 3.6, 'kwh/km': 3600, 'kwh/100 mi': 3.6e6 / 160_934.4 },
  { '°': Math.PI / 180, deg: Math.PI / 180, rad: 1 },
  { ...unitsOf(VOLUME_UNITS), 'm³': 1, m3: 1, 'cm³': 1e-6, 'us gal': toSi(1, VOLUME_UNITS.usgal), 'in³': INCH_M ** 3, in3: INCH_M ** 3 },
  { 'mm²': 1e-6, mm2: 1e-6, 'cm²': 1e-4, cm2: 1e-4, 'm²': 1, m2: 1, 'in²': INCH_M ** 2, in2: INCH_M ** 2 },
];

/** Sign, digits, spaces and separators; what follows is the unit. */
const PARTS = /^([-−+]?[\d.,\s\u00a0\u202f]*\d)\s*(.*)$/u;
/** Two characters that look alike and mean the same: micro and mu, ohm and omega, dots. */
const plainUnit = (unit: string): string =>
  unit.replace(/[μ]/gu, 'µ').replace(/Ω/gu, 'Ω').replace(/[⋅∙*]/gu, '·').replace(/\s+/gu, ' ').trim().toLowerCase();

/**
 * What was typed into a field that has a unit: the number, and the SI units in one of the unit typed after it; that of the
 * field where none was. `per` is null for a unit of something else.
 */
export const inUnitOf = (
  { per, unit }: { readonly per: number; readonly unit: string },
  text: string,
): { readonly number: string; readonly per: number | null } => {
  const [, number = text, typed = ''] = PARTS.exec(text) ?? [];
  const [own, word] = [plainUnit(unit), plainUnit(typed)];
  if (word === '' || word === own) return { number, per };
  // "mΩ" and "MΩ", "mW" and "MW": told apart only by their capital
  if (/^m(?:ω|w|j|n)$/u.test(word) && typed.startsWith('m')) return { number, per: null };
  const family = FAMILIES.find((units) => Object.hasOwn(units, own));
  // in proportion to the unit of the field, whatever that is kept in
  if (family !== undefined && Object.hasOwn(family, word)) return { number, per: (per * family[word]!) / family[own]! };
  return { number, per: PARTS.test(text) ? null : per };
};
