import { mixed, type Schema } from 'yup';
import { finite, oneOf, positive, requiredText, shape, text, uuid, whole } from '../../shared';
import { DIRECTIONS, type KnownOf } from '../entities';
import { evidence, instant, lengthM, listOf, massKg, nullable, optionalUuid, sequence, switched } from '../field-limits';
import {
  COMPONENT_CLASSES,
  CONNECTION_KINDS,
  LOCKS,
  READING_ABOUT,
  READING_QUANTITIES,
  RECOUNT_STATES,
  RELEASES,
  type Acknowledgement,
  type BoardFields,
  type ComponentSetFields,
  type ConnectionFields,
  type ElementFraction,
  type FluidFields,
  type ReadingFields,
  type RecountFields,
  type Recounted,
  type SessionFields,
  type StepFields,
  type TagSheetFields,
  type Waiver,
} from './entities';

/** A week of work without a break is longer than any step. */
const MOST_S = 604_800;

const count = (label: string, most: number): Schema<number> => whole(label, 1, most);
const yesNo = (label: string): Schema<boolean | null> => nullable(switched(label));
const fraction = (label: string): Schema<number> =>
  finite(label).min(0, '${label} must not be less than 0').max(1, '${label} may be at most 1');

const ACKNOWLEDGEMENT = shape<Acknowledgement>({ hazard: requiredText('Hazard', 40), by: requiredText('Read by', 200), at: instant('At') });
const WAIVER = shape<Waiver>({
  check: requiredText('Check', 40),
  aboutId: uuid('About'),
  reason: requiredText('Reason', 400),
  by: requiredText('By', 200),
});
const RECOUNTED = shape<Recounted>({
  kind: oneOf('Kind of set', ['fasteners', 'joints'] as const),
  setId: uuid('Set'),
  first: whole('First count', 0, 1_000_000),
  second: whole('Second count', 0, 1_000_000),
});
const ELEMENT = shape<ElementFraction>({ fraction: fraction('Fraction'), u: fraction('Uncertainty of the fraction') });

const ELEMENTS = mixed<Readonly<Record<string, ElementFraction>>>(
  (value): value is Readonly<Record<string, ElementFraction>> => typeof value === 'object' && value !== null && !Array.isArray(value),
)
  .label('Elements')
  .nullable()
  .defined()
  .typeError('Elements must be fractions by symbol')
  .test('elements', function (value) {
    for (const [symbol, part] of Object.entries(value ?? {})) {
      if (!/^[A-Z][a-z]?$/.test(symbol)) return this.createError({ message: `${symbol} is no symbol of an element` });
      try {
        ELEMENT.validateSync(part, { strict: true });
      } catch (error) {
        return this.createError({ message: (error as Error).message });
      }
    }
    return true;
  }) as unknown as Schema<Readonly<Record<string, ElementFraction>> | null>;

/**
 * The records of the bench: labels, limits and what is said when they are broken.
 *
 * @param knownSchema the check of how values are known, for one kind of record
 */
export const benchSchemas = (
  knownSchema: (entity: 'connection' | 'components' | 'board' | 'fluid') => Schema<KnownOf>,
): {
  readonly connection: Schema<ConnectionFields>;
  readonly components: Schema<ComponentSetFields>;
  readonly board: Schema<BoardFields>;
  readonly fluid: Schema<FluidFields>;
  readonly session: Schema<SessionFields>;
  readonly step: Schema<StepFields>;
  readonly reading: Schema<ReadingFields>;
  readonly recount: Schema<RecountFields>;
  readonly sheet: Schema<TagSheetFields>;
} => ({
  connection: shape<ConnectionFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    count: count('Count', 100_000),
    kind: oneOf('Kind', CONNECTION_KINDS),
    materialId: text('Material', 60).nullable(),
    poles: nullable(whole('Poles or cores', 1, 1000)),
    crossSectionM2: nullable(positive('Cross-section', 'm²', 0.01)),
    shielded: yesNo('Shielded'),
    innerM: lengthM('Inner diameter', 1),
    lengthEachM: lengthM('Length each', 1000),
    fluid: text('Fluid', 60),
    lock: nullable(oneOf('Lock', LOCKS)),
    release: nullable(oneOf('Released', RELEASES)),
    note: text('Remark', 400),
    known: knownSchema('connection'),
  }),
  components: shape<ComponentSetFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    count: count('Count', 100_000),
    componentClass: oneOf('Class', COMPONENT_CLASSES),
    fitted: switched('Fitted'),
    marking: text('Marking', 200),
    note: text('Remark', 400),
    known: knownSchema('components'),
  }),
  board: shape<BoardFields>({
    pieceId: uuid('Piece'),
    lengthM: lengthM('Length', 10),
    widthM: lengthM('Width', 10),
    sides: nullable(whole('Sides with components', 1, 2)),
    layers: nullable(whole('Layers', 1, 100)),
    note: text('Remark', 400),
    known: knownSchema('board'),
  }),
  fluid: shape<FluidFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    name: requiredText('Name', 60),
    massEachKg: massKg('Mass'),
    massUKg: massKg('Uncertainty of the mass'),
    massEvidence: evidence('Mass known by'),
    massTyped: text('Mass as typed', 60).nullable(),
    volumeM3: nullable(positive('Volume', 'm³', 10)),
    drained: switched('Drained'),
    note: text('Remark', 400),
    known: knownSchema('fluid'),
  }),
  session: shape<SessionFields>({
    sequence: sequence(),
    name: requiredText('Name', 200),
    packageId: optionalUuid('Work package'),
    vehicleId: uuid('Vehicle'),
    subsystemId: optionalUuid('Subsystem'),
    remover: text('Takes apart', 200),
    recorder: text('Writes', 200),
    openedAt: instant('Opened'),
    closedAt: nullable(instant('Closed')),
    pauseAfterS: finite('Pause after').min(30, '${label} must be at least 30 s').max(14_400, '${label} may be at most 4 h'),
    acknowledged: listOf('Precautions read', ACKNOWLEDGEMENT, 100),
    waived: listOf('Left as it is', WAIVER, 1000),
    note: text('Remarks', 4000),
  }),
  step: shape<StepFields>({
    sessionId: optionalUuid('Session'),
    vehicleId: uuid('Vehicle'),
    sequence: sequence(),
    pieces: listOf('Comes off', uuid('Piece'), 500),
    after: listOf('Had to come off first', uuid('Step'), 200),
    tool: text('Tool', 60),
    bit: text('Bit', 40),
    direction: nullable(oneOf('Direction', DIRECTIONS)),
    people: nullable(whole('People', 1, 20)),
    seen: yesNo('Seen'),
    holdsItself: yesNo('Holds itself'),
    oneWay: yesNo('Fits one way only'),
    connections: listOf('Connections released', uuid('Connection'), 500),
    fluids: listOf('Fluids let out', uuid('Fluid'), 50),
    rigId: optionalUuid('Rig'),
    startedAt: nullable(instant('Begun')),
    endedAt: nullable(instant('Ended')),
    workedS: nullable(finite('Time').min(0, '${label} must not be less than 0').max(MOST_S, '${label} may be at most a week')),
    otherwise: text('Done otherwise because', 400),
    note: text('Remarks', 4000),
  }),
  reading: shape<ReadingFields>({
    aboutKind: oneOf('About', READING_ABOUT),
    aboutId: uuid('About'),
    aboutField: text('Field', 40).nullable(),
    quantity: oneOf('Quantity', READING_QUANTITIES),
    value: nullable(finite('Value')),
    u: nullable(positive('Uncertainty', '', 1e9)),
    tare: nullable(finite('Tare')),
    elements: ELEMENTS,
    raw: requiredText('As read', 2000),
    instrument: text('Instrument', 200),
    serial: text('Serial number', 100),
    stable: yesNo('Stable'),
    takenAt: instant('Taken'),
    takenBy: text('Taken by', 200),
    note: text('Remark', 400),
  }),
  recount: shape<RecountFields>({
    pieceId: uuid('Piece'),
    by: requiredText('Counted by', 200),
    countedAt: instant('Counted'),
    counts: listOf('Counts', RECOUNTED, 500),
    others: text('Found besides', 1000),
    state: oneOf('State', RECOUNT_STATES),
    settled: text('Settled', 1000),
  }),
  sheet: shape<TagSheetFields>({
    vehicleId: uuid('Vehicle'),
    subsystemId: optionalUuid('Subsystem'),
    packageId: optionalUuid('Work package'),
    prefix: text('Prefix', 12).matches(/^[A-Z0-9]{1,12}$/, '${label} holds capital letters and digits only'),
    firstNumber: whole('First number', 1, 999_999),
    count: whole('Tags', 1, 2000),
    stock: requiredText('Label size', 60),
    printedAt: instant('Printed'),
  }),
});
