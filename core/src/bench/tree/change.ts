import { group } from 'd3-array';
import { issue, type Issue } from '../../shared';
import type { Entity, Op, Part, StudyRecord } from '../../record';

/** What moving and mending of the tree gives: the ops of one change, or why it cannot be. */
export type TreeChange =
  { readonly ok: true; readonly ops: readonly Op[]; readonly says: string } | { readonly ok: false; readonly issues: readonly Issue[] };

/** Where parts may hang: inside a part, or straight under a subsystem of a vehicle. */
export type Place =
  { readonly kind: 'part'; readonly id: string } | { readonly kind: 'subsystem'; readonly vehicleId: string; readonly subsystemId: string };

export const refused = (code: string, message: string, field: string | null = null, id: string | null = null): TreeChange => ({
  ok: false,
  issues: [issue(code, message, field ?? '', id)],
});

export const changed = (says: string, ops: readonly (Op | null)[]): TreeChange => ({
  ok: true,
  says,
  ops: ops.filter((op) => op !== null),
});

export const partNamed = (record: StudyRecord, id: string): Part | undefined => record.parts.find((part) => part.id === id);

/** Parts by the part they are in. */
export const insideOf = (record: StudyRecord): ReadonlyMap<string, readonly Part[]> => {
  const inOrder = [...record.parts].sort((a, b) => a.sequence - b.sequence);
  return group(
    inOrder.filter((part) => part.parentId !== null),
    (part) => part.parentId ?? '',
  );
};

/** A part and all inside it, each before what is in it. */
export const withInside = (part: Part, inside: ReadonlyMap<string, readonly Part[]>): readonly Part[] => {
  const all: Part[] = [];
  const waiting = [part];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    all.push(next);
    waiting.push(...[...(inside.get(next.id) ?? [])].reverse());
  }
  return all;
};

/** Of chosen parts those that are in no other chosen one, in the order of the record. */
export const outermost = (record: StudyRecord, ids: readonly string[]): readonly Part[] => {
  const chosen = new Set(ids);
  const partById = new Map(record.parts.map((part) => [part.id, part]));
  const isInChosen = (part: Part): boolean => {
    for (let at = part.parentId; at !== null; at = partById.get(at)?.parentId ?? null) if (chosen.has(at)) return true;
    return false;
  };
  return record.parts.filter((part) => chosen.has(part.id) && !isInChosen(part)).sort((a, b) => a.sequence - b.sequence);
};

/** The fields that say where a part hangs, for a place; null where the place is not in the record. */
export const fieldsOfPlace = (record: StudyRecord, place: Place): Pick<Part, 'vehicleId' | 'subsystemId' | 'parentId'> | null => {
  if (place.kind === 'part') {
    const parent = partNamed(record, place.id);
    return parent ? { vehicleId: parent.vehicleId, subsystemId: null, parentId: parent.id } : null;
  }
  const { vehicleId, subsystemId } = place;
  const isThere = record.vehicles.some((v) => v.id === vehicleId) && record.subsystems.some((s) => s.id === subsystemId);
  return isThere ? { vehicleId, subsystemId, parentId: null } : null;
};

/** Parts that hang at a place now. */
export const hangingAt = (record: StudyRecord, place: Place): readonly Part[] =>
  record.parts.filter((part) =>
    place.kind === 'part'
      ? part.parentId === place.id
      : part.parentId === null && part.vehicleId === place.vehicleId && part.subsystemId === place.subsystemId,
  );

export const placeOf = (part: Part): Place =>
  part.parentId === null
    ? { kind: 'subsystem', vehicleId: part.vehicleId, subsystemId: part.subsystemId ?? '' }
    : { kind: 'part', id: part.parentId };

/** "on Drayman II under Load floor" or "in latch": a place in words. */
export const placeText = (record: StudyRecord, place: Place): string => {
  if (place.kind === 'part') return `into ${partNamed(record, place.id)?.name ?? ''}`;
  const [vehicle, subsystem] = [
    record.vehicles.find((v) => v.id === place.vehicleId)?.name ?? '',
    record.subsystems.find((s) => s.id === place.subsystemId)?.name ?? '',
  ];
  return `under ${subsystem} of ${vehicle}`;
};

/** "latch", "latch and 2 more": what several parts are called together. */
export const namesOf = (parts: readonly Part[]): string =>
  parts.length < 2 ? (parts[0]?.name ?? '') : `${parts[0]!.name} and ${parts.length - 1} more`;

/** What hangs on a part and describes it; what was taken of it (readings, pictures, scans) does not. */
export const DESCRIBES = ['fasteners', 'joints', 'connection', 'fluid', 'board'] as const satisfies readonly Entity[];
