import type { EvidenceOf, PartFields, Weighed } from '../../record';
import { KINDS, evidence } from '../../record';
import type { FastenerEntry, JointEntry } from '../shorthand/entry';
import { massMatcher } from '../shorthand/common-matchers';
import { parseFasteners } from '../shorthand/parse-fasteners';
import { parseJoints } from '../shorthand/parse-joints';
import { envelopeMatcher, runDiameterMatcher, runMatcher, thicknessMatcher } from '../shorthand/part-sizes';
import { COUNT_TEXT, markBehind, readCount } from '../shorthand/how-known';
import { withMark, type Matcher } from '../shorthand/reader';
import { massFields } from '../shorthand/to-fields';
import { materialNamed, processNamed, vagueMaterial, vagueProcess } from '../shorthand/vocabulary';

/** A cell read into fields and what it was understood as, or the fault that keeps it from being read. */
export type ReadCell<T> = { readonly value: T; readonly understood: string } | { readonly fault: string };

const fault = (message: string): { readonly fault: string } => ({ fault: message });

interface Whole<Draft> {
  readonly put: Partial<Draft>;
  readonly value: string;
  readonly evidence: EvidenceOf;
}

const whole = <Draft>(matcher: Matcher<Draft>, text: string): Whole<Draft> | string => {
  const found = [matcher(text, 0) ?? []].flat().find((match) => match.end === text.length);
  if (!found) return `“${text}” is not understood`;
  const match = withMark('part', text, found);
  if (match.question)
    return `${match.question.message}${match.question.choices.length > 0 ? ` (${match.question.choices.map((c) => c.label).join(', ')})` : ''}`;
  return match.end < text.length || !match.put
    ? `“${text}” is not understood`
    : {
        put: match.put,
        value: match.value ?? '',
        evidence: match.about !== undefined && match.evidence ? { [match.about]: match.evidence } : {},
      };
};

const BARE_NUMBER = /^~?\s*[\d.,]+\s*\??$/;

const withUnit = (cell: string, unit: string | null): string =>
  unit !== null && BARE_NUMBER.test(cell) ? cell.replace(/([\d.,]+)/, `$1 ${unit}`) : cell;

export const readMass = (cell: string, unit: string | null): ReadCell<Weighed> => {
  const text = withUnit(cell, unit);
  if (BARE_NUMBER.test(text)) return fault(`${cell} of what: g or kg?`);
  if (/^total\b/i.test(text)) return fault('Give the mass each, not in all');
  if (/^[-−]/.test(text)) return fault('A mass cannot be negative');
  const read = whole(massMatcher, text);
  return typeof read === 'string' ? fault(read) : { value: massFields(read.put.mass ?? null), understood: read.value };
};

export const readThickness = (cell: string, unit: string | null): ReadCell<Pick<PartFields, 'wallThicknessM' | 'evidence'>> => {
  // a column of thicknesses holds no drives: 10 is 10 mm
  const read = whole(thicknessMatcher, `t${withUnit(cell, unit ?? 'mm')}`);
  return typeof read === 'string'
    ? fault(read)
    : { value: { wallThicknessM: read.put.wallThicknessM ?? null, evidence: read.evidence }, understood: read.value };
};

export const readEnvelope = (
  cell: string,
  unit: string | null,
): ReadCell<Pick<PartFields, 'lengthM' | 'widthM' | 'heightM' | 'evidence'>> => {
  const read = whole(envelopeMatcher, /[a-z]$/i.test(cell) || unit === null ? cell : `${cell} ${unit}`);
  if (typeof read === 'string') return fault(read);
  const [lengthM = null, widthM = null, heightM = null] = read.put.envelopeM ?? [];
  return { value: { lengthM, widthM, heightM, evidence: read.evidence }, understood: read.value };
};

export const readRun = (cell: string, unit: string | null): ReadCell<Pick<PartFields, 'runLengthM' | 'evidence'>> => {
  const read = whole(runMatcher, `run ${withUnit(cell, unit)}`);
  return typeof read === 'string'
    ? fault(read)
    : { value: { runLengthM: read.put.runLengthM ?? null, evidence: read.evidence }, understood: read.value };
};

/** The outer diameter of what runs: `19`, `ø19 mm`. */
export const readDiameter = (cell: string, unit: string | null): ReadCell<Pick<PartFields, 'runDiameterM' | 'evidence'>> => {
  const read = whole(runDiameterMatcher, `run ø${withUnit(cell, unit).replace(/^[øØ⌀]\s*/, '')}`);
  return typeof read === 'string'
    ? fault(read)
    : { value: { runDiameterM: read.put.runDiameterM ?? null, evidence: read.evidence }, understood: read.value };
};

const PLACE_NUMBER = /^[-−]?\d{1,5}(?:[.,]\d{1,3})?$/;

/** Where a part is on the vehicle: "1450 -420 600" in mm: from the front axle rearwards, from the middle to the right, above the ground. */
export const readPlace = (cell: string): ReadCell<Pick<PartFields, 'xM' | 'yM' | 'zM'>> => {
  const texts = cell
    .replace(/mm$/i, '')
    .split(/[\s;/]+/)
    .filter((text) => text !== '');
  if (texts.length !== 3 || !texts.every((text) => PLACE_NUMBER.test(text)))
    return fault(`“${cell}” is not a place; write x y z in mm, for instance 1450 -420 600`);
  const [xM = 0, yM = 0, zM = 0] = texts.map((text) => Number(text.replace('−', '-').replace(',', '.')) / 1000);
  return { value: { xM, yM, zM }, understood: `${texts.join(' ')} mm` };
};

/** A word and the mark behind it: `dc04?`, `inj@T`. */
const wordAndMark = (field: string, cell: string): { readonly word: string; readonly evidence: EvidenceOf } => {
  const word = /^(.*?)(?:\s?@[MCSPTRI?]|\s?\?)?$/i.exec(cell)?.[1] ?? cell;
  const behind = markBehind(cell, word.length);
  return { word, evidence: behind ? { [field]: evidence(behind.mark) } : {} };
};

export const readMaterial = (cell: string): ReadCell<Pick<PartFields, 'materialId' | 'evidence'>> => {
  const said = wordAndMark('materialId', cell);
  const material = materialNamed(said.word);
  if (material) return { value: { materialId: material.id, evidence: said.evidence }, understood: material.name };
  const family = vagueMaterial(said.word);
  return fault(
    family ? `“${cell}” is not a grade; one of: ${family.map((m) => m.id).join(', ')}` : `The catalogue has no material “${cell}”`,
  );
};

export const readProcess = (cell: string): ReadCell<Pick<PartFields, 'processId' | 'evidence'>> => {
  const said = wordAndMark('processId', cell);
  const process = processNamed(said.word);
  if (process) return { value: { processId: process.id, evidence: said.evidence }, understood: process.name };
  const several = vagueProcess(said.word);
  return fault(
    several
      ? `“${cell}” could be made in several ways; one of: ${several.map((p) => p.id).join(', ')}`
      : `The catalogue has no process “${cell}”`,
  );
};

const COUNT_CELL = new RegExp(`^${COUNT_TEXT}$`, 'i');

/** A count of parts, with a range or mark as in shorthand: 4, ~6, 2-3, 20+, 4? */
export const readQuantityCell = (cell: string): ReadCell<Pick<PartFields, 'quantity' | 'evidence'>> => {
  const match = COUNT_CELL.exec(cell);
  const said = match && readCount(match.slice(1));
  return said && said.count >= 1 && said.count <= 100_000
    ? { value: { quantity: said.count, evidence: said.evidence ? { quantity: said.evidence } : {} }, understood: said.value }
    : fault(`“${cell}” is not a count from 1 to 100 000`);
};

const readWord =
  <K extends 'hand' | 'opened' | 'damageFrom' | 'state'>(field: K) =>
  (cell: string): ReadCell<Pick<PartFields, K>> => {
    const words: readonly string[] = KINDS.part.fields[field].choices;
    const word = words.find((w) => w === cell.toLowerCase());
    return word === undefined
      ? fault(`“${cell}” is not one of: ${words.join(', ')}`)
      : { value: { [field]: word } as unknown as Pick<PartFields, K>, understood: word };
  };

export const readHand = readWord('hand');
export const readOpened = readWord('opened');
export const readState = readWord('state');
export const readDamageFrom = readWord('damageFrom');

export const readPrice = (cell: string): ReadCell<Pick<PartFields, 'boughtPrice'>> =>
  /^\d{1,9}(\.\d{1,4})?$/.test(cell)
    ? { value: { boughtPrice: cell }, understood: cell }
    : fault(`“${cell}” is not a price in decimal digits such as 4.20`);

const SETS = { fasteners: parseFasteners, joints: parseJoints } as const;
type SetEntry = FastenerEntry | JointEntry;

const readSets = <T extends SetEntry>(kind: T['kind'], cell: string): ReadCell<readonly T[]> => {
  const lines = cell
    .split(';')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const entries: T[] = [];
  for (const line of lines) {
    const parsed = SETS[kind](line, 0);
    if (!parsed)
      return fault(`“${line}” is not a ${kind === 'fasteners' ? 'fastener set such as 12 M6x16 T30 8.8 -z' : 'joint set such as 34 spot'}`);
    const [question] = parsed.questions;
    if (question) return fault(`“${line}”: ${question.message}`);
    if (parsed.entry) entries.push(parsed.entry as T);
  }
  return { value: entries, understood: lines.join('; ') };
};

export const readFasteners = (cell: string): ReadCell<readonly FastenerEntry[]> => readSets<FastenerEntry>('fasteners', cell);
export const readJoints = (cell: string): ReadCell<readonly JointEntry[]> => readSets<JointEntry>('joints', cell);
