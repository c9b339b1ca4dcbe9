export { CHECKS, checkById } from './checks';
export { type Cause, causesOf } from './causes';
export { PRIOR, type Ranked } from './chances';
export {
  type About,
  BLOCKED,
  BLOCKED_WORD,
  type Blocked,
  type Check,
  type Compared,
  type Finding,
  type Mend,
  type Rule,
  type Severity,
  type Suspect,
  type Told,
} from './finding';
export { Checking, type ExplainedFinding, reconcile, type Reconciled, sawText } from './run';
export { sameDigits } from './slips';
export { subsystemStates, type SubsystemState } from './sign-off';
export { type CountAgreement, countAgreement, countedSets, drawSample, neededFor, type SampleResult, sampleResult } from './recount-sample';
export { instrumentCharts, doubtfulReadings, type InstrumentChart } from './control/instruments';
export { recordDiff, type RecordDiff, withDiff } from './record-diff';
