import {
  MATERIALS,
  check,
  issue,
  printField,
  readField,
  type Checked,
  type FieldShape,
  type FieldValue,
  type Issue,
  inMetric,
} from '../shared';
import {
  blank,
  ACCESSES,
  COMPONENT_CLASSES,
  CONNECTION_KINDS,
  DIRECTIONS,
  FASTENER_KINDS,
  JOINT_KINDS,
  LOCKS,
  RELEASES,
  schemaOf,
  fieldLabel,
  rowFaults,
  type FieldsOf,
  type Given,
  type EvidenceOf,
} from '../record';
import { readMass } from './import/read-cells';
import { massEachText } from './shorthand/from-row';
import type { SetKind } from './shorthand/to-fields';

/** One field of a form: typed as text in a unit people use, or chosen. */
interface SetField {
  readonly field: string;
  readonly label: string;
  readonly unit: string;
  /** the words to choose from, the empty one for none; empty for a field that is typed */
  readonly choices: readonly { readonly value: string; readonly word: string }[];
}

type Kind = FieldShape | 'mass' | 'yes-no' | readonly string[];

const MM: FieldShape = { kind: 'number', per: 0.001, unit: 'mm', digits: 3 };
const M: FieldShape = { kind: 'number', per: 1, unit: 'm', digits: 3 };
const MM2: FieldShape = { kind: 'number', per: 1e-6, unit: 'mm²', digits: 3 };
const NM: FieldShape = { kind: 'number', per: 1, unit: 'N m', digits: 2 };
const LITRES: FieldShape = { kind: 'number', per: 0.001, unit: 'l', digits: 3 };
const WHOLE: FieldShape = { kind: 'whole' };
const TEXT: FieldShape = { kind: 'text' };
const materials = MATERIALS.map((m) => m.id);

/** The fields of each kind, in the order people fill them in. */
const FORMS: { readonly [K in SetKind]: readonly (readonly [field: keyof FieldsOf[K] & string, kind: Kind, isNeeded?: boolean])[] } = {
  fasteners: [
    ['count', WHOLE],
    ['kind', FASTENER_KINDS, true],
    ['threadM', MM],
    ['pitchM', MM],
    ['lengthM', MM],
    ['drive', TEXT],
    ['grade', TEXT],
    ['direction', DIRECTIONS],
    ['tighteningNm', NM],
    ['breakawayNm', NM],
    ['access', ACCESSES],
    ['tool', TEXT],
    ['removed', 'yes-no'],
    ['massEachKg', 'mass'],
    ['note', TEXT],
  ],
  joints: [
    ['count', WHOLE],
    ['kind', JOINT_KINDS, true],
    ['lengthEachM', MM],
    ['note', TEXT],
  ],
  connection: [
    ['count', WHOLE],
    ['kind', CONNECTION_KINDS, true],
    ['poles', WHOLE],
    ['crossSectionM2', MM2],
    ['materialId', materials],
    ['shielded', 'yes-no'],
    ['innerM', MM],
    ['lengthEachM', M],
    ['fluid', TEXT],
    ['lock', LOCKS],
    ['release', RELEASES],
    ['note', TEXT],
  ],
  components: [
    ['count', WHOLE],
    ['componentClass', COMPONENT_CLASSES, true],
    ['fitted', 'yes-no', true],
    ['marking', TEXT],
    ['note', TEXT],
  ],
  board: [
    ['lengthM', MM],
    ['widthM', MM],
    ['sides', WHOLE],
    ['layers', WHOLE],
    ['note', TEXT],
  ],
  fluid: [
    ['name', TEXT],
    ['massEachKg', 'mass'],
    ['volumeM3', LITRES],
    ['drained', 'yes-no', true],
    ['note', TEXT],
  ],
};

export const SET_KIND_WORD: Readonly<Record<SetKind, string>> = {
  fasteners: 'fasteners',
  joints: 'joints',
  connection: 'connector, cable, hose or pipe',
  components: 'components of a board',
  board: 'circuit board',
  fluid: 'fluid',
};

/** A set of which nothing is known but its part. */
export const blankSet = <K extends SetKind>(kind: K, partId: string): FieldsOf[K] => blank(kind, { partId } as unknown as Given<K>);

const isList = (kind: Kind): kind is readonly string[] => Array.isArray(kind);

const wordOf = (field: string, value: string): string =>
  field === 'materialId' ? (MATERIALS.find((m) => m.id === value)?.name ?? value) : value;

/** The fields of the form of a kind, with labels, units and choices. */
export const setFormFields = (kind: SetKind): readonly SetField[] =>
  (FORMS[kind] as readonly (readonly [string, Kind, boolean?])[]).map(([field, shape, isNeeded]) => {
    const none = isNeeded === true ? [] : [{ value: '', word: 'not said' }];
    const choices =
      shape === 'yes-no'
        ? [...none, { value: 'yes', word: 'yes' }, { value: 'no', word: 'no' }]
        : isList(shape)
          ? [...none, ...shape.map((value) => ({ value, word: wordOf(field, value) }))]
          : [];
    const unit = shape === 'mass' ? 'g or kg' : typeof shape === 'object' && !isList(shape) && shape.kind === 'number' ? shape.unit : '';
    return { field, label: fieldLabel(kind, field as never), unit, choices };
  });

/** Every field of a set as text, as the form shows and takes it. */
export const setForm = <K extends SetKind>(kind: K, fields: FieldsOf[K]): Readonly<Record<string, string>> =>
  Object.fromEntries(
    (FORMS[kind] as readonly (readonly [string, Kind])[]).map(([field, shape]) => {
      const value = (fields as unknown as Readonly<Record<string, unknown>>)[field];
      if (shape === 'mass') return [field, massEachText(fields as never)];
      if (shape === 'yes-no') return [field, value === null ? '' : value === true ? 'yes' : 'no'];
      if (isList(shape)) return [field, typeof value === 'string' ? value : ''];
      // threads and sizes of fasteners are metric by name: their form stays so, and an untouched M6 comes back as M6
      return [field, inMetric(() => printField(shape, value as FieldValue))];
    }),
  );

/**
 * The set a filled-in form stands for, or every fault in it. How values are known stays as it was where the value is the
 * same; what was typed anew is known the usual way of a form.
 */
export const setFromForm = <K extends SetKind>(
  kind: K,
  before: FieldsOf[K],
  typed: Readonly<Record<string, string>>,
): Checked<FieldsOf[K]> => {
  const issues: Issue[] = [];
  const shown = setForm(kind, before);
  const after: Record<string, unknown> = { ...before };
  const anew = new Set<string>();
  let said: EvidenceOf = {};
  for (const [field, shape, isNeeded] of FORMS[kind] as readonly (readonly [string, Kind, boolean?])[]) {
    const text = (typed[field] ?? '').trim();
    if (text === shown[field]) continue;
    anew.add(field);
    if (shape === 'mass') {
      const read = text === '' ? null : readMass(text, null);
      if (read !== null && 'fault' in read) issues.push(issue('mass', read.fault, field));
      else {
        after.massEachKg = read?.value.massEachKg ?? null;
        said = { ...said, ...read?.value.evidence };
      }
    } else if (shape === 'yes-no') after[field] = text === '' ? (isNeeded === true ? true : null) : text === 'yes';
    else if (isList(shape)) after[field] = text === '' ? null : text;
    else {
      const read = inMetric(() => readField(shape, text));
      if (read.ok) after[field] = read.value;
      else issues.push(issue('unread', read.message, field));
    }
  }
  if (issues.length > 0) return { ok: false, issues };
  const kept = Object.fromEntries(Object.entries(before.evidence).filter(([field]) => !anew.has(field)));
  const fields = { ...after, evidence: { ...kept, ...said } };
  const checked = check(schemaOf(kind), fields);
  if (!checked.ok) return checked;
  const faults = rowFaults(kind, { id: 'form', version: 0, ...checked.value });
  return faults.length > 0 ? { ok: false, issues: faults } : checked;
};
