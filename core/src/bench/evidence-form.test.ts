import { FULL_ROWS, ROW_ID } from '../../testing/rows';
import { partNamed, recordOf, teardown } from '../../testing/teardown';
import { editOp, evidence, withFields, rowFaults, type Part } from '../record';
import { evidenceForm, evidenceFormHas, evidenceFromForm, type EvidenceForm } from './evidence-form';

const part: Part = { id: ROW_ID.part, version: 1, ...FULL_ROWS.part };
const plain = partNamed(recordOf(teardown('4x lever dc04 t2 100 g')), 'lever');
const form = (more: Partial<EvidenceForm> = {}): EvidenceForm => ({ mark: 'M', u: '', range: '', instrument: '', source: '', ...more });
const messages = (f: EvidenceForm, row: Part, field: string): string => {
  const read = evidenceFromForm(f, row, field);
  return read.ok ? '' : read.issues.map((i) => i.message).join('\n');
};

describe('the form of how a value is known', () => {
  it('asks for an uncertainty of masses and lengths, for a range of counts, and for neither of words', () =>
    expect(['massEachKg', 'wallThicknessM', 'quantity', 'count', 'materialId'].map((f) => evidenceFormHas(f))).toEqual([
      { u: true, range: false },
      { u: true, range: false },
      { u: false, range: true },
      { u: false, range: true },
      { u: false, range: false },
    ]));
  it('shows what is recorded in the units people type', () => {
    expect(evidenceForm('part', part, 'massEachKg')).toMatchObject({ mark: 'M', u: '0.58 g' });
    expect(evidenceForm('part', part, 'wallThicknessM')).toMatchObject({ u: '0.06 mm', instrument: 'caliper 4' });
    expect(evidenceForm('part', part, 'quantity')).toMatchObject({ mark: 'C', range: '2-3' });
  });
  it('shows an open range, and of what nothing is known a question', () => {
    const many = { ...plain, evidence: { quantity: evidence('C', { low: 4 }) } };
    expect(evidenceForm('part', many, 'quantity').range).toBe('4+');
    expect(evidenceForm('part', { ...plain, supplier: '' }, 'supplier').mark).toBe('?');
  });

  it('written back unchanged says the same: what is shown is what is recorded', () => {
    for (const field of ['quantity', 'wallThicknessM', 'massEachKg']) {
      const read = evidenceFromForm(evidenceForm('part', part, field), part, field);
      expect(read.ok).toBe(true);
      const after = withFields(part, read.ok ? read.value : {});
      expect(evidenceForm('part', after, field)).toEqual(evidenceForm('part', part, field));
      expect(rowFaults('part', after)).toEqual([]);
    }
  });
  it('of a mass changes its own mark and uncertainty, and keeps what was typed', () => {
    const read = evidenceFromForm(form({ mark: 'I', u: '± 10 g', instrument: ' floor scale ' }), part, 'massEachKg');
    expect(read).toMatchObject({
      ok: true,
      value: { evidence: { massEachKg: { mark: 'I', u: 0.005, instrument: 'floor scale' } } },
    });
    const after = withFields(part, read.ok ? read.value : {});
    expect(after.evidence.massEachKg?.typed).toBe('164 g');
  });
  it('takes ranges as people write them', () => {
    for (const [text, low, high] of [
      ['2-5', 2, 5],
      ['2–5', 2, 5],
      ['2 to 5', 2, 5],
      ['4+', 4, null],
      ['', null, null],
    ] as const)
      // prettier-ignore
      expect([text, evidenceFromForm(form({ mark: 'C', range: text }), plain, 'quantity')]).toMatchObject([
        text,
        { ok: true, value: { evidence: { quantity: { low, high } } } },
      ]);
  });
  it('says what is wrong, and what to write', () => {
    expect(messages(form({ u: '5' }), plain, 'wallThicknessM')).toContain('give it with its unit: 0.1 mm');
    expect(messages(form({ u: '-5 g' }), plain, 'massEachKg')).toContain('is no uncertainty');
    expect(messages(form(), plain, 'massEachKg')).toContain('needs its uncertainty');
    expect(messages(form({ range: 'some' }), plain, 'quantity')).toContain('write 2-3, or 20+');
    expect(messages(form({ range: '5-2' }), plain, 'quantity')).toContain('is no range');
    expect(messages(form({ range: '5-9' }), plain, 'quantity')).toContain('The count 4 lies outside');
  });
  it('makes an edit of the mark alone, the value untouched', () => {
    const read = evidenceFromForm(form({ mark: 'T', source: 'the maker’s list' }), plain, 'materialId');
    const op = editOp('part', plain, read.ok ? read.value : {});
    expect(op).toMatchObject({
      was: { evidence: { materialId: null } },
      fields: { evidence: { materialId: { mark: 'T', source: 'the maker’s list' } } },
    });
    expect(Object.keys((op as { fields: object }).fields)).toEqual(['evidence']);
  });
});
