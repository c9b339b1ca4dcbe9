import { evidence, rowFaults } from '../record';
import { blankSet, setForm, setFormFields, setFromForm } from './set-form';
import { setLineOf } from './shorthand/from-row';
import { parseLine } from './shorthand/parse-line';
import { SET_KINDS, setFields } from './shorthand/to-fields';

const PART = '00000000-0000-4000-8000-000000000001';
const fieldsOf = (line: string) => {
  const { entry } = parseLine(line);
  if (entry === null || entry.kind === 'part' || entry.kind === 'step') throw new Error(line);
  return { kind: entry.kind, fields: setFields(entry, PART, 0) };
};

describe('the form of a set', () => {
  it.each([
    '12 M6x16 T30 8.8 -z 6 g',
    '3 bead 0.7 m',
    '1 cable 3p 2.5 mm2 cu-etp shielded 1.2 m',
    '2 hose id8 0.45 m coolant quick coupling hard',
    '3 empty capacitor marked "V40"',
    'board 240x195 mm 2-sided 6-layer',
    'fluid coolant 1.8 kg left in (dark)',
  ])('left as it is gives the same: %s', (line) => {
    const { kind, fields } = fieldsOf(line);
    const read = setFromForm(kind, fields as never, setForm(kind, fields as never));
    expect(read).toEqual({ ok: true, value: fields });
    expect(setLineOf(kind, fields as never)).toBe(setLineOf(kind, (read.ok ? read.value : fields) as never));
  });
  it('says the same as a line of shorthand', () => {
    const read = setFromForm('fasteners', blankSet('fasteners', PART), {
      count: '12',
      kind: 'bolt',
      threadM: '6',
      lengthM: '16',
      drive: 'T30',
      grade: '8.8',
      direction: '-z',
      massEachKg: '6 g',
    });
    expect(read).toEqual({ ok: true, value: { ...fieldsOf('12 M6x16 T30 8.8 -z 6 g').fields } });
  });
  it('names every field that cannot be read, and keeps nothing', () => {
    const read = setFromForm('connection', blankSet('connection', PART), {
      count: 'many',
      kind: 'hose',
      innerM: 'thick',
      lengthEachM: '1,200',
    });
    expect(read).toMatchObject({
      ok: false,
      issues: [
        { field: 'count' },
        { field: 'innerM' },
        { field: 'lengthEachM', message: expect.stringContaining('write one of the two') as string },
      ],
    });
  });
  it('holds to the limits of the record', () => {
    expect(setFromForm('board', blankSet('board', PART), { lengthM: '240' })).toMatchObject({
      ok: false,
      issues: [{ message: 'The size of a board needs length and width' }],
    });
    expect(setFromForm('fluid', blankSet('fluid', PART), { name: '' })).toMatchObject({
      ok: false,
      issues: [{ field: 'name', message: 'Name must not be empty' }],
    });
    expect(setFromForm('joints', blankSet('joints', PART), { count: '3', kind: 'spot weld', lengthEachM: '40' })).toMatchObject({
      ok: false,
      issues: [{ field: 'lengthEachM' }],
    });
  });
  it('keeps how a value is known while it is the same, and takes it back when it is another', () => {
    const fields = { ...blankSet('joints', PART), count: 30, evidence: { count: evidence('I') } };
    expect(setFromForm('joints', fields, { ...setForm('joints', fields), note: 'roof' })).toMatchObject({
      ok: true,
      value: { evidence: { count: { mark: 'I' } } },
    });
    expect(setFromForm('joints', fields, { ...setForm('joints', fields), count: '34' })).toMatchObject({
      ok: true,
      value: { count: 34, evidence: {} },
    });
  });
  it.each(SET_KINDS)('of %s has a label for every field, and its blank breaks no rule but what must be filled in', (kind) => {
    for (const field of setFormFields(kind)) expect(field.label).not.toBe(field.field);
    expect(rowFaults(kind, { id: PART, version: 0, ...blankSet(kind, PART) })).toEqual([]);
  });
});
