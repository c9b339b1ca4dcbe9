import type { EvidenceMark } from '../shared';
import type { Entity, FieldsOf, KnownOf } from './entities';

/** How one recorded value is known. */
export interface Known {
  readonly mark: EvidenceMark;
  /** standard uncertainty in the unit of the field; null where none was stated */
  readonly u: number | null;
  /** a count or measure may be a range; low alone is "at least" */
  readonly low: number | null;
  readonly high: number | null;
  /** the value as typed, with its unit */
  readonly typed: string | null;
  readonly instrument: string;
  /** who told it, which picture, which file */
  readonly source: string;
}

export const known = (mark: EvidenceMark, more: Partial<Known> = {}): Known => ({
  mark,
  u: null,
  low: null,
  high: null,
  typed: null,
  instrument: '',
  source: '',
  ...more,
});

/** Kinds of record whose values say how they are known. */
export type KnowingEntity = 'vehicle' | 'piece' | 'fasteners' | 'joints' | 'connection' | 'components' | 'board' | 'fluid';
export const isKnowing = (entity: Entity): entity is KnowingEntity => entity in IMPLIED;

/**
 * What goes without saying: unless something else is said, a count was counted, a dimension measured, and everything
 * else seen on the part. A price and the headline figures of a vehicle are told by somebody.
 */
const IMPLIED: { readonly [E in KnowingEntity]: Readonly<Partial<Record<keyof FieldsOf[E] & string, EvidenceMark>>> } = {
  vehicle: {
    kerbMassKg: 'T',
    powerW: 'T',
    batteryJ: 'T',
    voltageV: 'T',
    rangeM: 'T',
    consumptionJPerM: 'T',
    turningCircleM: 'T',
    wheelbaseM: 'T',
    trackM: 'T',
  },
  piece: {
    name: 'S',
    function: 'S',
    quantity: 'C',
    hand: 'S',
    materialId: 'S',
    materialDetail: 'S',
    processId: 'S',
    processDetail: 'S',
    massEachKg: 'M',
    lengthM: 'M',
    wallThicknessM: 'M',
    runLengthM: 'M',
    runDiameterM: 'M',
    xM: 'M',
    location: 'S',
    markings: 'S',
    supplier: 'S',
    damage: 'S',
    boughtPrice: 'T',
  },
  fasteners: {
    count: 'C',
    kind: 'S',
    threadM: 'S',
    pitchM: 'S',
    lengthM: 'S',
    drive: 'S',
    grade: 'S',
    direction: 'S',
    tighteningNm: 'M',
    breakawayNm: 'M',
    access: 'S',
    tool: 'S',
    removed: 'S',
    massEachKg: 'M',
  },
  joints: { count: 'C', kind: 'S', lengthEachM: 'M' },
  connection: {
    count: 'C',
    kind: 'S',
    materialId: 'S',
    poles: 'C',
    crossSectionM2: 'S',
    shielded: 'S',
    innerM: 'M',
    lengthEachM: 'M',
    fluid: 'S',
    lock: 'S',
    release: 'S',
  },
  components: { count: 'C', componentClass: 'S', marking: 'S' },
  board: { lengthM: 'M', sides: 'S', layers: 'S' },
  fluid: { name: 'S', massEachKg: 'M', volumeM3: 'M' },
};

/** Fields that say how they are known, in the order of the record. `lengthM` of a piece or board stands for its whole size, `xM` for its place. */
export const knowingFields = (entity: KnowingEntity): readonly string[] => Object.keys(IMPLIED[entity]);

export const impliedMark = (entity: KnowingEntity, field: string): EvidenceMark | null =>
  (IMPLIED[entity] as Readonly<Record<string, EvidenceMark | undefined>>)[field] ?? null;

interface Knowing {
  readonly known: KnownOf;
  readonly massEachKg?: number | null;
  readonly massUKg?: number | null;
  readonly massEvidence?: EvidenceMark | null;
  readonly massTyped?: string | null;
}

/** How a value of a row is known, or null where the field holds nothing or says nothing. A mass carries its mark itself. */
export const knownAs = (entity: KnowingEntity, row: Knowing, field: string): Known | null => {
  const value = (row as unknown as Readonly<Record<string, unknown>>)[field];
  if (value === null || value === undefined || value === '') return null;
  const said = row.known[field] ?? null;
  if (field === 'massEachKg') {
    if (!row.massEvidence) return null;
    return { ...(said ?? known(row.massEvidence)), mark: row.massEvidence, u: row.massUKg ?? null, typed: row.massTyped ?? null };
  }
  const mark = impliedMark(entity, field);
  return said ?? (mark === null ? null : known(mark));
};

/** "2 to 3", "at least 20": a range in words, or null when there is none. */
export const rangeText = ({ low, high }: Pick<Known, 'low' | 'high'>): string | null => {
  if (low !== null && high !== null) return `${low} to ${high}`;
  if (low !== null) return `at least ${low}`;
  return high === null ? null : `at most ${high}`;
};

/**
 * A count as it enters a sum: the middle of its range, and the variance of a rectangular distribution over it. A count of
 * which only "at least" is known enters with what is known.
 *
 *   n = (low + high) / 2      u² = (high − low)² / 12
 *
 * @source JCGM 100:2008 (GUM), 4.3.7
 * @example countInSum(8, known('C', { low: 8, high: 12 })) // => { mean: 10, variance: 1.3333333333333333, isOpen: false }
 */
export const countInSum = (
  count: number,
  said: Known | undefined,
): { readonly mean: number; readonly variance: number; readonly isOpen: boolean } => {
  const [low, high] = countRange(count, said);
  if (low === high) return { mean: count, variance: 0, isOpen: false };
  if (!Number.isFinite(high)) return { mean: Math.max(count, low), variance: 0, isOpen: true };
  return { mean: (low + high) / 2, variance: (high - low) ** 2 / 12, isOpen: false };
};

/** Lowest and highest count a record allows; the highest is infinite when only "at least" is known. */
export const countRange = (count: number, said: Known | undefined): readonly [number, number] => {
  if (!said || (said.low === null && said.high === null)) return [count, count];
  return [said.low ?? Math.min(1, count), said.high ?? Number.POSITIVE_INFINITY];
};
