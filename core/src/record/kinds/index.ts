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
import { GAUGE } from './measure/gauge';
import { IDENTIFICATION } from './measure/identification';
import { PATTERN } from './measure/pattern';
import { SCAN } from './measure/scan';
import { SECTION } from './measure/section';
import { CANDIDATE } from './plan/candidate';
import { CLAIM } from './plan/claim';
import { GATE } from './plan/gate';
import { HOIST } from './plan/hoist';
import { PACKAGE } from './plan/package';
import { REQUEST } from './plan/request';
import { RESOURCE } from './plan/resource';
import { RIG } from './plan/rig';
import { SCOPE } from './plan/scope';
import { UNLOAD } from './plan/unload';
import { FASTENERS } from './study/fasteners';
import { JOINTS } from './study/joints';
import { MEMBER } from './study/member';

import { PIECE } from './study/piece';
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
  piece: PIECE,
  fasteners: FASTENERS,
  joints: JOINTS,
  connection: CONNECTION,
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
  gate: GATE,
  hoist: HOIST,
  unload: UNLOAD,
  session: SESSION,
  step: STEP,
  reading: READING,
  recount: RECOUNT,
  sheet: SHEET,
  scan: SCAN,
  identification: IDENTIFICATION,
  section: SECTION,
  pattern: PATTERN,
  gauge: GAUGE,
  picture: PICTURE,
} as const;
