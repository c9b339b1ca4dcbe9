import type { Op, StudyFields, StudyRecord } from './entities';

/** The neutral subsystem names a new study begins with; every one can be renamed, added to or removed. */
export const SHIPPED_SUBSYSTEMS: readonly string[] = [
  'Body structure',
  'Doors and flaps',
  'Seats',
  'Trim and insulation',
  'Instrument panel',
  'Front axle',
  'Rear axle',
  'Steering',
  'Brakes',
  'Wheels and tyres',
  'Drive unit',
  'Traction battery',
  'Charging',
  'Heating and cooling',
  'Low-voltage electrics',
  'Lighting',
  'Load space',
];

/** The ops that begin a study with the shipped subsystem tree and the person who begins it as its lead. `newId` makes a fresh UUID at each call. */
export const newStudyOps = (id: string, fields: StudyFields, leadId: string, newId: () => string): readonly Op[] => [
  { kind: 'study.add', id, fields },
  { kind: 'member.add', id: newId(), fields: { personId: leadId, role: 'lead' } },
  ...SHIPPED_SUBSYSTEMS.map((name, sequence): Op => ({ kind: 'subsystem.add', id: newId(), fields: { parentId: null, sequence, name } })),
];

/**
 * The ops that begin a study like another: its subsystem tree, cost basis, counting rule, questions, weights and working
 * week, and the people and places of its plan, but no vehicle, no part, no package and no member except who copies it.
 */
export const templateOps = (from: StudyRecord, id: string, title: string, leadId: string, newId: () => string): readonly Op[] => {
  const { id: _id, version: _version, ...fields } = from.study;
  const idOf = new Map(from.subsystems.map((s) => [s.id, newId()]));
  return [
    { kind: 'study.add', id, fields: { ...fields, title, state: 'open', calendar: { ...fields.calendar, startsOn: null, daysOff: [] } } },
    { kind: 'member.add', id: newId(), fields: { personId: leadId, role: 'lead' } },
    ...from.subsystems.map(({ id: old, name, sequence, parentId }): Op => ({
      kind: 'subsystem.add',
      id: idOf.get(old) ?? '',
      fields: { name, sequence, parentId: parentId === null ? null : (idOf.get(parentId) ?? null) },
    })),
    ...from.resources.map(({ id: _id, version: _version, ...fields }): Op => ({
      kind: 'resource.add',
      id: newId(),
      fields: { ...fields, daysOff: [] },
    })),
  ];
};
