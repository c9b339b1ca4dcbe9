import { percentWithU, READ_IN, readAs, unitWord, unitsShown } from '../../shared';
import { editOp, evidence, type FastenerSet, type Op, type Part, type ReadingFields } from '../../record';
import type { CountSample, WeighedCount } from './count-by-weight';
import type { InstrumentNow, InstrumentReading } from './instrument-reading';

/** Fields of a part that one reading can fill. */
export type ReadField = 'massEachKg' | 'wallThicknessM' | 'runLengthM';

export interface Taken {
  readonly instrument: InstrumentNow;
  readonly reading: InstrumentReading;
  readonly by: string;
}

/**
 * What the reading says, the way people write it: "41.2 g", "1.98 mm", "12.4 N m".
 *
 * @param most the most the instrument reads: a floor scale speaks of kilograms however little lies on it
 */
export const readingText = (
  { quantity, value, elements }: Pick<InstrumentReading, 'quantity' | 'value' | 'elements'>,
  most: number | null = null,
): string => {
  if (elements !== null)
    return Object.entries(elements)
      .sort(([, a], [, b]) => b.fraction - a.fraction)
      .map(([symbol, { fraction, u }]) => `${symbol} ${percentWithU(fraction, u)}`)
      .join(', ');
  if (value === null) return '–';
  if (quantity === 'mass' && unitsShown() === 'inch-pound')
    return `${plain(readAs(READ_IN.kg, value), (most ?? value) < LARGE_KG ? 4 : 2)} lb`;
  if (quantity === 'mass') return (most ?? value) < LARGE_KG ? `${plain(value * 1000, 1)} g` : `${plain(value, 2)} kg`;
  if (quantity === 'length') return `${plain(readAs(READ_IN.mm, value), unitsShown() === 'metric' ? 2 : 4)} ${unitWord('mm')}`;
  if (quantity === 'torque')
    return unitsShown() === 'metric' ? `${plain(value, 1)} N m` : `${plain(readAs(NEWTON_METRES, value), 1)} ${unitWord('Nm')}`;
  return plain(value, 0);
};

const LARGE_KG = 10;
const NEWTON_METRES = { per: 1, unit: 'Nm', digits: 1 };
const plain = (value: number, digits: number): string => value.toFixed(digits);

/** The raw reading as it is kept beside what it filled. */
export const readingFields = (
  { instrument, reading, by }: Taken,
  about: Pick<ReadingFields, 'aboutKind' | 'aboutId' | 'aboutField'>,
  note = '',
): ReadingFields => ({
  ...about,
  quantity: reading.quantity,
  value: reading.value,
  u: reading.u,
  tare: reading.tare,
  elements: reading.elements,
  raw: reading.raw,
  instrument: instrument.name,
  serial: instrument.serial,
  stable: reading.stable,
  takenAt: reading.at,
  takenBy: by,
  note,
});

/**
 * A stable reading becomes the value of a field of a part, and is kept as it was read. A mass of several that lay on
 * the scale together is shared among them, and so is its uncertainty.
 *
 * @param count how many of the part were read together
 */
export const takeReading = (taken: Taken, part: Part, field: ReadField, count: number, newId: () => string): readonly Op[] => {
  const { instrument, reading } = taken;
  if (reading.value === null) throw new RangeError('a reading without a value fills no field');
  if (reading.quantity !== (field === 'massEachKg' ? 'mass' : 'length')) throw new RangeError(`a ${reading.quantity} fills no ${field}`);
  const text = readingText(reading, instrument.most);
  const among = field === 'massEachKg' ? count : 1;
  const said = evidence('M', {
    typed: among === 1 ? text : `total ${text}`,
    instrument: instrument.name,
    source: `serial number ${instrument.serial}`,
    u: reading.u === null ? null : reading.u / among,
  });
  const edit = editOp('part', part, { [field]: reading.value / among, evidence: { [field]: said } });
  return [
    {
      kind: 'reading.add',
      id: newId(),
      fields: readingFields(taken, { aboutKind: 'part', aboutId: part.id, aboutField: field }, count === 1 ? '' : `${count} together`),
    },
    ...(edit ? [edit] : []),
  ];
};

/** A length that was written into a line, kept as it was read with the part the line was about. */
export const takeLength = (taken: Taken, partId: string, newId: () => string): Op => ({
  kind: 'reading.add',
  id: newId(),
  fields: readingFields(taken, { aboutKind: 'part', aboutId: partId, aboutField: null }, 'written into the line'),
});

/** A breakaway torque is kept with the fastener set it was read on; nothing else of the set changes. */
export const takeTorque = (taken: Taken, set: FastenerSet, newId: () => string): readonly Op[] => [
  {
    kind: 'reading.add',
    id: newId(),
    fields: readingFields(taken, { aboutKind: 'fasteners', aboutId: set.id, aboutField: null }, 'breakaway'),
  },
];

/** A lot that was weighed and counted so, and the sample it was counted by. */
export interface WeighedLot {
  readonly sample: CountSample;
  readonly taken: Taken;
  readonly counted: WeighedCount;
}

/** A count by weighing becomes the count of a fastener set, with its range where it is not certain; the reading is kept. */
export const takeCount = ({ sample, taken, counted }: WeighedLot, set: FastenerSet, newId: () => string): readonly Op[] => {
  const text = readingText(taken.reading, taken.instrument.most);
  const sampleText = `${sample.count} weigh ${readingText({ quantity: 'mass', value: sample.massKg, elements: null })}`;
  const said = evidence('C', {
    low: counted.isCertain ? null : counted.low,
    high: counted.isCertain ? null : counted.high,
    instrument: taken.instrument.name,
    source: `by weighing: ${text}, of which ${sampleText}; serial number ${taken.instrument.serial}`,
  });
  const edit = editOp('fasteners', set, { count: counted.count, evidence: { count: said } });
  return [
    {
      kind: 'reading.add',
      id: newId(),
      fields: readingFields(taken, { aboutKind: 'fasteners', aboutId: set.id, aboutField: 'count' }, `counted by weighing: ${sampleText}`),
    },
    ...(edit ? [edit] : []),
  ];
};

/** Fractions of elements, kept with the part they were read on. */
export const takeElements = (taken: Taken, part: Part, newId: () => string): readonly Op[] => [
  { kind: 'reading.add', id: newId(), fields: readingFields(taken, { aboutKind: 'part', aboutId: part.id, aboutField: 'materialId' }) },
];
