import {
  nextSequence,
  type LiftSetUpFields,
  type StudyRecord,
  type Subsystem,
  type LiftStep,
  type LiftStepFields,
  type Vehicle,
  type WorkPackage,
} from '../../record';
import { ESTIMATE_RELATIVE_U } from '../../shared';

/** Standard uncertainty of a centre of mass that is only taken to lie half way between the axles, m (assumed). */
const UNFOUND_PLACE_U_M = 0.3;
/** Standard uncertainty of a kerb mass read from wheel scales, kg (assumed). */
const KERB_U_KG = 10;
/** The least distance to the line between the pads that is worked with, m (assumed). */
const MARGIN_M = 0.15;
/** A wheelbase where none is known, m. */
const USUAL_WHEELBASE_M = 3;
/** Pads where a vehicle of usual size is lifted, until those of this one are typed. */
const USUAL_PADS = [
  { xM: 0.55, yM: -0.75 },
  { xM: 0.55, yM: 0.75 },
  { xM: 2.45, yM: 0.75 },
  { xM: 2.45, yM: -0.75 },
] as const;

/** A vehicle put on a lift before anything more is typed: half way between its axles on usual pads. Null without a kerb mass. */
export const usualLiftSetUp = ({
  id,
  kerbMassKg,
  wheelbaseM,
}: Pick<Vehicle, 'id' | 'kerbMassKg' | 'wheelbaseM'>): LiftSetUpFields | null =>
  kerbMassKg === null
    ? null
    : {
        ...{
          vehicleId: id,
          resourceId: null,
          massKg: kerbMassKg,
          massUKg: KERB_U_KG,
          yM: 0,
          placeUM: UNFOUND_PLACE_U_M,
          marginM: MARGIN_M,
        },
        xM: Number(((wheelbaseM ?? USUAL_WHEELBASE_M) / 2).toFixed(2)),
        pads: USUAL_PADS.map((pad) => ({ ...pad })),
      };

/** What a step stands for: a part, a whole subsystem, or nothing recorded. */
type RecordedAs = Pick<LiftStepFields, 'partId' | 'subsystemId'>;
/** What a lift step takes off, by the id that was chosen: a subsystem where it is one, else a part; neither for null. */
export const recordedAs = (id: string | null, subsystems: readonly Pick<Subsystem, 'id'>[]): RecordedAs =>
  subsystems.some((s) => s.id === id) ? { partId: null, subsystemId: id } : { partId: id, subsystemId: null };

/** A step of which only its name is known. */
export const newLiftStep = (vehicleId: string, label: string, sequence: number): LiftStepFields => ({
  ...{ vehicleId, sequence, label, partId: null, subsystemId: null, massKg: null, massUKg: null, xM: null, yM: null },
});

/** A mass typed alone is an estimate, good to a tenth; taken out, its uncertainty goes with it. */
export const massTyped = ({ massUKg }: Pick<LiftStep, 'massUKg'>, massKg: number | null): Pick<LiftStepFields, 'massKg' | 'massUKg'> =>
  massKg === null ? { massKg: null, massUKg: null } : { massKg, massUKg: massUKg ?? Number((massKg * ESTIMATE_RELATIVE_U).toPrecision(2)) };

/** A place typed along one axis lies in the middle across until that is typed too. */
export const placeTyped = (
  { xM, yM }: Pick<LiftStep, 'xM' | 'yM'>,
  axis: 'xM' | 'yM',
  at: number | null,
): Pick<LiftStepFields, 'xM' | 'yM'> => (at === null ? { xM: null, yM: null } : { xM: xM ?? 0, yM: yM ?? 0, [axis]: at });

const toComeOff = (pack: WorkPackage, vehicleId: string): boolean =>
  pack.vehicleId === vehicleId && pack.place === 'lift' && pack.subsystemId !== null && pack.doneOn === null;

/**
 * What packages on a lift will take off a vehicle and no step does yet, in the order in which they start.
 *
 * One part that holds all of a subsystem brings its place too; of several the subsystem brings the mass.
 */
export const stepsFromPlan = (
  { packages, parts, subsystems, liftSteps }: Pick<StudyRecord, 'packages' | 'parts' | 'subsystems' | 'liftSteps'>,
  vehicleId: string,
  startOf: ReadonlyMap<string, number>,
): readonly LiftStepFields[] => {
  const own = liftSteps.filter((u) => u.vehicleId === vehicleId);
  const have = new Set(own.map((u) => u.label));
  const first = nextSequence(own);
  return packages
    .filter((pack) => toComeOff(pack, vehicleId) && startOf.has(pack.id))
    .sort((a, b) => startOf.get(a.id)! - startOf.get(b.id)!)
    .map((pack) => ({ pack, name: subsystems.find((s) => s.id === pack.subsystemId)?.name ?? pack.name }))
    .filter(({ name }, i, all) => !have.has(name) && all.findIndex((other) => other.name === name) === i)
    .map(({ pack, name }, i) => {
      const tops = parts.filter((p) => p.vehicleId === vehicleId && p.subsystemId === pack.subsystemId);
      const recorded = tops.length === 1 ? tops[0]!.id : tops.length > 1 ? pack.subsystemId : null;
      return { ...newLiftStep(vehicleId, name, first + i), ...recordedAs(recorded, subsystems) };
    });
};
