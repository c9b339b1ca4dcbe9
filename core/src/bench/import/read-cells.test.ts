import {
  readEnvelope,
  readFasteners,
  readHand,
  readJoints,
  readMass,
  readMaterial,
  readOpened,
  readPlace,
  readPrice,
  readProcess,
  readQuantityCell,
  readRun,
  readThickness,
  type ReadCell,
} from './read-cells';

const value = <T>(read: ReadCell<T>): T => {
  if ('fault' in read) throw new Error(read.fault);
  return read.value;
};
const fault = (read: ReadCell<unknown>): string => ('fault' in read ? read.fault : '');

describe('a cell with a mass', () => {
  it.each([
    ['164 g', null, 0.164, 'M'],
    ['1.836 kg', null, 1.836, 'M'],
    ['412', 'g', 0.412, 'M'],
    ['~140 g', null, 0.14, 'I'],
    ['0.172 kg ?', null, 0.172, '?'],
  ])('%s (heading %s) is %s kg, known by %s', (cell, unit, kg, mark) =>
    expect(value(readMass(cell, unit))).toMatchObject({ massEachKg: kg, evidence: { massEachKg: { mark } } }),
  );
  it('keeps what was typed, and an uncertainty goes with every mass', () => {
    const read = value(readMass('164 g', null));
    expect(read.evidence.massEachKg?.typed).toBe('164 g');
    expect(read.evidence.massEachKg?.u).toBeGreaterThan(0);
  });
  it.each([
    ['164', 'of what: g or kg?'],
    ['−3 g', 'cannot be negative'],
    ['-3 g', 'cannot be negative'],
    ['total 3 kg', 'mass each'],
    ['heavy', 'is not understood'],
    ['3 g and a bit', 'is not understood'],
  ])('%s is refused: %s', (cell, why) => expect(fault(readMass(cell, null))).toContain(why));
});

describe('cells with lengths', () => {
  it('a thickness is in mm unless its heading or the cell says otherwise', () => {
    expect(value(readThickness('0.8', 'mm')).wallThicknessM).toBeCloseTo(0.0008, 12);
    expect(value(readThickness('1.2 mm', null)).wallThicknessM).toBeCloseTo(0.0012, 12);
    // a column of thicknesses holds no drives: 10 is no T10
    expect(value(readThickness('10', null)).wallThicknessM).toBeCloseTo(0.01, 12);
  });
  it('a run of seal or cable is told in metres or millimetres', () => {
    expect(value(readRun('4.62 m', null)).runLengthM).toBeCloseTo(4.62, 12);
    expect(value(readRun('640', 'mm')).runLengthM).toBeCloseTo(0.64, 12);
  });
  it('an envelope has three sides', () => {
    expect(value(readEnvelope('118x86x42', 'mm'))).toMatchObject({ lengthM: 0.118, widthM: 0.086, heightM: 0.042 });
    expect(fault(readEnvelope('118x86', 'mm'))).not.toBe('');
  });
  it('a place may lie left of the middle, with either minus and with a comma', () => {
    expect(value(readPlace('1450 -420 600'))).toEqual({ xM: 1.45, yM: -0.42, zM: 0.6 });
    expect(value(readPlace('1450; −420,5; 600 mm'))).toEqual({ xM: 1.45, yM: -0.4205, zM: 0.6 });
  });
  it.each(['1450 -420', '1450 -420 600 7', 'front', '1e3 0 0'])('%s is not a place', (cell) =>
    expect(fault(readPlace(cell))).toContain('write x y z in mm'),
  );
});

describe('cells with words of the catalogue', () => {
  it('a material by any of its names, and how it is known', () => {
    expect(value(readMaterial('DC04'))).toEqual({ materialId: 'dc04', evidence: {} });
    expect(value(readMaterial('1.4301')).materialId).toBe('x5crni18-10');
    expect(value(readMaterial('dc04?')).evidence).toMatchObject({ materialId: { mark: '?' } });
    expect(value(readMaterial('6082@T')).evidence).toMatchObject({ materialId: { mark: 'T' } });
  });
  it('a family of materials is not an answer: its grades are named', () =>
    expect(fault(readMaterial('steel'))).toMatch(/not a grade; one of: .*dc04/));
  it('a material nobody has heard of is named back', () =>
    expect(fault(readMaterial('unobtainium'))).toBe('The catalogue has no material “unobtainium”'));
  it('a process, or the ways that a vague word may mean', () => {
    expect(value(readProcess('stamping')).processId).toBe('stamping');
    expect(fault(readProcess('casting'))).toMatch(/several ways; one of: /);
    expect(fault(readProcess('wishing'))).toContain('no process');
  });
  it('a hand and whether it was opened, in any case of letters', () => {
    expect([value(readHand('Left')).hand, value(readOpened('CLOSED')).opened]).toEqual(['left', 'closed']);
    expect(fault(readHand('both'))).toMatch(/not one of: none, left, right, mirrored/);
  });
});

describe('cells with counts and prices', () => {
  it.each([
    ['4', 4, undefined],
    ['2-3', 2, { low: 2, high: 3 }],
    ['20+', 20, { low: 20, high: null }],
    ['4?', 4, { mark: '?' }],
  ])('%s is %s, known as %j', (cell, count, evidence) => {
    const read = value(readQuantityCell(cell));
    expect(read.quantity).toBe(count);
    if (evidence) expect(read.evidence.quantity).toMatchObject(evidence);
    else expect(read.evidence).toEqual({});
  });
  it.each(['0', '-2', '1.5', 'many', '100001'])('%s is not a count', (cell) =>
    expect(fault(readQuantityCell(cell))).toContain('not a count'),
  );
  it('a price keeps its digits: 4.20 stays 4.20', () => {
    expect(value(readPrice('4.20')).boughtPrice).toBe('4.20');
    for (const cell of ['4,20', '-4', '4 EUR', '1e3', '4.20001'])
      expect([cell, fault(readPrice(cell))]).toEqual([cell, expect.stringContaining('decimal digits')]);
  });
});

describe('cells with sets', () => {
  it('several stand in one cell, parted by semicolons', () => {
    expect(value(readFasteners('9 clip 3 g -y; 1 screw 4.8x16 T20 -y'))).toMatchObject([
      { count: 9, fastener: 'clip' },
      { count: 1, fastener: 'screw' },
    ].map(({ count }) => ({ count }))); // prettier-ignore
    expect(value(readJoints('62 spot; hem 4.25 m; bead 4.25 m hem adhesive'))).toHaveLength(3);
    expect(value(readFasteners(' ; '))).toEqual([]);
  });
  it('one that is none is named alone, with how it is written', () => {
    expect(fault(readFasteners('9 clip; lever 100 g'))).toBe('“lever 100 g” is not a fastener set such as 12 M6x16 T30 8.8 -z');
    expect(fault(readJoints('12 M6x16'))).toContain('is not a joint set such as 34 spot');
  });
});
