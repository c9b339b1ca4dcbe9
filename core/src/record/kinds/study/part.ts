import { issue } from '../../../shared';
import { massFaults, rangeFaults } from '../../row-rules';
import { allOrNone } from '../../whole-sets';
import {
  EVIDENCE,
  MASS_EACH,
  SEQUENCE,
  choice,
  currency,
  length,
  library,
  number,
  optional,
  price,
  reference,
  shown,
  text,
  whole,
  year,
} from '../field';
import { RECORDED, RECORDERS, WRITERS, kind } from '../kind';

export const HANDS = ['none', 'left', 'right', 'mirrored'] as const;
export type Hand = (typeof HANDS)[number];
export const HAND_WORD: Readonly<Record<Hand, string>> = {
  none: 'no hand',
  left: 'left',
  right: 'right',
  mirrored: 'left and right, mirrored',
};

export const OPENED = ['opened', 'closed'] as const;
/** Where a part is by now, where its removals and what was opened do not say. */
export const PART_STATES = ['fitted', 'removed', 'missing', 'destroyed', 'returned'] as const;
export const DAMAGE_FROM = ['was there', 'taking apart'] as const;

/** What whoever costs a part may say of it. */
const COST_FIELDS = [
  'boughtPrice',
  'boughtCurrency',
  'boughtPriceYear',
  'boughtVolumePerYear',
  'boughtRegion',
  'supplier',
  'materialId',
  'materialDetail',
  'processId',
  'processDetail',
  'evidence',
];

const later = { optional: true, later: true } as const;
const onVehicle = { ...later, min: -100, max: 100 } as const;

/** A part: loose, or an assembly with parts inside. */
export const PART = kind({
  list: 'parts',
  table: 'part',
  words: ['part', 'parts'],
  name: { field: 'name' },
  may: { ...RECORDED, add: RECORDERS, edit: { ...WRITERS, onlyFields: { cost: COST_FIELDS } } },
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'refuse', { unsaid: true }),
    /** where the part hangs: straight under a subsystem, or inside another part; one of the two is null */
    subsystemId: reference('Subsystem', 'subsystem', 'refuse', { ...optional, unsaid: true }),
    parentId: reference('Inside of', 'part', 'remove too', { ...optional, alike: 'vehicleId', unsaid: true }),
    sequence: SEQUENCE,
    tag: text('Tag', 40, { column: { heading: 'tag', holds: 'tag on the part' } }),
    name: text('Name', 200, { needed: true, evidence: 'S', unsaid: true, column: { heading: 'name', holds: 'what it is called' } }),
    function: text('Function', 400, { evidence: 'S', column: { heading: 'function', holds: 'what it does' } }),
    /** how many per parent */
    quantity: whole('Quantity', 1, 100_000, {
      blank: 1,
      evidence: 'C',
      column: { heading: 'quantity', holds: 'how many per parent; empty: 1' },
    }),
    hand: shown(
      choice('Hand', HANDS, { blank: 'none', evidence: 'S', column: { heading: 'hand', holds: 'left, right, mirrored or empty' } }),
      (hand) => HAND_WORD[hand],
    ),
    materialId: library('Material', 'material', {
      ...optional,
      evidence: 'S',
      column: { heading: 'material', holds: 'grade as in the catalogue or one of its words' },
    }),
    materialDetail: text('Exact grade', 200, { evidence: 'S', column: { heading: 'grade_detail', holds: 'exact grade as marked' } }),
    processId: library('Made by', 'process', {
      ...optional,
      evidence: 'S',
      column: { heading: 'made_by', holds: 'process as in the catalogue or one of its words' },
    }),
    processDetail: text('Process detail', 400, {
      evidence: 'S',
      column: { heading: 'process_detail', holds: 'hits, cavities, coating …' },
    }),
    massEachKg: {
      ...MASS_EACH,
      column: { heading: 'mass', holds: 'each, with its unit: 41 g, ~1.2 kg, 1.2 kg ?; or head the column mass_g or mass_kg' },
    },
    /** its evidence stands for the whole size */
    lengthM: length('Length', 100, { evidence: 'M', column: { heading: 'envelope', holds: 'length x width x height, mm unless said' } }),
    widthM: length('Width', 100),
    heightM: length('Height', 100),
    wallThicknessM: length('Wall thickness', 1, {
      evidence: 'M',
      column: { heading: 'thickness', holds: 'wall thickness, mm unless said' },
    }),
    runLengthM: length('Run length', 1000, {
      evidence: 'M',
      column: { heading: 'run_length', holds: 'length of a hose or cable with its unit' },
    }),
    /** outer diameter of what runs: hose, tube, cable */
    runDiameterM: length('Run diameter', 1, {
      evidence: 'M',
      later: true,
      column: { heading: 'run_diameter', holds: 'outer diameter of a hose, tube or cable, mm unless said' },
    }),
    /** where its centre of mass is on the vehicle: x from the front axle rearwards, y from the middle to the right, z from the ground up; all three or none; its evidence stands for the place */
    xM: number('Place from the front axle', 'm', {
      ...onVehicle,
      evidence: 'M',
      column: { heading: 'place', holds: 'x y z of its centre of mass on the vehicle, mm' },
    }),
    yM: number('Place from the middle', 'm', onVehicle),
    zM: number('Place above the ground', 'm', onVehicle),
    location: text('Location', 200, { evidence: 'S', column: { heading: 'location', holds: 'where it sits' } }),
    markings: text('Markings', 400, { evidence: 'S', column: { heading: 'markings', holds: 'what is moulded or stamped in' } }),
    supplier: text('Supplier', 200, { evidence: 'S', column: { heading: 'supplier', holds: 'who made it' } }),
    state: choice('State', PART_STATES, {
      ...later,
      column: { heading: 'state', holds: 'fitted, removed, missing, destroyed, returned or empty' },
    }),
    opened: choice('Opened', OPENED, { ...optional, column: { heading: 'opened', holds: 'opened, closed or empty' } }),
    closedReason: text('Why it stays closed', 400, { lines: true, column: { heading: 'closed_reason', holds: 'why it was left closed' } }),
    /** what may be missed by leaving it closed */
    closedRisk: text('What may be missed', 400, {
      later: true,
      lines: true,
      column: { heading: 'closed_risk', holds: 'what may be missed by leaving it closed' },
    }),
    /** what was seen of it from outside */
    seenOutside: text('Seen from outside', 400, {
      later: true,
      lines: true,
      column: { heading: 'seen_outside', holds: 'what was seen of it from outside' },
    }),
    damage: text('Damage', 400, { evidence: 'S', lines: true, column: { heading: 'damage', holds: 'what broke in taking it apart' } }),
    /** whether the damage was there or was done in taking it apart */
    damageFrom: shown(
      choice('Damage from', DAMAGE_FROM, { ...later, column: { heading: 'damage_from', holds: 'was there, taking apart or empty' } }),
      (from) => (from === 'was there' ? 'was there before' : 'done in taking apart'),
    ),
    notes: text('Notes', 4000, { column: { heading: 'notes', holds: 'anything else' } }),
    /** price each of a bought-out part, decimal digits, with its whole basis; all five or none */
    boughtPrice: price('Bought-out price', {
      ...optional,
      evidence: 'T',
      column: { heading: 'price', holds: 'bought-out price each on the cost basis of the study' },
    }),
    boughtCurrency: currency('Currency of the price', optional),
    boughtPriceYear: year('Year of the price', optional),
    boughtVolumePerYear: whole('Vehicles per year of the price', 1, 100_000_000, optional),
    boughtRegion: text('Region of the price', 100, optional),
    /** how values are known, where that differs from what goes without saying; by field */
    evidence: EVIDENCE,
  },
  faults: (part) => [
    ...((part.parentId === null) === (part.subsystemId === null)
      ? [issue('place', 'A part hangs either under a subsystem or inside another part: give one of the two', 'parentId', part.id)]
      : []),
    ...(part.parentId === part.id ? [issue('cycle', 'A part cannot be inside itself', 'parentId', part.id)] : []),
    ...massFaults(part, part.id),
    ...(allOrNone([part.xM, part.yM, part.zM])
      ? []
      : [issue('place-incomplete', 'A place on the vehicle needs all three of x, y and z', 'xM', part.id)]),
    ...rangeFaults('quantity', part.quantity, part.evidence, part.id),
    ...(allOrNone([part.lengthM, part.widthM, part.heightM])
      ? []
      : [issue('envelope-incomplete', 'An envelope needs length, width and height', 'lengthM', part.id)]),
    ...(allOrNone([part.boughtPrice, part.boughtCurrency, part.boughtPriceYear, part.boughtVolumePerYear, part.boughtRegion])
      ? []
      : [issue('price-basis', 'A price needs its currency, year, vehicles per year and region', 'boughtPrice', part.id)]),
    ...(part.opened === 'closed' && part.closedReason.trim() === ''
      ? [issue('closed-reason', 'Say why the part was left closed', 'closedReason', part.id)]
      : []),
  ],
  noCircle: 'parentId',
});
