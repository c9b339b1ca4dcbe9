import Papa from 'papaparse';
import { basisOf } from '../../cost/part-cost';
import { readChange, type PartFields } from '../../record';
import { DOOR, LEFT, STUDY, testId } from '../../../testing/teardown';
import { CSV_COLUMNS, findColumn } from './csv-columns';
import { importOps, sortRows, withSubsystems } from './import-change';
import { readParts } from './read-parts';

const faultsOf = (text: string): readonly string[] =>
  readParts(text).rows.flatMap((row) => row.faults.map((f) => `${row.line} ${f.heading}: ${f.message}`));
const fileFault = (text: string): readonly string[] => readParts(text).issues.map((i) => i.code);

const GOOD = `no,inside_of,name,quantity,material,made_by,mass,thickness,envelope,fasteners,joints
1,,Carrier module,,,,,,,10 M6x16 T30 8.8 -y,
1.1,1,Carrier plate,,dc04,stamp,1.478 kg,0.8,620x410x35,,6 clinch
1.2,1,"Guide, lock cable",2,pa66-gf30,inj,41 g,,118x22x9,,
`;

describe('a file of parts', () => {
  it('is understood cell by cell, with units', () => {
    const { rows } = readParts(GOOD);
    expect(rows.map((row) => row.faults)).toEqual([[], [], []]);
    expect(rows[1]?.understood).toMatchObject({
      material: 'DC04',
      made_by: 'stamping',
      mass: '1.478 kg',
      thickness: '0.8 mm',
      envelope: '620 × 410 × 35 mm',
      joints: '6 clinch',
    });
    expect(rows[2]?.fields).toMatchObject({ name: 'Guide, lock cable', quantity: 2, massEachKg: 0.041 });
  });
  it('takes semicolons, tabs and a byte order mark', () => {
    expect(readParts('\ufeffname;mass\nplate;1,5 kg').rows[0]?.fields).toMatchObject({ name: 'plate', massEachKg: 1.5 });
    expect(readParts('name\tmass\nplate\t1.5 kg').rows[0]?.fields).toMatchObject({ massEachKg: 1.5 });
  });
  it('takes the unit from the heading', () => {
    expect(readParts('name,mass_g\nplate,41').rows[0]?.fields).toMatchObject({ massEachKg: 0.041 });
    expect(readParts('Name,Mass [kg]\nplate,~1.2').rows[0]?.fields).toMatchObject({
      massEachKg: 1.2,
      evidence: { massEachKg: { mark: 'I' } },
    });
    expect(findColumn('Envelope (cm)')).toEqual({ heading: 'envelope', unit: 'cm' });
  });
  it('names columns that are not ours', () => expect(readParts('name,colour\nplate,red').notRead).toEqual(['colour']));
  it('reads every documented column', () => {
    for (const { heading } of CSV_COLUMNS) expect(findColumn(heading.toUpperCase().replaceAll('_', ' '))).toEqual({ heading, unit: null });
  });
});

describe('faults in a file', () => {
  it('are told at their line and column, each saying what to do', () => {
    const text = `no,inside_of,name,quantity,material,made_by,mass,envelope,opened,fasteners
1,,Plate,,aluminium,cast,36,620x410,,
2,9,,0,unobtainium,,-3 kg,,closed,12 spot
2,,Lever,,,,1 kg 2 kg,,ajar,M6x16
`;
    expect(faultsOf(text)).toEqual([
      expect.stringMatching(/^2 material: “aluminium” is not a grade; one of: aw-5754/),
      expect.stringMatching(/^2 made_by: “cast” could be made in several ways; one of: hpdc/),
      '2 mass: 36 of what: g or kg?',
      expect.stringMatching(/^2 envelope: 620x410: an envelope has three dimensions/),
      '3 quantity: “0” is not a count from 1 to 100 000',
      '3 material: The catalogue has no material “unobtainium”',
      '3 mass: A mass cannot be negative',
      '3 fasteners: “12 spot” is not a fastener set such as 12 M6x16 T30 8.8 -z',
      '3 name: The name is missing',
      '3 closed_reason: Say why the part was left closed',
      '3 no: “2” stands on more than one row',
      '4 mass: “1 kg 2 kg” is not understood',
      '4 opened: “ajar” is not one of: opened, closed',
      '4 fasteners: “M6x16”: How many? Put the count first',
      '4 no: “2” stands on more than one row',
    ]);
  });
  it('include parents that are missing and rows inside themselves', () => {
    expect(faultsOf('no,inside_of,name\n1,2,a\n2,1,b\n3,7,c\n4,3,d')).toEqual([
      '2 inside_of: The row is inside itself by way of others',
      '3 inside_of: The row is inside itself by way of others',
      '4 inside_of: No row has the no “7”',
    ]);
  });
  it('of the file as a whole stop all of it', () => {
    expect(fileFault('')).toEqual(['empty-file']);
    expect(fileFault('name,mass')).toEqual(['empty-file']);
    expect(fileFault('mass\n1 kg')).toEqual(['no-name-column']);
    expect(fileFault('name,mass_g,mass_kg\nplate,1,')).toEqual(['column-twice']);
    expect(fileFault('name\n"plate')).toEqual(['quotes']);
  });
  it('include broken characters and a cell too many', () => {
    expect(faultsOf('name\npl\ufffdte')[0]).toMatch(/UTF-8/);
    expect(faultsOf('name,mass\nplate,1 kg,,left over')[0]).toMatch(/4 cells, the heading 2/);
  });
});

describe('what is loaded', () => {
  const place = { vehicleId: LEFT.id, subsystemId: DOOR.id, subsystems: [DOOR], basis: basisOf(STUDY), sequence: 7 };
  const ids = (): (() => string) => {
    let n = 9000;
    return () => testId(n++);
  };
  it('leaves rows with faults out, and what is inside them with them', () => {
    const { rows } = readParts('no,inside_of,name,mass\n1,,a,5\n1.1,1,b,1 kg\n1.1.1,1.1,c,1 kg\n2,,d,1 kg');
    const { load, faulty, insideFaulty } = sortRows(rows);
    expect([load, faulty, insideFaulty].map((list) => list.map((row) => row.fields.name))).toEqual([['d'], ['a'], ['b', 'c']]);
  });
  it('is one change that the ledger takes, parents first', () => {
    const ops = importOps(sortRows(readParts(GOOD).rows).load, place, ids());
    expect(readChange({ id: testId(1), ops, undoes: null }).ok).toBe(true);
    expect(ops.map((op) => op.kind)).toEqual(['part.add', 'part.add', 'part.add', 'fasteners.add', 'joints.add']);
    const [module, plate] = ops as readonly { id: string; fields: PartFields }[];
    expect(module?.fields).toMatchObject({ subsystemId: DOOR.id, parentId: null, sequence: 7 });
    expect(plate?.fields).toMatchObject({ subsystemId: null, parentId: module?.id, sequence: 8 });
  });
  it('puts prices on the basis of the study', () => {
    const [op] = importOps(readParts('name,price\nlatch,7.40').rows, place, ids()) as readonly { fields: PartFields }[];
    expect(op?.fields).toMatchObject({
      boughtPrice: '7.40',
      boughtCurrency: 'EUR',
      boughtPriceYear: 2026,
      boughtVolumePerYear: 60_000,
      boughtRegion: 'Central Europe',
    });
  });
  it('goes to the subsystem a row names, which must be in the study', () => {
    const rows = withSubsystems(readParts('name,subsystem\na,sliding CARGO door\nb,Roof').rows, [DOOR]);
    expect(rows.map((row) => row.faults.map((f) => f.message))).toEqual([[], ['The study has no subsystem “Roof”']]);
  });
  it('keeps any name through the file and back', () => {
    const name = 'seal, "upper"; left';
    expect(readParts(Papa.unparse([['name'], [name]])).rows[0]?.fields.name).toBe(name);
  });
});
