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

/** Rules across rows and the kinds of record whose change can break each. */
export const RULES: readonly { readonly rule: RecordRule; readonly when: readonly Entity[] }[] = [
  { rule: memberRule, when: ['study', 'member'] },
  { rule: subsystemRule, when: ['subsystem'] },
  { rule: pieceRule, when: ['vehicle', 'subsystem', 'piece'] },
  { rule: circleRule, when: ['piece'] },
  { rule: setRule, when: ['piece', 'fasteners', 'joints'] },
  { rule: questionRule, when: ['question'] },
  { rule: unloadRule, when: ['piece', 'unload'] },
  { rule: pictureRule, when: ['piece', 'picture', 'rig'] },
  { rule: tagRule, when: ['piece'] },
  {
    rule: partRule,
    when: ['piece', 'fasteners', 'gate', 'step', 'connection', 'components', 'board', 'fluid', 'reading', 'recount'],
  },
  {
    rule: benchRule,
    when: ['vehicle', 'subsystem', 'package', 'rig', 'piece', 'connection', 'fluid', 'session', 'step', 'sheet'],
  },
  { rule: stepRule, when: ['step'] },
  { rule: measureRule, when: ['piece', 'reading', 'scan', 'identification', 'section', 'pattern'] },
  {
    rule: planRule,
    when: ['vehicle', 'subsystem', 'candidate', 'request', 'claim', 'scope', 'resource', 'rig', 'package', 'gate', 'hoist', 'unload'],
  },
];
