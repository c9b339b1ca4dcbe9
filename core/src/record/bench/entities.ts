import type { EvidenceMark } from '../../shared';
import type { Direction, KnownOf } from '../entities';

export const CONNECTION_KINDS = ['connector', 'cable', 'hose', 'pipe'] as const;
export type ConnectionKind = (typeof CONNECTION_KINDS)[number];

export const LOCKS = ['latch', 'lever lock', 'secondary lock', 'bolted', 'screw collar', 'quick coupling', 'clamp'] as const;
export type Lock = (typeof LOCKS)[number];

/** How hard a connector was to release with the hand. */
export const RELEASES = ['easy', 'firm', 'hard'] as const;
export type Release = (typeof RELEASES)[number];

/** What leads current or fluid to or from a piece: an electrical connector, a cable, a hose, a pipe. */
export interface ConnectionFields {
  readonly pieceId: string;
  readonly sequence: number;
  readonly count: number;
  readonly kind: ConnectionKind;
  /** conductor metal, or what a hose or pipe is made of */
  readonly materialId: string | null;
  /** poles of a connector, cores of a cable */
  readonly poles: number | null;
  /** conductor of each core of a cable */
  readonly crossSectionM2: number | null;
  readonly shielded: boolean | null;
  /** inner diameter of a hose or pipe */
  readonly innerM: number | null;
  readonly lengthEachM: number | null;
  readonly fluid: string;
  readonly lock: Lock | null;
  readonly release: Release | null;
  readonly note: string;
  readonly known: KnownOf;
}

export const COMPONENT_CLASSES = [
  'controller',
  'memory',
  'integrated circuit',
  'power switch',
  'gate driver',
  'shunt',
  'transformer',
  'inductor',
  'capacitor',
  'resistor',
  'diode',
  'relay',
  'fuse',
  'sensor',
  'oscillator',
  'lamp',
  'board connector',
  'test point',
] as const;
export type ComponentClass = (typeof COMPONENT_CLASSES)[number];

/** Components of one class on a circuit board, or places for them that were left empty. */
export interface ComponentSetFields {
  readonly pieceId: string;
  readonly sequence: number;
  readonly count: number;
  readonly componentClass: ComponentClass;
  /** false: places on the board that nothing is placed on */
  readonly fitted: boolean;
  /** number or words marked on each */
  readonly marking: string;
  readonly note: string;
  readonly known: KnownOf;
}

/** A bare circuit board as such; what is placed on it stands in its component sets. */
export interface BoardFields {
  readonly pieceId: string;
  readonly lengthM: number | null;
  readonly widthM: number | null;
  /** sides that carry components */
  readonly sides: number | null;
  readonly layers: number | null;
  readonly note: string;
  readonly known: KnownOf;
}

/** A fluid that was in a piece or its system. */
export interface FluidFields {
  readonly pieceId: string;
  readonly sequence: number;
  readonly name: string;
  /** mass of all of it */
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: EvidenceMark | null;
  readonly massTyped: string | null;
  readonly volumeM3: number | null;
  /** false: left inside */
  readonly drained: boolean;
  readonly note: string;
  readonly known: KnownOf;
}

/** That somebody read the precautions of a hazard before work. */
export interface Acknowledgement {
  readonly hazard: string;
  readonly by: string;
  /** ISO 8601, UTC */
  readonly at: string;
}

/** Something the end of a session found missing that stays so, with the reason. */
export interface Waiver {
  readonly check: string;
  readonly aboutId: string;
  readonly reason: string;
  readonly by: string;
}

/** A stretch of work at the bench, usually of one package. */
export interface SessionFields {
  readonly sequence: number;
  readonly name: string;
  readonly packageId: string | null;
  readonly vehicleId: string;
  readonly subsystemId: string | null;
  /** who takes apart, and who writes; by name */
  readonly remover: string;
  readonly recorder: string;
  /** ISO 8601, UTC */
  readonly openedAt: string;
  readonly closedAt: string | null;
  /** the clock stops when nothing happens for so long */
  readonly pauseAfterS: number;
  readonly acknowledged: readonly Acknowledgement[];
  readonly waived: readonly Waiver[];
  readonly note: string;
}

/** One removal: what came off together, what had to come off first, and how. */
export interface StepFields {
  readonly sessionId: string | null;
  readonly vehicleId: string;
  readonly sequence: number;
  readonly pieces: readonly string[];
  /** steps that had to be done first */
  readonly after: readonly string[];
  readonly tool: string;
  readonly bit: string;
  readonly direction: Direction | null;
  readonly people: number | null;
  /** false: blind */
  readonly seen: boolean | null;
  /** it stays in place by itself when its fasteners are out */
  readonly holdsItself: boolean | null;
  /** it fits in one way only */
  readonly oneWay: boolean | null;
  readonly connections: readonly string[];
  readonly fluids: readonly string[];
  readonly rigId: string | null;
  readonly startedAt: string | null;
  readonly endedAt: string | null;
  /** time at work, pauses left out */
  readonly workedS: number | null;
  /** why the precautions asked for were not all done before it */
  readonly otherwise: string;
  readonly note: string;
}

export const READING_ABOUT = ['piece', 'fasteners', 'connection', 'fluid', 'step', 'gate'] as const;
export type ReadingAbout = (typeof READING_ABOUT)[number];

export const READING_QUANTITIES = ['mass', 'length', 'torque', 'count', 'element fractions'] as const;
export type ReadingQuantity = (typeof READING_QUANTITIES)[number];

/** A fraction of the mass with its standard uncertainty, both 0…1. */
export interface ElementFraction {
  readonly fraction: number;
  readonly u: number;
}

/** One raw value as an instrument or a person gave it. It is never edited: a later reading corrects it. */
export interface ReadingFields {
  readonly aboutKind: ReadingAbout;
  readonly aboutId: string;
  /** the field that took its value */
  readonly aboutField: string | null;
  readonly quantity: ReadingQuantity;
  /** kg, m, N m or a number; null for element fractions */
  readonly value: number | null;
  /** standard uncertainty in the unit of the value */
  readonly u: number | null;
  /** what was taken off before, in the unit of the value; null where there is no such thing */
  readonly tare: number | null;
  readonly elements: Readonly<Record<string, ElementFraction>> | null;
  /** exactly what the instrument or person said, with its unit */
  readonly raw: string;
  readonly instrument: string;
  readonly serial: string;
  /** null: typed by a person */
  readonly stable: boolean | null;
  readonly takenAt: string;
  readonly takenBy: string;
  readonly note: string;
}

/** A set counted once more by somebody who did not see the first count. */
export interface Recounted {
  readonly kind: 'fasteners' | 'joints';
  readonly setId: string;
  /** count of the record at that moment, kept from the person who counted */
  readonly first: number;
  readonly second: number;
}

export const RECOUNT_STATES = ['agrees', 'differs', 'settled'] as const;

/** A blind second count of the fasteners and joints of one piece. */
export interface RecountFields {
  readonly pieceId: string;
  readonly by: string;
  readonly countedAt: string;
  readonly counts: readonly Recounted[];
  /** what was found that the record does not hold, in words */
  readonly others: string;
  readonly state: (typeof RECOUNT_STATES)[number];
  /** how a difference was settled */
  readonly settled: string;
}

/** Tags printed for one part of the teardown: `A03-001`, `A03-002` … each with its check character. */
export interface TagSheetFields {
  readonly vehicleId: string;
  readonly subsystemId: string | null;
  readonly packageId: string | null;
  readonly prefix: string;
  readonly firstNumber: number;
  readonly count: number;
  /** size of the labels, by its name */
  readonly stock: string;
  readonly printedAt: string;
}
