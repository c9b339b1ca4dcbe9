import type { Entity } from '@each-bolt/core/record';
import { circleRule, fastenerStore, jointStore, pictureRule, pictureStore, pieceRule, pieceStore, setRule } from '../bench/ops';
import {
  benchRule,
  boardStore,
  componentStore,
  connectionStore,
  fluidStore,
  partRule,
  readingStore,
  recountStore,
  sessionStore,
  sheetStore,
  stepRule,
  stepStore,
  tagRule,
} from '../bench/work-ops';
import { gaugeStore, identificationStore, measureRule, patternStore, scanStore, sectionStore } from '../measure/ops';
import {
  memberRule,
  memberStore,
  questionRule,
  questionStore,
  studyStore,
  subsystemRule,
  subsystemStore,
  vehicleStore,
} from '../record/ops';
import {
  candidateStore,
  claimStore,
  gateStore,
  hoistStore,
  packageStore,
  planRule,
  requestStore,
  resourceStore,
  rigStore,
  scopeStore,
  unloadRule,
  unloadStore,
} from '../plan/ops';
import type { RecordRule, Store } from './store';

/** Every kind of record the ledger keeps, in the order rows are added; they are removed in the opposite order. */
export const STORES: { readonly [E in Entity]: Store<E> } = {
  study: studyStore,
  vehicle: vehicleStore,
  subsystem: subsystemStore,
  piece: pieceStore,
  fasteners: fastenerStore,
  joints: jointStore,
  member: memberStore,
  question: questionStore,
  candidate: candidateStore,
  request: requestStore,
  claim: claimStore,
  scope: scopeStore,
  resource: resourceStore,
  rig: rigStore,
  package: packageStore,
  gate: gateStore,
  hoist: hoistStore,
  unload: unloadStore,
  connection: connectionStore,
  components: componentStore,
  board: boardStore,
  fluid: fluidStore,
  session: sessionStore,
  step: stepStore,
  reading: readingStore,
  recount: recountStore,
  sheet: sheetStore,
  scan: scanStore,
  identification: identificationStore,
  section: sectionStore,
  pattern: patternStore,
  gauge: gaugeStore,
  picture: pictureStore,
};

/** A rule across rows, with the kinds of record it is about and those these refer to: what was only just added is not referred to wrongly. */
export interface RuleAbout {
  readonly rule: RecordRule;
  readonly of: readonly Entity[];
  readonly refersTo: readonly Entity[];
}

export const RULES: readonly RuleAbout[] = [
  { rule: memberRule, of: ['study', 'member'], refersTo: [] },
  { rule: subsystemRule, of: ['subsystem'], refersTo: [] },
  { rule: pieceRule, of: ['piece'], refersTo: ['vehicle', 'subsystem'] },
  { rule: circleRule, of: ['piece'], refersTo: [] },
  { rule: setRule, of: ['fasteners', 'joints'], refersTo: ['piece'] },
  { rule: questionRule, of: ['question'], refersTo: [] },
  { rule: unloadRule, of: ['unload'], refersTo: ['piece'] },
  { rule: pictureRule, of: ['picture'], refersTo: ['piece', 'rig'] },
  { rule: tagRule, of: ['piece'], refersTo: [] },
  {
    rule: partRule,
    of: ['connection', 'components', 'board', 'fluid', 'reading', 'recount'],
    refersTo: ['piece', 'fasteners', 'gate', 'step'],
  },
  {
    rule: benchRule,
    of: ['session', 'step', 'sheet'],
    refersTo: ['vehicle', 'subsystem', 'package', 'rig', 'piece', 'connection', 'fluid'],
  },
  { rule: stepRule, of: ['step'], refersTo: [] },
  { rule: measureRule, of: ['scan', 'identification', 'section', 'pattern'], refersTo: ['piece', 'reading'] },
  {
    rule: planRule,
    of: ['candidate', 'request', 'claim', 'scope', 'resource', 'rig', 'package', 'gate', 'hoist', 'unload'],
    refersTo: ['vehicle', 'subsystem'],
  },
];
