import type { Place, Session, StudyRecord } from '../../record';

/** The subsystem a place is under, however deep inside an assembly it is. */
const subsystemOf = ({ parts }: Pick<StudyRecord, 'parts'>, { subsystemId, parentId }: Place): string | null => {
  if (subsystemId !== null) return subsystemId;
  const byId = new Map(parts.map((p) => [p.id, p]));
  let part = byId.get(parentId ?? '');
  while (part?.subsystemId === null) part = byId.get(part.parentId ?? '');
  return part?.subsystemId ?? null;
};

/**
 * Whether what is recorded at a place belongs to something else than the open session: to another vehicle, or to a subsystem that is
 * neither that of the session nor below it. A session without a subsystem is of the whole vehicle.
 */
export const isElsewhere = (record: Pick<StudyRecord, 'parts' | 'subsystems'>, session: Session, place: Place): boolean => {
  if (place.vehicleId !== session.vehicleId) return true;
  if (session.subsystemId === null) return false;
  const above = new Map(record.subsystems.map((s) => [s.id, s.parentId]));
  for (let at = subsystemOf(record, place); at !== null; at = above.get(at) ?? null) if (at === session.subsystemId) return false;
  return true;
};
