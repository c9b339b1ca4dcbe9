import { BOARD } from './bench/board';
import { COMPONENTS } from './bench/components';
import { CONNECTION } from './bench/connection';
import { FLUID } from './bench/fluid';
import { PICTURE } from './bench/picture';
import { READING } from './bench/reading';
import { RECOUNT } from './bench/recount';
import { SESSION } from './bench/session';
import { SHEET } from './bench/sheet';
import { STEP } from './bench/step';
import { BOARD_DUTY } from './measure/board-duty';
import { GAUGE_STUDY } from './measure/gauge-study';
import { HEATING } from './measure/heating';
import { IDENTIFICATION } from './measure/identification';
import { HOLE_PATTERN } from './measure/hole-pattern';
import { PACK } from './measure/pack';
import { PASSAGE } from './measure/passage';
import { PORT } from './bench/port';
import { RUN_CASE, RUN_CHANGE } from './measure/run-case';
import { SCAN } from './measure/scan';
import { SECTION } from './measure/section';
import { SUPPLY } from './measure/supply';
import { CANDIDATE } from './plan/candidate';
import { CLAIM } from './plan/claim';
import { HOLD_POINT } from './plan/hold-point';
import { LIFT_SET_UP } from './plan/lift-set-up';
import { PACKAGE } from './plan/package';
import { REQUEST } from './plan/request';
import { RESOURCE } from './plan/resource';
import { RIG } from './plan/rig';
import { SCOPE } from './plan/scope';
import { LIFT_STEP } from './plan/lift-step';
import { CHECK_READING } from './reconcile/check-reading';
import { EXPLANATION } from './reconcile/explanation';
import { RECOUNT_SAMPLE } from './reconcile/recount-sample';
import { SIGN_OFF } from './reconcile/sign-off';
import { FASTENERS } from './study/fasteners';
import { JOINTS } from './study/joints';
import { MEMBER } from './study/member';

import { PART } from './study/part';
import { QUESTION } from './study/question';
import { STUDY } from './study/study';
import { SUBSYSTEM } from './study/subsystem';
import { VEHICLE } from './study/vehicle';

/** Every kind of record, in an order in which each stands behind those its rows usually refer to. */
export const KINDS = {
  study: STUDY,
  member: MEMBER,
  vehicle: VEHICLE,
  subsystem: SUBSYSTEM,
  part: PART,
  fasteners: FASTENERS,
  joints: JOINTS,
  port: PORT,
  connection: CONNECTION,
  passage: PASSAGE,
  components: COMPONENTS,
  board: BOARD,
  fluid: FLUID,
  question: QUESTION,
  candidate: CANDIDATE,
  request: REQUEST,
  claim: CLAIM,
  scope: SCOPE,
  resource: RESOURCE,
  rig: RIG,
  package: PACKAGE,
  holdPoint: HOLD_POINT,
  liftSetUp: LIFT_SET_UP,
  liftStep: LIFT_STEP,
  session: SESSION,
  step: STEP,
  reading: READING,
  recount: RECOUNT,
  sheet: SHEET,
  scan: SCAN,
  identification: IDENTIFICATION,
  section: SECTION,
  holePattern: HOLE_PATTERN,
  gaugeStudy: GAUGE_STUDY,
  pack: PACK,
  boardDuty: BOARD_DUTY,
  supply: SUPPLY,
  heating: HEATING,
  runCase: RUN_CASE,
  runChange: RUN_CHANGE,
  picture: PICTURE,
  explanation: EXPLANATION,
  signOff: SIGN_OFF,
  checkReading: CHECK_READING,
  recountSample: RECOUNT_SAMPLE,
} as const;
