import { choice, currency, flag, text, whole, year } from '../field';
import { LEADS, UNCHANGING, WRITERS, kind } from '../kind';
import {
  CALENDAR,
  CHOICE_WEIGHTS,
  EVEN_WEIGHTS,
  USUAL_CALENDAR,
  USUAL_HAZARDS,
  USUAL_HAZARDS_FIELD,
  type ChoiceWeights,
  type UsualHazards,
  type WorkCalendar,
} from './of-study';

const STUDY_STATES = ['open', 'archived'] as const;
const ASSEMBLIES_AS = ['parts', 'one'] as const;

/** What a study begins with until somebody says otherwise. */
export const USUAL_STUDY: {
  readonly state: (typeof STUDY_STATES)[number];
  readonly choiceWeights: ChoiceWeights;
  readonly usualHazards: readonly UsualHazards[];
  readonly calendar: WorkCalendar;
} = { state: 'open', choiceWeights: EVEN_WEIGHTS, usualHazards: USUAL_HAZARDS, calendar: USUAL_CALENDAR };

const RULE_FIELDS = ['fastenersIn', 'assembliesAs'];
const BASIS_FIELDS = ['currency', 'priceYear', 'volumePerYear', 'productionYears', 'region'];

/** The study itself: what is asked, on what basis money stands, how is counted. */
export const STUDY = kind({
  list: null,
  table: 'study',
  words: ['study', 'studies'],
  name: { field: 'title' },
  may: {
    add: LEADS,
    edit: { ...WRITERS, onlyFields: { recorder: RULE_FIELDS, cost: [...RULE_FIELDS, ...BASIS_FIELDS] } },
    remove: UNCHANGING,
  },
  fields: {
    title: text('Title', 200, { needed: true, unsaid: true }),
    questions: text('Questions', 4000),
    lead: text('Lead', 200),
    currency: currency('Currency'),
    priceYear: year('Price year'),
    volumePerYear: whole('Vehicles per year', 1, 100_000_000),
    productionYears: whole('Years in production', 1, 50),
    region: text('Region', 100, { needed: true }),
    /** counting rule: are fasteners counted, weighed and costed with the parts? */
    fastenersIn: flag('Fasteners counted'),
    /** counting rule: is an opened assembly counted as its parts or as one? */
    assembliesAs: choice('Opened assemblies', ASSEMBLIES_AS),
    /** an archived study is read, never written, until it is opened again */
    state: choice('State', STUDY_STATES, { blank: USUAL_STUDY.state }),
    choiceWeights: { ...CHOICE_WEIGHTS, blank: USUAL_STUDY.choiceWeights, later: true },
    /** hazards that packages of a subsystem have until somebody says otherwise, by words of its name */
    usualHazards: { ...USUAL_HAZARDS_FIELD, blank: USUAL_STUDY.usualHazards, later: true },
    calendar: { ...CALENDAR, blank: USUAL_STUDY.calendar, later: true },
  },
});
