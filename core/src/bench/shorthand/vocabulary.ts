import { MATERIALS, PROCESSES, type Material, type MaterialFamily, type Process } from '../../shared';

const byWord = <T extends { readonly id: string; readonly words: readonly string[] }>(entries: readonly T[]): ReadonlyMap<string, T> =>
  new Map(entries.flatMap((entry) => [entry.id, ...entry.words].map((word) => [word, entry] as const)));

const MATERIAL_WORDS = new Map<string, Material>([
  ...byWord(MATERIALS),
  ...MATERIALS.filter((m) => !m.name.includes(' ')).map((m) => [m.name.toLowerCase(), m] as const),
]);
const PROCESS_WORDS = byWord(PROCESSES);

/** The material a word names, or undefined. Case does not matter. */
export const materialNamed = (word: string): Material | undefined => MATERIAL_WORDS.get(word.toLowerCase());
export const processNamed = (word: string): Process | undefined => PROCESS_WORDS.get(word.toLowerCase());

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

const VAGUE_PROCESSES: ReadonlyMap<string, readonly string[]> = new Map([
  ['cast', ['hpdc', 'gravity-casting', 'sand-casting']],
  ['casting', ['hpdc', 'gravity-casting', 'sand-casting']],
  ['extr', ['extrusion', 'profile-extrusion']],
]);

export const vagueProcess = (word: string): readonly Process[] | undefined =>
  VAGUE_PROCESSES.get(word.toLowerCase())?.flatMap((id) => PROCESSES.filter((p) => p.id === id));
