import { STUDY, teardown } from '../../testing/teardown';
import { cellsOf, editTo, evidence } from '../record';
import { meanwhileFaults, partForm, partFromForm, rebasedForm, tagTaken, type PartForm } from './part-form';
import { fastenerLine, jointLine, massEachText } from './shorthand/from-row';

const only = (line: string) => {
  const [part] = teardown(line).parts;
  if (!part) throw new Error('no part');
  return part;
};
const plate = only('2x carrier plate dc04 stamp t0.8 620x410x35 1.84 kg #DR2-1');
const edited = (fields: Partial<PartForm>, part = plate) => partFromForm({ ...partForm(part, STUDY), ...fields }, part);
const changes = (fields: Partial<PartForm>, part = plate): object => {
  const checked = edited(fields, part);
  if (!checked.ok) throw new Error(checked.issues.map((i) => `${i.field}: ${i.message}`).join('; '));
  const op = editTo('part', part, checked.value);
  return op && 'fields' in op ? op.fields : {};
};
const faults = (fields: Partial<PartForm>): readonly string[] => {
  const checked = edited(fields);
  return checked.ok ? [] : checked.issues.map((i) => `${i.field}: ${i.message}`);
};

describe('the form of a part', () => {
  it('shows the figures as people type them', () => {
    expect(partForm(plate, STUDY)).toMatchObject({
      mass: '1.84 kg',
      thickness: '0.8',
      envelope: '620x410x35',
      quantity: '2',
      priceCurrency: 'EUR',
    });
  });
  it('changes nothing when nothing is changed', () => expect(changes({})).toEqual({}));
  it('sends only what differs', () =>
    expect(changes({ tag: 'DR2-9', thickness: '1' })).toMatchObject({
      tag: 'DR2-9',
      wallThicknessM: 0.001,
      evidence: { wallThicknessM: { mark: 'M', typed: '1 mm' } },
    }));
  it('takes a new mass with its uncertainty and mark', () => {
    const u = expect.closeTo(0.2887, 4) as number;
    expect(changes({ mass: '~2 kg' })).toEqual({ massEachKg: 2, evidence: { massEachKg: evidence('I', { u, typed: '~2 kg' }) } });
  });
  it('changes the mark alone', () =>
    expect(changes({ massEvidence: 'T' })).toEqual({ evidence: { massEachKg: { ...plate.evidence.massEachKg, mark: 'T' } } }));
  it('clears what is emptied: unknown, not zero', () => {
    expect(changes({ mass: '', envelope: '' })).toEqual({
      massEachKg: null,
      lengthM: null,
      widthM: null,
      heightM: null,
      evidence: { massEachKg: null, lengthM: null },
    });
  });
  it('takes a place on the vehicle in millimetres, with its sign', () => {
    expect(changes({ place: '1450 −420 600' })).toEqual({ xM: 1.45, yM: -0.42, zM: 0.6 });
    expect(faults({ place: '1450 420' })).toEqual(['place: “1450 420” is not a place; write x y z in mm, for instance 1450 -420 600']);
    const placed = { ...plate, xM: 1.45, yM: -0.42, zM: 0.6 };
    expect(partForm(placed, STUDY).place).toBe('1450 -420 600');
    expect(changes({ place: '' }, placed)).toEqual({ xM: null, yM: null, zM: null });
  });
  it('keeps a mass that was weighed in all while it is not touched', () => {
    const clips = only('12x clip, hose total 492 g');
    expect(massEachText(clips)).toBe('0.041 kg');
    expect(changes({ tag: 'A' }, clips)).toEqual({ tag: 'A' });
  });
  it('gives a price its whole basis', () => {
    expect(changes({ price: '4.20' })).toEqual({
      boughtPrice: '4.20',
      boughtCurrency: 'EUR',
      boughtPriceYear: 2026,
      boughtVolumePerYear: 60_000,
      boughtRegion: 'Central Europe',
    });
  });
  it('names the field of each fault in the words of the form', () => {
    expect(faults({ name: ' ', quantity: 'two', mass: '8', envelope: '12x13', opened: 'closed', price: '4,2', priceYear: 'x' })).toEqual([
      'price: “4,2” is not a price in decimal digits such as 4.20',
      'mass: 8 of what: g or kg?',
      'quantity: “two” is not a count from 1 to 100 000',
      'envelope: 12x13: an envelope has three dimensions (part of the name, leave it out, 13 parts, and “12” is part of the name)',
      expect.stringMatching(/^name: Name must not be empty/),
    ]);
    expect(faults({ opened: 'closed' })).toEqual(['closedReason: Say why the part was left closed']);
  });
});

/** What an edit of every field of the form sends: each of its values must have a field at which it can be told. */
it('every value that the form can send is told at one of its fields', () => {
  const op = editTo('part', plate, {
    ...plate,
    ...(edited({ name: 'a', tag: 'T1', mass: '~2 kg', quantity: '2-3', envelope: '600x400x30', thickness: '1', runLength: '1 m', runDiameter: '9', place: '1 2 3', price: '4.20' }) as { value: object }).value, // prettier-ignore
  });
  const cells = [...cellsOf(op && 'fields' in op ? op.fields : {})].map(([cell, theirs]) => ({ cell, theirs, by: null }));
  const shown = Object.keys(partForm(plate, STUDY));
  expect(cells.length).toBeGreaterThan(20);
  expect(meanwhileFaults(cells, plate.id, () => null).filter(({ field }) => !shown.includes(field ?? ''))).toEqual([]);
});

describe('a tag', () => {
  const { parts } = teardown('carrier plate 1 kg #DR2-1\nlever 2 kg');
  const [tagged, lever] = parts;
  it('belongs to one part: another is told on which it is', () =>
    expect(tagTaken(parts, 'DR2-1', lever!.id)).toBe('The tag DR2-1 is on “carrier plate” already: a tag belongs to one part'));
  it('may stay where it is, and none is nobody’s', () =>
    expect([tagTaken(parts, 'DR2-1', tagged!.id), tagTaken(parts, 'DR2-2', lever!.id), tagTaken(parts, '', lever!.id)]).toEqual([
      null,
      null,
      null,
    ]));
});

describe('a form that was open while somebody else changed the part', () => {
  const now = {
    ...{ ...plate, version: 9, name: 'panel', massEachKg: 1.9, location: 'left door' },
    evidence: { ...plate.evidence, massEachKg: evidence('M', { u: 0.001, typed: '1.9 kg' }) },
  };
  it('keeps what was typed, and shows what it is now everywhere else', () => {
    const typed = { ...partForm(plate, STUDY), name: 'panel, mine', notes: 'bent' };
    expect(rebasedForm(typed, plate, now, STUDY)).toEqual({ ...partForm(now, STUDY), name: 'panel, mine', notes: 'bent' });
  });
  it('sends nothing of theirs back: only what was typed differs', () => {
    const rebased = rebasedForm({ ...partForm(plate, STUDY), notes: 'bent' }, plate, now, STUDY);
    const checked = partFromForm(rebased, now);
    expect(checked.ok && editTo('part', now, checked.value)).toMatchObject({ was: { notes: '' }, fields: { notes: 'bent' } });
  });
  it('tells at each field who made it what, in its unit, once for a value with its uncertainty', () => {
    const cells = [
      { cell: 'massEachKg', theirs: 1.9, by: 'Odo Farrow' },
      { cell: 'evidence.massEachKg', theirs: now.evidence.massEachKg, by: 'Odo Farrow' },
      { cell: 'materialId', theirs: 'dc04', by: null },
    ];
    expect(meanwhileFaults(cells, plate.id, () => null).map(({ field, message }) => [field, message])).toEqual([
      ['mass', 'Odo Farrow made it 1.9 kg meanwhile. Save again to put yours in its place'],
      ['materialId', expect.stringMatching(/^Somebody made it .*DC04.* meanwhile/) as string],
    ]);
  });
});

describe('a recorded set as its line', () => {
  it('reads as it was typed', () => {
    const { fastenerSets, jointSets } = teardown(
      'x\n  12 M6x16 T30 8.8 -z\n  4 M8x1x30 total 60 g captive\n  9 clip 3 g -y\n  3 screw 4.8x16 T20\n  bead 1.4 m\n  34 spot',
    );
    expect(fastenerSets.map(fastenerLine)).toEqual([
      '12 M6x16 T30 8.8 -z',
      '4 M8x1x30 total 60 g captive',
      '9 clip -y 3 g',
      '3 screw 4.8x16 T20',
    ]);
    expect(jointSets.map(jointLine)).toEqual(['1 bead 1.4 m', '34 spot']);
  });
});
