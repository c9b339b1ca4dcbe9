import { blank, UNANSWERED, type Op, type PackageFields, type Scope, type StudyRecord, type Subsystem, type Vehicle } from '../../record';
import { hazardById } from '../safety/hazards';
import { scopeExpectation, type Experience } from './experience';

/** What is made of one scoped subsystem: its packages and, where nothing is made, why. */
interface ScopePackages {
  readonly ops: readonly Op[];
  /** subsystems whose time is not known, so that their packages have no estimate */
  readonly withoutTime: readonly string[];
}

/** Estimates without a spread of their own go from three quarters to half as much again. */
const LEAST_FRACTION = 0.75;
const MOST_FRACTION = 1.5;
/** Of the time for a subsystem, so much goes into taking it off; the rest into opening it. */
const OFF_FRACTION = 0.3;
/** A module is only taken off, weighed and looked at. */
const CREW = 2;

const VERB: Readonly<Record<'module' | 'parts' | 'cut', string>> = {
  module: 'Weigh and record',
  parts: 'Take to parts',
  cut: 'Take to parts and cut',
};

interface Estimate {
  readonly optimisticS: number;
  readonly mostLikelyS: number;
  readonly pessimisticS: number;
}

const estimateOf = (peopleS: number | null, share: number, low: number | null, high: number | null): Estimate | null => {
  if (peopleS === null) return null;
  const crewS = (s: number): number => (s * share) / CREW;
  const mostLikelyS = crewS(peopleS);
  return {
    optimisticS: Math.min(mostLikelyS, Math.max(0.3 * mostLikelyS, low === null ? LEAST_FRACTION * mostLikelyS : crewS(low))),
    mostLikelyS,
    pessimisticS: Math.max(mostLikelyS, high === null ? MOST_FRACTION * mostLikelyS : crewS(high)),
  };
};

/** Hazards work on a subsystem usually has, by words of its name. */
export const usualHazardsOf = (subsystem: string, table: StudyRecord['study']['usualHazards']): readonly string[] => {
  const name = subsystem.toLowerCase();
  return [...new Set(table.flatMap(({ words, hazards }) => (words.some((word) => name.includes(word.toLowerCase())) ? hazards : [])))];
};

/** From this voltage on a vehicle is made safe before anything else. @source ISO 6469-3, 60 V DC for contact, recalled */
const LIVE_FROM_V = 60;
const MAKE_SAFE = 'Make safe:';
/** Making a vehicle safe takes an hour or two with the crew (assumed). */
const MAKE_SAFE_S = { optimisticS: 2700, mostLikelyS: 5400, pessimisticS: 10_800 } as const;
const isElectric = ({ batteryJ, voltageV }: Pick<Vehicle, 'batteryJ' | 'voltageV'>): boolean =>
  batteryJ !== null || (voltageV ?? 0) >= LIVE_FROM_V;

const isThere = (record: Pick<StudyRecord, 'packages'>, vehicle: Vehicle, subsystem: Subsystem): boolean =>
  record.packages.some((p) => p.vehicleId === vehicle.id && p.subsystemId === subsystem.id);

/** The readings that hazards of a package ask for, in order. */
const holdPointsOf = (packageId: string, hazards: readonly string[], newId: () => string): readonly Op[] =>
  hazards
    .flatMap((hazard) => (hazardById.get(hazard)?.holdPoints ?? []).map((holdPoint) => ({ hazard, holdPoint })))
    .map(({ hazard, holdPoint }, sequence) => ({
      kind: 'holdPoint.add',
      id: newId(),
      fields: { ...UNANSWERED, ...holdPoint, packageId, sequence, hazard },
    }));

/**
 * Work packages for what the scope says is opened and no package does yet: off the vehicle, then opened, each after the
 * one before on the same vehicle. A package carries the hazards its subsystem usually has, with the readings they ask for;
 * an electric vehicle is made safe before anything else.
 *
 * @param newId makes a fresh UUID at each call
 */
export const packagesFromScope = (
  record: Pick<StudyRecord, 'packages' | 'scopes' | 'vehicles' | 'subsystems' | 'study'>,
  experience: readonly Experience[],
  newId: () => string,
): ScopePackages => {
  const ops: Op[] = [];
  const withoutTime: string[] = [];
  let sequence = record.packages.reduce((last, p) => Math.max(last, p.sequence), -1);
  const add = (fields: Partial<PackageFields> & { readonly name: string }): string => {
    const id = newId();
    sequence += 1;
    ops.push({ kind: 'package.add', id, fields: { ...blank('package', { name: fields.name, sequence }), people: CREW, ...fields } });
    ops.push(...holdPointsOf(id, fields.hazards ?? [], newId));
    return id;
  };
  for (const vehicle of [...record.vehicles].sort((a, b) => a.sequence - b.sequence)) {
    let before = [...record.packages]
      .filter((p) => p.vehicleId === vehicle.id && p.place === 'lift')
      .sort((a, b) => b.sequence - a.sequence)[0]?.id;
    let safe = record.packages.find((p) => p.vehicleId === vehicle.id && p.name.startsWith(MAKE_SAFE))?.id;
    const madeSafe = (): string | undefined => {
      if (safe !== undefined || !isElectric(vehicle)) return safe;
      safe = add({
        ...{ vehicleId: vehicle.id, name: `${MAKE_SAFE} high voltage of ${vehicle.name}`, place: 'bay', ...MAKE_SAFE_S },
        hazards: ['high-voltage', 'capacitors'],
      });
      return safe;
    };
    for (const subsystem of [...record.subsystems].sort((a, b) => a.sequence - b.sequence)) {
      const scope: Scope | undefined = record.scopes.find((s) => s.vehicleId === vehicle.id && s.subsystemId === subsystem.id);
      if (!scope || scope.depth === 'closed' || isThere(record, vehicle, subsystem)) continue;
      const expected = scopeExpectation(subsystem.name, scope, experience);
      if (expected.peopleS === null) withoutTime.push(`${subsystem.name}, ${vehicle.name}`);
      const low = scope.expectedS === null ? (expected.learntTime?.low ?? null) : null;
      const high = scope.expectedS === null ? (expected.learntTime?.high ?? null) : null;
      const first = madeSafe();
      const hazards = usualHazardsOf(subsystem.name, record.study.usualHazards);
      const shared = { vehicleId: vehicle.id, subsystemId: subsystem.id, hazards };
      const off = add({
        ...shared,
        name: `${subsystem.name} off ${vehicle.name}`,
        place: 'lift',
        ...estimateOf(expected.peopleS, scope.depth === 'module' ? 1 - OFF_FRACTION : OFF_FRACTION, low, high),
        after: [before ?? first].flatMap((id) => id ?? []),
      });
      before = off;
      add({
        ...shared,
        name: `${VERB[scope.depth]}: ${subsystem.name}, ${vehicle.name}`,
        place: 'bay',
        ...estimateOf(expected.peopleS, scope.depth === 'module' ? OFF_FRACTION : 1 - OFF_FRACTION, low, high),
        after: [off],
      });
    }
  }
  return { ops, withoutTime };
};
