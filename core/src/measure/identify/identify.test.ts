import { materialById } from '../../shared';
import { density, densityDoubts, materialsByDensity } from '../density';
import { CUES } from './cues';
import { likely } from './likely';
import { readMaterialMarking } from './material-marking';
import { PROCESSES } from '../../shared';

const first = (cues: readonly string[]): string => likely(cues, null).processes[0]!.what.id;

describe('what is seen on a part', () => {
  it.each([
    [
      'a shell with ejector marks, flow lines, draft and a parting line, not magnetic',
      ['ejector-marks', 'flow-lines', 'draft', 'parting-line', 'not-magnetic'],
      'hpdc',
    ],
    ['a bracket of even thickness with a sheared edge, magnetic', ['even-thickness', 'sheared-edge', 'magnetic'], 'stamping'],
    ['a rail with one section all along, several chambers and lines', ['same-section', 'closed-chambers', 'die-lines'], 'extrusion'],
    ['a cover with ribs, sink marks, a gate and glass fibres', ['ribs', 'sink-marks', 'gate-mark', 'glass-fibre'], 'injection-moulding'],
    ['a housing with a skin rough as from sand and a parting line', ['sand-texture', 'parting-line'], 'sand-casting'],
    [
      'a pillar with a laser-cut edge and scale, magnetic',
      ['laser-edge', 'scale-or-coating', 'even-thickness', 'magnetic'],
      'hot-stamping',
    ],
  ])('%s', (_, cues, process) => expect(first(cues)).toBe(process));
  it('chances are shares of one, and each has its reasons', () => {
    const { processes, families } = likely(['even-thickness', 'sheared-edge', 'magnetic'], null);
    for (const kinds of [processes, families]) expect(kinds.reduce((sum, k) => sum + k.chanceFraction, 0)).toBeCloseTo(1, 9);
    expect(processes[0]!.forIt.map((c) => c.id)).toEqual(['sheared-edge', 'even-thickness', 'magnetic']);
    expect(families[0]!.what).toBe('steel');
  });
  it('nothing seen says nothing: all processes that work with most families stand close together', () => {
    const [most, least] = [likely([], null).processes[0]!, likely([], null).processes.at(-1)!];
    expect(most.chanceFraction / least.chanceFraction).toBeLessThan(12);
  });
  it('a family that is known rules the others out', () => {
    const { families } = likely(['draft'], 'plastic');
    expect([families[0]!.what, families[0]!.chanceFraction]).toEqual(['plastic', 1]);
  });
  it('what speaks against a process is named, the strongest first, and is not named for it', () => {
    // one section all along, and ribs: an extrusion has the one and hardly the other; a die casting the other way round
    const { processes } = likely(['same-section', 'ribs', 'draft'], null);
    const of = (id: string): { for: readonly string[]; against: readonly string[] } => {
      const one = processes.find((p) => p.what.id === id)!;
      return { for: one.forIt.map((c) => c.id), against: one.against.map((c) => c.id) };
    };
    const ratio = (cue: string, id: string): number => CUES.find((c) => c.id === cue)!.processes[id] ?? 1;
    for (const id of PROCESSES.map((p) => p.id)) {
      const cues = ['same-section', 'ribs', 'draft'];
      const sorted = (is: (r: number) => boolean, way: 1 | -1): readonly string[] =>
        cues.filter((cue) => is(ratio(cue, id))).sort((a, b) => way * (ratio(a, id) - ratio(b, id)));
      expect([id, of(id)]).toEqual([id, { for: sorted((r) => r > 1, -1), against: sorted((r) => r < 1, 1) }]);
    }
    expect(of('hpdc').against).toContain('same-section');
    expect(of('extrusion').for).toContain('same-section');
  });
  it('a process keeps its chance only with a family it works with', () => {
    const chance = (known: 'aluminium' | 'plastic' | 'steel', id: string): number =>
      likely(['draft', 'parting-line'], known).processes.find((p) => p.what.id === id)!.chanceFraction;
    // a tool for metal does not mould plastic: a fiftieth of what it has with a metal it works with
    expect(chance('plastic', 'hpdc')).toBeLessThan(chance('aluminium', 'hpdc') / 5);
    expect(chance('steel', 'injection-moulding')).toBeLessThan(chance('plastic', 'injection-moulding') / 5);
    const odds = (known: 'aluminium' | 'steel'): number => chance(known, 'sand-casting') / chance(known, 'hpdc');
    expect(odds('steel') / odds('aluminium')).toBeCloseTo(50, 6);
  });
  it('a cue that does not exist is passed over, and speaks for a family where it does', () => {
    expect(likely(['no such cue'], null)).toEqual(likely([], null));
    const magnetic = likely(['magnetic'], null).families;
    expect([magnetic[0]!.what, magnetic[0]!.forIt.map((c) => c.id)]).toEqual(['steel', ['magnetic']]);
    expect(magnetic.find((one) => one.what === 'plastic')!.against.map((c) => c.id)).toEqual(['magnetic']);
  });
  it('every cue speaks of processes that are in the catalogue', () => {
    const known = new Set(PROCESSES.map((p) => p.id));
    expect(CUES.flatMap((c) => Object.keys(c.processes)).filter((id) => !known.has(id))).toEqual([]);
  });
});

// ISO 11469 with the symbols of ISO 1043-1 and -2, from memory
describe('a material marking of plastic', () => {
  it.each([
    ['>PA66-GF30<', 'PA66, 30 % glass fibre', 'pa66-gf30'],
    ['> PP-TD20 <', 'PP, 20 % talc powder', 'pp-td20'],
    ['>PC+ABS<', 'PC with ABS', 'pc-abs'],
    ['>PP-(GF15+TD20)<', 'PP, 15 % glass fibre, 20 % talc powder', null],
    ['pom', 'POM', 'pom'],
  ])('%s', (text, words, material) => expect(readMaterialMarking(text)).toMatchObject({ words, materialId: material }));
  it('spaces, small letters and other brackets make no difference; a half known mark is none', () => {
    for (const text of ['  >PA66 - GF 30<  ', '›pa66-gf30‹', '»PA66-GF30«', 'PA66-GF30'])
      expect([text, readMaterialMarking(text)?.materialId]).toEqual([text, 'pa66-gf30']);
    for (const none of ['', '><', '>PC+XYZ<', '>PA66-AGF30<', '>PA66-GF300<', '>PA66-GF<', '>PA66-GF30x<', 'x >PA66<'])
      expect([none, readMaterialMarking(none)]).toEqual([none, null]);
  });
  it('other words are none', () => {
    expect(readMaterialMarking('>MADE HERE<')).toBeNull();
    expect(readMaterialMarking('PP-XY30')).toBeNull();
  });
});

describe('weighed against scanned', () => {
  const steel = materialById.get('dc04')!;
  const aluminium = materialById.get('aw-6082')!;
  it('a density carries the uncertainty of both, and is placed among the materials', () => {
    const read = density({ massKg: 0.175, uKg: 0.0002 }, { volumeM3: 64.8e-6, uM3: 0.4e-6 });
    expect(read.densityKgPerM3).toBeCloseTo(2700.6, 1);
    expect(read.uKgPerM3).toBeCloseTo(2700.6 * Math.hypot(0.0002 / 0.175, 0.4 / 64.8), 3);
    expect(materialsByDensity(read)[0]?.material.family).toBe('aluminium');
    expect(densityDoubts(read, aluminium)).toEqual([]);
  });
  it('contradicts a wrong material, and says which would fit', () => {
    const read = density({ massKg: 0.175, uKg: 0.0002 }, { volumeM3: 64.8e-6, uM3: 0.4e-6 });
    expect(densityDoubts(read, steel)).toEqual([
      expect.stringContaining('hollow'),
      expect.stringMatching(/another material: .*EN AW-/),
      expect.stringContaining('wrong tag'),
    ]);
  });
  it('names an insert when it is heavier than its material', () =>
    expect(densityDoubts(density({ massKg: 0.2, uKg: 0.0002 }, { volumeM3: 64.8e-6, uM3: 0.4e-6 }), aluminium)[0]).toMatch(/insert/));
  it('names a wrong unit of the scan', () => {
    // an inch taken for a millimetre makes the volume 16387 times too small
    const read = density({ massKg: 0.175, uKg: 0.0002 }, { volumeM3: 64.8e-6 / 25.4 ** 3, uM3: 1e-12 });
    expect(densityDoubts(read, aluminium)).toEqual(['wrong unit: the scan was taken as millimetres and is in inches']);
    expect(densityDoubts(read, null)).toEqual(['wrong unit: the scan was taken as millimetres and is in inches']);
  });
  it('has no say without a mass', () => expect(() => density({ massKg: 0, uKg: 0 }, { volumeM3: 1, uM3: 0 })).toThrow(RangeError));
});

// Rule of mixtures on specific volume with element densities of python3-periodictable 1.6.0 against handbook values, 1 %.
describe('densities of the catalogue agree with what the alloys are made of', () => {
  const ELEMENT: Readonly<Record<string, number>> = { Al: 2698.9, Si: 2330, Fe: 7874, Cu: 8960, Mn: 7330, Mg: 1738, Cr: 7190, Zn: 7133 };
  const mixture = (base: string, percents: Readonly<Record<string, number>>): number => {
    const others = Object.entries(percents);
    const rest = 100 - others.reduce((sum, [, p]) => sum + p, 0);
    return 100 / [...others, [base, rest] as const].reduce((sum, [symbol, p]) => sum + p / ELEMENT[symbol]!, 0);
  };
  it.each([
    ['aw-5754', 'Al', { Mg: 3.1, Mn: 0.3, Cr: 0.1 }],
    ['aw-6082', 'Al', { Mg: 0.9, Si: 1, Mn: 0.7 }],
    ['alsi9cu3', 'Al', { Si: 9.5, Cu: 3, Fe: 0.7 }],
    ['alsi10mnmg', 'Al', { Si: 10.25, Mn: 0.6, Mg: 0.35 }],
    ['az91d', 'Mg', { Al: 9, Zn: 0.7, Mn: 0.3 }],
    ['zamak-5', 'Zn', { Al: 4, Cu: 1, Mg: 0.04 }],
  ])('%s', (id, base, percents) => {
    const ratio = mixture(base, percents) / materialById.get(id)!.densityKgPerM3;
    expect(Math.abs(ratio - 1)).toBeLessThan(0.01);
  });
});
