import { KINDS } from './kinds';
import type { Evidence, ValuesOf } from './kinds/field';
import type { Row } from './kinds/kind';

export type Entity = keyof typeof KINDS;
/** What a record of each kind holds. */
export type FieldsOf = { readonly [E in Entity]: ValuesOf<(typeof KINDS)[E]['fields']> };
export type RowOf<E extends Entity> = Row & FieldsOf[E];

export type Study = RowOf<'study'>;
export type Vehicle = RowOf<'vehicle'>;
export type Subsystem = RowOf<'subsystem'>;
export type Part = RowOf<'part'>;
export type FastenerSet = RowOf<'fasteners'>;
export type JointSet = RowOf<'joints'>;
export type Member = RowOf<'member'>;
export type Question = RowOf<'question'>;
export type Picture = RowOf<'picture'>;
export type Candidate = RowOf<'candidate'>;
export type ReaderRequest = RowOf<'request'>;
export type Claim = RowOf<'claim'>;
export type Scope = RowOf<'scope'>;
export type Resource = RowOf<'resource'>;
export type Rig = RowOf<'rig'>;
export type WorkPackage = RowOf<'package'>;
export type HoldPoint = RowOf<'holdPoint'>;
export type LiftSetUp = RowOf<'liftSetUp'>;
export type LiftStep = RowOf<'liftStep'>;
export type Connection = RowOf<'connection'>;
export type Fluid = RowOf<'fluid'>;
export type Session = RowOf<'session'>;
export type Step = RowOf<'step'>;
export type Reading = RowOf<'reading'>;
export type Recount = RowOf<'recount'>;
export type TagSheet = RowOf<'sheet'>;
export type Scan = RowOf<'scan'>;
export type Identification = RowOf<'identification'>;
export type Section = RowOf<'section'>;
export type HolePattern = RowOf<'holePattern'>;
export type GaugeStudy = RowOf<'gaugeStudy'>;
export type Pack = RowOf<'pack'>;
export type Board = RowOf<'board'>;
export type ComponentSet = RowOf<'components'>;
export type BoardDuty = RowOf<'boardDuty'>;
export type Supply = RowOf<'supply'>;
export type Heating = RowOf<'heating'>;
export type Port = RowOf<'port'>;
export type Passage = RowOf<'passage'>;
export type RunCase = RowOf<'runCase'>;
export type RunChange = RowOf<'runChange'>;
export type Explanation = RowOf<'explanation'>;
export type SignOff = RowOf<'signOff'>;
export type CheckReading = RowOf<'checkReading'>;
export type RecountSample = RowOf<'recountSample'>;

export type StudyFields = FieldsOf['study'];
export type VehicleFields = FieldsOf['vehicle'];
export type SubsystemFields = FieldsOf['subsystem'];
export type PartFields = FieldsOf['part'];
export type FastenerSetFields = FieldsOf['fasteners'];
export type JointSetFields = FieldsOf['joints'];
export type QuestionFields = FieldsOf['question'];
export type PictureFields = FieldsOf['picture'];
export type CandidateFields = FieldsOf['candidate'];
export type RequestFields = FieldsOf['request'];
export type ClaimFields = FieldsOf['claim'];
export type ScopeFields = FieldsOf['scope'];
export type ResourceFields = FieldsOf['resource'];
export type RigFields = FieldsOf['rig'];
export type PackageFields = FieldsOf['package'];
export type HoldPointFields = FieldsOf['holdPoint'];
export type LiftSetUpFields = FieldsOf['liftSetUp'];
export type LiftStepFields = FieldsOf['liftStep'];
export type ConnectionFields = FieldsOf['connection'];
export type ComponentSetFields = FieldsOf['components'];
export type BoardFields = FieldsOf['board'];
export type FluidFields = FieldsOf['fluid'];
export type SessionFields = FieldsOf['session'];
export type StepFields = FieldsOf['step'];
export type ReadingFields = FieldsOf['reading'];
export type RecountFields = FieldsOf['recount'];
export type TagSheetFields = FieldsOf['sheet'];
export type ScanFields = FieldsOf['scan'];
export type IdentificationFields = FieldsOf['identification'];
export type SectionFields = FieldsOf['section'];
export type HolePatternFields = FieldsOf['holePattern'];
export type PackFields = FieldsOf['pack'];
export type BoardDutyFields = FieldsOf['boardDuty'];
export type HeatingFields = FieldsOf['heating'];
export type SupplyFields = FieldsOf['supply'];

/** Where a part hangs. */
export type Place = Pick<PartFields, 'vehicleId' | 'subsystemId' | 'parentId'>;

/** Kinds of record, each behind those its rows usually refer to. */
export const ENTITIES = Object.keys(KINDS) as readonly Entity[];

export const VERBS = ['add', 'edit', 'remove'] as const;
export type Verb = (typeof VERBS)[number];

/** New values by field. Of `known` only the named fields change, and null takes what was said of a field back. */
export type Edit<E extends Entity> = {
  readonly [K in keyof FieldsOf[E]]?: K extends 'evidence' ? Readonly<Record<string, Evidence | null>> : FieldsOf[E][K];
};

/**
 * One step of a change. An edit carries the values its fields had when the person saw them, and a removal the whole
 * row: what has become different since is never overwritten without asking.
 */
type OpFor<E extends Entity> =
  | { readonly kind: `${E}.add`; readonly id: string; readonly fields: FieldsOf[E] }
  | { readonly kind: `${E}.edit`; readonly id: string; readonly was: Edit<E>; readonly fields: Edit<E> }
  | { readonly kind: `${E}.remove`; readonly id: string; readonly was: FieldsOf[E] };
export type Op = { readonly [E in Entity]: OpFor<E> }[Entity];
export type OpKind = Op['kind'];

/** The kind of record and the verb of an op: `part.add` is a part that is added. */
export const splitKind = (kind: OpKind): { readonly entity: Entity; readonly verb: Verb } => {
  const [entity, verb] = kind.split('.') as [Entity, Verb];
  return { entity, verb };
};

/** A batch of ops that succeeds or fails as one. `id` is made by the client and is the idempotency key. */
export interface Change {
  readonly id: string;
  readonly ops: readonly Op[];
  /** the change this one undoes; null for any other. Undoing an undo does it again */
  readonly undoes: string | null;
}

/** What the server answers to a change it keeps. Every row touched now has `revision` as its version. */
export interface ChangeKept {
  readonly id: string;
  readonly revision: number;
}

/** A kept change as the ledger gives it back. */
export interface KeptChange extends Change {
  readonly revision: number;
  /** ISO 8601, UTC */
  readonly madeAt: string;
  readonly madeBy: string;
  /** null for what the program itself loaded */
  readonly personId: string | null;
  readonly device: string;
  readonly inverse: readonly Op[];
}

/** Where a record keeps the rows of each kind. */
type Lists = { readonly [E in Exclude<Entity, 'study'> as (typeof KINDS)[E]['list']]: readonly RowOf<E>[] };

/** The whole record of a study. */
export interface StudyRecord extends Lists {
  readonly revision: number;
  readonly study: Study;
}
