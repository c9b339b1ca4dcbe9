import {
  ESTIMATE_RELATIVE_U,
  LENGTH_UNITS,
  NUMBER_TEXT,
  fixed,
  isLengthUnit,
  millimetres,
  readNumber,
  resolutionU,
  toSi,
} from '../../shared';
import { evidence } from '../../record';
import { CODE_END, ask, nanometre } from './common-matchers';
import type { Choice } from './entry';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, quote, type Match, type Matcher } from './reader';

/** What a line says of the size of a part. */
export interface SizeDraft {
  readonly envelopeM: readonly [number, number, number];
  readonly wallThicknessM: number;
  readonly runLengthM: number;
  readonly runDiameterM: number;
}

const BY = String.raw`\s?(?:[x×*]|by)\s?`;
const ENVELOPE = new RegExp(
  String.raw`(~|≈|approx\.?\s|ca\.?\s)?\s?(${NUMBER_TEXT})\s?(mm|cm|m|in|ft|")?${BY}(${NUMBER_TEXT})\s?(mm|cm|m|in|ft|")?(?:${BY}(${NUMBER_TEXT}))?\s*(mm|cm|m|in|ft|")?${CODE_END}`,
  'iy',
);
/** what runs rather than fills a box */
export const RUNS =
  /\b(?:hose|pipe|tube|tubing|cable|harness|line|duct|wire|rope|strap|belt|lead|conduit|seal|weatherstrip|rohr|schlauch|leitung|kabel|tuyau|durite|tubo|tubi|cavo|manguera)s?\b/i;

const decimalsOf = (metres: number): number => String(millimetres(metres)).split('.')[1]?.length ?? 0;
export const boxText = (envelopeM: readonly number[]): string =>
  `${envelopeM.map((l) => fixed(millimetres(l), decimalsOf(l))).join(' × ')} mm`;

type LengthUnit = keyof typeof LENGTH_UNITS;
const unitSymbol = (word: string | undefined): LengthUnit => {
  const symbol = word === '"' ? 'in' : (word ?? 'mm').toLowerCase();
  return isLengthUnit(symbol) ? symbol : 'mm';
};

/** Two sides: something that runs by its diameter, a count and a length, or part of the name. */
const twoSides = (
  text: string,
  end: number,
  [first, second]: readonly [string, string],
  units: readonly LengthUnit[],
  runs: boolean,
): Match<never> => {
  const symbol = units.at(-1) ?? 'mm';
  const isCount = (digits: string): boolean => /^[1-9]\d{0,3}$/.test(digits);
  return ask(end, 'two-dimensions', `${text}: an envelope has three dimensions`, [
    ...(units.length === 1 && runs
      ? [
          { label: `${first} mm across, ${second} ${symbol} long`, replacement: `run ø${first} mm run ${second} ${symbol}` },
          ...(isCount(first)
            ? [{ label: `${first} parts, each ${second} ${symbol} long`, replacement: `${first}x run ${second} ${symbol}` }]
            : []),
        ]
      : []),
    keepAsWords(text),
    leaveOut,
    ...(isCount(second) && units.length === 0
      ? [{ label: `${second} parts, and “${first}” is part of the name`, replacement: `${quote(first)} ${second}x` }]
      : []),
  ]);
};

/** A side that may be a decimal or thousands. */
const twoReadings = (text: string, end: number, side: string): Match<never> => {
  const read = readNumber(side, true);
  return ask(
    end,
    'number-two-ways',
    `Is ${side} a decimal or thousands?`,
    read.kind === 'ambiguous'
      ? read.readings.map((r) => ({
          label: text.replace(side, r.text),
          replacement: text.replace(side, r.step < 1 ? `${r.text}0` : r.text),
        }))
      : [],
  );
};

/** `120x60x45 mm`: length, width and height of a box. */
export const envelopeMatcher: Matcher<SizeDraft> = (line, at) => {
  const match = matchAt(ENVELOPE, line, at);
  if (!match) return null;
  const [text, about, first = '', firstUnit, second = '', secondUnit, third, lastUnit] = match;
  const end = at + text.length;
  const units = [firstUnit, secondUnit, lastUnit].filter((unit) => unit !== undefined).map(unitSymbol);
  const symbol = units.at(-1) ?? 'mm';
  if (new Set(units).size > 1)
    return ask(end, 'two-units', `${text} names two units; which one is meant?`, [
      ...[...new Set(units)].map((unit) => ({
        label: `all in ${unit}`,
        replacement: `${[first, second, third].filter((d) => d !== undefined).join('x')} ${unit}`,
      })),
      keepAsWords(text),
    ]);
  if (third === undefined) return twoSides(text, end, [first, second], units, RUNS.test(line));
  const digits = [first, second, third];
  if (units.length === 0 && digits.some((d) => d.includes('/')))
    return ask(
      end,
      'length-without-unit',
      `${text}: fractions of an inch?`,
      ['in', 'mm'].map((unit) => ({ label: `${text} ${unit}`, replacement: `${text} ${unit}` })),
    );
  const reads = digits.map((d) => readNumber(d, symbol === 'mm'));
  const twoWays = digits.find((_, i) => reads[i]?.kind === 'ambiguous');
  if (twoWays !== undefined) return twoReadings(text, end, twoWays);
  const numbers = reads.map((read) => (read.kind === 'number' ? read.number : null));
  const lengths = numbers.map((n) => (n === null ? Number.NaN : nanometre(toSi(n.value, LENGTH_UNITS[symbol]))));
  if (!lengths.every((l) => l > 0 && l <= 100))
    return ask(end, 'length-limit', 'The envelope must be more than 0 and at most 100 m', [keepAsWords(text), leaveOut]);
  const stepM = Math.max(...numbers.map((n) => toSi(n?.step ?? 0, LENGTH_UNITS[symbol])));
  const envelopeM = lengths as unknown as readonly [number, number, number];
  const largest = Math.max(...lengths);
  const typed = `${about === undefined ? '' : '~'}${numbers.map((n) => n?.text ?? '').join('x')} ${symbol}`;
  return {
    end,
    label: 'envelope',
    value: boxText(envelopeM),
    put: { envelopeM },
    about: 'lengthM',
    evidence: evidence(about === undefined ? 'M' : 'I', {
      u: about === undefined ? resolutionU(stepM) : Math.max(resolutionU(stepM), largest * ESTIMATE_RELATIVE_U),
      typed,
    }),
    plain: typed,
    cost: 0.9,
  };
};

const SIDES = new RegExp(
  String.raw`L\s?[=:]?\s?(\d+(?:[.,]\d+)?)[\s,x×]*[WB]\s?[=:]?\s?(\d+(?:[.,]\d+)?)[\s,x×]*H\s?[=:]?\s?(\d+(?:[.,]\d+)?)(?:\s?(mm|cm))?${CODE_END}`,
  'iy',
);
/** `L1180 W60 H45`: length, width and height by their letters. */
export const sidesMatcher: Matcher<SizeDraft> = (line, at) => {
  const match = matchAt(SIDES, line, at);
  if (!match) return null;
  const [text, l, w, h, unit = 'mm'] = match;
  const box = `${[l, w, h].map((side) => side?.replace(',', '.')).join('x')} ${unit}`;
  const read = envelopeMatcher(box, 0) as Match<SizeDraft> | null;
  return read === null || read.question ? null : { ...read, end: at + text.length, plain: box };
};

const FOUR = new RegExp(
  String.raw`(\d+(?:[.,]\d+)?)${BY}(\d+(?:[.,]\d+)?)${BY}(\d+(?:[.,]\d+)?)${BY}(\d+(?:[.,]\d+)?)(?:\s?mm)?${CODE_END}`,
  'iy',
);
/** `1180 x 60 x 45 x 1.8`: a box and its wall, or so many boxes. */
export const profileMatcher: Matcher<SizeDraft> = (line, at) => {
  const match = matchAt(FOUR, line, at);
  // “2x 60x45x1.8” is two of them, “211x46x37 x4” four: the signs between sizes of one thing are written alike
  const between = match?.[0]
    .replace(/\s?mm$/i, '')
    .split(/\d+(?:[.,]\d+)?/)
    .slice(1, -1);
  if (!match || /^\d+[x×*]\s/i.test(match[0]) || new Set(between?.map((sign) => sign.toLowerCase())).size > 1) return null;
  const [text, a = '', b = '', c = '', d = ''] = match;
  const wall = { label: `${a} × ${b} × ${c} mm, wall ${d} mm`, replacement: `${a}x${b}x${c} mm t${d} mm` };
  const severalOf = (count: string, sides: readonly string[]): readonly Choice[] =>
    /^[1-9]\d{0,2}$/.test(count)
      ? [{ label: `${count} parts of ${sides.join(' × ')} mm`, replacement: `${count}x ${sides.join('x')} mm` }]
      : [];
  const several = [...severalOf(a, [b, c, d]), ...severalOf(d, [a, b, c])];
  const [first, second] = [a, b].map((side) => Number(side.replace(',', '.')));
  const isFew = /^\d{1,2}$/.test(a) && first! < second! / 2;
  const isWall = !isFew && Number(d.replace(',', '.')) < Math.min(...[b, c].map((side) => Number(side.replace(',', '.')))) / 2;
  return ask(
    at + text.length,
    'four-sizes',
    `“${text}”: a box and its wall?`,
    [...(isWall ? [wall, ...several] : [...several, wall]), keepAsWords(text)],
    0.8,
  );
};
