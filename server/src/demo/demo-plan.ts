import { hazardById } from '@each-bolt/core/plan';
import { dayNumber, isoDay } from '@each-bolt/core/shared';
import {
  blank,
  UNANSWERED,
  type CandidateFields,
  type ClaimFields,
  type DaysOff,
  type Depth,
  type Op,
  type RequestFields,
  type ResourceFields,
  type RigFields,
  type StudyFields,
  type WorkCalendar,
  type WorkPlace,
} from '@each-bolt/core/record';

type Named<T, K extends keyof T> = Omit<T, K | 'sequence'>;

/** The plan of the demo study as its file says it: things name each other, hours are hours. */
export interface DemoPlan {
  /** the day that the file takes for today; all its dates move by whole weeks to the day it is loaded */
  readonly asOf: string;
  readonly calendar: WorkCalendar;
  readonly choiceWeights: StudyFields['choiceWeights'];
  readonly candidates: readonly (Pick<
    CandidateFields,
    'name' | 'maker' | 'modelYear' | 'vehicleClass' | 'drive' | 'voltageV' | 'novelty' | 'noveltyNote' | 'waitDays' | 'price'
  > & { readonly vehicle: string | null })[];
  readonly requests: readonly (Named<RequestFields, 'candidateId'> & { readonly candidate: string })[];
  readonly claims: readonly (Named<ClaimFields, 'vehicleId'> & { readonly vehicle: string })[];
  readonly resources: readonly (Pick<ResourceFields, 'kind' | 'name' | 'skills' | 'daysOff' | 'note'> & {
    readonly account: string | null;
    readonly ratedKg?: number;
  })[];
  readonly rigs: readonly (Omit<RigFields, 'sequence' | 'timeToMakeS' | 'ratedN'> & {
    readonly timeToMakeH: number;
    readonly ratedKN: number;
  })[];
  readonly scopes: readonly {
    readonly vehicle: string;
    readonly subsystem: string;
    readonly depth: Depth;
    readonly reason: string;
    readonly expectedParts: number | null;
    readonly expectedHours: number | null;
  }[];
  readonly packages: readonly {
    readonly key: string;
    readonly name: string;
    readonly vehicle: string | null;
    readonly subsystem: string | null;
    readonly hours: readonly [number, number, number];
    readonly people: number;
    readonly skill: string;
    readonly place: WorkPlace;
    readonly rig: string | null;
    readonly hazards: readonly string[];
    readonly after: readonly string[];
    readonly startedOn: string | null;
    readonly doneOn: string | null;
    readonly workedH: number | null;
    readonly remainingH: number | null;
    readonly agreed: readonly [string, string];
    readonly note: string;
  }[];
  readonly liftSetUps: readonly {
    readonly vehicle: string;
    readonly lift: string;
    readonly massKg: number;
    readonly massUKg: number;
    readonly xM: number;
    readonly yM: number;
    readonly placeUM: number;
    readonly marginM: number;
    readonly pads: readonly (readonly [number, number])[];
  }[];
  readonly liftSteps: readonly {
    readonly vehicle: string;
    readonly label: string;
    readonly part: string | null;
    readonly massKg: number | null;
    readonly massUKg: number | null;
    readonly xM: number;
    readonly yM: number;
  }[];
}

/** How the plan finds what it names. */
interface DemoNames {
  readonly vehicle: (name: string) => string;
  readonly subsystem: (name: string) => string;
  readonly account: (login: string) => string;
  readonly part: (tag: string) => string;
  readonly newId: () => string;
}

const HOUR_S = 3600;
const WEEK = 7;

/** Moves dates by the whole weeks between the day the file takes for today and today, so that weekdays stay. */
export const weeksLater = (asOf: string, today: string): ((iso: string) => string) => {
  const days = Math.floor((dayNumber(today) - dayNumber(asOf)) / WEEK) * WEEK;
  return (iso) => `${isoDay(dayNumber(iso.slice(0, 10)) + days)}${iso.slice(10)}`;
};

const seconds = (hours: number | null): number | null => (hours === null ? null : hours * HOUR_S);

/** The calendar of the demo plan, moved to today. */
export const demoCalendar = ({ asOf, calendar }: DemoPlan, today: string): WorkCalendar => {
  const later = weeksLater(asOf, today);
  return {
    ...calendar,
    startsOn: calendar.startsOn === null ? null : later(calendar.startsOn),
    daysOff: calendar.daysOff.map((off) => ({ ...off, from: later(off.from), to: later(off.to) })),
  };
};

/** What the ops of the demo plan have in common: who is who, new ids by name, and days moved to today. */
interface Making {
  readonly names: DemoNames;
  readonly newId: () => string;
  /** the same id for the same thing, whoever asks first */
  readonly idOf: (what: string) => string;
  readonly later: (iso: string) => string;
  readonly laterOr: (iso: string | null) => string | null;
  readonly moved: (off: DaysOff) => DaysOff;
}

const making = (plan: DemoPlan, names: DemoNames, today: string): Making => {
  const later = weeksLater(plan.asOf, today);
  const ids = new Map<string, string>();
  return {
    names,
    newId: names.newId,
    idOf: (what) => {
      const id = ids.get(what) ?? names.newId();
      ids.set(what, id);
      return id;
    },
    later,
    laterOr: (iso) => (iso === null ? null : later(iso)),
    moved: (off) => ({ ...off, from: later(off.from), to: later(off.to) }),
  };
};

/** Which vehicle comes next, what is asked of the study and what is said of the vehicles. */
const choiceOps = (plan: DemoPlan, of: Making, currency: string, priceYear: number): readonly Op[] => {
  const candidates = plan.candidates.map(({ vehicle, ...fields }, sequence): Op => ({
    kind: 'candidate.add',
    id: of.idOf(`candidate ${fields.name}`),
    fields: {
      ...fields,
      sequence,
      priceCurrency: currency,
      priceYear,
      note: '',
      vehicleId: vehicle === null ? null : of.names.vehicle(vehicle),
    },
  }));
  const requests = plan.requests.map(({ candidate, ...fields }, sequence): Op => ({
    kind: 'request.add',
    id: of.newId(),
    fields: { ...fields, sequence, candidateId: of.idOf(`candidate ${candidate}`) },
  }));
  const claims = plan.claims.map(({ vehicle, ...fields }, sequence): Op => ({
    kind: 'claim.add',
    id: of.newId(),
    fields: { ...fields, sequence, vehicleId: of.names.vehicle(vehicle) },
  }));
  return [...candidates, ...requests, ...claims];
};

/** How deep, by whom and with what. */
const meansOps = (plan: DemoPlan, of: Making): readonly Op[] => {
  const scopes = plan.scopes.map(({ vehicle, subsystem, expectedHours, ...fields }): Op => ({
    kind: 'scope.add',
    id: of.newId(),
    fields: {
      ...fields,
      vehicleId: of.names.vehicle(vehicle),
      subsystemId: of.names.subsystem(subsystem),
      expectedS: seconds(expectedHours),
    },
  }));
  const resources = plan.resources.map(({ account, ratedKg, daysOff, ...fields }, sequence): Op => ({
    kind: 'resource.add',
    id: of.idOf(fields.name),
    fields: {
      ...fields,
      sequence,
      daysOff: daysOff.map(of.moved),
      personId: account === null ? null : of.names.account(account),
      ratedKg: ratedKg ?? null,
    },
  }));
  const rigs = plan.rigs.map(({ timeToMakeH, ratedKN, ...fields }, sequence): Op => ({
    kind: 'rig.add',
    id: of.idOf(fields.name),
    fields: { ...fields, sequence, timeToMakeS: timeToMakeH * HOUR_S, ratedN: ratedKN * 1000 },
  }));
  return [...scopes, ...resources, ...rigs];
};

/** The work packages and what is read before each. */
const packageOps = (plan: DemoPlan, of: Making): readonly Op[] => {
  const packages = plan.packages.map((p, sequence): Op => ({
    kind: 'package.add',
    id: of.idOf(`package ${p.key}`),
    fields: {
      ...blank('package', { name: p.name, sequence }),
      ...{
        vehicleId: p.vehicle === null ? null : of.names.vehicle(p.vehicle),
        subsystemId: p.subsystem === null ? null : of.names.subsystem(p.subsystem),
      },
      ...{ optimisticS: p.hours[0] * HOUR_S, mostLikelyS: p.hours[1] * HOUR_S, pessimisticS: p.hours[2] * HOUR_S },
      ...{ people: p.people, skill: p.skill, place: p.place, rigId: p.rig === null ? null : of.idOf(p.rig), hazards: p.hazards },
      after: p.after.map((key) => of.idOf(`package ${key}`)),
      ...{
        startedOn: of.laterOr(p.startedOn),
        doneOn: of.laterOr(p.doneOn),
        workedS: seconds(p.workedH),
        remainingS: seconds(p.remainingH),
      },
      ...{ agreedFrom: of.later(p.agreed[0]), agreedTo: of.later(p.agreed[1]), note: p.note },
    },
  }));
  const holdPoints = plan.packages.flatMap((p) =>
    p.hazards
      .flatMap((hazard) => (hazardById.get(hazard)?.holdPoints ?? []).map((ask) => ({ hazard, ask })))
      .map(({ hazard, ask }, sequence): Op => ({
        kind: 'holdPoint.add',
        id: of.newId(),
        fields: { packageId: of.idOf(`package ${p.key}`), sequence, hazard, ...ask, ...answerOf(ask, of.laterOr(p.startedOn)) },
      })),
  );
  return [...packages, ...holdPoints];
};

const liftOps = (plan: DemoPlan, of: Making): readonly Op[] => {
  const liftSetUps = plan.liftSetUps.map(({ vehicle, lift, pads, ...fields }): Op => ({
    kind: 'liftSetUp.add',
    id: of.newId(),
    fields: { ...fields, vehicleId: of.names.vehicle(vehicle), resourceId: of.idOf(lift), pads: pads.map(([xM, yM]) => ({ xM, yM })) },
  }));
  const liftSteps = plan.liftSteps.map(({ vehicle, part, ...fields }, sequence): Op => ({
    kind: 'liftStep.add',
    id: of.newId(),
    fields: {
      ...fields,
      sequence,
      vehicleId: of.names.vehicle(vehicle),
      partId: part === null ? null : of.names.part(part),
      subsystemId: null,
    },
  }));
  return [...liftSetUps, ...liftSteps];
};

/** The ops that plan the demo study as of today. */
export const demoPlanOps = (plan: DemoPlan, names: DemoNames, currency: string, priceYear: number, today: string): readonly Op[] => {
  const of = making(plan, names, today);
  return [...choiceOps(plan, of, currency, priceYear), ...meansOps(plan, of), ...packageOps(plan, of), ...liftOps(plan, of)];
};

type Ask = (typeof hazardById extends ReadonlyMap<string, infer H> ? H : never)['holdPoints'][number];

/** What was read before work that has begun; nothing before work that has not. */
const answerOf = (ask: Ask, startedOn: string | null): typeof UNANSWERED => {
  if (startedOn === null) return UNANSWERED;
  const answered = { ...UNANSWERED, answeredBy: 'Odo Farrow', answeredAt: `${startedOn}T07:45:00.000Z` };
  if (ask.kind === 'number')
    return {
      ...answered,
      value: ask.low !== null && ask.high !== null ? Math.round(ask.low + (ask.high - ask.low) / 3) : (ask.high ?? ask.low ?? 0),
    };
  return { ...answered, said: ask.kind === 'yes' ? 'yes' : 'Odo Farrow' };
};
