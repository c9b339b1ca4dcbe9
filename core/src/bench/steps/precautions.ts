import { holdPointFault, hazardById, type Hazard } from '../../plan';
import type { HoldPoint, Session, StudyRecord } from '../../record';

/** What must be done before a step of a session: precautions to read, readings to take. */
export interface Precautions {
  readonly hazards: readonly { readonly hazard: Hazard; readonly readBy: string }[];
  readonly holdPoints: readonly { readonly holdPoint: HoldPoint; readonly fault: string | null }[];
  /** true when nothing is open: all is read and every reading lies within its limits */
  readonly isClear: boolean;
}

const NONE: Precautions = { hazards: [], holdPoints: [], isClear: true };

/**
 * The precautions of the work package of a session: each hazard’s cautions acknowledged by name in this session, each
 * reading asked for answered and within its limits. They are reminders: local codes and licensed practice decide.
 */
export const precautionsOf = (record: Pick<StudyRecord, 'packages' | 'holdPoints'>, session: Session | null): Precautions => {
  const pack = record.packages.find((p) => p.id === session?.packageId);
  if (!pack || !session) return NONE;
  const hazards = pack.hazards.flatMap((id) => {
    const hazard = hazardById.get(id);
    return hazard ? [{ hazard, readBy: session.acknowledged.find((a) => a.hazard === id)?.by ?? '' }] : [];
  });
  const holdPoints = record.holdPoints
    .filter((g) => g.packageId === pack.id)
    .sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1))
    .map((holdPoint) => ({ holdPoint, fault: holdPointFault(holdPoint) }));
  return { hazards, holdPoints, isClear: hazards.every((h) => h.readBy !== '') && holdPoints.every((g) => g.fault === null) };
};
