import {
  fixed,
  materialById,
  processById,
  withU,
  type EvidenceMark,
  READ_IN,
  readAs,
  unitWord,
  unitsShown,
  lengthNumber,
  massWithU,
  millimetres,
} from '@each-bolt/core/shared';
import { boxVolumeM3, envelopeOf, heavierThanSolid, volumeText, type PartState } from '@each-bolt/core/bench';
import { HAND_WORD, fieldLabel, evidenceFor, massSaid, rangeText, type Part } from '@each-bolt/core/record';

/** One line of the card: what it is, what it says, how it is known. */
interface CardLine {
  readonly label: string;
  readonly value: string;
  readonly isFigure: boolean;
  readonly mark: EvidenceMark | null;
  /** the field whose value it is, when that can say how it is known */
  readonly field: string | null;
  /** who or what says so, and with what, in a line; empty when nothing was said */
  readonly how: string;
}

const line = (label: string, value: string, isFigure = false): readonly CardLine[] =>
  value === '' ? [] : [{ label, value, isFigure, mark: null, field: null, how: '' }];

/** A line of a value that says how it is known. */
const evidenceLine = (part: Part, field: string, label: string, value: string, isFigure = false): readonly CardLine[] => {
  if (value === '') return [];
  const said = evidenceFor('part', part, field);
  return [{ label, value, isFigure, mark: said?.mark ?? null, field, how: [said?.instrument, said?.source].filter(Boolean).join(', ') }];
};

type TextField = 'function' | 'location' | 'markings' | 'supplier' | 'damage';

const text = (part: Part, field: TextField): readonly CardLine[] => evidenceLine(part, field, fieldLabel('part', field), part[field]);

/** "0.800 ± 0.058 mm  (typed 0.8)": a length with its uncertainty, and as it was typed. */
const sizeText = (part: Part, field: 'wallThicknessM' | 'runLengthM' | 'runDiameterM'): string => {
  const metres = part[field];
  if (metres === null) return '';
  const said = part.evidence[field];
  const unit = unitWord('mm');
  const figure = said?.u
    ? withU(readAs(READ_IN.mm, metres), readAs(READ_IN.mm, said.u), unitsShown() === 'metric' ? 3 : 4)
    : numeral(metres);
  return `${figure} ${unit}${said?.typed && !said.typed.endsWith(` ${unit}`) ? `  (typed ${said.typed})` : ''}`;
};

const countWithRange = (part: Part): string => {
  const range = part.evidence.quantity ? rangeText(part.evidence.quantity) : null;
  return range === null ? fixed(part.quantity, 0) : `${fixed(part.quantity, 0)} (${range})`;
};

const numeral = (metres: number): string => String(lengthNumber(metres));

const eachText = (part: Part): string => {
  if (part.massEachKg === null) return '–';
  const { u = null, typed = null } = massSaid(part) ?? {};
  const figure = massWithU(part.massEachKg, u ?? 0);
  return typed === null ? figure : `${figure}  (typed ${typed})`;
};

const withDetail = (name: string, detail: string): string => [name, detail].filter((text) => text !== '').join(', ');

const envelopeText = (part: Part): string => {
  const envelope = envelopeOf(part);
  return envelope === null ? '' : `${envelope.map(numeral).join(' × ')}\u00a0${unitWord('mm')}, ${volumeText(boxVolumeM3(envelope))}`;
};

/** What is recorded of a part, in the order of the card; what is not known is left out, but for the mass. */
export const partLines = (part: Part, checks: readonly string[] = [], state: PartState | null = null): readonly CardLine[] => [
  ...text(part, 'function'),
  ...evidenceLine(part, 'quantity', 'Quantity', countWithRange(part), true),
  ...(part.hand === 'none' ? [] : evidenceLine(part, 'hand', 'Hand', HAND_WORD[part.hand])),
  ...evidenceLine(
    part,
    'materialId',
    'Material',
    withDetail(materialById.get(part.materialId ?? '')?.name ?? part.materialId ?? '', part.materialDetail),
  ),
  ...evidenceLine(
    part,
    'processId',
    'Made by',
    withDetail(processById.get(part.processId ?? '')?.name ?? part.processId ?? '', part.processDetail),
  ),
  ...evidenceLine(part, 'massEachKg', 'Mass each', eachText(part), true),
  ...checks.flatMap((check) => line('Mass check', check)),
  ...evidenceLine(part, 'wallThicknessM', 'Thickness', sizeText(part, 'wallThicknessM'), true),
  ...evidenceLine(part, 'lengthM', 'Envelope', envelopeText(part), true),
  ...line('Check', heavierThanSolid(part)),
  ...evidenceLine(part, 'runDiameterM', 'Run diameter', sizeText(part, 'runDiameterM'), true),
  ...evidenceLine(part, 'runLengthM', 'Run length', sizeText(part, 'runLengthM'), true),
  ...evidenceLine(
    part,
    'xM',
    'Place x y z',
    part.xM === null ? '' : `${[part.xM, part.yM ?? 0, part.zM ?? 0].map(millimetres).join(' ')} mm`,
    true,
  ),
  ...text(part, 'location'),
  ...text(part, 'markings'),
  ...text(part, 'supplier'),
  ...line('State', state === 'left closed' ? `left closed: ${part.closedReason}` : (state ?? '')),
  ...text(part, 'damage'),
  ...evidenceLine(
    part,
    'boughtPrice',
    'Price',
    part.boughtPrice === null
      ? ''
      : `${part.boughtCurrency} ${part.boughtPrice} (${part.boughtPriceYear}, ${fixed(part.boughtVolumePerYear ?? 0, 0)} a year, ${part.boughtRegion})`,
    true,
  ),
  ...line(fieldLabel('part', 'notes'), part.notes),
];
