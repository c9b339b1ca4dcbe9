import { MATERIAL_FAMILIES, PROCESSES, type MaterialFamily, type Process } from '../../shared';
import { cueById, type Cue } from './cues';

export interface Likely<T> {
  readonly what: T;
  /** chance among all of its kind, 0…1 */
  readonly chanceFraction: number;
  /** cues that speak for it and against it, the strongest first */
  readonly forIt: readonly Cue[];
  readonly against: readonly Cue[];
}

interface Identified {
  readonly processes: readonly Likely<Process>[];
  readonly families: readonly Likely<MaterialFamily>[];
}

/** Families a process works with; others are all but ruled out. */
export const WORKS_WITH: Readonly<Record<string, readonly MaterialFamily[]>> = {
  stamping: ['steel', 'aluminium', 'copper'],
  'hot-stamping': ['steel'],
  'roll-forming': ['steel', 'aluminium'],
  extrusion: ['aluminium'],
  hpdc: ['aluminium', 'magnesium and zinc'],
  'gravity-casting': ['aluminium', 'magnesium and zinc'],
  'sand-casting': ['aluminium', 'steel'],
  forging: ['steel', 'aluminium'],
  'injection-moulding': ['plastic', 'rubber and foam'],
  'profile-extrusion': ['plastic', 'rubber and foam'],
  foaming: ['plastic', 'rubber and foam'],
  thermoforming: ['plastic'],
  'tube-forming': ['steel', 'aluminium', 'copper'],
  'wire-forming': ['steel'],
};
const ALL_BUT_RULED_OUT = 0.02;

/**
 * Processes and families of material by what is seen on a part: each cue multiplies the odds by its ratio, and a process
 * keeps its chance only with a family it works with.
 *
 *   P(process, family) ∝ Π ratio(cue, process) · ratio(cue, family) · works(process, family)
 *
 * Cues are taken as independent, which they are not quite: chances rank, they do not bet. The user decides.
 *
 * @param cueIds cues seen
 * @param known family already known from an alloy reading, a magnet or a mark; null when not
 */
export const likely = (cueIds: readonly string[], known: MaterialFamily | null): Identified => {
  const cues = cueIds.flatMap((id) => cueById.get(id) ?? []);
  const pairs = PROCESSES.flatMap((process) =>
    MATERIAL_FAMILIES.map((family) => {
      const seen = cues.reduce((product, c) => product * (c.processes[process.id] ?? 1) * (c.families[family] ?? 1), 1);
      const worksWith = WORKS_WITH[process.id];
      const works = worksWith === undefined || worksWith.includes(family) ? 1 : ALL_BUT_RULED_OUT;
      return { process, family, weight: seen * works * (known === null || known === family ? 1 : 0) };
    }),
  );
  const all = pairs.reduce((sum, p) => sum + p.weight, 0);
  const rank = <T>(
    kinds: readonly T[],
    of: (pair: (typeof pairs)[number]) => T,
    ratio: (c: Cue, what: T) => number,
  ): readonly Likely<T>[] =>
    kinds
      .map((what): Likely<T> => {
        const ratios = cues.map((c) => ({ c, r: ratio(c, what) }));
        return {
          what,
          chanceFraction: all === 0 ? 0 : pairs.filter((p) => of(p) === what).reduce((sum, p) => sum + p.weight, 0) / all,
          forIt: ratios
            .filter(({ r }) => r > 1)
            .sort((a, b) => b.r - a.r)
            .map(({ c }) => c),
          against: ratios
            .filter(({ r }) => r < 1)
            .sort((a, b) => a.r - b.r)
            .map(({ c }) => c),
        };
      })
      .sort((a, b) => b.chanceFraction - a.chanceFraction);
  return {
    processes: rank(
      PROCESSES,
      (p) => p.process,
      (c, process) => c.processes[process.id] ?? 1,
    ),
    families: rank(
      MATERIAL_FAMILIES,
      (p) => p.family,
      (c, family) => c.families[family] ?? 1,
    ),
  };
};
