export { chooseVehicle, type CriterionMark, type HeldVehicle } from './choice/choose-vehicle';
export { HEADLINE_FIGURES, sampleWarnings } from './choice/sample-warnings';
export { capacitorDischarge } from './safety/capacitor';
export { findRigs } from './safety/find-rigs';
export { type Hazard, hazardById, HAZARDS, holdPointFault, LOCAL_CODES } from './safety/hazards';
export { type Balance, type BalanceStep, liftBalance, type LiftBalance, lumpOf } from './safety/lift-balance';
export { massTyped, newLiftStep, placeTyped, recordedAs, stepsFromPlan, usualLiftSetUp } from './safety/lift-steps';
export { MOST_LEAN_RAD, RIG_LOAD_SOURCE, rigLoad } from './safety/rig-load';
export { stepNames } from './safety/step-names';
export { circleIn } from './schedule/cycle';
export { benchSays, type BenchSays } from './schedule/bench-says';
export { burnUp, type BurnUp, progressFraction } from './schedule/burn-up';
export { personCalendar } from './schedule/calendar-file';
export { clockText, labourOf, readClock } from './schedule/labour';
export {
  planSchedule,
  type PlanSchedule,
  type Scheduled,
  type ScheduleOptions,
  type ScheduleResult,
  triesFor,
} from './schedule/plan-schedule';
export { scheduleCsv } from './schedule/schedule-csv';
export { workingCalendar } from './schedule/working-calendar';
export { type Expected, type Experience, scopeExpectation, type ScopeExpectation, scopeOf } from './scope/experience';
export { hazardOps, numbered, printAfter, readAfter, removePackageOps, swapOps } from './scope/package-edits';
export { packagesFromScope } from './scope/packages-from-scope';
