import {
  READ_IN,
  counted,
  fixed,
  materialById,
  plusMinus,
  processById,
  readAs,
  lengthText,
  unitsShown,
  unitWord,
} from '@each-bolt/core/shared';
import type { Part } from '@each-bolt/core/record';
import { canBeMeasured, massGaps, weighedShort, weighedText } from '@each-bolt/core/bench';
import type { StudyShown } from '@each-bolt/core/cost';
import type { RowFigures } from './parts-table';

/** "2 × · PA66-GF30 · injection moulding · 0.8 mm": what is known of a part beside its name. */
export const partDetail = (part: Part): string =>
  [
    ...(part.quantity > 1 ? [`${fixed(part.quantity, 0)} ×`] : []),
    ...(part.materialId === null ? [] : [materialById.get(part.materialId)?.name ?? part.materialId]),
    ...(part.processId === null ? [] : [processById.get(part.processId)?.name ?? part.processId]),
    ...(part.wallThicknessM === null ? [] : [lengthText(part.wallThicknessM)]),
    ...(part.runLengthM === null
      ? []
      : [`${fixed(readAs(READ_IN.mm, part.runLengthM), unitsShown() === 'metric' ? 0 : 1)} ${unitWord('mm')} long`]),
    ...(canBeMeasured(part) ? (part.opened === 'closed' ? ['left closed'] : []) : [part.state ?? '']),
  ].join(' · ');

/** The uncertainty of a mass for the second line, to two digits: "± 4.2 g". */
export const massUText = (massUKg: number | null): string =>
  massUKg === null || massUKg === 0 ? '' : `${plusMinus(readAs(READ_IN.g, massUKg), 3)} ${unitWord('g')}`;

/** How much of a cost is missing: short for the column, and in full. */
const costGap = (figures: StudyShown): readonly [string, string] => {
  const { partsOfMass, partsCosted, fastenersNotCosted } = figures;
  const fasteners = fastenersNotCosted > 0 ? [`${counted(fastenersNotCosted, 'fastener')} without cost`] : [];
  if (partsCosted === partsOfMass) return [fastenersNotCosted > 0 ? `${fastenersNotCosted} without` : '', fasteners.join()];
  if (partsOfMass === 1) return ['not costed', ['not costed', ...fasteners].join('; ')];
  const known = `${fixed(partsCosted, 0)} of ${fixed(partsOfMass, 0)}`;
  return [known, [`${known} parts costed`, ...fasteners].join('; ')];
};

/** The range of a count for the second line: "2–3", "at least 20"; empty where the count is certain. */
const countRangeText = ({ parts, partsRange: { low, high } }: Pick<StudyShown, 'parts' | 'partsRange'>): string => {
  if (low === parts && high === parts) return '';
  return high === null ? `≥ ${fixed(low, 0)}` : `${fixed(low, 0)}–${fixed(high, 0)}`;
};

/** Figures of one node as the table prints them. */
export const rowFigures = (name: string, detail: string, figures: StudyShown, causes = 0): RowFigures => ({
  name,
  detail,
  causes,
  count: figures.parts,
  countRange: countRangeText(figures),
  countMark: figures.countMark,
  // nothing recorded is not the same as none there
  fasteners: figures.fasteners === 0 ? null : figures.fasteners,
  joints: figures.joints === 0 ? null : figures.joints,
  massKg: figures.massKg,
  massU: massUText(figures.massUKg),
  weakest: figures.weakest,
  weakestShare: `${fixed(figures.weakestFraction * 100, 0)} %`,
  cost: figures.cost,
  costMark: figures.costMark,
  costGap: costGap(figures)[0],
  costTitle: costGap(figures)[1],
  weighed: weighedShort(figures),
  weighedTitle: [weighedText(figures), ...massGaps(figures)].join('; '),
});
