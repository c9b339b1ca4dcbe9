import { date, list, number, optional, group, text, whole, type ValueOf, shown } from '../field';

const weight = (label: string) =>
  number(label, '', { min: 0, max: 1000, says: { min: '${label} must not be less than 0', max: '${label} may be at most ${max}' } });

export const CHOICE_CRITERIA = ['requests', 'gap', 'novelty', 'wait', 'price'] as const;
export type ChoiceCriterion = (typeof CHOICE_CRITERIA)[number];

export const CHOICE_WEIGHTS = shown(
  group('Weights of the choice', {
    requests: weight('Weight of requests'),
    gap: weight('Weight of the gap'),
    novelty: weight('Weight of novelty'),
    wait: weight('Weight of the wait'),
    price: weight('Weight of the price'),
  }),
  (weights) => CHOICE_CRITERIA.map((criterion) => `${criterion} ${weights[criterion]}`).join(', '),
);
/** How much each criterion counts in the choice of vehicle; any scale, only their ratio matters. */
export type ChoiceWeights = ValueOf<typeof CHOICE_WEIGHTS>;
export const EVEN_WEIGHTS: ChoiceWeights = { requests: 30, gap: 25, novelty: 20, wait: 10, price: 15 };

export const HAZARDS = list('Hazards', text('Hazard', 40, { needed: true }), 40);

export const USUAL_HAZARDS_FIELD = shown(
  list(
    'Usual hazards',
    group('Line of usual hazards', {
      words: list('Words of the subsystem', text('Word', 60, { needed: true }), 20),
      /** ids of hazards */
      hazards: HAZARDS,
    }),
    60,
  ),
  (lines) => lines.map(({ words, hazards }) => `${words.join(', ')}: ${hazards.join(', ') || 'none'}`).join('; '),
);
/** Words of the name of a subsystem, and the hazards work on it usually has. */
export type UsualHazards = ValueOf<(typeof USUAL_HAZARDS_FIELD)['item']>;

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

const DAYS_OFF_PARTS = group(
  'Days off',
  {
    /** calendar dates as YYYY-MM-DD, both included */
    from: date('From'),
    to: date('To'),
    why: text('Why', 100),
  },
  { rule: { name: 'order', says: 'Days off end before they begin', holds: (off) => off.from <= off.to } },
);
export type DaysOff = ValueOf<typeof DAYS_OFF_PARTS>;

const daysOffText = (daysOff: readonly DaysOff[]): string =>
  daysOff.map(({ from, to }) => (from === to ? from : `${from} to ${to}`)).join(', ');

export const DAYS_OFF = shown(list('Days off', DAYS_OFF_PARTS, 400), (daysOff) => daysOffText(daysOff) || 'none');

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const two = (n: number): string => String(n).padStart(2, '0');

export const CALENDAR = shown(
  group(
    'Working calendar',
    {
      /** first day of the plan, YYYY-MM-DD; null until it is chosen */
      startsOn: date('First day', optional),
      /** days of the week that are worked: 1 is Monday, 7 Sunday */
      weekdays: list('Working days', whole('Working day', 1, 7), 7),
      /** minutes after midnight at which the day begins */
      opensMin: whole('The day begins', 0, 1439),
      /** working minutes of a day, breaks left out */
      dayMin: whole('Working time of a day', 15, 1440),
      daysOff: DAYS_OFF,
    },
    {
      rule: {
        name: 'day',
        says: 'The working day must end by midnight',
        holds: ({ opensMin, dayMin }) => opensMin + dayMin <= 1440,
      },
    },
  ),
  ({ startsOn, weekdays, opensMin, dayMin, daysOff }) =>
    [
      startsOn === null ? 'no first day yet' : `from ${startsOn}`,
      weekdays.length === 0 ? 'no working day' : weekdays.map((day) => WEEKDAYS[day - 1] ?? '').join(' '),
      `${two(Math.floor(opensMin / 60))}:${two(opensMin % 60)}, ${Number((dayMin / 60).toFixed(2))} h a day`,
      daysOff.length === 0 ? 'no days off' : `off ${daysOffText(daysOff)}`,
    ].join('; '),
);
/** When the workshop works. */
export type WorkCalendar = ValueOf<typeof CALENDAR>;
export const USUAL_CALENDAR: WorkCalendar = { startsOn: null, weekdays: [1, 2, 3, 4, 5], opensMin: 480, dayMin: 480, daysOff: [] };
