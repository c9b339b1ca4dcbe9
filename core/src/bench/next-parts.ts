import { counted } from '../shared';
import type { Part, StudyRecord } from '../record';
import { canBeMeasured, removedParts } from './part-state';

/** A part with which something is still to be done, and why. */
export interface NextPart {
  readonly part: Part;
  readonly why: string;
}

type Parts = Pick<StudyRecord, 'parts'>;

/** Parts of a vehicle that hang straight under a subsystem and that no removal names, in the order of the record. */
export const notRemovedYet = (record: Pick<StudyRecord, 'parts' | 'steps'>, vehicleId: string): readonly NextPart[] => {
  const removed = removedParts(record.steps);
  return record.parts
    .filter((p) => p.vehicleId === vehicleId && p.parentId === null && p.state !== 'fitted' && !removed.has(p.id))
    .sort((a, b) => a.sequence - b.sequence)
    .map((part) => ({ part, why: 'recorded, and named by no removal' }));
};

/** Parts of a vehicle that are there and have no tag: those straight under a subsystem first, the heaviest before the others. */
export const withoutTag = ({ parts }: Parts, vehicleId: string): readonly NextPart[] =>
  parts
    .filter((p) => p.vehicleId === vehicleId && p.tag === '' && canBeMeasured(p))
    .sort((a, b) => Number(a.parentId !== null) - Number(b.parentId !== null) || (b.massEachKg ?? 0) - (a.massEachKg ?? 0))
    .map((part) => ({ part, why: part.parentId === null ? 'loose, without a tag' : 'inside an assembly, without a tag' }));

/** Counts that nobody counted: inferred, recalled, told or to be confirmed, or a range. */
const UNSURE: ReadonlySet<string> = new Set(['I', 'R', 'T', '?']);

/**
 * Parts of a vehicle on which a blind recount is worth most: with sets whose count is not sure first, then those with the most fasteners and
 * joints. Parts that were counted again already are left out.
 */
export const worthRecounting = (
  record: Pick<StudyRecord, 'parts' | 'fastenerSets' | 'jointSets' | 'recounts'>,
  vehicleId: string,
): readonly NextPart[] => {
  const again = new Set(record.recounts.map((r) => r.partId));
  const sums = new Map<string, { sets: number; pieces: number; unsure: number }>();
  for (const set of [...record.fastenerSets, ...record.jointSets]) {
    const sum = sums.get(set.partId) ?? { sets: 0, pieces: 0, unsure: 0 };
    const said = set.evidence.count;
    const isUnsure = said !== undefined && (UNSURE.has(said.mark) || said.low !== null);
    sums.set(set.partId, { sets: sum.sets + 1, pieces: sum.pieces + set.count, unsure: sum.unsure + (isUnsure ? 1 : 0) });
  }
  return record.parts
    .flatMap((part) => {
      const sum = sums.get(part.id);
      return part.vehicleId === vehicleId && sum && !again.has(part.id) ? [{ part, sum }] : [];
    })
    .sort((a, b) => b.sum.unsure - a.sum.unsure || b.sum.pieces - a.sum.pieces || a.part.sequence - b.part.sequence)
    .map(({ part, sum }) => ({
      part,
      why: [
        ...(sum.unsure > 0 ? [`${counted(sum.unsure, 'count')} not sure`] : []),
        // how many there are stays hidden from who counts again
        counted(sum.sets, 'set'),
      ].join(', '),
    }));
};
