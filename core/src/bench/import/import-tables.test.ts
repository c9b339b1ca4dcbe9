import { strToU8, zipSync } from 'fflate';
import { workbook } from '../../../testing/workbook';
import { columnKey, columnOfKey, guessHeading, headingsOf, suggestColumn, suggestColumns } from './headings';
import { encodingOf, openTable, openText } from './open-table';
import { mendKey, readTable, unknownValues, type ReadOptions } from './read-parts';
import { TableReader, type SheetHead } from './table-reader';

const headOf = async (bytes: Uint8Array): Promise<SheetHead> => (await new TableReader().open(bytes, null)).sheets[0]!;
const utf16 = (text: string, isLow: boolean): Uint8Array =>
  Uint8Array.from(
    Array.from(text).flatMap((c) =>
      isLow ? [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8] : [c.charCodeAt(0) >> 8, c.charCodeAt(0) & 255],
    ),
  );
const latin1 = (text: string): Uint8Array => Uint8Array.from(Array.from(text).map((c) => c.charCodeAt(0)));

describe('the encoding of a text file', () => {
  const text = 'name;Stärke\nTürblech;0,8 mm';
  it.each([
    ['UTF-8', strToU8(text), 'utf-8'],
    ['UTF-8 with its mark', strToU8(`\ufeff${text}`), 'utf-8'],
    ['Latin-1, as older programs save it', latin1(text), 'windows-1252'],
    ['UTF-16 with its mark', utf16(`\ufeff${text}`, true), 'utf-16le'],
    ['UTF-16 the other way round', utf16(`\ufeff${text}`, false), 'utf-16be'],
    ['UTF-16 without a mark', utf16(text, true), 'utf-16le'],
    ['UTF-16 without a mark, the other way round', utf16(text, false), 'utf-16be'],
  ])('is recognised: %s', async (_, bytes, encoding) => {
    expect(encodingOf(bytes)).toBe(encoding);
    expect((await openTable(bytes)).sheets[0]?.rows).toEqual([
      ['name', 'Stärke'],
      ['Türblech', '0,8 mm'],
    ]);
  });
  it('can be said otherwise', async () => {
    expect((await openTable(strToU8('name\nTür'), 'windows-1252')).sheets[0]?.rows[1]).toEqual(['TÃ¼r']);
  });
});

describe('a workbook', () => {
  it('has its sheets; days are days, formulas their values, numbers without float noise', async () => {
    const bytes = workbook({
      Door: [
        ['Benennung', 'Gewicht [g]', 'seen on'],
        ['Türblech', 0.1 + 0.2, { day: 46176 }],
        ['Griff & Hebel', { f: 'B2*2', v: 0.6 }, null],
      ],
      Notes: [['nothing here']],
    });
    const { sheets, issues, encoding } = await openTable(bytes);
    expect([issues, encoding]).toEqual([[], null]);
    expect(sheets.map(({ name }) => name)).toEqual(['Door', 'Notes']);
    // day 46176 counted from 1899-12-30 is 2026-06-03
    expect(sheets[0]?.rows).toEqual([
      ['Benennung', 'Gewicht [g]', 'seen on'],
      ['Türblech', '0.3', '2026-06-03'],
      ['Griff & Hebel', '0.6', ''],
    ]);
  });
  it('keeps the lines as they are numbered in it, empty ones too', async () => {
    const rows = [[], [null, null], ['name', 'mass'], [], ['plate', '1 kg']];
    const [sheet] = (await openTable(workbook({ Door: rows }))).sheets;
    expect(sheet!.rows.findIndex((row) => row.includes('plate'))).toBe(4);
    const { headingRow } = await headOf(workbook({ Door: rows }));
    expect(readTable(sheet!.rows, { headingRow, columns: ['name', 'mass'].map(columnOfKey) }).rows).toMatchObject([
      { line: 5, faults: [] },
    ]);
  });
  it('whose formulas failed says which cells are read as empty', async () => {
    const { sheets, notes } = await openTable(
      workbook({
        Door: [
          ['name', 'mass'],
          ['plate', { error: '#N/A' }],
          [{ error: '#REF!' }, 1],
        ],
      }),
    );
    expect(sheets[0]?.rows[1]).toEqual(['plate', '']);
    expect(notes).toEqual(['2 cells with an error such as #N/A read as empty: B2, A3']);
  });
  it('that unpacks to more than there is room for is refused unread', async () => {
    const bytes = zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(301_000_000) }, { level: 1 });
    expect(bytes.length).toBeLessThan(20_000_000);
    expect((await openTable(bytes)).issues).toMatchObject([
      { code: 'too-large', message: expect.stringContaining('unpacks to 301 MB') as string },
    ]);
  });
  it('with merged headings has what heads several columns before each of them, and a title above is no heading', async () => {
    const rows = [
      ['Teardown of the door', null, null, null],
      ['Benennung', 'Masse', null, 'Werkstoff'],
      [null, 'each', 'in all', null],
      ['plate', '1 kg', '2 kg', 'DC04'],
    ];
    const { sheets } = await openTable(
      workbook({ Door: rows }, '<mergeCells count="2"><mergeCell ref="A1:D1"/><mergeCell ref="B2:C2"/></mergeCells>'),
    );
    expect(guessHeading(sheets[0]!.rows)).toBe(1);
    expect(headingsOf(sheets[0]!.rows, 2)).toEqual(['Benennung', 'Masse each', 'Masse in all', 'Werkstoff']);
    expect(headingsOf(sheets[0]!.rows, 1)).toEqual(['Benennung', 'Masse', '', 'Werkstoff']);
  });
  it.each([
    ['of the old kind, or locked', Uint8Array.of(0xd0, 0xcf, 0x11, 0xe0, 1), 'old-workbook'],
    ['that is damaged', Uint8Array.of(0x50, 0x4b, 3, 4, 9, 9, 9, 9), 'workbook'],
    ['that is no workbook but another packed file', zipSync({ 'a.txt': strToU8('x') }), 'workbook'],
    ['that is too large', Object.assign(new Uint8Array(20_000_001), [0x50, 0x4b, 3, 4]), 'too-large'],
  ])('%s is refused by what is wrong with it', async (_, bytes, code) => {
    expect((await openTable(bytes)).issues.map((i) => i.code)).toEqual([code]);
  });
});

describe('headings', () => {
  it.each([
    ['Benennung', 'name'],
    ['Anzahl', 'quantity'],
    ['Gewicht [g]', 'mass g'],
    ['Poids', 'mass'],
    ['weight (kg)', 'mass kg'],
    ['Wandstärke [mm]', 'thickness mm'],
    ['Qty.', 'quantity'],
    ['mass_g', 'mass g'],
    ['Farbe', ''],
    // what a kilogram costs is not what the part costs
    ['price [kg]', ''],
  ])('%s is taken for “%s”', (heading, key) => expect(columnKey(suggestColumn(heading))).toBe(key));
  it('two for one column: the first stands', () => {
    expect(suggestColumns(['Part', 'Benennung', 'Mass']).map(columnKey)).toEqual(['name', '', 'mass']);
    expect([columnOfKey('mass g'), columnOfKey('colour'), columnOfKey('')]).toEqual([{ heading: 'mass', unit: 'g' }, null, null]);
  });
});

describe('a file that is put right as it is read', () => {
  const rows = openText('Teil;Werkstoff;Verfahren;Gewicht\nBlech;dc04;Stanzen;36\nHebel;AluX;Stanzen;1 kg\nArm;AluX;Drücken;2 kg')
    .sheets[0]!.rows;
  const options: ReadOptions = { headingRow: 0, columns: ['name', 'material', 'made_by', 'mass'].map(columnOfKey) };
  it('says which words are not known, those of most rows first', () => {
    expect(unknownValues(readTable(rows, options).rows)).toEqual([
      { heading: 'material', value: 'AluX', rows: 2 },
      { heading: 'made_by', value: 'Stanzen', rows: 2 },
      { heading: 'made_by', value: 'Drücken', rows: 1 },
    ]);
  });
  it('translates a word once for all rows, and takes a cell as it was put right', () => {
    const values = { made_by: { stanzen: 'stamp', drücken: 'stamp' }, material: { alux: 'aw-6082' } };
    const { rows: read } = readTable(rows, { ...options, values, mends: { [mendKey(2, 'mass')]: '36 g' } });
    expect(read.map((r) => [r.faults, r.fields.name, r.fields.materialId, r.fields.massEachKg])).toEqual([
      [[], 'Blech', 'dc04', 0.036],
      [[], 'Hebel', 'aw-6082', 1],
      [[], 'Arm', 'aw-6082', 2],
    ]);
  });
  it('tells which words it took for what they were said to mean, and of how many rows', () => {
    const values = { made_by: { stanzen: 'stamp' } };
    expect(readTable(rows, { ...options, values }).translated).toEqual([
      { heading: 'made_by', value: 'Stanzen', meaning: 'stamp', rows: 2 },
    ]);
  });
  it('takes bare numbers in the unit that is said of their column', () => {
    const columns = ['name', '', '', 'mass g'].map(columnOfKey);
    expect(readTable(rows, { headingRow: 0, columns }).rows[0]).toMatchObject({ faults: [], fields: { massEachKg: 0.036 } });
  });
  it('takes what is said of a column the file does not have', () => {
    const closed = openText('name,opened\nlock,closed').sheets[0]!.rows;
    const as: ReadOptions = { headingRow: 0, columns: ['name', 'opened'].map(columnOfKey) };
    expect(readTable(closed, as).rows[0]?.faults).toMatchObject([
      { heading: 'closed_reason', message: 'Say why the part was left closed' },
    ]);
    const mends = { [mendKey(2, 'closed_reason')]: 'held back' };
    expect(readTable(closed, { ...as, mends }).rows[0]).toMatchObject({ faults: [], fields: { closedReason: 'held back' } });
  });
  it('a row with more cells than the heading is at fault as a whole', () => {
    const wide = openText('name,mass\nplate,1 kg,2').sheets[0]!.rows;
    const mends = { [mendKey(2, 'closed_reason')]: 'x' };
    const { faults } = readTable(wide, { headingRow: 0, columns: ['name', 'mass'].map(columnOfKey), mends }).rows[0]!;
    expect(faults).toMatchObject([{ isOfRow: true }]);
  });
  it('needs the column of the name', () => {
    expect(readTable(rows, { headingRow: 0, columns: [null, null, null, null] }).issues.map((i) => i.code)).toEqual(['no-name-column']);
  });
  it('is held open: its heads, samples and rows, with how far it is', async () => {
    const reader = new TableReader();
    const text = `List of parts\nTeil,Gewicht [g]\n${Array.from({ length: 5000 }, (_, i) => `Teil ${i},${i + 1}`).join('\n')}`;
    const { sheets } = await reader.open(strToU8(text), null);
    expect(sheets).toMatchObject([
      {
        headingRow: 1,
        headings: ['Teil', 'Gewicht [g]'],
        samples: [
          ['Teil 0', 'Teil 1', 'Teil 2'],
          ['1', '2', '3'],
        ],
      },
    ]);
    const shares: number[] = [];
    const preview = reader.read(0, { headingRow: 1, columns: sheets[0]!.columns }, (share) => shares.push(share));
    expect([preview.rows.length, preview.rows[0]?.line, shares]).toEqual([5000, 3, [0, 0.4, 0.8]]);
  });
});
