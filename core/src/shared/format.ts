import { expandedU } from './uncertainty';

const MINUS = '−';
const NARROW_SPACE = '\u202f';

/** What stands where nothing is known. Never 0. */
export const ABSENT = '–';

/** A number with fixed decimals, thousands parted by a narrow space and a true minus sign. */
export const fixed = (value: number, decimals: number): string => {
  const [whole = '', fraction] = Math.abs(value).toFixed(decimals).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, NARROW_SPACE);
  const digits = fraction === undefined ? grouped : `${grouped}.${fraction}`;
  return value < 0 && Number(value.toFixed(decimals)) !== 0 ? MINUS + digits : digits;
};

/** The same, with a plus sign on what is above zero. */
export const signed = (value: number, decimals: number): string =>
  Number(value.toFixed(decimals)) > 0 ? `+${fixed(value, decimals)}` : fixed(value, decimals);

/**
 * Decimals at which a value with this uncertainty is stated: the uncertainty keeps two significant digits.
 * @source JCGM 100:2008 (GUM), 7.2.6
 */
export const decimalsFor = (u: number, most = 6): number => (u > 0 ? Math.min(most, Math.max(0, 1 - Math.floor(Math.log10(u)))) : most);

/**
 * "1.836 ± 0.0046": a value and its expanded uncertainty, k = 2, at the same decimals.
 *
 * @param u standard uncertainty, in the unit of the value
 * @param most the most decimals
 */
export const withU = (value: number, u: number, most = 6): string => {
  const decimals = decimalsFor(expandedU(u), most);
  return `${fixed(value, decimals)} ± ${fixed(expandedU(u), decimals)}`;
};

/** "± 0.0046": the expanded uncertainty alone, k = 2, to two digits; nothing where there is none. */
export const plusMinus = (u: number | null, most = 6): string =>
  u === null || u === 0 ? '' : `± ${fixed(expandedU(u), decimalsFor(expandedU(u), most))}`;

/** "0.62 ± 0.08 %": a fraction with its expanded uncertainty, in percent. */
export const percentWithU = (fraction: number, u: number): string => `${withU(100 * fraction, 100 * u, 2)} %`;

/** Three significant digits without an exponent: 2.3165 → "2.32", 163.4 → "163". */
export const threeDigits = (value: number): string =>
  value === 0 ? '0' : fixed(value, Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value)))));

/**
 * A chance in percent, rounded towards doubt: what is said to be certain is never made more so, and only 1 is 100 %.
 *
 * @param fraction 0…1
 * @example chanceText(0.995) // => '99.5 %'
 */
export const chanceText = (fraction: number): string => {
  if (fraction >= 1) return '100 %';
  const decimals = fraction >= 0.999 ? 2 : fraction >= 0.99 ? 1 : 0;
  const scale = 10 ** (decimals + 2);
  // a hair of float noise must not take off a whole step
  return `${fixed(Math.floor(Math.min(fraction * scale + 1e-9, scale - 1)) / 10 ** decimals, decimals)} %`;
};

/** The chance of something that must not happen, in percent, rounded up: 0.2 % is never 0 %. */
export const riskText = (fraction: number): string => {
  if (!(fraction > 0)) return '0 %';
  if (fraction < 0.0001) return '< 0.01 %';
  const decimals = fraction < 0.001 ? 2 : fraction < 0.1 ? 1 : 0;
  const scale = 10 ** (decimals + 2);
  return `${fixed(Math.ceil(fraction * scale - 1e-9) / 10 ** decimals, decimals)} %`;
};

/** A count in words: "1 part", "3 parts". */
export const counted = (count: number, one: string, many = `${one}s`): string => `${fixed(count, 0)} ${count === 1 ? one : many}`;

/** A length in m as millimetres for people, without float noise: 0.0063 → 6.3. */
export const millimetres = (metres: number): number => Number((metres * 1000).toFixed(6));
