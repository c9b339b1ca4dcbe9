import { array, mixed, object, type Schema } from 'yup';
import { EVIDENCE_MARKS, finite, oneOf, positive, requiredText, shape, text, uuid, whole } from '../shared';
import {
  ACCESSES,
  ASSEMBLIES_AS,
  DAMAGE_FROM,
  DIRECTIONS,
  ENTITIES,
  FASTENER_KINDS,
  HANDS,
  JOINT_KINDS,
  OPENED,
  PICTURE_MARKS,
  QUESTION_KINDS,
  QUESTION_STATES,
  ROLES,
  STUDY_STATES,
  SUBJECTS,
  VEHICLE_ROLES,
  VERBS,
  type Entity,
  type FastenerSetFields,
  type FieldsOf,
  type JointSetFields,
  type KnownOf,
  type MemberFields,
  type PictureFields,
  type PictureMark,
  type PieceFields,
  type QuestionFields,
  type StudyFields,
  type SubsystemFields,
  type VehicleFields,
  type Verb,
} from './entities';
import {
  calendarDate,
  currency,
  evidence,
  lengthM,
  massKg,
  nullable,
  optionalUuid,
  priceDigits,
  sequence,
  switched,
  year,
} from './field-limits';
import { isKnowing, knowingFields, type Known, type KnowingEntity } from './known';
import { benchSchemas } from './bench/contract';
import { MEASURE_SCHEMAS } from './measure/contract';
import { CALENDAR, CHOICE_WEIGHTS, PLAN_SCHEMAS, USUAL_HAZARDS_OF } from './plan/contract';
import { DRIVES, VEHICLE_CLASSES } from './plan/entities';

const fraction = (label: string): Schema<number> =>
  finite(label).min(0, '${label} lies in the picture').max(1, '${label} lies in the picture');
const place = (label: string): Schema<number | null> =>
  nullable(finite(label).min(-100, '${label} must be at least ${min} m').max(100, '${label} may be at most ${max} m'));
const anyFinite = (label: string): Schema<number | null> => nullable(finite(label));

const KNOWN = shape<Known>({
  mark: oneOf('Known by', EVIDENCE_MARKS),
  u: nullable(positive('Uncertainty', '', 1e9)),
  low: anyFinite('Lowest'),
  high: anyFinite('Highest'),
  typed: text('As typed', 60).nullable(),
  instrument: text('Instrument', 200),
  source: text('Source', 400),
}).test('range', 'The lowest must not be above the highest', (k) => k.low === null || k.high === null || k.low <= k.high);

const isPlain = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** `known` of a row: each named field is one that can say how it is known; in an edit, null takes it back. */
const knownSchema = (entity: KnowingEntity, mayBeNull: boolean): Schema<KnownOf> => {
  const fields = new Set(knowingFields(entity));
  return mixed<KnownOf>(isPlain as (value: unknown) => value is KnownOf)
    .label('Known by')
    .defined()
    .typeError('Known by must say how values are known, by field')
    .test('known', function (value) {
      // absent is told by `defined`, or is nothing to say in an edit
      for (const [field, said] of Object.entries((value as KnownOf | undefined) ?? {})) {
        if (!fields.has(field)) return this.createError({ message: `${field} does not say how it is known` });
        if (mayBeNull && (said as Known | null) === null) continue;
        try {
          KNOWN.validateSync(said, { strict: true });
        } catch (error) {
          return this.createError({ message: (error as Error).message });
        }
      }
      return true;
    });
};

const MARK = shape<PictureMark>({
  kind: oneOf('Mark', PICTURE_MARKS),
  fromX: fraction('Mark'),
  fromY: fraction('Mark'),
  toX: fraction('Mark'),
  toY: fraction('Mark'),
  text: text('Text of the mark', 200),
});

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
    state: oneOf('State', STUDY_STATES),
    choiceWeights: CHOICE_WEIGHTS,
    usualHazards: USUAL_HAZARDS_OF,
    calendar: CALENDAR,
  }),
  member: shape<MemberFields>({ personId: uuid('Person'), role: oneOf('Role', ROLES) }),
  vehicle: shape<VehicleFields>({
    sequence: sequence(),
    name: requiredText('Name', 200),
    maker: text('Maker', 200),
    role: oneOf('Role', VEHICLE_ROLES),
    modelYear: nullable(year('Model year')),
    generation: text('Generation', 60),
    predecessorId: optionalUuid('Follows'),
    variant: text('Variant', 200),
    vehicleClass: nullable(oneOf('Class', VEHICLE_CLASSES)),
    drive: nullable(oneOf('Driven', DRIVES)),
    builtOn: calendarDate('Built on'),
    acquiredOn: calendarDate('Acquired on'),
    expectedOn: calendarDate('Expected on'),
    odometerM: nullable(finite('Odometer').min(0, '${label} must not be less than 0').max(5e9, '${label} may be at most 5 000 000 km')),
    obtained: text('How obtained', 200),
    price: priceDigits('Price paid'),
    priceCurrency: currency('Currency of the price').nullable(),
    priceYear: nullable(year('Year of the price')),
    changes: text('Changes from standard', 4000),
    wear: text('Wear and damage', 4000),
    kerbMassKg: massKg('Kerb mass'),
    powerW: nullable(positive('Power', 'W', 1e7)),
    batteryJ: nullable(positive('Battery energy', 'J', 1e11)),
    voltageV: nullable(positive('Voltage', 'V', 10_000)),
    rangeM: nullable(positive('Range', 'm', 1e8)),
    consumptionJPerM: nullable(positive('Consumption', 'J/m', 1e6)),
    turningCircleM: lengthM('Turning circle', 100),
    wheelbaseM: lengthM('Wheelbase', 30),
    trackM: lengthM('Track', 10),
    notes: text('Notes', 4000),
    known: knownSchema('vehicle', false),
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
    runDiameterM: lengthM('Run diameter', 1),
    xM: place('Place from the front axle'),
    yM: place('Place from the middle'),
    zM: place('Place above the ground'),
    location: text('Location', 200),
    markings: text('Markings', 400),
    supplier: text('Supplier', 200),
    opened: nullable(oneOf('Opened', OPENED)),
    closedReason: text('Reason left closed', 400),
    closedRisk: text('What may be missed', 400),
    seenOutside: text('Seen from outside', 400),
    damage: text('Damage', 400),
    damageFrom: nullable(oneOf('Damage from', DAMAGE_FROM)),
    notes: text('Notes', 4000),
    boughtPrice: priceDigits('Bought-out price'),
    boughtCurrency: currency('Currency of the price').nullable(),
    boughtPriceYear: nullable(year('Year of the price')),
    boughtVolumePerYear: nullable(whole('Vehicles per year of the price', 1, 100_000_000)),
    boughtRegion: text('Region of the price', 100).nullable(),
    known: knownSchema('piece', false),
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
    tighteningNm: nullable(positive('Tightening torque', 'N m', 10_000)),
    breakawayNm: nullable(positive('Breakaway torque', 'N m', 10_000)),
    access: nullable(oneOf('Access', ACCESSES)),
    tool: text('Tool', 60),
    removed: nullable(switched('Removed')),
    massEachKg: massKg('Mass each'),
    massUKg: massKg('Uncertainty of the mass'),
    massEvidence: evidence('Mass known by'),
    massTyped: text('Mass as typed', 60).nullable(),
    note: text('Remark', 400),
    known: knownSchema('fasteners', false),
  }),
  joints: shape<JointSetFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    count: whole('Count', 1, 1_000_000),
    kind: oneOf('Kind', JOINT_KINDS),
    lengthEachM: lengthM('Length each', 1000),
    note: text('Remark', 400),
    known: knownSchema('joints', false),
  }),
  question: shape<QuestionFields>({
    kind: oneOf('Kind', QUESTION_KINDS),
    aboutKind: oneOf('About', SUBJECTS),
    aboutId: uuid('About'),
    aboutField: text('Field', 40).nullable(),
    text: requiredText('Question', 1000),
    ownerId: optionalUuid('Owner'),
    dueOn: calendarDate('Due'),
    owedTo: text('Owed to', 200),
    state: oneOf('State', QUESTION_STATES),
    answer: text('Answer', 4000),
  }),
  picture: shape<PictureFields>({
    pieceId: optionalUuid('Piece'),
    rigId: optionalUuid('Rig'),
    sequence: sequence(),
    sha256: text('File', 64).matches(/^[0-9a-f]{64}$/, '${label} must be named by its SHA-256'),
    widthPx: whole('Width', 1, 100_000),
    heightPx: whole('Height', 1, 100_000),
    shows: text('Shows', 400),
    marks: array(MARK).label('Marks').defined().max(200, 'A picture may have at most ${max} marks'),
  }),
  ...PLAN_SCHEMAS,
  ...benchSchemas((entity) => knownSchema(entity, false)),
  ...MEASURE_SCHEMAS,
};

/** The label of a field, as forms, tables, faults and exports show it. */
export const fieldLabel = <E extends Entity>(entity: E, field: keyof FieldsOf[E] & string): string => {
  const fields = (SCHEMAS[entity] as unknown as { fields: Record<string, { spec: { label?: string } }> }).fields;
  return fields[field]?.spec.label ?? field;
};

/** What a row or its fields held before: only compared with what is there now, never written, so its shape is enough. */
const before = (): Schema<unknown> =>
  mixed((value): value is object => isPlain(value))
    .label('What it was')
    .defined()
    .typeError('An edit or removal must say what it was') as Schema<unknown>;

const edited = (entity: Entity): Schema<unknown> => {
  const fields = (SCHEMAS[entity] as unknown as { partial(): { shape(more: object): Schema<unknown> } }).partial();
  return isKnowing(entity)
    ? fields.shape({ known: (knownSchema(entity, true) as unknown as { optional(): Schema<unknown> }).optional() })
    : (fields as unknown as Schema<unknown>);
};

const sameFields = (op: { readonly was?: object; readonly fields?: object }): boolean => {
  const [was, fields] = [Object.keys(op.was ?? {}).sort(), Object.keys(op.fields ?? {}).sort()];
  return was.length === fields.length && was.every((field, i) => field === fields[i]);
};

const opSchema = (entity: Entity, verb: Verb): Schema<unknown> => {
  const kind = oneOf('Kind of change', [`${entity}.${verb}`]);
  const id = uuid('Record');
  const parts = {
    add: { kind, id, fields: SCHEMAS[entity] as Schema<unknown> },
    edit: { kind, id, was: before(), fields: edited(entity) },
    remove: { kind, id, was: before() },
  }[verb];
  const op = object(parts as never)
    .exact('${path} has fields that are not known here: ${properties}')
    .required();
  return verb === 'edit' ? op.test('was', 'An edit must say what each of its fields was', (value) => sameFields(value)) : op;
};

/** The check for each kind of op. */
export const OP_SCHEMAS: ReadonlyMap<string, Schema<unknown>> = new Map(
  ENTITIES.flatMap((entity) => VERBS.map((verb) => [`${entity}.${verb}`, opSchema(entity, verb)] as const)),
);

/** More ops than this in one change are refused. */
export const MOST_OPS = 200_000;

export const CHANGE_SHELL = shape<{ id: string; ops: readonly unknown[]; undoes: string | null }>({
  id: uuid('Change'),
  ops: array().label('Ops').defined().min(1, 'A change needs at least one op').max(MOST_OPS, 'A change may hold at most ${max} ops'),
  undoes: optionalUuid('Undone change'),
});
