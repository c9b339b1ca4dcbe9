import { parseLine, settle } from './parse-line';
import type { Entry, FastenerEntry, JointEntry, PartEntry } from './entry';

const entryOf = (line: string): Entry | null => {
  const parsed = parseLine(line);
  expect(parsed.questions.map((q) => q.message)).toEqual([]);
  return parsed.entry;
};
const part = (line: string): PartEntry => entryOf(line) as PartEntry;
const fasteners = (line: string): FastenerEntry => entryOf(line) as FastenerEntry;
const joints = (line: string): JointEntry => entryOf(line) as JointEntry;
const asked = (line: string): readonly string[] => parseLine(line).questions.map((q) => q.code);
const choices = (line: string): readonly string[] => parseLine(line).questions.flatMap((q) => q.choices.map((c) => c.replacement));

describe('a line that records a part', () => {
  it('reads count, name, material, process and mass each', () => {
    expect(part('2x bracket, hose guide pa66-gf30 inj 41 g')).toEqual({
      evidence: {},
      kind: 'part',
      quantity: 2,
      name: 'bracket, hose guide',
      materialId: 'pa66-gf30',
      materialDetail: '',
      processId: 'injection-moulding',
      mass: { eachKg: 0.041, uKg: expect.closeTo(0.001 / Math.sqrt(12), 12) as number, mark: 'M', typed: '41 g' },
      wallThicknessM: null,
      envelopeM: null,
      runLengthM: null,
      runDiameterM: null,
      hand: 'none',
      tag: '',
      together: false,
    });
  });
  it('reads thickness and envelope in mm', () => {
    expect(part('carrier plate dc04 stamp t0.8 620x410x35 1.84 kg')).toMatchObject({
      name: 'carrier plate',
      materialId: 'dc04',
      processId: 'stamping',
      wallThicknessM: 0.0008,
      envelopeM: [0.62, 0.41, 0.035],
      mass: { eachKg: 1.84 },
    });
  });
  it('takes other units where they are said', () => {
    expect(part('box 62x41x3.5 cm')).toMatchObject({ envelopeM: [0.62, 0.41, 0.035] });
    expect(choices('plate t3/8')).toEqual(['t3/8 in', 't3/8 mm']);
    expect(part('plate t3/8 in')).toMatchObject({ wallThicknessM: 0.009525 });
    expect(part('plate t0.375in 2 lb')).toMatchObject({ wallThicknessM: 0.009525, mass: { eachKg: 0.90718474 } });
  });
  it('keeps words that match nothing in the name, with their commas', () => {
    expect(part('seal, door opening side, upper epdm 1.2 kg').name).toBe('seal, door opening side, upper');
  });
  it('reads codes wherever they stand, whatever their case, with commas between', () => {
    expect(part('PA66-GF30, INJ, 41 g, bracket')).toMatchObject({
      name: 'bracket',
      materialId: 'pa66-gf30',
      processId: 'injection-moulding',
    });
  });
  it('reads run length, hand and tag', () => {
    expect(part('hose, drain epdm run 1.4 m lh #DR2-7')).toMatchObject({
      name: 'hose, drain',
      runLengthM: 1.4,
      hand: 'left',
      tag: 'DR2-7',
    });
    expect(part('mirror cap lh/rh').hand).toBe('mirrored');
  });
  it('marks an estimate as inferred and gives it a tenth of itself as uncertainty', () => {
    expect(part('rail ~1.2 kg').mass).toMatchObject({ eachKg: 1.2, mark: 'I', uKg: expect.closeTo(0.12, 12) as number });
  });
  it('marks a mass to be confirmed', () => {
    expect(part('rail 1.2 kg ?').mass).toMatchObject({ eachKg: 1.2, mark: '?' });
    expect(part('rail ~1.2 kg?').mass).toMatchObject({ mark: '?', uKg: expect.closeTo(0.12, 12) as number });
  });
  it('takes a stated uncertainty as expanded, k = 2', () =>
    expect(part('rail 41 g ±2 g').mass).toMatchObject({ eachKg: 0.041, uKg: 0.001 }));
  it('shares a mass given in all among the count, with its uncertainty', () => {
    const { kind, mass } = part('12x clip, hose total 492 g');
    expect(kind).toBe('part');
    expect(mass).toMatchObject({ eachKg: 0.041, typed: 'total 492 g' });
    expect(mass?.uKg).toBeCloseTo(0.001 / Math.sqrt(12) / 12, 12);
  });
  it('takes text in quotation marks as it stands', () => {
    expect(part('"dc04 sample 12" steel-unknown 3 kg').name).toBe('dc04 sample 12');
  });
});

describe('what is never guessed', () => {
  it('asks for the unit of a mass', () => {
    const parsed = parseLine('bracket 41');
    expect(parsed.entry).toBeNull();
    expect(parsed.questions).toMatchObject([{ code: 'mass-without-unit', message: '41 of what: g or kg?', start: 8, end: 10 }]);
    expect(choices('bracket 41')).toEqual(['41 g', '41 kg', '"41"']);
  });
  it('asks which grade, when only a family is named', () => {
    expect(asked('arm aluminium 300 g')).toEqual(['material-family']);
    expect(choices('arm aluminium 300 g')).toContain('alsi10mnmg');
    expect(choices('arm aluminium 300 g')).toContain('aluminium-unknown');
  });
  it('asks how, when “cast” could be three processes', () =>
    expect(choices('arm cast')).toEqual(['hpdc', 'gravity-casting', 'sand-casting', '"cast"']));
  it('asks whether a comma is a decimal sign or thousands', () => expect(choices('rail 1,840 kg')).toEqual(['1.840 kg', '1840 kg']));
  it('asks what a length measures', () => expect(choices('hose 1.4 m')).toEqual(['run 1.4 m', 't1.4 m', '"1.4 m"']));
  it('asks whether a counted fastener word is a set or parts', () =>
    expect(choices('12x clip 3 g')).toEqual(['12 clip 3 g', '12x "clip" 3 g']));
  it('asks whether a leading number is the count or part of the name', () => expect(choices('3 bracket')).toEqual(['3x', '"3"']));
  it.each([
    ['two masses', 'rail 1 kg 2 kg', 'said-twice'],
    ['no name', 'dc04 stamp 1 kg', 'no-name'],
    ['a mass of zero', 'rail 0 g', 'mass-zero'],
    ['a count of zero', '0x rail', 'count-limit'],
    ['two dimensions', 'rail 620x410', 'two-dimensions'],
    ['a direction on a part', 'rail -z', 'direction-of-what'],
    ['a stray ?', 'rail ? dc04', 'lone-mark'],
    ['an open quotation mark', 'rail "left', 'open-quote'],
    ['a run without unit', 'hose run 1.4', 'length-without-unit'],
    ['a mass beyond all vans', 'rail 400 t', 'mass-limit'],
  ])('asks about %s', (_, line, code) => expect(asked(line)).toContain(code));
  it('is settled by choosing: the answer takes the place of the question', () => {
    const line = 'bracket aluminium 41';
    const [grade] = parseLine(line).questions;
    const once = settle(line, grade as never, 'aw-6082');
    const [unit] = parseLine(once).questions;
    expect(part(settle(once, unit as never, '41 g'))).toMatchObject({ name: 'bracket', materialId: 'aw-6082', mass: { eachKg: 0.041 } });
  });
});

describe('a line that records a fastener set', () => {
  it('reads count, thread, length, drive, grade and direction', () => {
    expect(fasteners('12 M6x16 T30 8.8 -z')).toEqual({
      evidence: {},
      kind: 'fasteners',
      count: 12,
      fastenerKind: 'bolt',
      threadM: 0.006,
      pitchM: null,
      lengthM: 0.016,
      drive: 'T30',
      grade: '8.8',
      direction: '-z',
      tighteningNm: null,
      breakawayNm: null,
      access: null,
      tool: '',
      removed: null,
      mass: null,
      note: '',
    });
  });
  it('tells a fine pitch from a length', () => {
    expect(fasteners('4 M8x1x30')).toMatchObject({ threadM: 0.008, pitchM: 0.001, lengthM: 0.03 });
    expect(fasteners('2 M10x1.25')).toMatchObject({ pitchM: 0.00125, lengthM: null });
    expect(fasteners('2 M10x1.5x40')).toMatchObject({ pitchM: null, lengthM: 0.04 });
  });
  it('reads nuts, washers, clips and tapping screws', () => {
    expect(fasteners('4 M8 nut 10')).toMatchObject({ fastenerKind: 'nut', grade: '10' });
    expect(fasteners('4 washer M8')).toMatchObject({ fastenerKind: 'washer', threadM: 0.008 });
    expect(fasteners('9 clip 3 g -y')).toMatchObject({ fastenerKind: 'clip', mass: { eachKg: 0.003 }, direction: '-y' });
    expect(fasteners('3 screw 4.8x16 T20')).toMatchObject({ fastenerKind: 'screw', threadM: 0.0048, lengthM: 0.016 });
    expect(fasteners('5 push pins')).toMatchObject({ fastenerKind: 'push pin', count: 5 });
  });
  it('shares a mass in all and keeps the rest as a remark', () => {
    expect(fasteners('12 M6x16 T30 total 66 g captive')).toMatchObject({
      mass: { eachKg: expect.closeTo(0.0055, 12) as number },
      note: 'captive',
    });
  });
  it('asks how many, which thread, and what a number is', () => {
    expect(asked('M6x16 T30')).toEqual(['no-count']);
    expect(choices('4 M7.3x20')).toContain('M7x20');
    expect(asked('4 M6x16 30')).toEqual(['mass-without-unit']);
  });
});

describe('a line that records joints', () => {
  it('reads what is counted', () => {
    expect(joints('34 spot')).toEqual({ kind: 'joints', count: 34, jointKind: 'spot weld', lengthEachM: null, note: '', evidence: {} });
    expect(joints('8 spr')).toMatchObject({ count: 8, jointKind: 'self-piercing rivet' });
  });
  it('reads what runs', () => {
    expect(joints('bead 1.4 m')).toMatchObject({ count: 1, jointKind: 'adhesive bead', lengthEachM: 1.4 });
    expect(joints('4 seam 45 mm lower edge')).toMatchObject({ count: 4, lengthEachM: 0.045, note: 'lower edge' });
    expect(joints('2 bead total 2.8 m')).toMatchObject({ count: 2, lengthEachM: 1.4 });
  });
  it('asks for the unit of a bead and refuses a length on a spot weld', () => {
    expect(choices('bead 1.4')).toEqual(['1.4 m', '1.4 mm']);
    expect(asked('34 spot 12 mm')).toEqual(['joint-length']);
  });
});

describe('how the line was understood', () => {
  it('is told stretch by stretch, with the evidence', () => {
    expect(parseLine('2x bracket pa66-gf30 ~41 g').understood).toEqual([
      { start: 0, end: 2, label: 'count', value: '2', mark: 'C' },
      { start: 3, end: 10, label: 'name', value: 'bracket', mark: null },
      { start: 11, end: 20, label: 'material', value: 'PA66-GF30', mark: 'S' },
      { start: 21, end: 26, label: 'mass each', value: '~41 g', mark: 'I' },
    ]);
  });
  it('says nothing of an empty line', () => expect(parseLine('   ')).toMatchObject({ understood: [], questions: [], entry: null }));
  it('refuses a line of 5 MB at once, without reading it', () => {
    const parsed = parseLine('2x bracket '.repeat(500_000));
    expect(parsed).toMatchObject({ entry: null, questions: [{ code: 'line-long' }] });
    expect(parsed.line).toBe('');
  });
  it('refuses control characters', () => expect(asked('rail \u0000 1 kg')).toEqual(['unprintable']));
});

describe('how a value is known, typed right at it', () => {
  const evidence = (line: string) => {
    const { entry, questions } = parseLine(line);
    if (!entry) throw new Error(questions.map((q) => q.message).join('; '));
    return entry.kind === 'step' ? {} : entry.evidence;
  };
  it('says nothing where a count was counted and a material seen', () => expect(evidence('2x bracket dc04 stamp')).toEqual({}));
  it.each([
    ['to be confirmed', '6?x bracket', 'quantity', '?'],
    ['an estimate', '~6x bracket', 'quantity', 'I'],
    ['from a picture', '6@Px bracket', 'quantity', 'P'],
    ['a material somebody named', 'bracket dc04@T', 'materialId', 'T'],
    ['a process to be confirmed', 'bracket stamp?', 'processId', '?'],
    ['a thickness recalled', 'bracket t0.8 @R', 'wallThicknessM', 'R'],
    ['an envelope off a picture', 'bracket 62x41x3@P', 'lengthM', 'P'],
    ['a drive to be confirmed', '12 M6x16 T30?', 'drive', '?'],
    ['a fastener count to be confirmed', '12? M6x16', 'count', '?'],
    ['a joint count estimated', '~34 spot', 'count', 'I'],
  ])('%s: %s', (_, line, field, mark) => expect(evidence(line)[field]?.mark).toBe(mark));
  it('takes a count as a range: two, perhaps three', () => {
    expect(part('2-3x bracket')).toMatchObject({ quantity: 2, evidence: { quantity: { mark: 'C', low: 2, high: 3 } } });
    expect(part('20+x clip, trim')).toMatchObject({ quantity: 20, evidence: { quantity: { low: 20, high: null } } });
    expect(fasteners('12-14 M6x16')).toMatchObject({ count: 12, evidence: { count: { low: 12, high: 14 } } });
  });
  it('asks about a range that runs backwards', () =>
    expect(parseLine('3-2x bracket').questions.map((q) => q.code)).toEqual(['count-limit']));
  it('keeps a dimension as typed, with the uncertainty of its last digit or the one stated', () => {
    expect(evidence('plate t0.8').wallThicknessM).toMatchObject({
      typed: '0.8 mm',
      u: expect.closeTo(0.0001 / Math.sqrt(12), 12) as number,
    });
    expect(evidence('hose run 1.40 m ±5 mm').runLengthM).toMatchObject({ typed: '1.40 m ±5 mm', u: 0.0025 });
    expect(evidence('hose run ~1.4 m').runLengthM).toMatchObject({ mark: 'I', typed: '~1.4 m', u: expect.closeTo(0.14, 12) as number });
    expect(evidence('panel t0.03in').wallThicknessM?.typed).toBe('0.03 in');
  });
});
