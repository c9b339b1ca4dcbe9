import type { EvidenceMark } from '../../shared';
import { DIRECTIONS, DIRECTION_WORD, evidence, type Direction, type Evidence } from '../../record';
import type { Choice, MassEntry } from './entry';
import { matchAt } from './matching';
import { CODE_END, END, statedAt, withDigits, type Stated } from './quantity';
import { keepAsWords, leaveOut, tidy, type Match, type Matcher } from './reader';
import { LENGTH, MASS, OTHER_UNITS, VOLUME, type UnitTable } from './unit-words';

export { CODE_END, END } from './quantity';

const DIRECTION = new RegExp(String.raw`[+-][xyz]${CODE_END}`, 'iy');
const LONE_MARK = new RegExp(String.raw`[?~≈±!]${END}`, 'y');
const OTHER = new RegExp(
  String.raw`(?:~\s?|[<>]=?\s?)?[\d.,½¼¾]+(?:\s?[-–]\s?[\d.,]+)?\s?(?:${[...OTHER_UNITS]
    .sort((a, b) => b.length - a.length)
    .map((u) => u.replace(/[$/]/g, String.raw`\$&`).replaceAll(' ', String.raw`\s`))
    .join('|')})${CODE_END}`,
  'y',
);

/** Lengths are kept to the nanometre, so that a printed line reads back as the same number. */
export const NANOMETRES = 9;
export const nanometre = (metres: number): number => Math.round(metres * 10 ** NANOMETRES) / 10 ** NANOMETRES;

export interface MassDraft {
  readonly mass: MassEntry & { readonly isTotal: boolean };
}

const MOST_KG = 100_000;

/** A question about a stretch. */
export const ask = (end: number, code: string, message: string, choices: readonly Choice[], cost?: number): Match<never> => ({
  end,
  question: { code, message, choices },
  ...(cost === undefined ? {} : { cost }),
});

/** Choices for a number that can be read two ways, each writing the whole stretch with one reading. */
const readingsOf = (stretch: string, fault: Extract<Stated['fault'], { kind: 'two-ways' }>): readonly Choice[] =>
  fault.readings.map((reading) => {
    const text = withDigits(stretch, fault.digits, reading.text);
    // three digits after a point stay as they are only where “!” says that they are meant so
    const isSame = /^[1-9]\d{0,2}\.\d{3}$/.test(reading.text) && /\b(?:k?g)\b|mg|mm/i.test(text) && !/kg/i.test(text);
    return { label: text, replacement: isSame ? text.replace(/(\s*(?:mg|mm|gr?s?|gms?|grams?))(?=\s|$|[?@,;.)])/i, '$1!') : text };
  });

/** The question a quantity raises that is not read as a number, or null. */
export const faultOf = (line: string, at: number, stated: Stated): Match<never> | null => {
  const stretch = line.slice(at, stated.end);
  const { fault, end } = stated;
  if (fault === null) return null;
  if (fault.kind === 'two-ways')
    return ask(end, 'number-two-ways', `Is “${fault.digits}” a decimal or thousands?`, readingsOf(stretch, fault));
  if (fault.kind === 'spread')
    return ask(end, 'u-zero', 'An uncertainty is more than 0', [
      { label: 'without it', replacement: stretch.replace(/\s*(?:±|\+\/-|\+-).*$/, '') },
      leaveOut,
    ]);
  if (fault.kind === 'range')
    return ask(end, 'range', 'A range goes from the lower to the higher figure', [keepAsWords(stretch), leaveOut]);
  return ask(end, 'number', `“${fault.digits}” is not a number`, [keepAsWords(stretch), leaveOut]);
};

/** "about 5 kg" for a bound, which is no measurement: what people mean by it is chosen. */
const boundQuestion = (line: string, at: number, stated: Stated, before = ''): Match<never> | null => {
  if (stated.bound === null) return null;
  const text = tidy(line.slice(at, stated.end));
  return ask(
    stated.end,
    'bound',
    `“${text}” is a limit, not a figure`,
    [
      { label: `about ${stated.plain}, an estimate`, replacement: `${before}~${stated.plain}` },
      { label: `${stated.plain}, as it stands`, replacement: `${before}${stated.plain}` },
      keepAsWords(text),
      leaveOut,
    ],
    1.2,
  );
};

/** How a value is known that was typed so, and the spelling that says it. */
const saidOf = (stated: Stated, spelling: string): { readonly mark: EvidenceMark; readonly typed: string } => {
  const usual: EvidenceMark = stated.isAbout || stated.value?.isRange ? 'I' : 'M';
  const mark = stated.mark ?? usual;
  return {
    mark,
    typed: `${spelling}${stated.value?.spread ?? ''}${stated.isSure ? '!' : ''}${mark === usual ? '' : mark === '?' ? ' ?' : ` @${mark}`}`,
  };
};

/** `41 g`, `~1.2 kg`, `1.2 kg ?`, `total 492 g`, `492 g tot`, `5-6 kg`, `41 g ±2 g`, `ca. 5 kg` */
export const massMatcher: Matcher<MassDraft> = (line, at) => {
  const stated = statedAt(line, at, { table: MASS, usual: null });
  if (!stated) return null;
  const { end, isTotal, isAbout, plain } = stated;
  const raised = faultOf(line, at, stated) ?? boundQuestion(line, at, stated, isTotal ? 'total ' : '');
  if (raised || !stated.value) return raised;
  const { si, u, spread } = stated.value;
  if (!(si > 0)) return ask(end, 'mass-zero', 'A mass is more than 0; what is not weighed is left out', [leaveOut]);
  const { mark, typed } = saidOf(stated, `${isTotal ? 'total ' : ''}${isAbout ? '~' : ''}${plain}`);
  // 1.5T is as often a thickness as tonnes
  const isTonnes = stated.symbol === 't';
  const inKg = `${Number(si.toPrecision(12))} kg`;
  if (!(si <= MOST_KG))
    return ask(end, 'mass-limit', `${plain} is beyond what this record holds (100 t)`, [keepAsWords(line.slice(at, end)), leaveOut]);
  return {
    end,
    label: isTotal ? 'mass in all' : 'mass each',
    value: `${isAbout ? '~' : ''}${plain}${spread}`,
    mark,
    put: { mass: { eachKg: si, uKg: u, mark, typed, isTotal } },
    // “type 3 t 1.2 mm”: the t belongs to what stands behind it
    ...(isTonnes ? { plain: typed.replace(plain, inKg), cost: /^\s+\d/.test(line.slice(end)) ? 3 : 1.4 } : {}),
  };
};

/** 1 234 g: thousands parted by a space, or a number and a mass */
const SPACED = new RegExp(String.raw`([1-9]\d{0,2})((?: \d{3})+)(\s?)${MASS.pattern}(?![\p{L}\d])`, 'iuy');
export const spacedThousands: Matcher<MassDraft> = (line, at) => {
  const match = matchAt(SPACED, line, at);
  if (!match || /\d\s?$/.test(line.slice(0, at))) return null;
  const [text, first = '', rest = '', gap = '', unit = ''] = match;
  const joined = `${first}${rest.replaceAll(' ', '')}${gap}${unit}`;
  return ask(at + text.length, 'number-two-ways', `Is “${text}” one number?`, [
    { label: joined, replacement: joined },
    { label: `${rest.trim()}${gap}${unit}, and “${first}” is part of the name`, replacement: `"${first}"${rest}${gap}${unit}` },
  ]);
};

const BARE = new RegExp(String.raw`(?:(?:total|tot\.?)\s+)?(?:~\s?)?\d(?:[\d.,]*\d)?(?:\s?\?)?${END}`, 'iy');

/** A number alone: never guessed. Small whole numbers are likelier part of the name, as in “rail 1”. */
export const bareNumberMatcher =
  (where: string): Matcher<MassDraft> =>
  (line, at) => {
    const stated = statedAt(line, at, { table: MASS, usual: '' });
    const whole = matchAt(BARE, line, at)?.[0];
    const isUnitOfNext = stated?.symbol === 't' && /^\s+\d/.test(line.slice(stated.end));
    if (whole === undefined || (stated !== null && stated.symbol !== '' && stated.end > at + whole.length && !isUnitOfNext)) return null;
    const digits = /[\d.,]*\d/.exec(whole)?.[0] ?? '';
    const withUnit = (unit: string): Choice => ({ label: `${digits} ${unit}`, replacement: whole.replace(digits, `${digits} ${unit}`) });
    const words: Choice = { ...keepAsWords(whole), label: `part of the ${where}` };
    // a digit alone, a code of many digits, or what a word for a place in a list stands before: likelier words than grams
    const isSmall =
      /^(?:\d|[1-9]\d{4,})$/.test(whole) ||
      /(?<![\p{L}\d])(?:pos|item|ref|nr|no|rev|type|size|row|zone|step|stn|station|line|fig|bay|grp|group|detail|sheet|model|art|al|aa|sae|din|iso|jis|en|aw)\.?\s*:?\s+$/iu.test(
        line.slice(0, at),
      );
    return ask(
      at + whole.length,
      'mass-without-unit',
      `${digits} of what: g or kg?`,
      isSmall ? [words, withUnit('g'), withUnit('kg')] : [withUnit('g'), withUnit('kg'), words],
    );
  };

/** A length that does not say what it measures. */
export const strayLengthMatcher =
  (choicesFor: (length: string, metres: number | null) => readonly Choice[], where: string): Matcher<object> =>
  (line, at) => {
    const stated = statedAt(line, at, { table: LENGTH, usual: null });
    if (!stated) return null;
    const text = line.slice(at, stated.end);
    const choices = [
      ...choicesFor(stated.fault ? text : `${stated.isAbout ? '~' : ''}${stated.plain}`, stated.value?.si ?? null),
      { ...keepAsWords(text), label: `part of the ${where}` },
    ];
    return ask(stated.end, 'length-of-what', `${text} is the length of what?`, choices);
  };

/** A volume or another quantity that a part or set has no field for: words, or a line of its own. */
export const otherQuantityMatcher =
  (where: string): Matcher<object> =>
  (line, at) => {
    const volume = statedAt(line, at, { table: VOLUME, usual: null });
    const other = matchAt(OTHER, line, at)?.[0];
    const end = Math.max(volume?.end ?? 0, other === undefined ? 0 : at + other.length);
    if (end === 0) return null;
    const text = line.slice(at, end);
    return ask(end, 'no-field', `“${text}”: a ${where === 'name' ? 'part' : 'set'} has no field for this`, [
      { ...keepAsWords(text), label: `part of the ${where}` },
      leaveOut,
    ]);
  };

export interface DirectionDraft {
  readonly direction: Direction;
}

/** `-z`, `+y`: vehicle axes of ISO 4130. */
export const directionMatcher = (line: string, at: number): Match<DirectionDraft> | null => {
  const text = matchAt(DIRECTION, line, at)?.[0];
  const direction = DIRECTIONS.find((d) => d === text?.toLowerCase());
  return text === undefined || direction === undefined
    ? null
    : { end: at + text.length, label: 'direction', value: DIRECTION_WORD[direction], put: { direction }, about: 'direction' };
};

/** A `?`, `~` or the like that stands away from any value. */
export const loneMarkMatcher: Matcher<object> = (line, at) => {
  const text = matchAt(LONE_MARK, line, at)?.[0];
  if (text === undefined) return null;
  const message =
    text === '?'
      ? '“?” marks a value as to be confirmed and stands right after it'
      : `“${text}” belongs to a figure and stands right ${text === '!' ? 'after' : 'before'} it`;
  return ask(at + text.length, 'lone-mark', message, [leaveOut, keepAsWords(text)], 1.5);
};

/** Words that belong to a figure and are not part of any name, standing alone: `approx`, `tot`, `est.` */
const ORPHAN = new RegExp(String.raw`(?:approx\.?|approximately|est\.|tot\.?|ca\.|each|ea\.?)${END}`, 'iy');
export const orphanMatcher: Matcher<object> = (line, at) => {
  const text = matchAt(ORPHAN, line, at)?.[0];
  return text === undefined
    ? null
    : ask(at + text.length, 'lone-word', `“${text}” belongs to a figure`, [leaveOut, keepAsWords(text)], 2.5);
};

/** Shares a mass stated in all among `count`. */
export const massEach = (mass: MassDraft['mass'] | undefined, count: number): MassEntry | null => {
  if (!mass) return null;
  const { isTotal, ...stated } = mass;
  return isTotal ? { ...stated, eachKg: stated.eachKg / count, uKg: stated.uKg / count } : stated;
};

export interface Figure {
  /** what stands before the number, as a pattern without groups; the figure may stand behind it with “=”, “:” or a space */
  readonly before: RegExp | null;
  /** what stands behind instead, as in “0.8 mm thick” */
  readonly behind: RegExp | null;
  readonly table: UnitTable;
  readonly usual: string | null;
  readonly label: string;
  readonly inAll: string | null;
  readonly field: string;
  readonly most: number;
  readonly mostText: string;
  /** how it is printed: `t0.8 mm`, `run 1.4 m` */
  readonly spelling: (figure: string) => string;
  readonly unitAsked?: readonly string[];
  readonly shown?: (si: number, plain: string) => string;
}

/** ½ or 3/8 without a unit: an inch as often as not. */
const isFraction = (stated: Stated): boolean => !stated.hasUnit && stated.digits.includes('/');

/** From this figure on a length without a unit is hardly in metres. */
const HARDLY_METRES = 15;

/** Which unit is meant, the likelier first. */
const unitQuestion = (
  text: string,
  end: number,
  stated: Stated,
  asked: readonly string[],
  spell: (figure: string) => string,
): Match<never> => {
  const isLarge = asked.includes('mm') && Number.parseFloat(stated.plain.replace(/^\D+/, '')) >= HARDLY_METRES;
  const units = isFraction(stated) ? ['in', 'mm'] : isLarge ? [...asked].sort((a, b) => Number(b === 'mm') - Number(a === 'mm')) : asked;
  const figure = isFraction(stated) ? stated.digits : stated.plain;
  return ask(
    end,
    'length-without-unit',
    isFraction(stated) ? `${text}: a fraction of an inch?` : `${text}: ${units.join(' or ')}?`,
    units.map((unit) => ({ label: `${figure} ${unit}`, replacement: spell(`${figure} ${unit}`) })),
  );
};

interface FigureRead {
  readonly si: number;
  readonly isTotal: boolean;
  readonly evidence: Evidence;
}

/**
 * A quantity that says what it measures, before it or behind it. Gives the figure in SI and how it is known, or the
 * question it raises; null where there is none.
 */
export const figureAt = (
  line: string,
  at: number,
  figure: Figure,
): { readonly match: Match<never>; readonly read: FigureRead | null } | null => {
  const lead = figure.before === null ? null : matchAt(figure.before, line, at);
  const from = at + (lead?.[0].length ?? 0);
  if (figure.before !== null && figure.behind === null && !lead) return null;
  const stated = statedAt(line, from, {
    table: figure.table,
    usual: figure.usual ?? '',
    decimals: figure.table === LENGTH ? NANOMETRES : undefined,
    isEachOnly: figure.inAll === null,
  });
  if (!stated) return null;
  let end = stated.end;
  if (!lead && figure.behind !== null) {
    const tail = matchAt(figure.behind, line, end);
    if (!tail) return null;
    end += tail[0].length;
  } else if (!lead && figure.before !== null) return null;
  const read = { ...stated, end };
  const spell = (text: string): string => figure.spelling(`${stated.isTotal ? 'total ' : ''}${stated.isAbout ? '~' : ''}${text}`);
  const only = (match: Match<never> | null): { match: Match<never>; read: null } | null => (match ? { match, read: null } : null);
  const fault = faultOf(line, at, read);
  if (fault) return only(fault);
  const bound = boundQuestion(line, at, read, figure.spelling(''));
  if (bound) return only(bound);
  if (stated.value === null || stated.symbol === '' || isFraction(stated))
    return only(unitQuestion(line.slice(at, end), end, stated, figure.unitAsked ?? ['mm', 'm'], spell));
  const { si, u } = stated.value;
  if (!(si > 0 && si <= figure.most))
    return only(
      ask(end, 'length-limit', `The ${figure.label} must be more than 0 and at most ${figure.mostText}`, [
        keepAsWords(line.slice(at, end)),
        leaveOut,
      ]),
    );
  const typed = `${stated.isTotal ? 'total ' : ''}${stated.isAbout ? '~' : ''}${stated.plain}${stated.value.spread}${stated.isSure ? '!' : ''}`;
  const mark = stated.mark ?? (stated.isAbout || stated.value.isRange ? 'I' : 'M');
  const isSaid = stated.mark !== null;
  return {
    match: {
      end,
      label: stated.isTotal ? (figure.inAll ?? figure.label) : figure.label,
      value: figure.shown?.(si, stated.plain) ?? stated.plain,
      about: figure.field,
      evidence: evidence(mark, { u, typed }),
      mark,
      plain: `${figure.spelling(typed)}${isSaid ? (mark === '?' ? ' ?' : ` @${mark}`) : ''}`,
    },
    read: { si, isTotal: stated.isTotal, evidence: evidence(mark, { u, typed }) },
  };
};
