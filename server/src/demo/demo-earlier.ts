import { blank, type Op, type StudyFields, type VehicleFields, type VehicleRole } from '@each-bolt/core/record';

/** A study that is over, told in little: what each subsystem held and how long it took. */
export interface DemoEarlier {
  readonly study: Omit<StudyFields, 'calendar' | 'choiceWeights' | 'usualHazards'>;
  readonly vehicles: readonly (Partial<VehicleFields> & { readonly name: string; readonly role: VehicleRole })[];
  readonly records: readonly {
    readonly vehicle: string;
    readonly subsystem: string;
    readonly parts: readonly (readonly [name: string, quantity: number])[];
    /** working time of two people together */
    readonly hours: number;
  }[];
}

const CREW = 2;
const HOUR_S = 3600;

/** The ops that bring the earlier study in. */
export const earlierOps = (
  { study, vehicles, records }: DemoEarlier,
  studyId: string,
  usual: Pick<StudyFields, 'calendar' | 'choiceWeights' | 'usualHazards'>,
  newId: () => string,
): readonly Op[] => {
  const vehicleId = new Map(vehicles.map((v) => [v.name, newId()]));
  const names = [...new Set(records.map((r) => r.subsystem))];
  const subsystemId = new Map(names.map((name) => [name, newId()]));
  const known = (ids: ReadonlyMap<string, string>, name: string): string => {
    const id = ids.get(name);
    if (id === undefined) throw new RangeError(`nothing is called “${name}”`);
    return id;
  };
  return [
    { kind: 'study.add', id: studyId, fields: { ...study, ...usual } },
    ...vehicles.map(({ name, role, ...fields }, sequence): Op => ({
      kind: 'vehicle.add',
      id: known(vehicleId, name),
      fields: { ...blank('vehicle', { name, role, sequence }), ...fields },
    })),
    ...names.map((name, sequence): Op => ({
      kind: 'subsystem.add',
      id: known(subsystemId, name),
      fields: { parentId: null, sequence, name },
    })),
    ...records.flatMap(({ vehicle, subsystem, parts, hours }, at): readonly Op[] => {
      const place = { vehicleId: known(vehicleId, vehicle), subsystemId: known(subsystemId, subsystem) };
      const worked = (hours * HOUR_S) / CREW;
      return [
        ...parts.map(([name, quantity], sequence): Op => ({
          kind: 'part.add',
          id: newId(),
          fields: { ...blank('part', { ...place, parentId: null }), name, quantity, sequence },
        })),
        { kind: 'scope.add', id: newId(), fields: { ...place, depth: 'parts', reason: '', expectedParts: null, expectedS: null } },
        {
          kind: 'package.add',
          id: newId(),
          fields: {
            ...blank('package', { name: `Take apart: ${subsystem}, ${vehicle}`, sequence: at }),
            ...{ ...place, people: CREW, optimisticS: worked * 0.75, mostLikelyS: worked, pessimisticS: worked * 1.5, workedS: worked },
            ...{ startedOn: '2023-06-05', doneOn: '2023-06-09' },
          },
        },
      ];
    }),
  ];
};
