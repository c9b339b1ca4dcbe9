import { FULL_ROWS, ROW_ID } from '../../testing/rows';
import { pieceNamed, recordOf, teardown } from '../../testing/teardown';
import { editOp, known, withFields, rowFaults, type Piece } from '../record';
import { knownForm, knownFormHas, knownFromForm, type KnownForm } from './known-form';

const piece: Piece = { id: ROW_ID.piece, version: 1, ...FULL_ROWS.piece };
const plain = pieceNamed(recordOf(teardown('4x lever dc04 t2 100 g')), 'lever');
const form = (more: Partial<KnownForm> = {}): KnownForm => ({ mark: 'M', u: '', range: '', instrument: '', source: '', ...more });
const messages = (f: KnownForm, row: Piece, field: string): string => {
  const read = knownFromForm(f, row, field);
  return read.ok ? '' : read.issues.map((i) => i.message).join('\n');
};

describe('the form of how a value is known', () => {
  it('asks for an uncertainty of masses and lengths, for a range of counts, and for neither of words', () =>
    expect(['massEachKg', 'wallThicknessM', 'quantity', 'count', 'materialId'].map((f) => knownFormHas(f))).toEqual([
      { u: true, range: false },
      { u: true, range: false },
      { u: false, range: true },
      { u: false, range: true },
      { u: false, range: false },
    ]));
  it('shows what is recorded in the units people type', () => {
    expect(knownForm('piece', piece, 'massEachKg')).toMatchObject({ mark: 'M', u: '0.29 g' });
    expect(knownForm('piece', piece, 'wallThicknessM')).toMatchObject({ u: '0.03 mm', instrument: 'caliper 4' });
    expect(knownForm('piece', piece, 'quantity')).toMatchObject({ mark: 'C', range: '2-3' });
  });
  it('shows an open range, and of what nothing is known a question', () => {
    const many = { ...plain, known: { quantity: known('C', { low: 4 }) } };
    expect(knownForm('piece', many, 'quantity').range).toBe('4+');
    expect(knownForm('piece', { ...plain, supplier: '' }, 'supplier').mark).toBe('?');
  });

  it('written back unchanged says the same: what is shown is what is recorded', () => {
    for (const field of ['quantity', 'wallThicknessM', 'massEachKg']) {
      const read = knownFromForm(knownForm('piece', piece, field), piece, field);
      expect(read.ok).toBe(true);
      const after = withFields(piece, read.ok ? read.value : {});
      expect(knownForm('piece', after, field)).toEqual(knownForm('piece', piece, field));
      expect(rowFaults('piece', after)).toEqual([]);
    }
  });
  it('of a mass changes its own mark and uncertainty, and keeps what was typed', () => {
    const read = knownFromForm(form({ mark: 'I', u: '± 5 g', instrument: ' floor scale ' }), piece, 'massEachKg');
    expect(read).toMatchObject({
      ok: true,
      value: { massEvidence: 'I', massUKg: 0.005, known: { massEachKg: { instrument: 'floor scale', u: null } } },
    });
    const after = withFields(piece, read.ok ? read.value : {});
    expect(after.massTyped).toBe('164 g');
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
      expect([text, knownFromForm(form({ mark: 'C', range: text }), plain, 'quantity')]).toMatchObject([
        text,
        { ok: true, value: { known: { quantity: { low, high } } } },
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
    const read = knownFromForm(form({ mark: 'T', source: 'the maker’s list' }), plain, 'materialId');
    const op = editOp('piece', plain, read.ok ? read.value : {});
    expect(op).toMatchObject({
      was: { known: { materialId: null } },
      fields: { known: { materialId: { mark: 'T', source: 'the maker’s list' } } },
    });
    expect(Object.keys((op as { fields: object }).fields)).toEqual(['known']);
  });
});
