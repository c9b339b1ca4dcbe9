import Papa from 'papaparse';
import { DOOR, LEFT, RIGHT, STUDY, recordOf, teardown } from '../../testing/teardown';
import type { StudyRecord } from '../record';
import { studyRollUp } from '../cost';
import { NOT_SPLIT } from './breakdown';
import { compareVehicles, type CompareRow, type Comparison } from './compare-vehicles';
import { comparisonCsv } from './comparison-csv';
import { comparisonGaps, comparisonSentences, plainText } from './sentences';

const compared = (record: StudyRecord): Comparison => {
  const comparison = compareVehicles(record, studyRollUp(record), LEFT.id, RIGHT.id, DOOR.id);
  if (!comparison) throw new Error('nothing to compare');
  return comparison;
};

const DOORS = recordOf(
  teardown(`
module
  plate dc04 stamp 2 kg
    4 M6x16 T30 8.8 5 g
  2x guide pom inj 50 g
arm aw-6082 ext 1 kg
  2 M8x20 T45 10.9 10 g
  12 spot`),
  teardown(
    `
plate dc04 stamp 1 kg
  6 M6x16 T30 8.8 5 g
  2 M6x20 T30 8.8 6 g
guide pom inj 50 g
seal epdm profext 400 g
`,
    RIGHT,
    500,
  ),
);

const total = (rows: readonly CompareRow[], measure: string): CompareRow => {
  const row = rows.find((r) => r.measure === measure);
  if (!row) throw new Error(`no row for ${measure}`);
  return row;
};

describe('two vehicles side by side', () => {
  const { totals, byMaterial, byProcess, left } = compared(DOORS);
  it('counts parts, fasteners, their variants and joints by the rule', () => {
    // left: plate, 2 guides, arm = 4 parts + 6 fasteners; right: 3 parts + 8 fasteners
    expect(totals.map((r) => [r.measure, r.left, r.right]).slice(0, 4)).toEqual([
      ['parts', 10, 11],
      ['fasteners', 6, 8],
      ['variants', 2, 2],
      // none recorded is not none
      ['joints', 12, null],
    ]);
  });
  it('gives difference and ratio, and no ratio to nothing', () => {
    const mass = total(totals, 'mass');
    expect(mass.left).toBeCloseTo(3.14, 12);
    expect(mass.right).toBeCloseTo(1.492, 12);
    expect(mass.difference).toBeCloseTo(1.648, 12);
    expect(mass.ratio).toBeCloseTo(3.14 / 1.492, 12);
    expect(total(totals, 'joints').ratio).toBeNull();
  });
  it('splits by material and by process so that the parts add up to the whole', () => {
    for (const rows of [byMaterial, byProcess]) {
      for (const measure of ['parts', 'mass', 'cost'] as const) {
        for (const side of ['left', 'right'] as const) {
          const sum = rows.filter((r) => r.measure === measure).reduce((s, r) => s + (r[side] ?? 0), 0);
          expect(sum).toBeCloseTo(total(totals, measure)[side] ?? Number.NaN, 9);
        }
      }
    }
  });
  it('keeps fasteners apart and knows what a side does not use from what is unknown', () => {
    expect(byMaterial.map((r) => r.label).filter((label, i, all) => all.indexOf(label) === i)).toEqual([
      'DC04',
      'EN AW-6082',
      'EPDM',
      'POM',
      'fasteners',
    ]);
    expect(byMaterial.find((r) => r.key === 'EPDM mass')).toMatchObject({ left: 0, right: 0.4 });
  });
  it('has one point for each part straight under the subsystem, with what is inside it', () => {
    expect(left.groups).toEqual([
      { partId: expect.any(String) as string, name: 'module', parts: 7, massKg: expect.closeTo(2.12, 12) as number, massMark: 'M' },
      { partId: expect.any(String) as string, name: 'arm', parts: 3, massKg: expect.closeTo(1.02, 12) as number, massMark: 'M' },
    ]);
  });
  it('puts what only the weighed whole holds on a row of its own', () => {
    const open = compared(recordOf(teardown('module 3 kg\n  plate dc04 1 kg\n  lever'), teardown('plate dc04 1 kg', RIGHT, 500)));
    expect(open.byMaterial.find((r) => r.label === NOT_SPLIT && r.measure === 'mass')?.left).toBeCloseTo(2, 12);
    expect(open.byMaterial.find((r) => r.key === 'not stated mass')?.left).toBeNull();
  });
});

describe('the comparison in words', () => {
  const said = (record: StudyRecord): readonly string[] => comparisonSentences(compared(record), 'EUR').map(plainText);
  it('says counts by difference and masses by ratio with their uncertainty', () => {
    const [parts, mass] = said(DOORS);
    expect(parts).toBe('Left van has 10 parts and fasteners against 11 on Right van: 9.1 % fewer.');
    // u: readings to 1 kg, 1 kg, 50 g (two), 5 g, 10 g … are known to their last digit only
    expect(mass).toMatch(/^Left van is 2\.10 times as heavy, 110 % more: 1\.6 ± 1\.0 kg heavier than Right van\.$/);
  });
  it('does not call a difference what the weighing cannot tell', () => {
    const close = recordOf(teardown('plate 1.00 kg ±20 g'), teardown('plate 1.01 kg ±20 g', RIGHT, 500));
    expect(said(close)[1]).toMatch(/weigh the same as far as the weighing can tell/);
  });
  it('says that nothing is weighed or costed rather than compare with zero', () => {
    const bare = recordOf(teardown('plate'), teardown('plate 1 kg', RIGHT, 500));
    expect(said(bare)[1]).toBe('The masses cannot be compared: nothing on Left van is weighed yet.');
    expect(said(bare)[2]).toBe('The costs cannot be compared: nothing on Left van is costed yet.');
    expect(comparisonGaps(compared(bare))).toEqual([
      'Left van: 1 part of 1 without mass',
      'Left van: 1 part of 1 without cost',
      'Right van: 1 part of 1 without cost',
    ]);
  });
  it('says when counts are the same', () => {
    expect(said(recordOf(teardown('plate 1 kg'), teardown('plate 1 kg', RIGHT, 500)))[0]).toBe(
      'Left van has 1 part or fastener, the same as Right van.',
    );
  });
});

describe('what a row of a comparison holds', () => {
  const rowsOf = (left: string, right: string, more: Partial<StudyRecord['study']> = {}): Comparison =>
    compared({ ...recordOf(teardown(left), teardown(right, RIGHT, 500)), study: { ...STUDY, ...more } });
  const find = (rows: readonly CompareRow[], key: string): CompareRow | undefined => rows.find((r) => r.key === key);

  it('is a difference and a ratio where both sides have the figure, and neither where one is absent', () => {
    const { totals } = rowsOf('plate dc04 2 kg', 'plate dc04');
    expect(find(totals, 'total mass')).toMatchObject({
      left: 2,
      right: null,
      difference: null,
      ratio: null,
      leftMark: 'M',
      rightMark: null,
    });
    expect(find(totals, 'total parts')).toMatchObject({ left: 1, right: 1, difference: 0, ratio: 1 });
    expect(find(rowsOf('plate dc04', 'plate dc04 2 kg').totals, 'total mass')).toMatchObject({
      left: null,
      right: 2,
      difference: null,
      ratio: null,
    });
  });
  it('is 0 for a material that a side does without, where all of it is known, and absent where some of it is not', () => {
    const evidence = rowsOf('plate dc04 2 kg', 'arm pom 1 kg').byMaterial;
    expect(find(evidence, 'DC04 mass')).toMatchObject({ left: 2, right: 0, difference: 2, ratio: null });
    expect(find(evidence, 'POM mass')).toMatchObject({ left: 0, right: 1, difference: -1, ratio: null });
    const unknown = rowsOf('plate dc04 2 kg', 'arm pom 1 kg\nlever 1 kg').byMaterial;
    expect(find(unknown, 'DC04 mass')).toMatchObject({ left: 2, right: null, difference: null });
    expect(find(rowsOf('plate dc04 2 kg', '').byMaterial, 'DC04 mass')?.right).toBeNull();
  });
  it('never says that a side has 0 fasteners because none are recorded', () => {
    const rows = rowsOf('plate dc04 2 kg\n  4 M6x16 5 g', 'plate dc04 1 kg').byMaterial;
    expect(find(rows, 'fasteners parts')).toMatchObject({ left: 4, right: null, difference: null });
    expect(find(rows, 'fasteners mass')?.left).toBeCloseTo(0.02, 12);
  });
  it('leaves fasteners out of parts and of the split where the study counts them apart', () => {
    const { totals, byMaterial } = rowsOf('plate dc04 2 kg\n  4 M6x16 5 g', 'plate dc04 1 kg', { fastenersIn: false });
    expect(find(totals, 'total parts')).toMatchObject({ label: 'Parts', left: 1, right: 1 });
    expect(find(totals, 'total fasteners')).toMatchObject({ left: 4, right: null });
    expect(byMaterial.filter((r) => r.label === 'fasteners')).toEqual([]);
    expect(find(rowsOf('plate dc04 2 kg', 'plate dc04 1 kg').totals, 'total parts')?.label).toBe('Parts and fasteners');
    expect(find(totals, 'total joints')?.label).toBe('Joints');
  });
  it('tells how much of a side is costed: a bought assembly covers what is inside it, by mass', () => {
    const record = recordOf(teardown('latch\n  case 300 g\n  spring 100 g\nlever 600 g'), teardown('plate dc04 stamp 1 kg', RIGHT, 500));
    const bought = {
      ...{ boughtPrice: '7.40', boughtCurrency: 'EUR', boughtPriceYear: 2026, boughtVolumePerYear: 60_000, boughtRegion: 'Central Europe' },
    };
    const priced = { ...record, parts: record.parts.map((p) => (p.name === 'latch' ? { ...p, ...bought } : p)) };
    // by hand: case and spring are in the price, 0.4 of 1.0 kg; the lever is not
    expect(compared(priced).left.costed.massFraction).toBeCloseTo(0.4, 12);
    expect(compared(record).left.costed.massFraction).toBe(0);
    expect(compared(priced).right.costed).toEqual({ parts: 1, ofParts: 1, massFraction: 1 });
    expect(rowsOf('plate dc04 stamp', 'plate dc04 stamp').left.costed.massFraction).toBeNull();
    // two of each weigh twice as much: 2 × 2 kg costed of 5 kg
    expect(rowsOf('2x frame\n  plate dc04 stamp 2 kg\nlever 1 kg', '').left.costed.massFraction).toBeCloseTo(0.8, 12);
  });
  /** @source JCGM 100:2008 (GUM), eq. 10 for a difference, eq. 12 for a ratio; both sides independent */
  it('tells how sure each figure is, and with it the difference and the ratio', () => {
    const { totals, byMaterial } = compared(
      recordOf(
        teardown('plate dc04 stamp 2.000 kg ±60 g\narm aw-6082 ext 1.000 kg ±80 g'),
        teardown('plate dc04 stamp 1.000 kg ±40 g', RIGHT, 500),
      ),
    );
    const mass = total(totals, 'mass');
    expect([mass.leftU, mass.rightU]).toEqual([expect.closeTo(0.05, 12), expect.closeTo(0.02, 12)]);
    expect(mass.differenceU).toBeCloseTo(Math.hypot(0.05, 0.02), 12);
    expect(mass.ratioU).toBeCloseTo(3 * Math.hypot(0.05 / 3, 0.02 / 1), 12);
    const steel = byMaterial.find((r) => r.label === 'DC04' && r.measure === 'mass');
    expect([steel?.leftU, steel?.rightU]).toEqual([expect.closeTo(0.03, 12), expect.closeTo(0.02, 12)]);
    const aluminium = byMaterial.find((r) => r.label === 'EN AW-6082' && r.measure === 'mass');
    expect([aluminium?.right, aluminium?.rightU, aluminium?.ratioU]).toEqual([0, null, null]);
  });
  it('tells a count that is a range as one', () => {
    const { totals, byMaterial } = compared(
      recordOf(
        teardown('2x module\n  8-12x clamp dc04 stamp 10 g\n    3+ clip\n  arm dc04 stamp 1 kg'),
        teardown('plate dc04 stamp 1 kg', RIGHT, 500),
      ),
    );
    expect(total(totals, 'parts')).toMatchObject({ left: 18 + 48, leftRange: { low: 66, high: null }, rightRange: null });
    expect(total(totals, 'fasteners').leftRange).toEqual({ low: 48, high: null });
    const steel = byMaterial.filter((r) => r.label === 'DC04');
    expect(steel.find((r) => r.measure === 'parts')).toMatchObject({ left: 18, leftRange: { low: 18, high: 26 }, rightRange: null });
  });
  it('is none of a vehicle or a subsystem that is not there', () => {
    const [record, nobody] = [DOORS, '00000000-0000-4000-8000-999999999999'];
    const rollUp = studyRollUp(record);
    expect(compareVehicles(record, rollUp, LEFT.id, nobody, DOOR.id)).toBeNull();
    expect(compareVehicles(record, rollUp, nobody, RIGHT.id, DOOR.id)).toBeNull();
    expect(compareVehicles(record, rollUp, LEFT.id, RIGHT.id, nobody)).toBeNull();
  });
});

/** @source papaparse reading back; the apostrophe rule as commonly advised against formula injection */
describe('the comparison as a file', () => {
  it('stands on its basis, and reads back figure for figure', () => {
    const csv = comparisonCsv(compared(DOORS), STUDY, 'Sliding cargo door');
    const rows = Papa.parse<string[]>(csv).data;
    expect(rows.slice(0, 4)).toEqual([
      ['study', 'Test study'],
      ['subsystem', 'Sliding cargo door'],
      ['counting rule', 'loose parts + fasteners'],
      ['cost basis', 'EUR 2026, 60000 vehicles a year for 7 years, Central Europe'],
    ]);
    expect(rows.find((r) => r[0] === 'total' && r[2] === 'mass')).toEqual([
      'total',
      '',
      'mass',
      'kg',
      '3.14',
      '1.492',
      '1.648',
      '2.104558',
      // weighed to the kilogram, ± 0.5 kg without preference, and a guide to 10 g: left √(2 × 0.2887² + 0.0029²)
      ...['0.40825074', '0.2886812', '0.5000055', '0.49059697', '', '', 'M', 'M'],
    ]);
    const [head, joints] = [rows[5], rows.find((r) => r[2] === 'joints')];
    expect(head?.slice(8)).toEqual([
      ...['standard uncertainty of Left van', 'standard uncertainty of Right van'],
      ...['standard uncertainty of the difference', 'standard uncertainty of the ratio'],
      ...['range of Left van', 'range of Right van', 'weakest evidence of Left van', 'weakest evidence of Right van'],
    ]);
    expect(joints?.slice(4, 7)).toEqual(['12', '', '']);
    expect(rows.find((r) => r[2] === 'joints')?.[7]).toBe('');
    expect(rows[4]).toEqual(['']);
    expect(rows[5]?.slice(0, 8)).toEqual([
      'by',
      'of',
      'measure',
      'unit',
      'Left van',
      'Right van',
      'Left van minus Right van',
      'Left van to Right van',
    ]);
    // a share names what it is of; its parts are parts, and its cost is in the currency of the study
    expect(rows.find((r) => r[0] === 'material' && r[1] === 'DC04' && r[2] === 'parts')?.slice(3, 7)).toEqual(['', '1', '1', '0']);
    expect(rows.find((r) => r[0] === 'process' && r[1] === 'stamping' && r[2] === 'mass')?.slice(3, 7)).toEqual(['kg', '2', '1', '1']);
    expect(rows.find((r) => r[0] === 'total' && r[2] === 'cost')?.[3]).toBe('EUR');
    expect(rows.filter((r) => r[0] === 'in words').map((r) => r[1])).toEqual(comparisonSentences(compared(DOORS), 'EUR').map(plainText));
    const gaps = comparisonCsv(compared(recordOf(teardown('plate'), teardown('plate', RIGHT, 500))), STUDY, 'Door');
    expect(Papa.parse<string[]>(gaps).data).toContainEqual(['not included', 'Left van: 1 part of 1 without mass']);
    expect(csv.split('\r\n')).toHaveLength(rows.length);
  });
  it('defuses names that a spreadsheet would run', () => {
    const hostile = { ...DOORS, vehicles: DOORS.vehicles.map((v) => ({ ...v, name: '=HYPERLINK("x")' })) };
    expect(
      Papa.parse<string[]>(comparisonCsv(compared(hostile), STUDY, 'Door'))
        .data.flat()
        .filter((c) => c.startsWith('=')),
    ).toEqual([]);
  });
});

describe('what a comparison must not say', () => {
  const sentencesOf = (left: string, right: string): readonly string[] =>
    comparisonSentences(compared(recordOf(teardown(left), teardown(right, RIGHT, 500))), 'EUR').map(plainText);
  it('that there are 0 of what is not recorded', () => {
    const sentences = sentencesOf('plate dc04 stamp 2 kg\n  186 spot\n  4 M6x16 5 g', '');
    expect(sentences.join(' ')).not.toMatch(/against 0|\b0 (?:parts|joints|fasteners)|the same as/);
    expect(sentences).toContain(`${LEFT.name} has 186 joints; none are recorded on ${RIGHT.name} yet, so they cannot be compared.`);
  });
  it('that two sides with nothing recorded have the same', () => {
    expect(
      sentencesOf('plate dc04 stamp 2 kg', 'plate dc04 stamp 1 kg').filter((s) => /joint|fastener/.test(s) && !s.includes('part')),
    ).toEqual([]);
  });
  it('that one is dearer where 1 of 21 parts is costed against 2 of 16', () => {
    const plain = (n: number): string => Array.from({ length: n }, (_, i) => `part ${'abcdefghijklmnopqrs'[i] ?? 'uu'} 100 g`).join('\n');
    const cost = sentencesOf(`${plain(20)}\nplate dc04 stamp 2 kg`, `${plain(14)}\nplate dc04 stamp 1 kg\narm dc04 stamp 1 kg`).find((s) =>
      /cost/i.test(s),
    );
    expect(cost).toBe(
      `The costs cannot be compared yet: costed are 1 of 21 parts and 50 % of the mass on ${LEFT.name}, 2 of 16 parts and 59 % of the mass on ${RIGHT.name}.`,
    );
  });
  it('anything of costs without a word on what is left out, where a few parts are', () => {
    const most = Array.from({ length: 9 }, (_, i) => `plate ${'abcdefghi'[i]} dc04 stamp 1 kg`).join('\n');
    const cost = sentencesOf(`${most}\nclock 1 kg`, `${most}\narm dc04 stamp 1 kg\nclock 1 kg`).find((s) => s.includes('costly'));
    expect(cost).toMatch(/Costed are 9 of 10 parts and 90 % of the mass on .*, 10 of 11 parts and 91 % of the mass on .*\.$/);
  });
  it('in its CSV that parts with fasteners are parts', () => {
    const study = { ...STUDY, fastenersIn: true };
    const comparison = compared({ ...DOORS, study });
    const lines = Papa.parse<string[]>(comparisonCsv(comparison, study, 'Door')).data;
    expect(lines.filter(([by]) => by === 'total').map(([, , measure]) => measure)).toContain('parts and fasteners');
    expect(lines.filter(([by]) => by === 'total').map(([, , measure]) => measure)).not.toContain('parts');
  });
});
