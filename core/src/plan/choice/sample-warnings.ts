import { counted, dayNumber, fixed, inUnit, issue, type Issue, asShown } from '../../shared';
import { readUnit, type StudyRecord, type Vehicle, type VehicleFields } from '../../record';

const YEAR_DAYS = 365.25;

/** The headline figures that every comparison starts from. */
export const HEADLINE_FIGURES = [
  'kerbMassKg',
  'powerW',
  'batteryJ',
  'voltageV',
  'rangeM',
  'consumptionJPerM',
  'turningCircleM',
  'wheelbaseM',
  'trackM',
] as const;
type HeadlineFigure = (typeof HEADLINE_FIGURES)[number];

/** More than this on the odometer is a used sample. */
const WORN_M = 10_000_000;

/**
 * From what to what a figure of a road vehicle lies, SI; outside it is questioned, never refused.
 * @source common practice, no source
 */
const SENSIBLE: Readonly<Partial<Record<keyof VehicleFields, readonly [least: number, most: number]>>> = {
  kerbMassKg: [200, 30_000],
  powerW: [3_000, 1_500_000],
  batteryJ: [0.2 * 3.6e6, 1000 * 3.6e6],
  voltageV: [10, 1_200],
  rangeM: [20_000, 2_500_000],
  consumptionJPerM: [4 * 36, 300 * 36],
  turningCircleM: [5, 30],
  wheelbaseM: [1.2, 7.5],
  trackM: [0.9, 2.6],
  odometerM: [0, 3e9],
};
/** Battery over consumption and range differ by losses and reserve, not by more than this. */
const MOST_RANGE_RATIO = 1.6;

const said = (field: string, value: number): string => {
  const shown = readUnit('vehicle', field);
  return shown ? inUnit(shown, value) : String(value);
};

/** A value in the unit of its field to three digits, however small: 2.42 mm is not 2 mm. */
const asTyped = (field: string, value: number): string => {
  const read = readUnit('vehicle', field);
  const shown = read && asShown(read);
  return shown ? `${String(Number((value / shown.per).toPrecision(3)))} ${shown.unit}` : '';
};

/** What a figure would be in a unit a thousand times larger or smaller, when that is one a vehicle has. */
const meant = (field: string, value: number, [least, most]: readonly [number, number]): string => {
  const better = [1000, 1 / 1000, 100, 1 / 100, 10, 1 / 10].map((k) => value * k).find((v) => v >= least && v <= most);
  return better === undefined ? '' : ` Is it ${said(field, better)}?`;
};

/** Figures of a passport that no vehicle has, or that cannot be true together. */
export const passportDoubts = (vehicle: Vehicle, word: (field: keyof VehicleFields) => string): readonly Issue[] => {
  const doubts = (Object.entries(SENSIBLE) as [keyof VehicleFields, readonly [number, number]][]).flatMap(
    ([field, range]): readonly Issue[] => {
      const value = vehicle[field];
      if (typeof value !== 'number' || (value >= range[0] && value <= range[1])) return [];
      const [least, most] = range.map((v) => said(field, v));
      return [
        issue(
          'no-such-figure',
          `${vehicle.name}: ${word(field).toLowerCase()} ${asTyped(field, value)}, but vehicles have ${least ?? ''} to ${most ?? ''}.${meant(field, value, range)}`,
          field,
          vehicle.id,
        ),
      ];
    },
  );
  const { wheelbaseM, trackM, batteryJ, rangeM, consumptionJPerM } = vehicle;
  const narrow =
    wheelbaseM !== null && trackM !== null && trackM >= wheelbaseM && doubts.length === 0
      ? [issue('wider-than-long', `${vehicle.name}: the track is not less than the wheelbase; were they swapped?`, 'trackM', vehicle.id)]
      : [];
  if (batteryJ === null || rangeM === null || consumptionJPerM === null || doubts.length > 0) return [...doubts, ...narrow];
  const reachM = batteryJ / consumptionJPerM;
  const ratio = Math.max(reachM / rangeM, rangeM / reachM);
  if (ratio <= MOST_RANGE_RATIO) return narrow;
  const message = `${vehicle.name}: its battery over its consumption reaches ${said('rangeM', reachM)}, its range is ${said('rangeM', rangeM)}: one of the three is of another variant or test, or wrong`;
  return [...narrow, issue('range-not-like', message, 'rangeM', vehicle.id)];
};

const missingFigures = (vehicle: Vehicle, word: (figure: HeadlineFigure) => string): readonly Issue[] => {
  const missing = HEADLINE_FIGURES.filter((figure) => vehicle[figure] === null);
  if (missing.length === 0) return [];
  const message = `${vehicle.name} has no ${missing.map((f) => word(f).toLowerCase()).join(', ')}: comparisons per these figures stay empty`;
  return [issue('headline-missing', message, missing[0], vehicle.id)];
};

const ownWarnings = (vehicle: Vehicle, word: (figure: HeadlineFigure) => string): readonly Issue[] => {
  const warn = (code: string, field: string, message: string): Issue => issue(code, message, field, vehicle.id);
  return [
    ...(vehicle.changes.trim() === ''
      ? []
      : [
          warn(
            'modified',
            'changes',
            `${vehicle.name} is not as its maker delivered it (${vehicle.changes.trim()}): mark these parts, they stay out of the comparison`,
          ),
        ]),
    ...(vehicle.wear.trim() === ''
      ? []
      : [warn('worn', 'wear', `${vehicle.name} is worn or damaged (${vehicle.wear.trim()}): masses and fits may differ from new`)]),
    ...(vehicle.odometerM !== null && vehicle.odometerM > WORN_M
      ? [
          warn(
            'used',
            'odometerM',
            `${vehicle.name} has run ${fixed(vehicle.odometerM / 1000, 0)} km: it is a used sample, say so beside its figures`,
          ),
        ]
      : []),
    ...(vehicle.builtOn === null
      ? [warn('no-build-date', 'builtOn', `${vehicle.name} has no build date: running changes cannot be placed`)]
      : []),
    ...(vehicle.acquiredOn === null && vehicle.expectedOn === null
      ? [warn('no-arrival', 'expectedOn', `${vehicle.name} is neither there nor expected on any day: its work cannot be planned`)]
      : []),
    ...missingFigures(vehicle, word),
  ];
};

/** Two samples built so far apart that running changes may explain a difference. */
const builtApart = (vehicles: readonly Vehicle[]): readonly Issue[] =>
  vehicles.flatMap((a, i) =>
    vehicles.slice(i + 1).flatMap((b) => {
      if (a.builtOn === null || b.builtOn === null) return [];
      const days = Math.abs(dayNumber(a.builtOn) - dayNumber(b.builtOn));
      if (days <= YEAR_DAYS) return [];
      const months = Math.round((days / YEAR_DAYS) * 12);
      // an earlier model is meant to be older
      if (a.role === 'earlier' || b.role === 'earlier') return [];
      const message = `${a.name} and ${b.name} were built ${counted(months, 'month')} apart: what was improved everywhere meanwhile may look like a difference of design`;
      return [issue('built-apart', message, 'builtOn', b.id)];
    }),
  );

/** Variants that are said and differ within one class: what is compared may be content, not design. */
const variantMismatch = (vehicles: readonly Vehicle[]): readonly Issue[] => {
  const subjects = vehicles.filter((v) => v.role === 'subject' && v.variant.trim() !== '');
  return subjects.flatMap((subject) =>
    vehicles
      .filter(
        (v) => v.id !== subject.id && v.variant.trim() !== '' && v.variant.trim().toLowerCase() !== subject.variant.trim().toLowerCase(),
      )
      .map((v) =>
        issue(
          'variant-mismatch',
          `${v.name} is the variant “${v.variant.trim()}”, ${subject.name} “${subject.variant.trim()}”: put what one has and the other lacks in the scope ledger`,
          'variant',
          v.id,
        ),
      ),
  );
};

/** What should be known of the samples before figures of theirs are compared. */
export const sampleWarnings = (
  { vehicles }: Pick<StudyRecord, 'vehicles'>,
  word: (field: keyof VehicleFields) => string,
): readonly Issue[] => [
  ...builtApart(vehicles),
  ...variantMismatch(vehicles),
  ...vehicles.flatMap((vehicle) => [...passportDoubts(vehicle, word), ...ownWarnings(vehicle, word)]),
];
