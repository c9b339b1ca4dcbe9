import { CODE_END, END, ask, bareNumberMatcher, massMatcher, type MassDraft } from './common-matchers';
import type { Choice } from './entry';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, quote, type Match, type Matcher } from './reader';

const SUM = new RegExp(String.raw`(\d{1,3})\s?\+\s?(\d{1,3})(?:\s?[x×])?${END}`, 'iy');
/** “2+2”: so many and so many more, as on either side. */
export const sumMatcher: Matcher<MassDraft> = (line, at) => {
  const match = matchAt(SUM, line, at);
  if (!match) return null;
  const count = Number(match[1]) + Number(match[2]);
  return ask(
    at + match[0].length,
    'count-or-name',
    `“${match[0]}”: ${count} parts?`,
    [{ label: `${count} parts`, replacement: `${count}x` }, keepAsWords(match[0]), leaveOut],
    3,
  );
};

const OF_SEVERAL = new RegExp(
  String.raw`\s+(?:(?:the|a|per) (pair)|(both)|for (both|two|three|four|\d{1,2})|(?:the|per) (set|lot))${END}`,
  'iy',
);
const HOW_MANY: Readonly<Record<string, string>> = { pair: '2', both: '2', two: '2', three: '3', four: '4' };
/** “820 g the pair”, “820 g for 4”: what several weigh together. */
export const massOfSeveral: Matcher<MassDraft> = (line, at) => {
  const mass = massMatcher(line, at) as Match<MassDraft> | null;
  const behind = mass?.put?.mass?.isTotal === false ? matchAt(OF_SEVERAL, line, mass.end) : null;
  if (!mass || !behind) return null;
  const said = (behind.slice(1) as readonly (string | undefined)[]).find((word) => word !== undefined) ?? '';
  const many = HOW_MANY[said.toLowerCase()] ?? (/^\d+$/.test(said) ? said : '');
  const text = line.slice(at, mass.end);
  return ask(
    mass.end + behind[0].length,
    'mass-of-several',
    `“${text}${behind[0]}”: what do they weigh together?`,
    [
      { label: `${text} in all${many === '' ? '' : `, of ${many}`}`, replacement: `${many === '' ? '' : `${many}x `}total ${text}` },
      { label: `${text} each${many === '' ? '' : `, of ${many}`}`, replacement: `${many === '' ? '' : `${many}x `}${text}` },
      { label: `${text}, and “${behind[0].trim()}” is part of the name`, replacement: `${text} ${quote(behind[0].trim())}` },
    ],
    1.5,
  );
};

const SPLIT_MASS = new RegExp(String.raw`(\d{1,3})kg(\d{1,3})${END}`, 'iy');
/** “2kg500”: the decimals behind the unit. */
export const splitMass: Matcher<MassDraft> = (line, at) => {
  const match = matchAt(SPLIT_MASS, line, at);
  if (!match) return null;
  const kg = `${match[1]}.${match[2]} kg`;
  return ask(at + match[0].length, 'number', `“${match[0]}”: ${kg}?`, [{ label: kg, replacement: kg }, keepAsWords(match[0]), leaveOut], 3);
};

/** A number alone: words, a count where it is whole, the wall of thin sheet, or a mass. */
export const bareNumber: Matcher<MassDraft> = (line, at) => {
  const found = bareNumberMatcher('name')(line, at) as Match<MassDraft> | null;
  if (!found?.question) return found;
  const digits = line.slice(at, found.end);
  const { choices } = found.question;
  const [words, ...masses] = [
    ...choices.filter((c) => c.replacement.startsWith('"')),
    ...choices.filter((c) => !c.replacement.startsWith('"')),
  ];
  if (!words) return found;
  const count: readonly Choice[] =
    /^[1-9]\d{0,2}$/.test(digits) && Number(digits) <= MOST_BARE_COUNT ? [{ label: `${digits} parts`, replacement: `${digits}x` }] : [];
  const wall: readonly Choice[] =
    /^\d[.,]\d{1,2}$/.test(digits) && !/^0[.,]0/.test(digits) ? [{ label: `thickness ${digits} mm`, replacement: `t${digits} mm` }] : [];
  const isWords = choices[0] === words;
  return {
    ...found,
    question: { ...found.question, choices: isWords ? [words, ...count, ...masses] : [...wall, ...masses, ...count, words] },
  };
};

const INNER = new RegExp(
  String.raw`(?:(?:id|i\.d\.|inner diameter|inside diameter)\s*=?\s*\d[\d.,]*(?:\s?(?:mm|in|"))?|\d[\d.,/]*\s?(?:mm|in|")?\s?(?:id|i\.d\.))${CODE_END}`,
  'iy',
);
/** A part has no field for an inner diameter: the words, or the wall is to be said. */
export const innerDiameter: Matcher<MassDraft> = (line, at) => {
  const text = matchAt(INNER, line, at)?.[0];
  return text === undefined
    ? null
    : ask(at + text.length, 'no-field', `“${text}”: a part has an outer diameter and a wall (t1.5)`, [keepAsWords(text), leaveOut], 3);
};

/** Of more than this a number alone is no count that somebody wrote behind the name. Assumed. */
const MOST_BARE_COUNT = 40;
