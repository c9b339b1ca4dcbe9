import type { Op, StudyFields } from './contract';

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

/** The ops that begin a study with the shipped subsystem tree. `newId` makes a fresh UUID at each call. */
export const newStudyOps = (id: string, fields: StudyFields, newId: () => string): readonly Op[] => [
  { kind: 'study.add', id, fields },
  ...SHIPPED_SUBSYSTEMS.map((name, sequence): Op => ({ kind: 'subsystem.add', id: newId(), fields: { parentId: null, sequence, name } })),
];
