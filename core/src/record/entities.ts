import type { EvidenceMark } from '../shared';
import type {
  BoardFields,
  ComponentSetFields,
  ConnectionFields,
  FluidFields,
  ReadingFields,
  RecountFields,
  SessionFields,
  StepFields,
  TagSheetFields,
} from './bench/entities';
import type { GaugeFields, IdentificationFields, PatternFields, ScanFields, SectionFields } from './measure/entities';
import type { Known } from './known';
import type {
  CandidateFields,
  ChoiceWeights,
  ClaimFields,
  Drive,
  GateFields,
  HoistFields,
  PackageFields,
  PaidPrice,
  RequestFields,
  ResourceFields,
  RigFields,
  ScopeFields,
  UnloadFields,
  UsualHazards,
  VehicleClass,
  WorkCalendar,
} from './plan/entities';

/** How values are known, by field. */
export type KnownOf = Readonly<Record<string, Known>>;

/** Every row carries its id and the revision of the study at which it last changed. */
export interface Row {
  readonly id: string;
  readonly version: number;
}

export const STUDY_STATES = ['open', 'archived'] as const;

export const ASSEMBLIES_AS = ['pieces', 'one'] as const;

export interface StudyFields {
  readonly title: string;
  readonly questions: string;
  readonly lead: string;
  readonly currency: string;
  readonly priceYear: number;
  /** vehicles per year */
  readonly volumePerYear: number;
  readonly productionYears: number;
  readonly region: string;
  /** counting rule: are fasteners counted, weighed and costed with the pieces? */
  readonly fastenersIn: boolean;
  /** counting rule: is an opened assembly counted as its pieces or as one? */
  readonly assembliesAs: (typeof ASSEMBLIES_AS)[number];
  /** an archived study is read, never written, until it is opened again */
  readonly state: (typeof STUDY_STATES)[number];
  readonly choiceWeights: ChoiceWeights;
  /** hazards that packages of a subsystem have until somebody says otherwise, by words of its name */
  readonly usualHazards: readonly UsualHazards[];
  readonly calendar: WorkCalendar;
}

/** What a person may do in a study: everything; record; cost; or read. */
export const ROLES = ['lead', 'recorder', 'cost', 'reader'] as const;
export type Role = (typeof ROLES)[number];

/** A person of the study. Taken off, the person's changes stay in the history. */
export interface MemberFields {
  readonly personId: string;
  readonly role: Role;
}

export const VEHICLE_ROLES = ['subject', 'earlier', 'competitor'] as const;
export type VehicleRole = (typeof VEHICLE_ROLES)[number];
export const VEHICLE_ROLE_WORD: Readonly<Record<VehicleRole, string>> = {
  subject: 'subject',
  earlier: 'earlier model',
  competitor: 'competitor',
};

/** A vehicle of the study and the passport of the sample that is taken apart. The price is what was paid for it. */
export interface VehicleFields extends PaidPrice {
  readonly sequence: number;
  readonly name: string;
  readonly maker: string;
  readonly role: VehicleRole;
  readonly modelYear: number | null;
  readonly generation: string;
  /** the vehicle of the study it follows */
  readonly predecessorId: string | null;
  /** trim, battery or body variant that the comparison is meant for */
  readonly variant: string;
  readonly vehicleClass: VehicleClass | null;
  readonly drive: Drive | null;
  /** calendar dates as YYYY-MM-DD */
  readonly builtOn: string | null;
  readonly acquiredOn: string | null;
  /** when a vehicle that is not there yet will stand in the workshop */
  readonly expectedOn: string | null;
  readonly odometerM: number | null;
  readonly obtained: string;
  /** parts of the sample that are not as the maker delivered them */
  readonly changes: string;
  readonly wear: string;
  readonly kerbMassKg: number | null;
  readonly powerW: number | null;
  readonly batteryJ: number | null;
  readonly voltageV: number | null;
  readonly rangeM: number | null;
  /** energy per distance */
  readonly consumptionJPerM: number | null;
  readonly turningCircleM: number | null;
  readonly wheelbaseM: number | null;
  readonly trackM: number | null;
  readonly notes: string;
  readonly known: KnownOf;
}

export interface SubsystemFields {
  readonly parentId: string | null;
  readonly sequence: number;
  readonly name: string;
}

export const HANDS = ['none', 'left', 'right', 'mirrored'] as const;
export type Hand = (typeof HANDS)[number];
export const HAND_WORD: Readonly<Record<Hand, string>> = {
  none: 'no hand',
  left: 'left',
  right: 'right',
  mirrored: 'left and right, mirrored',
};

export const OPENED = ['opened', 'closed'] as const;
export const DAMAGE_FROM = ['was there', 'taking apart'] as const;

export interface PieceFields {
  readonly vehicleId: string;
  /** where the piece hangs: straight under a subsystem, or inside another piece; one of the two is null */
  readonly subsystemId: string | null;
  readonly parentId: string | null;
  readonly sequence: number;
  readonly tag: string;
  readonly name: string;
  readonly function: string;
  /** how many per parent */
  readonly quantity: number;
  readonly hand: Hand;
  readonly materialId: string | null;
  readonly materialDetail: string;
  readonly processId: string | null;
  readonly processDetail: string;
  readonly massEachKg: number | null;
  /** standard uncertainty of massEachKg */
  readonly massUKg: number | null;
  readonly massEvidence: EvidenceMark | null;
  /** the mass as it was typed, with its unit */
  readonly massTyped: string | null;
  readonly lengthM: number | null;
  readonly widthM: number | null;
  readonly heightM: number | null;
  readonly wallThicknessM: number | null;
  readonly runLengthM: number | null;
  /** outer diameter of what runs: hose, tube, cable */
  readonly runDiameterM: number | null;
  /** where its centre of mass is on the vehicle: x from the front axle rearwards, y from the middle to the right, z from the ground up; all three or none */
  readonly xM: number | null;
  readonly yM: number | null;
  readonly zM: number | null;
  readonly location: string;
  readonly markings: string;
  readonly supplier: string;
  readonly opened: (typeof OPENED)[number] | null;
  readonly closedReason: string;
  /** what may be missed by leaving it closed */
  readonly closedRisk: string;
  /** what was seen of it from outside */
  readonly seenOutside: string;
  readonly damage: string;
  /** whether the damage was there or was done in taking it apart */
  readonly damageFrom: (typeof DAMAGE_FROM)[number] | null;
  readonly notes: string;
  /** price each of a bought-out piece, decimal digits, with its whole basis; all five or none */
  readonly boughtPrice: string | null;
  readonly boughtCurrency: string | null;
  readonly boughtPriceYear: number | null;
  readonly boughtVolumePerYear: number | null;
  readonly boughtRegion: string | null;
  /** how values are known, where that differs from what goes without saying; by field */
  readonly known: KnownOf;
}

export const FASTENER_KINDS = ['bolt', 'nut', 'washer', 'stud', 'screw', 'rivet', 'clip', 'push pin', 'cable tie'] as const;
export type FastenerKind = (typeof FASTENER_KINDS)[number];

/** Directions in the vehicle's axes: X fore and aft, Y left and right, Z up and down. @source ISO 4130:1978 */
export const DIRECTIONS = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** How the fasteners of a set are reached. */
export const ACCESSES = ['free', 'from below', 'blind', 'through a hole', 'behind a cover', 'with an extension'] as const;
export type Access = (typeof ACCESSES)[number];

export interface FastenerSetFields {
  readonly pieceId: string;
  readonly sequence: number;
  /** how many hold one such piece */
  readonly count: number;
  readonly kind: FastenerKind;
  /** nominal thread diameter */
  readonly threadM: number | null;
  /** null is the coarse pitch */
  readonly pitchM: number | null;
  readonly lengthM: number | null;
  readonly drive: string;
  readonly grade: string;
  readonly direction: Direction | null;
  /** torque it was tightened with, and the torque at which it let go */
  readonly tighteningNm: number | null;
  readonly breakawayNm: number | null;
  readonly access: Access | null;
  readonly tool: string;
  /** null: not said; false: it stayed in */
  readonly removed: boolean | null;
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: EvidenceMark | null;
  readonly massTyped: string | null;
  readonly note: string;
  readonly known: KnownOf;
}

export const JOINT_KINDS = [
  'spot weld',
  'self-piercing rivet',
  'flow-drill screw',
  'clinch',
  'press fit',
  'snap fit',
  'adhesive bead',
  'seam weld',
  'laser weld',
  'friction-stir weld',
  'braze',
  'solder',
  'hem',
] as const;
export type JointKind = (typeof JOINT_KINDS)[number];

/** Joints that are known by their length as well as their number. */
export const RUNNING_JOINTS: readonly JointKind[] = [
  'adhesive bead',
  'seam weld',
  'laser weld',
  'friction-stir weld',
  'braze',
  'solder',
  'hem',
];

export interface JointSetFields {
  readonly pieceId: string;
  readonly sequence: number;
  readonly count: number;
  readonly kind: JointKind;
  /** length of one joint, of the running kinds only */
  readonly lengthEachM: number | null;
  readonly note: string;
  readonly known: KnownOf;
}

export const QUESTION_KINDS = ['question', 'promise'] as const;
export const QUESTION_STATES = ['open', 'answered', 'dropped'] as const;

/** What a question is attached to: the study as a whole, or one of its records. */
export const SUBJECTS = [
  'study',
  'vehicle',
  'subsystem',
  'piece',
  'fasteners',
  'joints',
  'connection',
  'components',
  'fluid',
  'step',
  'candidate',
  'claim',
  'package',
  'rig',
] as const;
export type Subject = (typeof SUBJECTS)[number];

/** Something to be found out, or a figure promised to somebody. It stays on the list until it is answered or dropped. */
export interface QuestionFields {
  readonly kind: (typeof QUESTION_KINDS)[number];
  readonly aboutKind: Subject;
  readonly aboutId: string;
  /** the field it is about, or null for the record as a whole */
  readonly aboutField: string | null;
  readonly text: string;
  readonly ownerId: string | null;
  /** calendar date as YYYY-MM-DD */
  readonly dueOn: string | null;
  /** to whom a figure is promised */
  readonly owedTo: string;
  readonly state: (typeof QUESTION_STATES)[number];
  readonly answer: string;
}

export const PICTURE_MARKS = ['arrow', 'circle', 'text'] as const;

/** A mark drawn over a picture; places are fractions of its width and height, so that they hold at every size. */
export interface PictureMark {
  readonly kind: (typeof PICTURE_MARKS)[number];
  readonly fromX: number;
  readonly fromY: number;
  /** head of the arrow, or a point on the circle; the same as `from` for text */
  readonly toX: number;
  readonly toY: number;
  readonly text: string;
}

/** A picture of a piece or of a rig. Its file is kept once, under its content hash. */
export interface PictureFields {
  /** one of the two is null */
  readonly pieceId: string | null;
  readonly rigId: string | null;
  readonly sequence: number;
  /** SHA-256 of the file, hexadecimal */
  readonly sha256: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** what it shows */
  readonly shows: string;
  readonly marks: readonly PictureMark[];
}

export interface FieldsOf {
  readonly study: StudyFields;
  readonly vehicle: VehicleFields;
  readonly subsystem: SubsystemFields;
  readonly piece: PieceFields;
  readonly fasteners: FastenerSetFields;
  readonly joints: JointSetFields;
  readonly member: MemberFields;
  readonly question: QuestionFields;
  readonly picture: PictureFields;
  readonly candidate: CandidateFields;
  readonly request: RequestFields;
  readonly claim: ClaimFields;
  readonly scope: ScopeFields;
  readonly resource: ResourceFields;
  readonly rig: RigFields;
  readonly package: PackageFields;
  readonly gate: GateFields;
  readonly hoist: HoistFields;
  readonly unload: UnloadFields;
  readonly connection: ConnectionFields;
  readonly components: ComponentSetFields;
  readonly board: BoardFields;
  readonly fluid: FluidFields;
  readonly session: SessionFields;
  readonly step: StepFields;
  readonly reading: ReadingFields;
  readonly recount: RecountFields;
  readonly sheet: TagSheetFields;
  readonly scan: ScanFields;
  readonly identification: IdentificationFields;
  readonly section: SectionFields;
  readonly pattern: PatternFields;
  readonly gauge: GaugeFields;
}

export type Entity = keyof FieldsOf;
export type RowOf<E extends Entity> = Row & FieldsOf[E];
export type Study = RowOf<'study'>;
export type Vehicle = RowOf<'vehicle'>;
export type Subsystem = RowOf<'subsystem'>;
export type Piece = RowOf<'piece'>;
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
export type Gate = RowOf<'gate'>;
export type Hoist = RowOf<'hoist'>;
export type Unload = RowOf<'unload'>;
export type Connection = RowOf<'connection'>;
export type ComponentSet = RowOf<'components'>;
export type Board = RowOf<'board'>;
export type Fluid = RowOf<'fluid'>;
export type Session = RowOf<'session'>;
export type Step = RowOf<'step'>;
export type Reading = RowOf<'reading'>;
export type Recount = RowOf<'recount'>;
export type TagSheet = RowOf<'sheet'>;
export type Scan = RowOf<'scan'>;
export type Identification = RowOf<'identification'>;
export type Section = RowOf<'section'>;
export type Pattern = RowOf<'pattern'>;
export type Gauge = RowOf<'gauge'>;

export const ENTITIES = [
  'study',
  'member',
  'vehicle',
  'subsystem',
  'piece',
  'fasteners',
  'joints',
  'connection',
  'components',
  'board',
  'fluid',
  'question',
  'candidate',
  'request',
  'claim',
  'scope',
  'resource',
  'rig',
  'package',
  'gate',
  'hoist',
  'unload',
  'session',
  'step',
  'reading',
  'recount',
  'sheet',
  'scan',
  'identification',
  'section',
  'pattern',
  'gauge',
  'picture',
] as const satisfies readonly Entity[];

export const VERBS = ['add', 'edit', 'remove'] as const;
export type Verb = (typeof VERBS)[number];

/** New values by field. Of `known` only the named fields change, and null takes what was said of a field back. */
export type Edit<E extends Entity> = {
  readonly [K in keyof FieldsOf[E]]?: K extends 'known' ? Readonly<Record<string, Known | null>> : FieldsOf[E][K];
};

/**
 * One step of a change. An edit carries the values its fields had when the person saw them, and a removal the whole
 * row: what has become different since is never overwritten without asking.
 */
export type OpFor<E extends Entity> =
  | { readonly kind: `${E}.add`; readonly id: string; readonly fields: FieldsOf[E] }
  | { readonly kind: `${E}.edit`; readonly id: string; readonly was: Edit<E>; readonly fields: Edit<E> }
  | { readonly kind: `${E}.remove`; readonly id: string; readonly was: FieldsOf[E] };
export type Op = { readonly [E in Entity]: OpFor<E> }[Entity];
export type OpKind = Op['kind'];

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

/** The whole record of a study. */
export interface StudyRecord {
  readonly revision: number;
  readonly study: Study;
  readonly vehicles: readonly Vehicle[];
  readonly subsystems: readonly Subsystem[];
  readonly pieces: readonly Piece[];
  readonly fastenerSets: readonly FastenerSet[];
  readonly jointSets: readonly JointSet[];
  readonly members: readonly Member[];
  readonly questions: readonly Question[];
  readonly pictures: readonly Picture[];
  readonly candidates: readonly Candidate[];
  readonly requests: readonly ReaderRequest[];
  readonly claims: readonly Claim[];
  readonly scopes: readonly Scope[];
  readonly resources: readonly Resource[];
  readonly rigs: readonly Rig[];
  readonly packages: readonly WorkPackage[];
  readonly gates: readonly Gate[];
  readonly hoists: readonly Hoist[];
  readonly unloads: readonly Unload[];
  readonly connections: readonly Connection[];
  readonly componentSets: readonly ComponentSet[];
  readonly boards: readonly Board[];
  readonly fluids: readonly Fluid[];
  readonly sessions: readonly Session[];
  readonly steps: readonly Step[];
  readonly readings: readonly Reading[];
  readonly recounts: readonly Recount[];
  readonly sheets: readonly TagSheet[];
  readonly scans: readonly Scan[];
  readonly identifications: readonly Identification[];
  readonly sections: readonly Section[];
  readonly patterns: readonly Pattern[];
  readonly gauges: readonly Gauge[];
}
