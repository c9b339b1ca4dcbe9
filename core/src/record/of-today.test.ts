import { STUDY, recordOf, teardown } from '../../testing/teardown';
import { BARE_ROWS, FULL_ROWS, ROW_ID } from '../../testing/rows';
import { applyOps, namedRows } from './apply-ops';
import { blank } from './blank';
import { ENTITIES, type Op, type StudyRecord } from './entities';
import { evidence } from './evidence';
import { changeOfToday, isPartOfMass, massesOf, opOfToday, recordOfToday, type Masses } from './of-today';
import { netEffect } from './net-effect';
import { readChange } from './read-change';

const ID = '00000000-0000-4000-8000-000000000001';

describe('what an older version wrote', () => {
  it('is a record of today: new kinds are empty, new fields hold nothing, old values stay', () => {
    const today = recordOf(teardown('plate 1 kg'));
    const { candidates: _c, packages: _p, ...rest } = today;
    const { choiceWeights: _w, calendar: _k, ...study } = today.study;
    const parts = today.parts.map(({ xM: _x, yM: _y, zM: _z, ...part }) => part);
    const old = { ...rest, study, parts } as unknown as typeof today;
    expect(recordOfToday(old)).toEqual(today);
    expect(recordOfToday({ ...today, study: { ...STUDY, title: 'kept' } }).study.title).toBe('kept');
  });
  it('is still a valid change', () => {
    const { xM: _x, yM: _y, zM: _z, ...fields } = { ...blank('part', { vehicleId: ID, subsystemId: ID, parentId: null }), name: 'plate' };
    const read = readChange({ id: ID, ops: [{ kind: 'part.add', id: ID, fields }], undoes: null });
    expect(read.ok && read.value.ops[0]).toMatchObject({ fields: { name: 'plate', xM: null } });
  });
  it('does not come to hold what it must: a change without a name stays wrong', () => {
    const { name: _name, ...fields } = blank('part', { vehicleId: ID, subsystemId: ID, parentId: null });
    expect(readChange({ id: ID, ops: [{ kind: 'part.add', id: ID, fields }], undoes: null }).ok).toBe(false);
  });
  it('is not touched where it is of today, or nothing at all', () => {
    for (const op of [
      null,
      'x',
      { kind: 'part.edit', id: ID, fields: 'x' },
      { kind: 'no.such', id: ID },
      { kind: 'part.edit', id: ID, fields: {} },
    ])
      expect(opOfToday(op)).toBe(op);
    for (const entity of ENTITIES.filter((e) => e !== 'study'))
      for (const fields of [FULL_ROWS[entity], BARE_ROWS[entity]]) {
        const op = { kind: `${entity}.add`, id: ROW_ID[entity], fields };
        expect(opOfToday(op)).toBe(op);
      }
  });
});

/** A part as versions before 0.7 wrote it. */
const PIECE = {
  ...{ vehicleId: ID, subsystemId: ID, parentId: null, sequence: 0, tag: '', name: 'plate', function: '', quantity: 2, hand: 'none' },
  ...{ materialId: 'dc04', materialDetail: '', processId: null, processDetail: '' },
  ...{ massEachKg: 1.84, massUKg: 0.0029, massEvidence: 'M', massTyped: '1.84 kg' },
  ...{
    lengthM: null,
    widthM: null,
    heightM: null,
    wallThicknessM: 0.0008,
    runLengthM: null,
    runDiameterM: null,
    xM: null,
    yM: null,
    zM: null,
  },
  ...{
    location: '',
    markings: '',
    supplier: '',
    opened: null,
    closedReason: '',
    closedRisk: '',
    seenOutside: '',
    damage: '',
    damageFrom: null,
  },
  ...{ notes: '', boughtPrice: null, boughtCurrency: null, boughtPriceYear: null, boughtVolumePerYear: null, boughtRegion: null },
  known: {
    massEachKg: evidence('M', { instrument: 'Bench scale', source: 'serial number 4471' }),
    quantity: evidence('P', { low: 2, high: 3 }),
  },
};
const SAID = evidence('M', { u: 0.0029, typed: '1.84 kg', instrument: 'Bench scale', source: 'serial number 4471' });

describe('a mass with fields of its own for its uncertainty, mark and typed text', () => {
  it('has them in its evidence, with what was said of it there, and a row without a mass has none', () => {
    const added = opOfToday({ kind: 'piece.add', id: ID, fields: PIECE }) as { kind: string; fields: object };
    expect(added).toMatchObject({ kind: 'part.add', fields: { massEachKg: 1.84, evidence: { massEachKg: SAID, quantity: { low: 2 } } } });
    expect(Object.keys(added.fields).sort()).toEqual(Object.keys(FULL_ROWS.part).sort());
    expect(readChange({ id: ID, ops: [added], undoes: null }).ok).toBe(true);
    const bare = opOfToday({
      kind: 'piece.add',
      id: ID,
      fields: { ...PIECE, massEachKg: null, massUKg: null, massEvidence: null, massTyped: null },
    });
    expect((bare as { fields: { evidence: object } }).fields.evidence).toEqual({ quantity: PIECE.known.quantity });
  });
  const edit = (was: object, fields: object) => ({ kind: 'piece.edit', id: ID, was, fields });
  const edits = [
    [
      'another figure alone',
      edit({ massEachKg: 1.84, massTyped: '1.84 kg' }, { massEachKg: 1.86, massTyped: '1.86 kg' }),
      1.86,
      { ...SAID, typed: '1.86 kg' },
    ],
    ['another uncertainty alone', edit({ massUKg: 0.0029 }, { massUKg: 0.01 }), 1.84, { ...SAID, u: 0.01 }],
    ['another mark alone', edit({ massEvidence: 'M' }, { massEvidence: 'T' }), 1.84, { ...SAID, mark: 'T' }],
    [
      'who weighed it alone',
      edit({ known: { massEachKg: PIECE.known.massEachKg } }, { known: { massEachKg: evidence('M', { instrument: 'Floor scale' }) } }),
      ...[1.84, { ...SAID, instrument: 'Floor scale', source: '' }],
    ],
    [
      'no mass any more',
      edit(
        { massEachKg: 1.84, massUKg: 0.0029, massEvidence: 'M', massTyped: '1.84 kg' },
        { massEachKg: null, massUKg: null, massEvidence: null, massTyped: null },
      ),
      ...[null, null],
    ],
  ] as const;
  it.each(edits)('%s: an edit of it is completed by what the row was, and undone to the letter', (_, op, kg, said) => {
    const masses: Masses = new Map();
    const add = opOfToday({ kind: 'piece.add', id: ID, fields: PIECE }, masses) as Op;
    expect(isPartOfMass(op)).toBe(true);
    const before = applyOps(recordOf(), [add], 2);
    const { ops, inverse } = changeOfToday(
      { ops: [op as unknown as Op], inverse: [{ ...op, was: op.fields, fields: op.was } as unknown as Op] },
      masses,
    );
    expect(isPartOfMass(ops[0])).toBe(false);
    expect(readChange({ id: ID, ops, undoes: null }).ok).toBe(true);
    const after = applyOps(before, ops, 3);
    expect(after.parts[0]).toMatchObject({ massEachKg: kg, materialId: 'dc04' });
    expect(after.parts[0]?.evidence.massEachKg ?? null).toEqual(said);
    expect(masses.get(ID)).toMatchObject(kg === null ? { kg } : { kg, said });
    expect(netEffect(ops, namedRows(before, ops), 3).conflicts).toEqual([]);
    expect(netEffect(inverse, namedRows(after, inverse), 4).conflicts).toEqual([]);
    expect(applyOps(after, inverse, 2).parts).toEqual(before.parts);
  });
  it('is learnt from changes of today as from older ones', () => {
    const record = applyOps(recordOf(), [opOfToday({ kind: 'piece.add', id: ID, fields: PIECE }) as Op], 2);
    const masses = massesOf(record);
    const now = {
      kind: 'part.edit',
      id: ID,
      was: { massEachKg: 1.84, evidence: { massEachKg: SAID } },
      fields: { massEachKg: 2, evidence: { massEachKg: evidence('I', { u: 0.1 }) } },
    };
    expect(opOfToday(now, masses)).toBe(now);
    expect(masses.get(ID)).toEqual({ kg: 2, said: evidence('I', { u: 0.1 }) });
  });
  it('of a row that is not known keeps its old fields: the server completes it', () => {
    const op = edit({ massUKg: 0.0029 }, { massUKg: 0.01 });
    expect(opOfToday(op)).toMatchObject({ kind: 'part.edit', fields: { massUKg: 0.01 } });
    expect(isPartOfMass(opOfToday(op))).toBe(true);
  });
  it('is not taken for that of a lift step, whose uncertainty has a field of its own today', () => {
    const step = { kind: 'unload.edit', id: ID, was: { massUKg: 2 }, fields: { massUKg: 3 } };
    expect(opOfToday(step)).toEqual({ ...step, kind: 'liftStep.edit' });
    expect(isPartOfMass(step)).toBe(false);
  });
});

describe('names that every object has', () => {
  it('are taken for no word of before, and for no kind of record', () => {
    for (const name of ['constructor', '__proto__', 'toString', 'hasOwnProperty']) {
      const op = JSON.parse(`{"kind":"${name}.add","id":"${ID}","fields":{"${name}":"name","aboutKind":"${name}"}}`) as object;
      expect(opOfToday(op)).toBe(op);
    }
  });
});

describe('words of before', () => {
  it.each([
    ['hoist.add', 'liftSetUp.add', { pads: [] }, { pads: [] }],
    ['gate.edit', 'holdPoint.edit', { value: 1 }, { value: 1 }],
    ['gauge.add', 'gaugeStudy.add', { parts: ['a', 'b'] }, { parts: ['a', 'b'] }],
    ['pattern.add', 'holePattern.add', { pieceId: ID }, { partId: ID }],
    ['scope.edit', 'scope.edit', { depth: 'pieces', expectedPieces: 4 }, { depth: 'parts', expectedParts: 4 }],
    ['package.edit', 'package.edit', { leastS: 1, likelyS: 2, mostS: 3 }, { optimisticS: 1, mostLikelyS: 2, pessimisticS: 3 }],
    ['step.edit', 'step.edit', { pieces: [ID] }, { parts: [ID] }],
    ['study.edit', 'study.edit', { assembliesAs: 'pieces' }, { assembliesAs: 'parts' }],
    ['question.edit', 'question.edit', { aboutKind: 'piece' }, { aboutKind: 'part' }],
    ['reading.edit', 'reading.edit', { aboutKind: 'gate', note: 'pieces' }, { aboutKind: 'holdPoint', note: 'pieces' }],
    ['scan.edit', 'scan.edit', { figures: { smallestM: [1, 2, 3] } }, { figures: { minimumM: [1, 2, 3] } }],
    ['joints.edit', 'joints.edit', { known: { count: null } }, { evidence: { count: null } }],
  ])('%s is %s', (kind, now, fields, of) => {
    const op = { kind, id: ID, was: fields, fields };
    expect(opOfToday(op)).toEqual({ kind: now, id: ID, was: of, fields: of });
  });
  it('of a whole record: every list under its name of today, rows and all', () => {
    const old = {
      revision: 2,
      study: { ...STUDY, assembliesAs: 'pieces' },
      pieces: [{ id: ID, version: 2, ...PIECE }],
      hoists: [],
      gates: [],
    };
    const { pieces, hoists, ...record } = recordOfToday(old as unknown as StudyRecord) as StudyRecord & {
      pieces?: unknown;
      hoists?: unknown;
    };
    expect([pieces, hoists, record.liftSetUps, record.fluids]).toEqual([undefined, undefined, [], []]);
    expect(record.study.assembliesAs).toBe('parts');
    expect(record.parts).toMatchObject([{ id: ID, version: 2, evidence: { massEachKg: SAID } }]);
  });
});
