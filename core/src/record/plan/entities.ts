/** Kinds of vehicle, by size and use; what our own record already holds is told by them. */
export const VEHICLE_CLASSES = [
  'small car',
  'medium car',
  'large car',
  'off-road car',
  'people carrier',
  'small van',
  'medium van',
  'large van',
  'pick-up',
  'light truck',
] as const;
export type VehicleClass = (typeof VEHICLE_CLASSES)[number];

export const DRIVES = ['front wheels', 'rear wheels', 'all wheels'] as const;
export type Drive = (typeof DRIVES)[number];

/** A price paid or asked: decimal digits with currency and year, all three or none. */
export interface PaidPrice {
  readonly price: string | null;
  readonly priceCurrency: string | null;
  readonly priceYear: number | null;
}

/** A vehicle that might be bought for a study. */
export interface CandidateFields extends PaidPrice {
  readonly sequence: number;
  readonly name: string;
  readonly maker: string;
  readonly modelYear: number | null;
  readonly vehicleClass: VehicleClass | null;
  readonly drive: Drive | null;
  /** nominal voltage of the traction battery; null where there is none or it is not known */
  readonly voltageV: number | null;
  /** how much of it is new in its technique, 0 nothing … 10 everything */
  readonly novelty: number | null;
  readonly noveltyNote: string;
  /** calendar days until it stands in the workshop */
  readonly waitDays: number | null;
  readonly note: string;
  /** the vehicle of the study it became */
  readonly vehicleId: string | null;
}

/** A reader asks for a vehicle. */
export interface RequestFields {
  readonly candidateId: string;
  readonly sequence: number;
  readonly who: string;
  /** 1 would be nice … 5 cannot do without */
  readonly strength: number;
  readonly asks: string;
}

export const CHOICE_CRITERIA = ['requests', 'gap', 'novelty', 'wait', 'price'] as const;
export type ChoiceCriterion = (typeof CHOICE_CRITERIA)[number];
/** How much each criterion counts in the choice of vehicle; any scale, only their ratio matters. */
export type ChoiceWeights = Readonly<Record<ChoiceCriterion, number>>;
export const EVEN_WEIGHTS: ChoiceWeights = { requests: 30, gap: 25, novelty: 20, wait: 10, price: 15 };

export interface DaysOff {
  /** calendar dates as YYYY-MM-DD, both included */
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

/** When the workshop works. */
export interface WorkCalendar {
  /** first day of the plan, YYYY-MM-DD; null until it is chosen */
  readonly startsOn: string | null;
  /** days of the week that are worked: 1 is Monday, 7 Sunday */
  readonly weekdays: readonly number[];
  /** minutes after midnight at which the day begins */
  readonly opensMin: number;
  /** working minutes of a day, breaks left out */
  readonly dayMin: number;
  readonly daysOff: readonly DaysOff[];
}
export const USUAL_CALENDAR: WorkCalendar = { startsOn: null, weekdays: [1, 2, 3, 4, 5], opensMin: 480, dayMin: 480, daysOff: [] };

export const CLAIM_SOURCES = ['the maker', 'a supplier', 'a press report', 'an owner', 'an authority', 'an earlier study'] as const;
export const CLAIM_STATES = ['to test', 'borne out', 'partly borne out', 'refuted', 'cannot be tested'] as const;

/** Something said in public about a vehicle that the study will test. */
export interface ClaimFields {
  readonly sequence: number;
  readonly vehicleId: string | null;
  readonly statement: string;
  readonly sourceKind: (typeof CLAIM_SOURCES)[number];
  /** where and when it was said */
  readonly source: string;
  /** how it will be tested */
  readonly test: string;
  readonly state: (typeof CLAIM_STATES)[number];
  /** what the test showed */
  readonly outcome: string;
}

/** How far a subsystem is opened, from not at all to sections. */
export const DEPTHS = ['closed', 'module', 'pieces', 'cut'] as const;
export type Depth = (typeof DEPTHS)[number];
export const DEPTH_WORD: Readonly<Record<Depth, string>> = {
  closed: 'leave closed',
  module: 'as a module',
  pieces: 'to pieces',
  cut: 'cut open',
};

/** How deep one subsystem of one vehicle is opened, and what that is expected to be. */
export interface ScopeFields {
  readonly vehicleId: string;
  readonly subsystemId: string;
  readonly depth: Depth;
  /** why it stays closed */
  readonly reason: string;
  /** pieces expected, where a person knows better than the earlier studies; fasteners not counted */
  readonly expectedPieces: number | null;
  /** working time of people expected, where a person knows better */
  readonly expectedS: number | null;
}

export const PLACES = ['none', 'bay', 'lift'] as const;
export type WorkPlace = (typeof PLACES)[number];
export const PLACE_WORD: Readonly<Record<WorkPlace, string>> = { none: 'anywhere', bay: 'a bay', lift: 'a lift' };

/** Words of the name of a subsystem, and the hazards work on it usually has. */
export interface UsualHazards {
  readonly words: readonly string[];
  /** ids of hazards */
  readonly hazards: readonly string[];
}

/**
 * What a study begins with; it can be edited.
 * @source common practice, no source
 */
export const USUAL_HAZARDS: readonly UsualHazards[] = [
  { words: ['battery', 'cell', 'pack'], hazards: ['high-voltage', 'open-cells', 'lifting'] },
  { words: ['charg', 'charger', 'inverter', 'high-voltage'], hazards: ['high-voltage', 'capacitors'] },
  { words: ['drive unit', 'motor', 'gearbox'], hazards: ['high-voltage', 'magnets', 'lifting', 'oil'] },
  { words: ['heat', 'cooling', 'climate', 'thermal'], hazards: ['refrigerant', 'coolant'] },
  { words: ['seat', 'instrument panel', 'steering', 'airbag', 'restraint'], hazards: ['pyrotechnic'] },
  { words: ['axle', 'suspension', 'strut', 'spring', 'damper'], hazards: ['springs', 'lifting', 'hoist'] },
  { words: ['fuel', 'tank'], hazards: ['fuel'] },
  { words: ['insulation', 'trim', 'load space'], hazards: ['fibres'] },
  { words: ['body', 'structure', 'door', 'floor'], hazards: ['sharp-edges'] },
  { words: ['brake'], hazards: ['fibres', 'oil'] },
];

/** A work package: one job that one crew does in one go, nights and days off apart. */
export interface PackageFields {
  readonly sequence: number;
  readonly name: string;
  readonly vehicleId: string | null;
  readonly subsystemId: string | null;
  /** working time with the whole crew: least, most likely and most; all three or none */
  readonly leastS: number | null;
  readonly likelyS: number | null;
  readonly mostS: number | null;
  /** what the crew must be able to do; empty is anybody */
  readonly skill: string;
  /** people of the crew */
  readonly people: number;
  /** people (resources) who must be of the crew */
  readonly who: readonly string[];
  readonly place: WorkPlace;
  readonly rigId: string | null;
  readonly hazards: readonly string[];
  /** packages that must be done before */
  readonly after: readonly string[];
  /** calendar dates as YYYY-MM-DD */
  readonly pinnedOn: string | null;
  readonly notBefore: string | null;
  readonly startedOn: string | null;
  readonly doneOn: string | null;
  /** working time with the crew that was spent, and that is still needed */
  readonly workedS: number | null;
  readonly remainingS: number | null;
  /** what was agreed, as local times YYYY-MM-DDTHH:MM; both or none */
  readonly agreedFrom: string | null;
  readonly agreedTo: string | null;
  readonly note: string;
}

export const RESOURCE_KINDS = ['person', 'bay', 'lift'] as const;
export type ResourceKind = (typeof RESOURCE_KINDS)[number];

/** Somebody or something that packages need: a person, a bay, a lift. */
export interface ResourceFields {
  readonly sequence: number;
  readonly kind: ResourceKind;
  readonly name: string;
  /** the account of a person who has one */
  readonly personId: string | null;
  readonly skills: readonly string[];
  readonly daysOff: readonly DaysOff[];
  /** what a lift may carry */
  readonly ratedKg: number | null;
  readonly note: string;
}

export const RIG_STATES = ['idea', 'made', 'scrapped'] as const;

/** A device made for taking something apart: a guide, a puller, a lifting frame. */
export interface RigFields {
  readonly sequence: number;
  readonly name: string;
  /** the parts it was made for, in words */
  readonly madeFor: string;
  readonly hazards: readonly string[];
  readonly design: string;
  readonly timeToMakeS: number | null;
  /** the pull or lift it may take */
  readonly ratedN: number | null;
  /** the load is taken this many times against the rating */
  readonly factor: number;
  /** what went wrong last time, and what to do about it */
  readonly wentWrong: string;
  readonly state: (typeof RIG_STATES)[number];
  /** how many there are */
  readonly copies: number;
}

export const GATE_KINDS = ['number', 'text', 'yes'] as const;

/** A reading or answer that the bench asks for before a package begins. */
export interface GateFields {
  readonly packageId: string;
  readonly sequence: number;
  /** the hazard it belongs to, or empty */
  readonly hazard: string;
  readonly asks: string;
  readonly kind: (typeof GATE_KINDS)[number];
  readonly unit: string;
  readonly low: number | null;
  readonly high: number | null;
  /** the answer: a number in the unit above, or words; both empty until it is given */
  readonly value: number | null;
  readonly said: string;
  readonly answeredBy: string;
  /** ISO 8601, UTC */
  readonly answeredAt: string | null;
}

/** A point on the ground plane of the vehicle: x from the front axle rearwards, y from the middle to the right. */
export interface PadPoint {
  readonly xM: number;
  readonly yM: number;
}

/** A vehicle on a lift: its mass, where its centre of mass is, and where the pads carry it. */
export interface HoistFields {
  readonly vehicleId: string;
  readonly resourceId: string | null;
  readonly massKg: number;
  readonly massUKg: number;
  readonly xM: number;
  readonly yM: number;
  /** standard uncertainty of the place of the centre of mass, in x and in y */
  readonly placeUM: number;
  readonly pads: readonly PadPoint[];
  /** the centre of mass must stay this far inside the line between the pads */
  readonly marginM: number;
}

/** Something heavy that is planned to come off while the vehicle hangs on the lift. */
export interface UnloadFields {
  readonly vehicleId: string;
  readonly sequence: number;
  readonly label: string;
  /** the piece whose recorded mass and position count; null where they are typed below */
  readonly pieceId: string | null;
  /** the subsystem of the vehicle whose recorded mass counts, when it comes off as one and no single piece holds it */
  readonly subsystemId: string | null;
  readonly massKg: number | null;
  readonly massUKg: number | null;
  readonly xM: number | null;
  readonly yM: number | null;
}
