import {
  ESTIMATE_RELATIVE_U,
  LENGTH_UNITS,
  MASS_UNITS,
  readNumber,
  readQuantity,
  resolutionU,
  toSi,
  type EvidenceMark,
} from '../../shared';
import { DIRECTIONS, type Direction } from '../../record';
import type { Choice, MassEntry } from './entry';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, type Match, type Matcher } from './reader';

const NUMBER = String.raw`\d[\d.,]*`;
/** A code ends where white space, a comma before white space, or the line ends. */
export const END = String.raw`(?=\s|,(?=\s|$)|$)`;

/** The same where a mark may stand right behind: `dc04?`, `T30@P`. */
export const CODE_END = String.raw`(?=\s|\?|@[MCSPTRI?]|,(?=\s|$)|$)`;

const MASS = new RegExp(
  String.raw`(total\s+)?(~\s*)?(${NUMBER})\s*(kg|g|mg|lb|oz|t)(?:\s*(?:±|\+-|\+\/-)\s*(${NUMBER})\s*(kg|g|mg|lb|oz|t))?(\s*\?|\s*@[MCSPTRI?])?${END}`,
  'iy',
);
const BARE = new RegExp(String.raw`(total\s+)?(~\s*)?(${NUMBER})(\s*\?)?${END}`, 'iy');
const LENGTH = new RegExp(String.raw`(${NUMBER})\s*(mm|cm|m|in|ft)${END}`, 'iy');
const DIRECTION = new RegExp(String.raw`[+-][xyz]${END}`, 'iy');
const LONE_QUESTION = new RegExp(String.raw`[?~]${END}`, 'y');

/** Lengths are kept to the nanometre, so that a printed line reads back as the same number. */
export const lengthM = (value: number, symbol: keyof typeof LENGTH_UNITS): number =>
  Math.round(toSi(value, LENGTH_UNITS[symbol]) * 1e9) / 1e9;

/** Choices for a number that can be read two ways; `rebuild` writes the whole stretch with one reading. */
export const readingsOf = (text: string, rebuild: (digits: string) => string): readonly Choice[] => {
  const read = readNumber(text);
  return read.kind === 'ambiguous' ? read.readings.map((r) => ({ label: rebuild(r.text), replacement: rebuild(r.text) })) : [];
};

export interface MassDraft {
  readonly mass: MassEntry & { readonly isTotal: boolean };
}

const MOST_KG = 100_000;

const question = (end: number, code: string, message: string, choices: readonly Choice[]): Match<MassDraft> => ({
  end,
  question: { code, message, choices },
});

/** `41 g`, `~1.2 kg`, `1.2 kg ?`, `total 492 g`, `41 g ±2 g` */
export const massMatcher: Matcher<MassDraft> = (line, at) => {
  const match = matchAt(MASS, line, at);
  if (!match) return null;
  const [whole, total, about, digits = '', unit = '', plusMinus, plusMinusUnit, doubt] = match;
  const end = at + whole.length;
  const stated = readQuantity(`${digits} ${unit}`, MASS_UNITS);
  const spread = plusMinus === undefined ? null : readQuantity(`${plusMinus} ${plusMinusUnit ?? ''}`, MASS_UNITS);
  if (stated.kind === 'ambiguous')
    return question(
      end,
      'number-two-ways',
      `Is ${digits} a decimal comma or thousands?`,
      readingsOf(digits, (d) => whole.replace(digits, d)),
    );
  if (stated.kind !== 'quantity') return question(end, 'number', `“${digits}” is not a number`, [keepAsWords(whole)]);
  if (spread !== null && spread.kind !== 'quantity')
    return question(end, 'number', `“${plusMinus}” is not a number that can be read one way`, [leaveOut]);
  const { si, stepSi, typed } = stated.quantity;
  if (!(si > 0)) return question(end, 'mass-zero', 'A mass is more than 0; what is not weighed is left out', [leaveOut]);
  if (!(si <= MOST_KG)) return question(end, 'mass-limit', `${typed} is beyond what this record holds (100 t)`, [leaveOut]);
  if (spread !== null && !(spread.quantity.si > 0)) return question(end, 'u-zero', 'An uncertainty is more than 0', [leaveOut]);
  const fromDigits = about ? Math.max(resolutionU(stepSi), si * ESTIMATE_RELATIVE_U) : resolutionU(stepSi);
  const evidence = (doubt?.trim().replace('@', '').toUpperCase() as EvidenceMark | undefined) ?? (about ? 'I' : 'M');
  const said = evidence === (about ? 'I' : 'M') ? '' : evidence === '?' ? ' ?' : ` @${evidence}`;
  const canonical = `${total ? 'total ' : ''}${about ? '~' : ''}${typed}${spread ? ` ±${spread.quantity.typed}` : ''}${said}`;
  return {
    end,
    label: total ? 'mass in all' : 'mass each',
    value: canonical.replace(/^total /, ''),
    evidence,
    put: { mass: { eachKg: si, uKg: spread ? spread.quantity.si : fromDigits, evidence, typed: canonical, isTotal: Boolean(total) } },
  };
};

/** A number alone: never guessed. */
export const bareNumberMatcher: Matcher<MassDraft> = (line, at) => {
  const match = matchAt(BARE, line, at);
  if (!match) return null;
  const [whole, total = '', about = '', digits = '', doubt = ''] = match;
  const withUnit = (unit: string): Choice => ({ label: `${digits} ${unit}`, replacement: `${total}${about}${digits} ${unit}${doubt}` });
  return question(at + whole.length, 'mass-without-unit', `${digits} of what: g or kg?`, [
    withUnit('g'),
    withUnit('kg'),
    keepAsWords(whole),
  ]);
};

/** A length that does not say what it measures. */
export const strayLengthMatcher =
  (choicesFor: (length: string) => readonly Choice[]): Matcher<object> =>
  (line, at) => {
    const match = matchAt(LENGTH, line, at);
    if (!match) return null;
    const choices = [...choicesFor(match[0]), keepAsWords(match[0])];
    return { end: at + match[0].length, question: { code: 'length-of-what', message: `${match[0]} is the length of what?`, choices } };
  };

export interface DirectionDraft {
  readonly direction: Direction;
}

/** `-z`, `+y`: vehicle axes of ISO 4130. */
export const directionMatcher: Matcher<DirectionDraft> = (line, at) => {
  const text = matchAt(DIRECTION, line, at)?.[0];
  const direction = DIRECTIONS.find((d) => d === text?.toLowerCase());
  return text === undefined || direction === undefined
    ? null
    : { end: at + text.length, label: 'direction', value: DIRECTION_WORD[direction], put: { direction } };
};

/** Directions in words; X points aft, Y to the right, Z up. @source ISO 4130:1978, from memory */
export const DIRECTION_WORD: Readonly<Record<Direction, string>> = {
  '+x': '+X aft',
  '-x': '−X forward',
  '+y': '+Y to the right',
  '-y': '−Y to the left',
  '+z': '+Z up',
  '-z': '−Z down',
};

/** A `?` or `~` that stands away from any mass. */
export const loneMarkMatcher: Matcher<object> = (line, at) => {
  const text = matchAt(LONE_QUESTION, line, at)?.[0];
  if (text === undefined) return null;
  const message =
    text === '?'
      ? '“?” marks a value as to be confirmed and stands right after it'
      : '“~” marks a mass as an estimate and stands right before it';
  return { end: at + text.length, question: { code: 'lone-mark', message, choices: [leaveOut, keepAsWords(text)] } };
};

/** Shares a mass stated in all among `count`. */
export const massEach = (mass: MassDraft['mass'] | undefined, count: number): MassEntry | null => {
  if (!mass) return null;
  const { isTotal, ...stated } = mass;
  return isTotal ? { ...stated, eachKg: stated.eachKg / count, uKg: stated.uKg / count } : stated;
};
