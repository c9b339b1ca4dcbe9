import type { Row, SignOff, StudyRecord } from '../record';
import type { Cause } from './causes';
import type { ExplainedFinding } from './run';

/** How far a subsystem of a vehicle is. */
export interface SubsystemState {
  readonly vehicleId: string;
  readonly subsystemId: string;
  readonly parts: number;
  readonly causes: readonly Cause[];
  readonly explained: number;
  /** the last sign-off; null where there was none */
  readonly signed: SignOff | null;
  /** names of parts that were changed, added or given something since it was signed: they reopened it */
  readonly changed: readonly string[];
}

const OF_PART = ['fastenerSets', 'jointSets', 'connections', 'componentSets', 'boards', 'fluids', 'scans', 'ports', 'packs'] as const;

const keyOf = (vehicleId: string, subsystemId: string): string => `${vehicleId} ${subsystemId}`;

/** The subsystem each part hangs under, by way of what it is inside of. */
const subsystemsOf = ({ parts }: StudyRecord): ReadonlyMap<string, string> => {
  const byId = new Map(parts.map((part) => [part.id, part]));
  const known = new Map<string, string>();
  for (const part of parts) {
    const way: string[] = [];
    let at = part;
    let found = '';
    while (found === '' && way.length <= parts.length) {
      way.push(at.id);
      found = known.get(at.id) ?? at.subsystemId ?? '';
      const parent = byId.get(at.parentId ?? '');
      if (found !== '' || !parent) break;
      at = parent;
    }
    for (const id of way) known.set(id, found);
  }
  return known;
};

/**
 * Every subsystem of every vehicle with anything recorded: what does not close in it, who signed it off, and what reopened it since.
 * What was taken off since is seen by the number of parts.
 */
export const subsystemStates = (
  record: StudyRecord,
  causes: readonly Cause[],
  explained: readonly ExplainedFinding[],
): readonly SubsystemState[] => {
  const under = subsystemsOf(record);
  const partById = new Map(record.parts.map((part) => [part.id, part]));
  const keyOfPart = (partId: string): string => keyOf(partById.get(partId)?.vehicleId ?? '', under.get(partId) ?? '');
  const parts = new Map<string, number>();
  for (const part of record.parts) parts.set(keyOfPart(part.id), (parts.get(keyOfPart(part.id)) ?? 0) + 1);
  const latest = new Map<string, SignOff>();
  for (const signed of [...record.signOffs].sort((a, b) => (a.at < b.at ? -1 : 1))) latest.set(keyOf(signed.vehicleId, signed.subsystemId), signed);
  const changed = new Map<string, Set<string>>();
  const note = (partId: string, row: Row): void => {
    const key = keyOfPart(partId);
    const signed = latest.get(key);
    if (!signed || row.version <= signed.revision) return;
    const names = changed.get(key) ?? new Set<string>();
    names.add(partById.get(partId)?.name ?? '');
    changed.set(key, names);
  };
  for (const part of record.parts) note(part.id, part);
  for (const list of OF_PART) for (const row of record[list]) note(row.partId, row);
  for (const step of record.steps) for (const partId of step.parts) note(partId, step);
  return record.vehicles.flatMap((vehicle) =>
    [...record.subsystems]
      .sort((a, b) => a.sequence - b.sequence)
      .flatMap((subsystem): readonly SubsystemState[] => {
        const key = keyOf(vehicle.id, subsystem.id);
        const own = parts.get(key) ?? 0;
        if (own === 0) return [];
        const signed = latest.get(key) ?? null;
        const gone = signed !== null && own < signed.parts ? [`${signed.parts - own} taken off`] : [];
        return [
          {
            ...{ vehicleId: vehicle.id, subsystemId: subsystem.id, parts: own, signed },
            causes: causes.filter(({ findings }) => findings.some(({ partId }) => partId !== null && keyOfPart(partId) === key)),
            explained: explained.filter(({ finding }) => finding.partId !== null && keyOfPart(finding.partId) === key).length,
            changed: [...(changed.get(key) ?? []), ...gone],
          },
        ];
      }),
  );
}; // prettier-ignore
