import { array, mixed, object, type Schema } from 'yup';
import { EVIDENCE_MARKS, oneOf, positive, requiredText, shape, text, uuid, whole, type EvidenceMark } from '../shared';

/** Every row carries its id and the revision of the study at which it last changed. */
export interface Row {
  readonly id: string;
  readonly version: number;
}

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
}

export const VEHICLE_ROLES = ['subject', 'earlier', 'competitor'] as const;
export type VehicleRole = (typeof VEHICLE_ROLES)[number];
export const VEHICLE_ROLE_WORD: Readonly<Record<VehicleRole, string>> = {
  subject: 'subject',
  earlier: 'earlier model',
  competitor: 'competitor',
};

export interface VehicleFields {
  readonly sequence: number;
  readonly name: string;
  readonly maker: string;
  readonly role: VehicleRole;
  readonly modelYear: number | null;
  /** calendar dates as YYYY-MM-DD */
  readonly builtOn: string | null;
  readonly acquiredOn: string | null;
  readonly notes: string;
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
  readonly location: string;
  readonly markings: string;
  readonly supplier: string;
  readonly opened: (typeof OPENED)[number] | null;
  readonly closedReason: string;
  readonly damage: string;
  readonly notes: string;
  /** price each of a bought-out piece, decimal digits, with its whole basis; all five or none */
  readonly boughtPrice: string | null;
  readonly boughtCurrency: string | null;
  readonly boughtPriceYear: number | null;
  readonly boughtVolumePerYear: number | null;
  readonly boughtRegion: string | null;
}

export const FASTENER_KINDS = ['bolt', 'nut', 'washer', 'stud', 'screw', 'rivet', 'clip', 'push pin', 'cable tie'] as const;
export type FastenerKind = (typeof FASTENER_KINDS)[number];

/** Directions in the vehicle's axes: X fore and aft, Y left and right, Z up and down. @source ISO 4130:1978 */
export const DIRECTIONS = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type Direction = (typeof DIRECTIONS)[number];

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
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: EvidenceMark | null;
  readonly massTyped: string | null;
  readonly note: string;
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
}

export interface FieldsOf {
  readonly study: StudyFields;
  readonly vehicle: VehicleFields;
  readonly subsystem: SubsystemFields;
  readonly piece: PieceFields;
  readonly fasteners: FastenerSetFields;
  readonly joints: JointSetFields;
}

export type Entity = keyof FieldsOf;
export type RowOf<E extends Entity> = Row & FieldsOf[E];
export type Study = RowOf<'study'>;
export type Vehicle = RowOf<'vehicle'>;
export type Subsystem = RowOf<'subsystem'>;
export type Piece = RowOf<'piece'>;
export type FastenerSet = RowOf<'fasteners'>;
export type JointSet = RowOf<'joints'>;

const sequence = (): Schema<number> => whole('Place in the list', 0, 1_000_000_000);
const optionalUuid = (label: string): Schema<string | null> => uuid(label).nullable();
const massKg = (label: string): Schema<number | null> => positive(label, 'kg', 100_000).nullable();
const lengthM = (label: string, max: number): Schema<number | null> => positive(label, 'm', max).nullable();
const evidence = (label: string): Schema<EvidenceMark | null> => oneOf(label, EVIDENCE_MARKS).nullable() as Schema<EvidenceMark | null>;
const nullable = <T>(schema: Schema<T>): Schema<T | null> => schema.nullable() as Schema<T | null>;
const year = (label: string): Schema<number> => whole(label, 1900, 2100);
const calendarDate = (label: string): Schema<string | null> =>
  text(label, 10)
    .nullable()
    .test(
      'calendar-date',
      `${label} must be a date such as 2026-03-31`,
      (value?: string | null) => value === null || value === undefined || (/^\d{4}-\d{2}-\d{2}$/.test(value) && isRealDate(value)),
    );
const isRealDate = (isoDate: string): boolean => {
  const [y = 0, m = 0, d = 0] = isoDate.split('-').map(Number);
  const leap = (y % 4 === 0 && y % 100 !== 0) || y % 400 === 0;
  const days = [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][m - 1] ?? 0;
  return d >= 1 && d <= days;
};
const currency = (label: string): ReturnType<typeof text> =>
  text(label, 3).matches(/^[A-Z]{3}$/, '${label} must be three capital letters such as EUR');
const switched = (label: string): Schema<boolean> =>
  mixed<boolean>((value): value is boolean => typeof value === 'boolean')
    .label(label)
    .defined()
    .typeError(`${label} must be true or false`) as Schema<boolean>;

/** The one definition of every field: its label, its limits, and what is said when they are broken. */
export const SCHEMAS: { readonly [E in Entity]: Schema<FieldsOf[E]> } = {
  study: shape<StudyFields>({
    title: requiredText('Title', 200),
    questions: text('Questions', 4000),
    lead: text('Lead', 200),
    currency: currency('Currency'),
    priceYear: year('Price year'),
    volumePerYear: whole('Vehicles per year', 1, 100_000_000),
    productionYears: whole('Years in production', 1, 50),
    region: requiredText('Region', 100),
    fastenersIn: switched('Fasteners counted'),
    assembliesAs: oneOf('Opened assemblies', ASSEMBLIES_AS),
  }),
  vehicle: shape<VehicleFields>({
    sequence: sequence(),
    name: requiredText('Name', 200),
    maker: text('Maker', 200),
    role: oneOf('Role', VEHICLE_ROLES),
    modelYear: nullable(year('Model year')),
    builtOn: calendarDate('Built on'),
    acquiredOn: calendarDate('Acquired on'),
    notes: text('Notes', 4000),
  }),
  subsystem: shape<SubsystemFields>({
    parentId: optionalUuid('Parent subsystem'),
    sequence: sequence(),
    name: requiredText('Name', 200),
  }),
  piece: shape<PieceFields>({
    vehicleId: uuid('Vehicle'),
    subsystemId: optionalUuid('Subsystem'),
    parentId: optionalUuid('Inside of'),
    sequence: sequence(),
    tag: text('Tag', 40),
    name: requiredText('Name', 200),
    function: text('Function', 400),
    quantity: whole('Quantity', 1, 100_000),
    hand: oneOf('Hand', HANDS),
    materialId: text('Material', 60).nullable(),
    materialDetail: text('Exact grade', 200),
    processId: text('Made by', 60).nullable(),
    processDetail: text('Process detail', 400),
    massEachKg: massKg('Mass each'),
    massUKg: massKg('Uncertainty of the mass'),
    massEvidence: evidence('Mass known by'),
    massTyped: text('Mass as typed', 60).nullable(),
    lengthM: lengthM('Length', 100),
    widthM: lengthM('Width', 100),
    heightM: lengthM('Height', 100),
    wallThicknessM: lengthM('Wall thickness', 1),
    runLengthM: lengthM('Run length', 1000),
    location: text('Location', 200),
    markings: text('Markings', 400),
    supplier: text('Supplier', 200),
    opened: nullable(oneOf('Opened', OPENED)),
    closedReason: text('Reason left closed', 400),
    damage: text('Damage', 400),
    notes: text('Notes', 4000),
    boughtPrice: text('Bought-out price', 20)
      .nullable()
      .matches(/^\d{1,9}(\.\d{1,4})?$/, { message: '${label} must be decimal digits such as 4.20', excludeEmptyString: false }),
    boughtCurrency: currency('Currency of the price').nullable(),
    boughtPriceYear: nullable(year('Year of the price')),
    boughtVolumePerYear: nullable(whole('Vehicles per year of the price', 1, 100_000_000)),
    boughtRegion: text('Region of the price', 100).nullable(),
  }),
  fasteners: shape<FastenerSetFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    count: whole('Count', 1, 100_000),
    kind: oneOf('Kind', FASTENER_KINDS),
    threadM: lengthM('Thread', 0.2),
    pitchM: lengthM('Pitch', 0.02),
    lengthM: lengthM('Length', 2),
    drive: text('Drive', 20),
    grade: text('Grade', 20),
    direction: nullable(oneOf('Direction', DIRECTIONS)),
    massEachKg: massKg('Mass each'),
    massUKg: massKg('Uncertainty of the mass'),
    massEvidence: evidence('Mass known by'),
    massTyped: text('Mass as typed', 60).nullable(),
    note: text('Remark', 400),
  }),
  joints: shape<JointSetFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    count: whole('Count', 1, 1_000_000),
    kind: oneOf('Kind', JOINT_KINDS),
    lengthEachM: lengthM('Length each', 1000),
    note: text('Remark', 400),
  }),
};

/** The label of a field, as forms, tables, faults and exports show it. */
export const fieldLabel = <E extends Entity>(entity: E, field: keyof FieldsOf[E] & string): string => {
  const fields = (SCHEMAS[entity] as unknown as { fields: Record<string, { spec: { label?: string } }> }).fields;
  return fields[field]?.spec.label ?? field;
};

export const VERBS = ['add', 'edit', 'remove'] as const;
export type Verb = (typeof VERBS)[number];

/** One step of a change. The same id, kind of record and version rule for every entity. */
export type OpFor<E extends Entity> =
  | { readonly kind: `${E}.add`; readonly id: string; readonly fields: FieldsOf[E] }
  | { readonly kind: `${E}.edit`; readonly id: string; readonly expectsVersion: number; readonly fields: Partial<FieldsOf[E]> }
  | { readonly kind: `${E}.remove`; readonly id: string; readonly expectsVersion: number };
export type Op = { readonly [E in Entity]: OpFor<E> }[Entity];
export type OpKind = Op['kind'];

export const ENTITIES = ['study', 'vehicle', 'subsystem', 'piece', 'fasteners', 'joints'] as const satisfies readonly Entity[];

export const splitKind = (kind: OpKind): { readonly entity: Entity; readonly verb: Verb } => {
  const [entity, verb] = kind.split('.') as [Entity, Verb];
  return { entity, verb };
};

const version = (): Schema<number> => whole('Version', 1, Number.MAX_SAFE_INTEGER);

const partial = (schema: Schema<unknown>): Schema<unknown> => (schema as unknown as { partial(): Schema<unknown> }).partial();

const opSchema = (entity: Entity, verb: Verb): Schema<unknown> => {
  const kind = oneOf('Kind of change', [`${entity}.${verb}`]);
  const id = uuid('Record');
  const fields = SCHEMAS[entity] as Schema<unknown>;
  const parts = {
    add: { kind, id, fields },
    edit: { kind, id, expectsVersion: version(), fields: partial(fields) },
    remove: { kind, id, expectsVersion: version() },
  }[verb];
  return object(parts as never)
    .exact('${path} has fields that are not known here: ${properties}')
    .required();
};

/** The check for each kind of op. */
export const OP_SCHEMAS: ReadonlyMap<string, Schema<unknown>> = new Map(
  ENTITIES.flatMap((entity) => VERBS.map((verb) => [`${entity}.${verb}`, opSchema(entity, verb)] as const)),
);

/** A batch of ops that succeeds or fails as one. `id` is made by the client and is the idempotency key. */
export interface Change {
  readonly id: string;
  readonly ops: readonly Op[];
}

/** What the server answers to a change it keeps. Every row touched now has `revision` as its version. */
export interface ChangeKept {
  readonly id: string;
  readonly revision: number;
}

/** More ops than this in one change are refused. */
export const MOST_OPS = 200_000;

export const CHANGE_SHELL = shape<{ id: string; ops: readonly unknown[] }>({
  id: uuid('Change'),
  ops: array().label('Ops').defined().min(1, 'A change needs at least one op').max(MOST_OPS, 'A change may hold at most ${max} ops'),
});

/** The whole record of a study. */
export interface StudyRecord {
  readonly revision: number;
  readonly study: Study;
  readonly vehicles: readonly Vehicle[];
  readonly subsystems: readonly Subsystem[];
  readonly pieces: readonly Piece[];
  readonly fastenerSets: readonly FastenerSet[];
  readonly jointSets: readonly JointSet[];
}
