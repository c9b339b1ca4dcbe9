import { counted, fixed } from '../shared';
import type { Shown } from './roll-up/shown';

/** "37 of 40 weighed", and what the rest of the mass rests on. */
export const weighedText = (s: Pick<Shown, 'partsOfMass' | 'partsWeighed' | 'partsMassed'>): string => {
  if (s.partsOfMass === 0) return 'nothing recorded yet';
  if (s.partsWeighed === s.partsOfMass) return s.partsOfMass === 1 ? 'weighed' : `all ${fixed(s.partsOfMass, 0)} weighed`;
  return `${fixed(s.partsWeighed, 0)} of ${fixed(s.partsOfMass, 0)} weighed`;
};

/** What is missing from a mass or rests on something other than a weighing, in words; empty when nothing is. */
export const massGaps = (
  s: Pick<Shown, 'partsOfMass' | 'partsWeighed' | 'partsMassed' | 'fastenersNotMassed' | 'openCounts'>,
): readonly string[] => {
  const other = s.partsMassed - s.partsWeighed;
  const none = s.partsOfMass - s.partsMassed;
  return [
    ...(other > 0 ? [`${fixed(other, 0)} estimated or taken from a weighed assembly`] : []),
    ...(none > 0 ? [`${fixed(none, 0)} without mass`] : []),
    ...(s.openCounts > 0 ? [`${counted(s.openCounts, 'count')} of “at least”: it may be more`] : []),
    ...(s.fastenersNotMassed > 0 ? [`${counted(s.fastenersNotMassed, 'fastener')} without mass`] : []),
  ];
};

/** The same for a narrow column: "74 of 79", "all 10", "weighed", "estimated", "no mass". */
export const weighedShort = (s: Pick<Shown, 'partsOfMass' | 'partsWeighed' | 'partsMassed'>): string => {
  if (s.partsOfMass === 0) return '';
  if (s.partsOfMass > 1)
    return s.partsWeighed === s.partsOfMass
      ? `all ${fixed(s.partsOfMass, 0)}`
      : `${fixed(s.partsWeighed, 0)} of ${fixed(s.partsOfMass, 0)}`;
  if (s.partsWeighed === 1) return 'weighed';
  return s.partsMassed === 1 ? 'estimated' : 'no mass';
};
