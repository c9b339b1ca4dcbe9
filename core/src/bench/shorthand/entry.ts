import type { EvidenceMark } from '../../shared';
import type { Direction, FastenerKind, Hand, JointKind, KnownOf } from '../../record';

/** A mass as one line states it. */
export interface MassEntry {
  readonly eachKg: number;
  readonly uKg: number;
  readonly evidence: EvidenceMark;
  /** as typed, in the one spelling the printer uses: "~1.2 kg", "total 492 g", "41 g ±2 g ?" */
  readonly typed: string;
}

export interface PieceEntry {
  readonly kind: 'piece';
  readonly quantity: number;
  readonly name: string;
  readonly materialId: string | null;
  readonly processId: string | null;
  readonly mass: MassEntry | null;
  readonly wallThicknessM: number | null;
  /** length, width, height */
  readonly envelopeM: readonly [number, number, number] | null;
  readonly runLengthM: number | null;
  readonly hand: Hand;
  readonly tag: string;
  readonly known: KnownOf;
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
  readonly mass: MassEntry | null;
  readonly note: string;
  readonly known: KnownOf;
}

export interface JointEntry {
  readonly kind: 'joints';
  readonly count: number;
  readonly jointKind: JointKind;
  readonly lengthEachM: number | null;
  readonly note: string;
  readonly known: KnownOf;
}

export type Entry = PieceEntry | FastenerEntry | JointEntry;

/** How one stretch of the line was understood. */
export interface Understood {
  readonly start: number;
  readonly end: number;
  /** what it is, in words: "mass each", "made by" */
  readonly label: string;
  /** what was understood, in words: "41 g", "injection moulding" */
  readonly value: string;
  readonly evidence: EvidenceMark | null;
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
