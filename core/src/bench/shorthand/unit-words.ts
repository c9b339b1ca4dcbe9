import { LENGTH_UNITS, MASS_UNITS, TORQUE_UNITS, VOLUME_UNITS, type Unit } from '../../shared';

/** The words people type for each unit; matched without regard to case, the longest first. */
type Words = Readonly<Record<string, readonly string[]>>;

const MASS_WORDS: Words = {
  kg: ['kg', 'kgs', 'kilo', 'kilos', 'kilogram', 'kilograms', 'kilogramme', 'kilogrammes', 'kilogramm', 'chilo', 'chili', 'kilogramos'],
  g: ['', 'r', 'rs', 'm', 'ms', 'ram', 'rams', 'ramme', 'rammes', 'ramm', 'rammi', 'ramos', 'ram.'].map((ending) => `g${ending}`),
  mg: ['mg'],
  t: ['t', 'to', 'tonne', 'tonnes'],
  lb: ['lb', 'lbs', 'pound', 'pounds'],
  oz: ['oz', 'ounce', 'ounces'],
};
const LENGTH_WORDS: Words = {
  mm: ['mm', 'millimetre', 'millimetres', 'millimeter', 'millimeters'],
  cm: ['cm', 'centimetre', 'centimetres', 'centimeter', 'centimeters'],
  m: ['m', 'mtr', 'mtrs', 'metre', 'metres', 'meter', 'meters'],
  in: ['in', 'inch', 'inches', '"', '″', '”', "''"],
  ft: ['ft', 'foot', 'feet', "'", '′', '’'],
};
const VOLUME_WORDS: Words = {
  l: ['l', 'ltr', 'ltrs', 'litre', 'litres', 'liter', 'liters'],
  ml: ['ml'],
  cl: ['cl'],
  dl: ['dl'],
  cm3: ['cm3', 'cm³', 'ccm', 'cc'],
  usgal: ['usgal', 'us gal', 'us gallon', 'us gallons'],
  impgal: ['impgal', 'imp gal', 'imperial gallon', 'imperial gallons', 'uk gal'],
};
const TORQUE_WORDS: Words = {
  nm: ['nm', 'n·m', 'n m', 'n.m', 'n*m', 'n-m', 'newton metre', 'newton metres'],
  ncm: ['ncm', 'n·cm', 'n cm'],
  kgfm: ['kgfm', 'kgf·m', 'kgf m', 'kgf.m', 'kgm', 'kpm'],
  kgfcm: ['kgfcm', 'kgf·cm', 'kgf cm', 'kgf.cm'],
  lbfft: [
    'lbfft',
    'lbf·ft',
    'lbf ft',
    'lb-ft',
    'lb·ft',
    'lb ft',
    'lb.ft',
    'lbs-ft',
    'lbs ft',
    'ft-lb',
    'ft lb',
    'ft-lbs',
    'ft lbs',
    'ft·lb',
    'ftlb',
    'ftlbs',
    'ft.lb',
    'ft-lbf',
    'ft lbf',
  ],
  lbfin: [
    'lbfin',
    'lbf·in',
    'lbf in',
    'lb-in',
    'lb·in',
    'lb in',
    'in-lb',
    'in lb',
    'in-lbs',
    'in lbs',
    'inlb',
    'in·lb',
    'in-lbf',
    'in lbf',
  ],
};

/** A kind of quantity as it is typed: its units by the symbol that is printed, and the words for them. */
export interface UnitTable {
  readonly units: Readonly<Record<string, Unit>>;
  /** a pattern of one group over all words */
  readonly pattern: string;
  readonly symbolOf: (word: string) => string | undefined;
}

const escaped = (word: string): string => word.replace(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`).replaceAll(' ', String.raw`\s`);

const table = (units: Readonly<Record<string, Unit>>, words: Words): UnitTable => {
  const all = Object.entries(words).flatMap(([symbol, list]) => list.map((word) => [word, symbol] as const));
  const symbols = new Map<string, string>(all);
  const longestFirst = all.map(([word]) => word).sort((a, b) => b.length - a.length);
  return {
    units,
    pattern: `(${longestFirst.map(escaped).join('|')})`,
    symbolOf: (word) => symbols.get(word.toLowerCase().replace(/\s+/g, ' ')),
  };
};

export const MASS: UnitTable = table(MASS_UNITS, MASS_WORDS);
export const LENGTH: UnitTable = table(LENGTH_UNITS, LENGTH_WORDS);
export const VOLUME: UnitTable = table(VOLUME_UNITS, VOLUME_WORDS);
export const TORQUE: UnitTable = table(TORQUE_UNITS, TORQUE_WORDS);

/** Units of quantities that no field here holds: what stands before one is a figure, and is asked about. */
export const OTHER_UNITS = [
  ...['V', 'kV', 'mV', 'A', 'mA', 'kA', 'Ah', 'mAh', 'W', 'kW', 'mW', 'Wh', 'kWh', 'Ω', 'ohm', 'ohms', 'kΩ', 'MΩ', 'mΩ'],
  ...['F', 'mF', 'µF', 'μF', 'uF', 'nF', 'pF', 'H', 'mH', 'µH', 'μH', 'uH', 'Hz', 'kHz', 'MHz', 'K', '°C', '°F', '°', 'deg', 'degC'],
  ...[
    '%',
    'bar',
    'mbar',
    'Pa',
    'kPa',
    'MPa',
    'GPa',
    'psi',
    'N',
    'kN',
    'daN',
    'lbf',
    'rpm',
    's',
    'sec',
    'min',
    'h',
    'hp',
    'km',
    'km/h',
    'mph',
  ],
  ...[
    'mm2',
    'mm²',
    'cm2',
    'cm²',
    'm2',
    'm²',
    'in2',
    'mm3',
    'mm³',
    'in3',
    'm3',
    'm³',
    'HRC',
    'HV',
    'HB',
    'ShA',
    'dB',
    'µm',
    'μm',
    'um',
    'mil',
    'mils',
    'gsm',
    'g/m2',
    'g/m²',
    'kg/m3',
    'kg/m³',
    'g/cm3',
    'g/cm³',
    'g/cc',
    'g/l',
    'kg/m',
    'g/m',
    'lm',
    'lx',
    'cd',
    'den',
    'dtex',
    'teeth',
    'awg',
  ],
  ...[
    'gal',
    'gallon',
    'gallons',
    'qt',
    'pt',
    'fl oz',
    'Nm/deg',
    'N/mm',
    'kN/mm',
    'Mbit',
    'MB',
    'GB',
    'ppm',
    'year',
    'years',
    'EUR',
    '€',
    '$',
    'USD',
    'GBP',
    '£',
  ],
];
