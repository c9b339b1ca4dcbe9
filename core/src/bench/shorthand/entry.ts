import type { EvidenceMark } from '../../shared';
import type {
  Access,
  ComponentClass,
  ConnectionKind,
  Direction,
  FastenerKind,
  Hand,
  JointKind,
  EvidenceOf,
  Lock,
  Release,
} from '../../record';

/** A mass as one line states it. */
export interface MassEntry {
  readonly eachKg: number;
  readonly uKg: number;
  readonly mark: EvidenceMark;
  /** as typed, in the one spelling the printer uses: "~1.2 kg", "total 492 g", "41 g ±2 g ?" */
  readonly typed: string;
}

export interface PartEntry {
  readonly kind: 'part';
  readonly quantity: number;
  readonly name: string;
  readonly materialId: string | null;
  /** temper of a wrought grade, where it was said */
  readonly materialDetail: string;
  readonly processId: string | null;
  readonly mass: MassEntry | null;
  readonly wallThicknessM: number | null;
  /** length, width, height */
  readonly envelopeM: readonly [number, number, number] | null;
  readonly runLengthM: number | null;
  readonly runDiameterM: number | null;
  readonly hand: Hand;
  readonly tag: string;
  /** it comes off together with the part before */
  readonly together: boolean;
  readonly evidence: EvidenceOf;
}

export interface FastenerEntry {
  readonly kind: 'fasteners';
  readonly count: number;
  readonly fastenerKind: FastenerKind;
  readonly threadM: number | null;
  readonly pitchM: number | null;
  readonly lengthM: number | null;
  readonly drive: string;
  readonly grade: string;
  readonly direction: Direction | null;
  readonly tighteningNm: number | null;
  readonly breakawayNm: number | null;
  readonly access: Access | null;
  readonly tool: string;
  readonly removed: boolean | null;
  readonly mass: MassEntry | null;
  readonly note: string;
  readonly evidence: EvidenceOf;
}

export interface JointEntry {
  readonly kind: 'joints';
  readonly count: number;
  readonly jointKind: JointKind;
  readonly lengthEachM: number | null;
  readonly note: string;
  readonly evidence: EvidenceOf;
}

export interface ConnectionEntry {
  readonly kind: 'connection';
  readonly count: number;
  readonly connectionKind: ConnectionKind;
  readonly materialId: string | null;
  readonly poles: number | null;
  readonly crossSectionM2: number | null;
  readonly shielded: boolean | null;
  readonly innerM: number | null;
  readonly lengthEachM: number | null;
  readonly fluid: string;
  readonly lock: Lock | null;
  readonly release: Release | null;
  readonly note: string;
  readonly evidence: EvidenceOf;
}

export interface ComponentEntry {
  readonly kind: 'components';
  readonly count: number;
  readonly componentClass: ComponentClass;
  readonly fitted: boolean;
  readonly marking: string;
  readonly note: string;
  readonly evidence: EvidenceOf;
}

export interface BoardEntry {
  readonly kind: 'board';
  readonly lengthM: number | null;
  readonly widthM: number | null;
  readonly sides: number | null;
  readonly layers: number | null;
  readonly note: string;
  readonly evidence: EvidenceOf;
}

export interface FluidEntry {
  readonly kind: 'fluid';
  readonly name: string;
  readonly mass: MassEntry | null;
  readonly volumeM3: number | null;
  readonly drained: boolean;
  readonly note: string;
  readonly evidence: EvidenceOf;
}

/** What a line says of the removal itself; what it does not say is left as it is. */
export interface StepEntry {
  readonly kind: 'step';
  readonly tool?: string;
  readonly bit?: string;
  readonly direction?: Direction;
  readonly people?: number;
  readonly seen?: boolean;
  readonly holdsItself?: boolean;
  readonly oneWay?: boolean;
  /** numbers of the steps that had to be done first; empty: none */
  readonly after?: readonly number[];
  readonly note?: string;
}

/** What is recorded on a part by one line. */
export type SetEntry = FastenerEntry | JointEntry | ConnectionEntry | ComponentEntry | BoardEntry | FluidEntry;
/** A part or set may say on the same line how it came off: `2x bracket 41 g > T30 -z`. */
export type Recorded = (PartEntry | SetEntry) & { readonly removal?: StepEntry };
export type Entry = Recorded | StepEntry;

/** How one stretch of the line was understood. */
export interface Understood {
  readonly start: number;
  readonly end: number;
  /** what it is, in words: "mass each", "made by" */
  readonly label: string;
  /** what was understood, in words: "41 g", "injection moulding" */
  readonly value: string;
  readonly mark: EvidenceMark | null;
}

/** A way to settle a question: the text that takes the place of the stretch asked about. */
export interface Choice {
  readonly label: string;
  readonly replacement: string;
}

/** Something in the line that must be settled before it is kept. */
export interface Question {
  readonly code: string;
  readonly start: number;
  readonly end: number;
  readonly message: string;
  readonly choices: readonly Choice[];
}

export interface ParsedLine {
  readonly line: string;
  readonly understood: readonly Understood[];
  readonly questions: readonly Question[];
  /** what would be kept; null while questions are open or the line is empty */
  readonly entry: Entry | null;
}
