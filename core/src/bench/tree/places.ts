import { kindWords, splitKind, type Entity, type Op, type StudyRecord } from '../../record';
import { counted } from '../../shared';
import type { Place } from './change';

/** A place with the words by which it is found: "Drayman II › Load floor › latch". */
export interface NamedPlace {
  readonly key: string;
  readonly text: string;
  readonly place: Place;
}

/** Every place parts may go to: each subsystem of each vehicle, then every part, each with the way to it. */
export const placesOf = (record: StudyRecord): readonly NamedPlace[] => {
  const partById = new Map(record.parts.map((part) => [part.id, part]));
  const subsystemOf = new Map(record.subsystems.map((s) => [s.id, s.name]));
  const vehicleOf = new Map(record.vehicles.map((v) => [v.id, v.name]));
  const way = (id: string): readonly string[] => {
    const names: string[] = [];
    for (let part = partById.get(id); part; part = partById.get(part.parentId ?? '')) {
      names.unshift(part.name);
      if (part.parentId === null) names.unshift(vehicleOf.get(part.vehicleId) ?? '', subsystemOf.get(part.subsystemId ?? '') ?? '');
    }
    return names;
  };
  return [
    ...record.vehicles.flatMap((vehicle) =>
      record.subsystems.map((subsystem) => ({
        key: `${vehicle.id}:${subsystem.id}`,
        text: `${vehicle.name} › ${subsystem.name}`,
        place: { kind: 'subsystem' as const, vehicleId: vehicle.id, subsystemId: subsystem.id },
      })),
    ),
    ...record.parts.map((part) => ({ key: part.id, text: way(part.id).join(' › '), place: { kind: 'part' as const, id: part.id } })),
  ];
};

/** "2 sets of fasteners", "1 picture": so many records of a kind. */
const setsOr = (entity: Entity, n: number): string => {
  const [one, many] = kindWords(entity);
  return one === many ? `${counted(n, 'set')} of ${one}` : counted(n, one, many);
};

/** What goes with a removal, beside what is removed itself: "3 parts, 2 sets of fasteners, 1 picture"; empty where nothing does. */
export const goesWith = (ops: readonly Op[], ids: readonly string[]): string => {
  const counts = new Map<Entity, number>();
  for (const op of ops) {
    const { entity, verb } = splitKind(op.kind);
    if (verb !== 'remove' || ids.includes(op.id)) continue;
    counts.set(entity, (counts.get(entity) ?? 0) + 1);
  }
  return [...counts].map(([entity, n]) => setsOr(entity, n)).join(', ');
};
