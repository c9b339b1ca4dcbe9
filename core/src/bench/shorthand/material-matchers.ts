import { matchAt } from './matching';
import { keepAsWords, type Match, type Matcher } from './reader';
import {
  MOST_WORDS,
  gradesLike,
  gradesOf,
  isFiller,
  materialNamed,
  processNamed,
  vagueMaterial,
  vagueProcess,
  withTemper,
} from './vocabulary';

export interface MaterialDraft {
  readonly materialId: string;
  readonly materialDetail: string;
}
export interface ProcessDraft {
  readonly processId: string;
}

/** A word that may be a code: up to a mark, a comma or a bracket behind it. */
const CODE = /[^\s",;()[\]]+(?:\([A-Za-z]{1,3}\))??(?=(?:\?|@[MCSPTRI?])?(?:[,;.:)\]]*(?:\s|$)|[)\]]))|[^\s",;()[\]]+\([A-Za-z]{1,3}\)/iy;
const SPACE = /\s+/y;

const trimmed = (word: string): string => word.replace(/[?.:]+$/, '').replace(/@[MCSPTRI?]$/i, '');

/** The first to the fourth word from a place, each phrase with where it ends. */
const phrasesAt = (line: string, at: number): readonly { readonly text: string; readonly end: number }[] => {
  const phrases: { text: string; end: number }[] = [];
  let end = at;
  for (let n = 0; n < MOST_WORDS; n++) {
    const gap = n === 0 ? 0 : (matchAt(SPACE, line, end)?.[0].length ?? -1);
    if (gap < 0) break;
    const word = trimmed(matchAt(CODE, line, end + gap)?.[0] ?? '');
    if (word === '') break;
    end += gap + word.length;
    phrases.push({ text: line.slice(at, end), end });
  }
  return phrases;
};

interface Phrase {
  readonly text: string;
  readonly end: number;
}

/** Words behind a code that make a name of it: “abs sensor” is no sensor made of ABS. */
const NOT_A_GRADE = /^\s+(?:sensor|ring|unit|module|pump|valve|block|cable|wheel|control)\b/i;

const material = ({ text, end }: Phrase, line: string): Match<MaterialDraft> | null => {
  const tempered = withTemper(text);
  if (tempered)
    return {
      end,
      label: 'material',
      value: `${tempered.material.name}, ${tempered.temper}`,
      put: { materialId: tempered.material.id, materialDetail: tempered.temper },
      about: 'materialId',
      plain: `${tempered.material.id}-${tempered.temper}`,
      cost: tempered.isLoose ? 2 : 0.9,
    };
  const found = materialNamed(text);
  if (!found) return null;
  const isName = text.toLowerCase() === 'abs' && NOT_A_GRADE.test(line.slice(end));
  return {
    end,
    label: 'material',
    value: found.name,
    put: { materialId: found.id },
    about: 'materialId',
    plain: found.id,
    cost: isName ? 2.3 : 0.95,
  };
};

const choicesOf = (entries: readonly { readonly id: string; readonly name: string }[], text: string, where: string) => [
  ...entries.map((m) => ({ label: m.name, replacement: m.id })),
  { ...keepAsWords(text), label: `part of the ${where}` },
];

/** `dc04`, `PA66 GF30`, `6082-T6`; a family, an unknown filling or an unknown grade is asked about. */
export const materialMatcher =
  (where: string): Matcher<MaterialDraft> =>
  (line, at) => {
    const phrases = phrasesAt(line, at);
    const found = phrases.map((phrase) => material(phrase, line)).filter((match) => match !== null);
    const [first, second] = phrases;
    if (!first) return found;
    const base = materialNamed(first.text);
    const filler = second?.text.slice(first.text.length).trim() ?? '';
    if (second && base && isFiller(filler) && materialNamed(second.text) === undefined && !withTemper(second.text))
      return [
        {
          end: second.end,
          cost: 1.5,
          question: {
            code: 'material-grade',
            message: `The catalogue has no “${second.text}”; which grade is meant?`,
            choices: choicesOf([...gradesOf(base).filter((m) => m.id !== base.id), base], second.text, where),
          },
        },
      ];
    if (found.length > 0) return found;
    const family = vagueMaterial(first.text);
    const stop = first.end + (line[first.end] === '?' ? 1 : 0);
    if (family)
      return [
        {
          end: stop,
          cost: 1.6,
          question: {
            code: 'material-family',
            message: `“${first.text}” is not a grade; which one?`,
            choices: choicesOf(family, line.slice(at, stop), where),
          },
        },
      ];
    const like = /\d/.test(first.text) && /[a-z]/i.test(first.text) && !/^[tmh]?\d/i.test(first.text) ? gradesLike(first.text) : [];
    return like.length === 0
      ? []
      : [
          {
            end: first.end,
            cost: 6,
            question: {
              code: 'material-grade',
              message: `The catalogue has no “${first.text}”; which grade is meant?`,
              choices: choicesOf(like, first.text, where),
            },
          },
        ];
  };

/** `inj`, `hot stamping`, `sand cast`; what could be several processes is asked about. */
export const processMatcher: Matcher<ProcessDraft> = (line, at) => {
  const phrases = phrasesAt(line, at);
  const found = phrases.flatMap(({ text, end }): Match<ProcessDraft>[] => {
    const process = processNamed(text);
    return process
      ? [{ end, label: 'made by', value: process.name, put: { processId: process.id }, about: 'processId', plain: process.id, cost: 0.95 }]
      : [];
  });
  const [first] = phrases;
  const several = first && vagueProcess(first.text);
  if (found.length > 0 || !first || !several) return found;
  const stop = first.end + (line[first.end] === '?' ? 1 : 0);
  return [
    {
      end: stop,
      cost: 1.6,
      question: {
        code: 'process-family',
        message: `“${first.text}” could be made in several ways; which one?`,
        choices: choicesOf(several, line.slice(at, stop), 'name'),
      },
    },
  ];
};
