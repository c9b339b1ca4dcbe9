/** How a figure is known, strongest first. */
export const EVIDENCE_MARKS = ['M', 'C', 'S', 'P', 'T', 'R', 'I', '?'] as const;

export type EvidenceMark = (typeof EVIDENCE_MARKS)[number];

/** What each mark says, in words. */
export const EVIDENCE_WORD: Readonly<Record<EvidenceMark, string>> = {
  M: 'measured',
  C: 'counted',
  S: 'seen',
  P: 'from a picture only',
  T: 'told by a source',
  R: 'recalled',
  I: 'inferred',
  '?': 'to be confirmed',
};

/** Place of a mark in the order of strength: 0 is the strongest, 7 the weakest. */
export const evidenceRank = (mark: EvidenceMark): number => EVIDENCE_MARKS.indexOf(mark);

/** The mark at a place in the order of strength, or null for −1, "no mark". */
export const evidenceAt = (rank: number): EvidenceMark | null => EVIDENCE_MARKS[rank] ?? null;
