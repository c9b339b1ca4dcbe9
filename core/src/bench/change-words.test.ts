import { ENTITIES, schemaOf, editOp, removeOp, type Op } from '../record';
import { BLANK, partNamed, recordOf, teardown, testId } from '../../testing/teardown';
import { cellLabel, changeLine, changeWords, uText, valueText } from './change-words';
import { evidenceForm, evidenceFromForm } from './evidence-form';
import { lastSet } from './last-set';
import { partsCsv } from './export/parts-csv';
import { readParts } from './import/read-parts';

const record = recordOf(teardown('2-3x plate dc04? stamp t0.8 1.84 kg\n  4 clip\n  34 spot'));
const plate = partNamed(record, 'plate');
const nameOf = (id: string): string | null => (id === plate.id ? 'plate' : null);

describe('a change in words', () => {
  it('names what became of which value, in units people read', () => {
    const op = editOp('part', plate, {
      wallThicknessM: 0.001,
      materialId: 'aw-6082',
      evidence: { massEachKg: { ...plate.evidence.massEachKg, mark: 'T' } },
    })!;
    expect(changeWords({ ops: [op] }, nameOf)).toEqual([
      {
        entity: 'part',
        id: plate.id,
        did: 'changed',
        name: 'plate',
        cells: [
          { label: 'Material', was: 'DC04', now: 'EN AW-6082' },
          {
            label: 'Mass each, evidence',
            was: 'measured, ± 0.0058 kg, typed 1.84 kg',
            now: 'told by a source, ± 0.0058 kg, typed 1.84 kg',
          },
          { label: 'Wall thickness', was: '0.8 mm', now: '1 mm' },
        ],
      },
    ]);
  });
  it('tells what was added and what was taken off', () => {
    const add: Op = { kind: 'part.add', id: testId(70), fields: { ...BLANK, name: 'arm', quantity: 2 } };
    const words = changeWords({ ops: [add, removeOp('fasteners', record.fastenerSets[0]!)] }, nameOf);
    expect(words.map((w) => [w.did, w.name])).toEqual([
      ['added', 'arm'],
      ['taken off', '4 clip'],
    ]);
    expect(changeLine(words)).toBe('added part “arm”; taken off fasteners “4 clip”');
  });
  it('tells of a plan in hours, days and names, never in ids or raw parts', () => {
    const calendar = {
      startsOn: '2026-06-01',
      weekdays: [1, 2, 5],
      opensMin: 450,
      dayMin: 480,
      daysOff: [{ from: '2026-06-04', to: '2026-06-04', why: '' }],
    };
    expect(valueText('study', 'calendar', calendar, nameOf)).toBe('from 2026-06-01; Mon Tue Fri; 07:30, 8 h a day; off 2026-06-04');
    expect(valueText('study', 'choiceWeights', { price: 15, requests: 30, gap: 25, novelty: 20, wait: 10 }, nameOf)).toBe(
      'requests 30, gap 25, novelty 20, wait 10, price 15',
    );
    expect(valueText('package', 'mostLikelyS', 9000, nameOf)).toBe('2.50 h');
    expect(valueText('package', 'after', [plate.id, testId(99)], nameOf)).toBe('plate, something taken off since');
    expect(valueText('liftSetUp', 'pads', [{ xM: 1, yM: -0.5 }], nameOf)).toBe('(1, -0.5)');
  });
  it('has a label in words for every field of every kind of record', () => {
    for (const entity of ENTITIES)
      for (const field of Object.keys((schemaOf(entity) as unknown as { fields: object }).fields))
        expect([entity, field, cellLabel(entity, field) === field]).toEqual([entity, field, false]);
  });
  it('reads changes from before an edit said what was there, by their inverse', () => {
    const ops = [{ kind: 'part.edit', id: plate.id, fields: { tag: 'A' } }] as unknown as readonly Op[];
    const inverse = [{ kind: 'part.edit', id: plate.id, fields: { tag: 'old' } }] as unknown as readonly Op[];
    expect(changeWords({ ops, inverse }, nameOf)[0]?.cells).toEqual([{ label: 'Tag', was: 'old', now: 'A' }]);
  });
  it('says how a value is known in a line, and what is absent with a dash', () => {
    expect(valueText('part', 'evidence.quantity', plate.evidence.quantity, nameOf)).toBe('counted, 2 to 3');
    expect(valueText('part', 'massEachKg', 7.92, nameOf)).toBe('7.92 kg');
    expect(uText('part', 'massEachKg', 0.01 / Math.sqrt(12))).toBe('0.0029 kg');
    expect(cellLabel('part', 'evidence.quantity')).toBe('Quantity, evidence');
    expect(valueText('part', 'tag', '', nameOf)).toBe('–');
    expect(valueText('part', 'parentId', testId(5), nameOf)).toBe('something taken off since');
  });
});

describe('what was measured, in the words of the history', () => {
  it.each([
    ['section', 'dimensions', { width: 0.034, outerRadius: 0.0025 }, 'width 34 mm, outer radius 2.5 mm'],
    ['identification', 'cues', ['parting-line', 'draft'], 'parting line, draft'],
    ['gaugeStudy', 'readings', [[[0.001, null]], [[0.002, 0.003]]], '3 of 4 taken'],
    ['reading', 'elements', { Si: { fraction: 0.104, u: 0.002 }, Al: { fraction: 0.8862, u: 0.003 } }, 'Al 88.6 %, Si 10.4 %'],
    [
      'scan',
      'figures',
      { volumeM3: 20.87e-6, minimumM: [0.118, 0.086, 0.042], openEdges: 0 },
      'volume 20.87 cm³, minimum bounding box 118 × 86 × 42 mm, watertight',
    ],
    [
      'scan',
      'figures',
      { volumeM3: null, minimumM: [0.1, 0.1, 0], openEdges: 4 },
      'encloses nothing, minimum bounding box 100 × 100 × 0 mm, 4 open edges',
    ],
  ] as const)('%s, %s', (entity, field, value, words) => expect(valueText(entity, field, value, () => null)).toBe(words));
});

describe('how a value is known, in a form', () => {
  const form = evidenceForm('part', plate, 'massEachKg');
  const said = (field: string, change: object) => evidenceFromForm({ ...evidenceForm('part', plate, field), ...change }, plate, field);
  it('shows what was recorded', () => {
    expect(form).toMatchObject({ mark: 'M', u: '5.774 g', range: '' });
    expect(evidenceForm('part', plate, 'quantity')).toMatchObject({ mark: 'C', range: '2-3' });
    expect(evidenceForm('part', plate, 'materialId')).toMatchObject({ mark: '?' });
  });
  it('gives a mass its mark and uncertainty, and keeps instrument and source beside it', () => {
    expect(said('massEachKg', { mark: 'R', u: '±10 g', instrument: 'kitchen scale' })).toMatchObject({
      ok: true,
      value: { evidence: { massEachKg: { mark: 'R', instrument: 'kitchen scale', u: 0.005 } } },
    });
  });
  it.each([
    ['an uncertainty without a unit', 'massEachKg', { u: '5' }, 'u'],
    ['no uncertainty of a mass', 'massEachKg', { u: '' }, 'u'],
    ['a range that runs backwards', 'quantity', { range: '3-2' }, 'range'],
    ['a range beside its count', 'quantity', { range: '5-6' }, 'range'],
  ])('refuses %s', (_, field, change, at) => {
    const read = said(field, change);
    expect(read.ok ? [] : read.issues.map((i) => i.field)).toEqual([at]);
  });
});

describe('who last gave a value', () => {
  const change = (revision: number, ops: readonly Op[]) => ({
    id: testId(revision),
    undoes: null,
    revision,
    madeAt: '',
    madeBy: `maker ${revision}`,
    personId: null,
    device: '',
    ops,
    inverse: [],
  });
  it('is found by the field, or by what was said of it', () => {
    const add: Op = { kind: 'part.add', id: plate.id, fields: BLANK };
    const history = [
      change(3, [editOp('part', plate, { tag: 'A' })!]),
      change(2, [editOp('part', plate, { evidence: { massEachKg: null } })!]),
      change(1, [add]),
    ];
    expect(lastSet(history, plate.id, 'tag')?.madeBy).toBe('maker 3');
    expect(lastSet(history, plate.id, 'massEachKg')?.madeBy).toBe('maker 2');
    expect(lastSet(history, plate.id, 'quantity')?.madeBy).toBe('maker 1');
    expect(lastSet(history.slice(0, 2), plate.id, 'quantity')).toBeNull();
  });
});

describe('parts as CSV', () => {
  it('read back as what they were, with sets, ranges and marks', () => {
    const { rows, issues } = readParts([...partsCsv(record, record.vehicles[0]!)].join(''));
    expect(issues).toEqual([]);
    expect(rows[0]?.faults).toEqual([]);
    const { quantity, massEachKg, evidence, wallThicknessM } = plate;
    expect(rows[0]?.fields).toMatchObject({ name: 'plate', quantity, massEachKg, evidence, wallThicknessM });
    expect([rows[0]?.fasteners[0]?.count, rows[0]?.joints[0]?.count]).toEqual([4, 34]);
  });
  it.each([1, 98, 99, 100, 199, 250])('are all there once, %i of them, however the file is put together', (count) => {
    const parts = Array.from({ length: count }, (_, i) => ({
      ...plate,
      id: `${plate.id.slice(0, -3)}${100 + i}`,
      name: `rib ${i + 1}`,
      tag: '',
    }));
    const file = [...partsCsv({ ...record, parts }, record.vehicles[0]!)].join('');
    expect(file.split('\r\n')).toHaveLength(count + 1);
    expect(file).toMatch(/[^\r\n]\n$/);
    const names = readParts(file).rows.map(({ fields }) => fields.name);
    expect([...names].sort()).toEqual(parts.map(({ name }) => name).sort());
  });
  it('keep a name that looks like a formula, which no spreadsheet runs', () => {
    for (const name of ['=HYPERLINK("x")', '＝1+1', '+40 °C sensor', '-z stop']) {
      const hostile = { ...record, parts: record.parts.map((p) => ({ ...p, name })) };
      const file = [...partsCsv(hostile, hostile.vehicles[0]!)].join('');
      expect(file).toContain(`'${name.replaceAll('"', '""')}`);
      expect(readParts(file).rows[0]?.fields).toMatchObject({ name });
    }
  });
});
