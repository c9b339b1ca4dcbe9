import { GRADES, type Grade } from './grades';

interface Designation {
  /** the system of numbers it is written in, in words; empty when none is recognised */
  readonly system: string;
  readonly form: Grade['form'] | null;
  /** what kind of alloy the number says */
  readonly says: string;
  readonly grade: Grade | null;
  /** what does not go together, in words; null when nothing is wrong */
  readonly fault: string | null;
}

const WROUGHT_SERIES: Readonly<Record<string, string>> = {
  1: 'aluminium of 99 % and more',
  2: 'aluminium with copper',
  3: 'aluminium with manganese',
  4: 'aluminium with silicon',
  5: 'aluminium with magnesium',
  6: 'aluminium with magnesium and silicon',
  7: 'aluminium with zinc',
  8: 'aluminium with other elements',
};
const CAST_SERIES: Readonly<Record<string, string>> = {
  1: 'aluminium of 99 % and more, for casting',
  2: 'casting aluminium with copper',
  3: 'casting aluminium with silicon and copper or magnesium',
  4: 'casting aluminium with silicon',
  5: 'casting aluminium with magnesium',
  7: 'casting aluminium with zinc',
  8: 'casting aluminium with tin',
};
const EN_CAST_GROUP: Readonly<Record<string, string>> = {
  2: 'casting aluminium with copper',
  4: 'casting aluminium with silicon',
  5: 'casting aluminium with magnesium',
  7: 'casting aluminium with zinc',
};
const STEEL_GROUP = (number: number): string =>
  number >= 4000 && number < 5000 ? 'stainless or heat-resisting steel' : number < 2000 ? 'unalloyed steel' : 'alloy steel';

const squeezed = (text: string): string => text.toUpperCase().replace(/[^A-Z0-9.]/g, '');

/** A designation without what people leave off: EN, the letters of the system, what stands in brackets, the ending .0. */
const bare = (text: string): string =>
  squeezed(text.replace(/\(.*?\)/g, ''))
    .replace(/^EN/, '')
    .replace(/^(AW|AC|AA|MC)/, '')
    .replace(/^([A-Z]?\d{3})\.[012]$/, '$1');

/** The grade a designation names, in whatever system it is written, also with the letters of the wrong one. */
const gradeNamed = (text: string): Grade | null => {
  const exact = squeezed(text).replace(/^EN/, '');
  const names = (g: Grade): readonly string[] => [g.name, ...g.alsoNamed];
  const wanted = bare(text);
  return (
    GRADES.find((g) => names(g).some((name) => squeezed(name).replace(/^EN/, '') === exact)) ??
    (wanted === '' ? undefined : GRADES.find((g) => names(g).some((name) => bare(name) === wanted))) ??
    null
  );
};

/** The letters of one system before a number of the other, in words; null where they go together. */
const mixedSystems = (word: string): string | null => {
  const cast = /^(?:EN)?AC([1-8]\d{3})[A-Z]?$/.exec(word)?.[1];
  if (cast !== undefined)
    return `EN AC- is for casting alloys, and ${cast} is the number of a wrought one: EN AW-${cast} is probably meant`;
  const wrought = /^(?:EN)?AW(\d{5})$/.exec(word)?.[1];
  if (wrought !== undefined)
    return `EN AW- is for wrought alloys, and ${wrought} is the number of a casting one: EN AC-${wrought} is probably meant`;
  return null;
};

/**
 * Reads a designation of an alloy and says what it is the number of, and what does not go together: a four-digit number of
 * wrought aluminium is no casting alloy.
 *
 * @param isCast whether the part is a casting, as recorded or seen; null when it is not known
 * @source EN 573-1 and EN 573-2 (wrought), EN 1780-1 (cast), AA three digits with a point (cast), EN 10027-2 (steel numbers):
 *   from memory
 */
export const readDesignation = (text: string, isCast: boolean | null): Designation => {
  const word = squeezed(text);
  const grade = gradeNamed(text);
  const found = systemOf(word, grade);
  if (!found) return { system: '', form: grade?.form ?? null, says: '', grade, fault: null };
  const { form } = found;
  const clash =
    form === null || isCast === null || (form === 'cast') === isCast
      ? null
      : form === 'wrought'
        ? `${text.trim()} is the number of a wrought alloy, and the part is a casting: a casting alloy has five digits after EN AC-, or three and a point`
        : `${text.trim()} is the number of a casting alloy, and the part is rolled, drawn, forged or extruded: a wrought alloy has four digits`;
  return { ...found, grade, fault: mixedSystems(word) ?? clash };
};

const systemOf = (word: string, grade: Grade | null): Pick<Designation, 'system' | 'form' | 'says'> | null => {
  const wrought = /^(?:EN)?(?:AW|AA|AC)?([1-8])\d{3}[A-Z]?$/.exec(word);
  if (wrought) return { system: 'wrought aluminium, four digits', form: 'wrought', says: WROUGHT_SERIES[wrought[1]!] ?? '' };
  const european = /^(?:EN)?A[CW]([2457])\d{4}$/.exec(word);
  if (european) return { system: 'cast aluminium, EN AC- and five digits', form: 'cast', says: EN_CAST_GROUP[european[1]!] ?? '' };
  const pointed = /^(?:AA)?[A-Z]?([1-8])\d{2}\.[012]$/.exec(word) ?? /^(?:AA)?[A-Z]([1-8])\d{2}$/.exec(word);
  if (pointed && CAST_SERIES[pointed[1]!])
    return { system: 'cast aluminium, three digits and a point', form: 'cast', says: CAST_SERIES[pointed[1]!]! };
  const steel = /^1\.(\d{4})$/.exec(word);
  if (steel) return { system: 'steel number, 1. and four digits', form: null, says: STEEL_GROUP(Number(steel[1])) };
  if (grade) return { system: 'name by its composition or trade', form: grade.form, says: '' };
  return null;
};
