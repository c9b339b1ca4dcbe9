export { applyOps, LIST_OF, namedRows, rowsOf } from './apply-ops';
export { blank, emptyRecord, type Given } from './blank';
export { cellOf, cellsOf, editOp, editTo, fieldOfCell, fieldsFrom, fieldsOf, removeOp, sameValue, withFields } from './cells';
export { OP_KINDS, schemaOf } from './contract';
export {
  type BoardFields,
  type Candidate,
  type CheckReading,
  type CandidateFields,
  type Change,
  type ChangeKept,
  type Claim,
  type ClaimFields,
  type ComponentSetFields,
  type Connection,
  type ConnectionFields,
  ENTITIES,
  type Entity,
  type Explanation,
  type FastenerSet,
  type FastenerSetFields,
  type FieldsOf,
  type FluidFields,
  type GaugeStudy,
  type Board,
  type BoardDuty,
  type BoardDutyFields,
  type ComponentSet,
  type Heating,
  type HeatingFields,
  type Pack,
  type Passage,
  type Port,
  type RunCase,
  type RunChange,
  type Supply,
  type SupplyFields,
  type PackFields,
  type HoldPoint,
  type HoldPointFields,
  type HolePattern,
  type HolePatternFields,
  type Identification,
  type IdentificationFields,
  type JointSet,
  type JointSetFields,
  type KeptChange,
  type LiftSetUp,
  type LiftSetUpFields,
  type LiftStep,
  type LiftStepFields,
  type Member,
  type Op,
  type OpKind,
  type PackageFields,
  type Part,
  type PartFields,
  type Picture,
  type PictureFields,
  type Place,
  type Question,
  type QuestionFields,
  type ReaderRequest,
  type Reading,
  type ReadingFields,
  type Recount,
  type RecountSample,
  type RecountFields,
  type RequestFields,
  type Resource,
  type ResourceFields,
  type Rig,
  type RigFields,
  type RowOf,
  type Scan,
  type ScanFields,
  type Scope,
  type ScopeFields,
  type Section,
  type SectionFields,
  type Session,
  type SignOff,
  type SessionFields,
  splitKind,
  type Step,
  type StepFields,
  type Study,
  type StudyFields,
  type StudyRecord,
  type Subsystem,
  type SubsystemFields,
  type TagSheet,
  type TagSheetFields,
  type Vehicle,
  type VehicleFields,
  VERBS,
  type WorkPackage,
} from './entities';
export { evidenceFor, impliedMark, isKnowing, type KnowingEntity, knowingFields } from './evidence-of';
export { type FieldChoice, fieldInput, fieldLines, type FieldName, labelOf, readUnit } from './field-input';
export { fieldIn, fieldLabel, fieldsIn } from './field-words';
export { KINDS } from './kinds';
export type { Field, Fields, FileField, Evidence, EvidenceOf } from './kinds/field';
export { ROLES, type May, type MayDo, type NameFrom, type Role, type Row, type Unique } from './kinds/kind';
export { COMPONENT_CLASSES, type ComponentClass } from './kinds/bench/components';
export { CONNECTION_KINDS, type ConnectionKind, type Lock, LOCKS, type Release, RELEASES } from './kinds/bench/connection';
export { READING_QUANTITIES, type ReadingQuantity } from './kinds/bench/reading';
export type { Recounted } from './kinds/bench/recount';
export type { Waiver } from './kinds/bench/session';
export { HOLE_PATTERN_SOURCES } from './kinds/measure/hole-pattern';
export { PASSAGE_DOES } from './kinds/measure/passage';
export { RUN_CHANGES, type RunChangeKind } from './kinds/measure/run-case';
export { SUPPLY_ROLES, type SupplyRole } from './kinds/measure/supply';
export { BRICK_LAYS, CELL_FORMATS, COOLANT_WAYS, type BrickLay, type CoolantWay } from './kinds/measure/pack';
export { type MeshFormat, SCAN_UNITS, type ScanFigures, type ScanUnit, type Triple } from './kinds/measure/scan';
export { SECTION_KINDS, type SectionKind } from './kinds/measure/section';
export { CHECK_QUANTITIES, type CheckQuantity } from './kinds/reconcile/check-reading';
export type { Explained } from './kinds/reconcile/explanation';
export { SAMPLED_BY } from './kinds/reconcile/recount-sample';
export { UNANSWERED } from './kinds/plan/hold-point';
export type { PadPoint } from './kinds/plan/lift-set-up';
export { PLACE_WORD, PLACES, type WorkPlace } from './kinds/plan/package';
export { padsOnOnePlace } from './kinds/plan/pads';
export type { ResourceKind } from './kinds/plan/resource';
export { RIG_STATES } from './kinds/plan/rig';
export { type Depth, DEPTH_WORD, DEPTHS } from './kinds/plan/scope';
export {
  type Access,
  ACCESSES,
  type Direction,
  DIRECTION_WORD,
  DIRECTIONS,
  FASTENER_KINDS,
  type FastenerKind,
} from './kinds/study/fasteners';
export { JOINT_KINDS, type JointKind, RUNNING_JOINTS } from './kinds/study/joints';
export {
  CHOICE_CRITERIA,
  type ChoiceCriterion,
  type ChoiceWeights,
  type DaysOff,
  EVEN_WEIGHTS,
  USUAL_CALENDAR,
  USUAL_HAZARDS,
  type UsualHazards,
  type WorkCalendar,
} from './kinds/study/of-study';
export type { PictureMark } from './kinds/bench/picture';
export { DAMAGE_FROM, type Hand, HAND_WORD, HANDS, OPENED, PART_STATES } from './kinds/study/part';
export { type Carried, CARRIED } from './kinds/bench/step';
export { USUAL_STUDY } from './kinds/study/study';
export { VEHICLE_ROLE_WORD, VEHICLE_ROLES, type VehicleRole } from './kinds/study/vehicle';
export { STUDY_FILE_SCHEMA } from './json-schema';
export { countInSum, countRange, evidence, isMassOfAll, massSaid, massUKg, rangeText, type Weighed } from './evidence';
export { changeOfToday, isPartOfMass, type Masses, massesOf, opOfToday, recordOfToday, wordsOfToday } from './of-today';
export { type CellConflict, type Conflict, type CurrentRows, inverseOps, netEffect, type NetEffect, type RowEffect } from './net-effect';
export { newStudyOps, SHIPPED_SUBSYSTEMS, templateOps } from './new-study';
export { nextSequence } from './next-sequence';
export { outline, type Outline, type OutlineNode, subsystemKey } from './outline';
export { readChange } from './read-change';
export { GONE, kindWord, kindWords, type NameOf, recordName } from './record-name';
export { ANY_REFERENCES, FILE_FIELDS, PERSON_FIELDS, type Reference, REFERENCES } from './references';
export { removalOps, renamedOps } from './removal';
export { rowFaults } from './row-faults';
export { costBasisText, countingRuleText } from './rule-words';
export { type Undoable, undoStacks } from './undo';
