import { MATERIALS, PROCESSES, type Material, type MaterialFamily, type Process } from '../../shared';

/** A word as it is compared: without case, spaces, hyphens and strokes, so that “PA66 GF30”, “pa66-gf30” and “PA66/GF30” are one. */
const wordKey = (text: string): string => text.toLowerCase().replace(/[\s\-_/()]+/g, '');

const byWord = <T extends { readonly id: string; readonly words: readonly string[] }>(
  entries: readonly T[],
  more: (entry: T) => readonly string[],
): ReadonlyMap<string, T> =>
  new Map(entries.flatMap((entry) => [entry.id, ...entry.words, ...more(entry)].map((word) => [wordKey(word), entry] as const)));

/** “EN AW-6082”, “AW 6082”, “Al 6082”, “AlSi9Cu3(Fe)”: the ways a grade is written beside its id and name. */
const gradeSpellings = (material: Material): readonly string[] => {
  const wrought = /^aw-(\d{4})$/.exec(material.id)?.[1];
  return [
    material.name,
    ...(wrought === undefined
      ? []
      : ['en aw', 'aw', 'al', 'alu', 'aluminium', 'aluminum', 'aa', 'ac', 'en ac', 'al aw'].map((before) => `${before} ${wrought}`)),
    ...material.words.filter((word) => /^ac-\d{5}$/.test(word)).map((word) => `en ${word}`),
  ];
};
const MATERIAL_WORDS = byWord(MATERIALS, gradeSpellings);

/** Other words and phrases for processes, beside their ids and names. Common words of the trade, no source. */
const PROCESS_PHRASES: Readonly<Record<string, readonly string[]>> = {
  stamping: ['stamped', 'pressing', 'deep drawn', 'deep drawing', 'press formed'],
  'hot-stamping': ['hot stamped', 'hot stamp', 'hot formed', 'hot forming', 'press hardened', 'press hardening', 'hot pressed'],
  'roll-forming': ['roll formed', 'roll form'],
  extrusion: ['extruded'],
  hpdc: [
    'high pressure die cast',
    'high pressure die casting',
    'pressure die cast',
    'pressure die casting',
    'die casting',
    'die cast',
    'hp die cast',
  ],
  'gravity-casting': ['gravity cast', 'gravity die cast', 'gravity die casting', 'permanent mould casting', 'permanent mold casting'],
  'sand-casting': ['sand cast'],
  forging: ['forged', 'hot forged', 'drop forged', 'cold forged', 'hot forging', 'drop forging', 'cold forging'],
  'injection-moulding': [
    ...['injection moulded', 'injection mould', 'injection molding', 'injection molded', 'injection mold', 'inj moulded', 'inj molded'],
    ...['inj moulding', 'inj molding', 'inj. moulded', 'inj. molded'],
  ],
  'profile-extrusion': ['profile extruded'],
  foaming: ['foam moulded', 'foam moulding'],
  machining: ['machined', 'milled', 'turned', 'cnc machined', 'cnc milled', 'cnc turned', 'milling', 'turning'],
  'tube-forming': ['tube formed', 'tube bending', 'bent tube'],
  thermoforming: ['thermoformed', 'vacuum formed', 'die cut'],
  'wire-forming': ['wire formed', 'bent wire'],
};
const PROCESS_WORDS = byWord(PROCESSES, (process) => [process.name, ...(PROCESS_PHRASES[process.id] ?? [])]);

/** Most words a material or process is written in. */
export const MOST_WORDS = 4;

/** The material a word or phrase names, or undefined. Case, spaces and hyphens do not matter. */
export const materialNamed = (word: string): Material | undefined => MATERIAL_WORDS.get(wordKey(word));
export const processNamed = (word: string): Process | undefined => PROCESS_WORDS.get(wordKey(word));

/**
 * The temper of a wrought aluminium grade behind it: `6082-T6`, `6082 T6`; T only of alloys that can be heat treated.
 * `isLoose`: a small t behind a space may be a thickness as well.
 * @source EN 515, the forms of the designation, from memory
 */
const TEMPER = /^(.*?)(?:(\s?-\s?|)(t\d{1,4}|h\d{2,3}|o|f)|(\s)(t\d{1,4}|h\d{2,3}))$/i;
const HEAT_TREATABLE = /^aw-[267]/;
export const withTemper = (
  text: string,
): { readonly material: Material; readonly temper: string; readonly isLoose: boolean } | undefined => {
  const [, grade = '', , joined, , apart] = TEMPER.exec(text) ?? [];
  const temper = joined ?? apart ?? '';
  const material = grade === '' ? undefined : materialNamed(grade);
  if (!material?.id.startsWith('aw-') || (/^t/i.test(temper) && !HEAT_TREATABLE.test(material.id))) return undefined;
  return { material, temper: temper.toUpperCase(), isLoose: apart !== undefined && temper.startsWith('t') };
};

const of = (family: MaterialFamily): readonly Material[] => MATERIALS.filter((m) => m.family === family);

/** Words that name only a family: never an answer, always a question. */
const VAGUE_MATERIALS: ReadonlyMap<string, readonly Material[]> = new Map([
  ['steel', of('steel')],
  ['aluminium', of('aluminium')],
  ['aluminum', of('aluminium')],
  ['alu', of('aluminium')],
  ['plastic', of('plastic')],
  ['rubber', of('rubber and foam')],
  ['foam', of('rubber and foam').filter((m) => /foam|sponge/i.test(m.name))],
  ['magnesium', MATERIALS.filter((m) => m.id === 'az91d')],
  ['zinc', MATERIALS.filter((m) => m.id === 'zamak-5')],
  ['copper', of('copper')],
  ['glass', of('glass')],
]);

export const vagueMaterial = (word: string): readonly Material[] | undefined => VAGUE_MATERIALS.get(word.toLowerCase());

/** A filler behind a polymer whose filled grade is not in the catalogue: `pa66 gf50`. The grades of that polymer are offered. */
const FILLER = /^(gf|gb|cf|td|md|mf)[\s-]?\d{1,2}$/i;
export const isFiller = (word: string): boolean => FILLER.test(word);
export const gradesOf = (base: Material): readonly Material[] =>
  MATERIALS.filter((m) => m.family === base.family && (m.id === base.id || m.id.startsWith(`${base.id}-`)));

/** Grades a code that is none of them may mean: the same beginning or end, as “dc04+ze” or “gf30”. */
export const gradesLike = (code: string): readonly Material[] => {
  const key = wordKey(code).replace(/\+.*$/, '');
  if (key.length < 3) return [];
  return MATERIALS.filter(
    (m) => m.gradeKnown && [m.id, ...m.words].some((word) => wordKey(word).startsWith(key) || key.startsWith(wordKey(word))),
  ).slice(0, 5);
};

const VAGUE_PROCESSES: ReadonlyMap<string, readonly string[]> = new Map([
  ['cast', ['hpdc', 'gravity-casting', 'sand-casting']],
  ['casting', ['hpdc', 'gravity-casting', 'sand-casting']],
  ['extr', ['extrusion', 'profile-extrusion']],
  ['moulded', ['injection-moulding', 'foaming', 'thermoforming']],
  ['molded', ['injection-moulding', 'foaming', 'thermoforming']],
]);

export const vagueProcess = (word: string): readonly Process[] | undefined =>
  VAGUE_PROCESSES.get(word.toLowerCase())?.flatMap((id) => PROCESSES.filter((p) => p.id === id));
