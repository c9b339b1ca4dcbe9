import { counted, fixed } from '../shared';
import type { Shown } from './shown';

/** "37 of 40 weighed", and what the rest of the mass rests on. */
export const weighedText = (s: Pick<Shown, 'piecesOfMass' | 'piecesWeighed' | 'piecesMassed'>): string => {
  if (s.piecesOfMass === 0) return 'nothing recorded yet';
  if (s.piecesWeighed === s.piecesOfMass) return s.piecesOfMass === 1 ? 'weighed' : `all ${fixed(s.piecesOfMass, 0)} weighed`;
  return `${fixed(s.piecesWeighed, 0)} of ${fixed(s.piecesOfMass, 0)} weighed`;
};

/** What is missing from a mass or rests on something other than a weighing, in words; empty when nothing is. */
export const massGaps = (
  s: Pick<Shown, 'piecesOfMass' | 'piecesWeighed' | 'piecesMassed' | 'fastenersNotMassed' | 'openCounts'>,
): readonly string[] => {
  const other = s.piecesMassed - s.piecesWeighed;
  const none = s.piecesOfMass - s.piecesMassed;
  return [
    ...(other > 0 ? [`${fixed(other, 0)} estimated or taken from a weighed assembly`] : []),
    ...(none > 0 ? [`${fixed(none, 0)} without mass`] : []),
    ...(s.openCounts > 0 ? [`${counted(s.openCounts, 'count')} of “at least”: it may be more`] : []),
    ...(s.fastenersNotMassed > 0 ? [`${fixed(s.fastenersNotMassed, 0)} fasteners without mass`] : []),
  ];
};

/** The same for a narrow column: "74 of 79", "all 10", "weighed", "estimated", "no mass". */
export const weighedShort = (s: Pick<Shown, 'piecesOfMass' | 'piecesWeighed' | 'piecesMassed'>): string => {
  if (s.piecesOfMass === 0) return '';
  if (s.piecesOfMass > 1)
    return s.piecesWeighed === s.piecesOfMass
      ? `all ${fixed(s.piecesOfMass, 0)}`
      : `${fixed(s.piecesWeighed, 0)} of ${fixed(s.piecesOfMass, 0)}`;
  if (s.piecesWeighed === 1) return 'weighed';
  return s.piecesMassed === 1 ? 'estimated' : 'no mass';
};
