import fc from 'fast-check';
import { evidence, massUKg, outline, type Part } from '../../record';
import { DOOR, LEFT, partNamed, recordOf, teardown, testId } from '../../../testing/teardown';
import { subsystemKey, type StudyRecord } from '../../record';
import { massGaps, weighedShort, weighedText } from '../completeness';
import { layoutOf, type Measures, type OwnFigure } from './measure';
import { BENCH_MEASURES, benchOwn, ownOfParts, partsByPlace, type BenchMeasures } from './own-figures';
import { belowAt, rollUp, rollUpAfterEdit, totalsAt, totalsOf, type RollUp, type Totals } from './roll-up';
import type { AssembliesAs } from './add-up';
import { shown, type Shown } from './shown';

const LAYOUT = layoutOf(BENCH_MEASURES);

const rolled = (record: StudyRecord, assembliesAs: AssembliesAs = 'parts'): RollUp<BenchMeasures> => {
  const tree = outline(record);
  return rollUp(LAYOUT, tree, ownOfParts(record, partsByPlace(record, tree), benchOwn), assembliesAs);
};
const all = (r: RollUp<BenchMeasures>): readonly (Totals<BenchMeasures> | null)[] => r.outline.nodes.map((_, place) => totalsAt(r, place));
const door = (
  record: StudyRecord,
  rule: { fastenersIn: boolean; assembliesAs: AssembliesAs } = { fastenersIn: true, assembliesAs: 'parts' },
): Shown => {
  const totals = totalsOf(rolled(record, rule.assembliesAs), subsystemKey(LEFT.id, DOOR.id));
  if (!totals) throw new Error('no door');
  return shown(totals, rule.fastenersIn);
};

const CARRIER = `
carrier module
  carrier plate dc04 1.5 kg
    6 clinch
  2x cable guide pom 40 g
    1 M6x16 T30 5 g
  lever 100 g
`;

describe('counting', () => {
  const record = recordOf(teardown(CARRIER));
  it('counts an opened assembly as its parts, fasteners with them or not', () => {
    // plate 1, guides 2, lever 1; one screw for each guide
    expect(door(record, { fastenersIn: false, assembliesAs: 'parts' })).toMatchObject({ parts: 4, fasteners: 2, joints: 6 });
    expect(door(record)).toMatchObject({ parts: 6, fasteners: 2, joints: 6 });
  });
  it('counts an opened assembly as one', () => {
    expect(door(record, { fastenersIn: true, assembliesAs: 'one' })).toMatchObject({ parts: 1, fasteners: 0, joints: 0 });
  });
  it('multiplies what is inside by the quantity of the assembly', () => {
    const two = recordOf(teardown(CARRIER.replace('carrier module', '2x carrier module')));
    expect(door(two)).toMatchObject({ parts: 12, fasteners: 4, joints: 12 });
    expect(door(two, { fastenersIn: true, assembliesAs: 'one' })).toMatchObject({ parts: 2 });
  });
  it('counts the fasteners that hold an assembly also when the assembly is one', () => {
    const held = recordOf(teardown('carrier module\n  10 M6x16 5 g\n  plate 1 kg'));
    expect(door(held, { fastenersIn: true, assembliesAs: 'one' })).toMatchObject({ parts: 11, fasteners: 10 });
  });
});

describe('mass', () => {
  it('adds parts and fasteners, in or out by the rule', () => {
    const record = recordOf(teardown(CARRIER));
    expect(door(record, { fastenersIn: false, assembliesAs: 'parts' }).massKg).toBeCloseTo(1.5 + 2 * 0.04 + 0.1, 12);
    expect(door(record).massKg).toBeCloseTo(1.5 + 2 * (0.04 + 0.005) + 0.1, 12);
  });
  /** @source JCGM 100:2008 (GUM), eq. 10; hand calculation: √(10² + 2²·3²) = 11.66 g */
  it('adds uncertainties in quadrature, but one reading for several parts errs for all of them together', () => {
    const record = recordOf(teardown('plate 1 kg ±20 g\n2x guide 40 g ±6 g'));
    expect(door(record).massUKg).toBeCloseTo(Math.hypot(10, 6) / 1000, 12);
  });
  it('is absent, not zero, while nothing is weighed', () => {
    expect(door(recordOf(teardown('plate\nlever')))).toMatchObject({ massKg: null, massUKg: null, weakest: null });
  });
  it('takes the weighed whole while its parts are not all weighed, and the parts once they are', () => {
    const open = recordOf(teardown('module 2 kg\n  plate 1.5 kg\n  lever'));
    expect(door(open)).toMatchObject({ massKg: 2, partsMassed: 2, partsWeighed: 1 });
    const closed = recordOf(teardown('module 2 kg\n  plate 1.5 kg\n  lever 0.4 kg'));
    expect(door(closed).massKg).toBeCloseTo(1.9, 12);
  });
  it('does not count fasteners twice that were weighed with the whole', () => {
    const record = recordOf(teardown('module 2 kg\n  plate 1.5 kg\n    2 clip 10 g\n  lever'));
    expect(door(record).massKg).toBeCloseTo(2, 12);
    expect(door(record, { fastenersIn: false, assembliesAs: 'parts' }).massKg).toBeCloseTo(1.98, 12);
  });
  it('does not take a whole that weighs less than the parts already weighed', () => {
    const record = recordOf(teardown('module 1 kg\n  plate 1.5 kg\n  lever'));
    expect(door(record)).toMatchObject({ massKg: 1.5, partsMassed: 1 });
  });
});

describe('evidence and completeness', () => {
  it('carries the weakest mark into the total, with the share that rests on it', () => {
    const s = door(recordOf(teardown('plate 3 kg\nrail ~0.8 kg\narm ~0.2 kg')));
    expect(s.weakest).toBe('I');
    expect(s.weakestFraction).toBeCloseTo(0.25, 12);
    expect(door(recordOf(teardown('plate 3 kg\nrail ~0.8 kg\narm 0.2 kg ?')))).toMatchObject({
      weakest: '?',
      weakestFraction: expect.closeTo(0.05, 12) as number,
    });
  });
  it('says how many are weighed and what the rest is', () => {
    const s = door(recordOf(teardown('3x plate 1 kg\nrail ~0.8 kg\n2x arm\n  4 clip')));
    expect(weighedText(s)).toBe('3 of 6 weighed');
    expect(weighedShort(s)).toBe('3 of 6');
    expect(massGaps(s)).toEqual(['1 estimated or taken from a weighed assembly', '2 without mass', '8 fasteners without mass']);
  });
  it('has short words for one part and for all', () => {
    expect(['plate 1 kg', 'plate ~1 kg', 'plate', '2x plate 1 kg'].map((line) => weighedShort(door(recordOf(teardown(line)))))).toEqual([
      'weighed',
      'estimated',
      'no mass',
      'all 2',
    ]);
    expect(weighedText(door(recordOf()))).toBe('nothing recorded yet');
  });
});

/** A naive sum, written another way round: every leaf by its path, no tree. */
const naive = (record: StudyRecord): { parts: number; mass: number; variance: number; fasteners: number; joints: number } => {
  const byId = new Map(record.parts.map((p) => [p.id, p]));
  const times = (id: string): number => {
    const part = byId.get(id);
    return part ? part.quantity * (part.parentId === null ? 1 : times(part.parentId)) : 1;
  };
  const parents = new Set(record.parts.map((p) => p.parentId));
  const leaves = record.parts.filter((p) => !parents.has(p.id));
  return {
    parts: leaves.reduce((sum, p) => sum + times(p.id), 0),
    mass: leaves.reduce((sum, p) => sum + times(p.id) * (p.massEachKg ?? 0), 0),
    variance: leaves.reduce((sum, p) => sum + (times(p.id) * (massUKg(p) ?? 0)) ** 2, 0),
    fasteners: record.fastenerSets.reduce((sum, f) => sum + f.count * times(f.partId), 0),
    joints: record.jointSets.reduce((sum, j) => sum + j.count * times(j.partId), 0),
  };
};

const randomRecord = fc
  .array(
    fc.record({
      parent: fc.nat(),
      quantity: fc.integer({ min: 1, max: 4 }),
      grams: fc.option(fc.integer({ min: 1, max: 5000 })),
      clips: fc.nat(3),
      spots: fc.nat(9),
    }),
    { minLength: 1, maxLength: 60 },
  )
  .map((specs): StudyRecord => {
    const text = teardown('x 1 g').parts[0];
    if (!text) throw new Error('no part');
    const id = (n: number): string => testId(1000 + n);
    const parts = specs.map((spec, n): Part => {
      const parentId = n > 0 && spec.parent % 3 > 0 ? id(spec.parent % n) : null;
      return {
        ...text,
        id: id(n),
        sequence: n,
        parentId,
        subsystemId: parentId === null ? DOOR.id : null,
        quantity: spec.quantity,
        massEachKg: spec.grams === null ? null : spec.grams / 1000,
        evidence: spec.grams === null ? {} : { massEachKg: evidence('M', { u: 0.0003 }) },
      };
    });
    const parents = new Set(parts.map((p) => p.parentId));
    const sets = teardown('x\n  1 clip\n  1 spot');
    const [clip, spot] = [sets.fastenerSets[0], sets.jointSets[0]];
    if (!clip || !spot) throw new Error('no set');
    return {
      ...recordOf(),
      // assemblies are not weighed here: the naive sum knows leaves only
      parts: parts.map((p) => (parents.has(p.id) ? { ...p, massEachKg: null, evidence: {} } : p)),
      fastenerSets: specs.flatMap((spec, n) =>
        spec.clips > 0 ? [{ ...clip, id: testId(3000 + n), partId: id(n), count: spec.clips }] : [],
      ),
      jointSets: specs.flatMap((spec, n) => (spec.spots > 0 ? [{ ...spot, id: testId(5000 + n), partId: id(n), count: spec.spots }] : [])),
    };
  });

describe('against a naive sum over leaves', () => {
  it('agrees on any tree', () => {
    fc.assert(
      fc.property(randomRecord, (record) => {
        const sum = naive(record);
        const s = door(record, { fastenersIn: false, assembliesAs: 'parts' });
        expect([s.parts, s.fasteners, s.joints]).toEqual([sum.parts, sum.fasteners, sum.joints]);
        expect(Math.abs((s.massKg ?? 0) - sum.mass)).toBeLessThan(1e-9 * Math.max(1, sum.mass));
        expect(Math.abs((s.massUKg ?? 0) ** 2 - sum.variance)).toBeLessThan(1e-9 * Math.max(1, sum.variance));
      }),
    );
  });
});

describe('after one edit', () => {
  it('is exactly what a whole roll-up gives, under either rule', () => {
    fc.assert(
      fc.property(
        randomRecord,
        fc.nat(),
        fc.integer({ min: 1, max: 9000 }),
        fc.constantFrom('parts' as const, 'one' as const),
        (record, pick, grams, assembliesAs) => {
          const edited = record.parts[pick % record.parts.length];
          if (!edited) return;
          const after = { ...edited, massEachKg: grams / 1000, evidence: { massEachKg: evidence('?', { u: 0.001 }) } };
          const now = { ...record, parts: record.parts.map((p) => (p.id === edited.id ? after : p)) };
          const before = rolled(record, assembliesAs);
          const place = before.outline.placeOf.get(edited.id) ?? -1;
          const own = benchOwn(
            after,
            record.fastenerSets.filter((f) => f.partId === edited.id),
            record.jointSets.filter((j) => j.partId === edited.id),
          );
          expect(all(rollUpAfterEdit(before, place, own))).toEqual(all(rolled(now, assembliesAs)));
        },
      ),
    );
  });
  it('leaves the roll-up before it as it was', () => {
    const record = recordOf(teardown(CARRIER));
    const before = rolled(record);
    const copy = all(before);
    const lever = partNamed(record, 'lever');
    rollUpAfterEdit(before, before.outline.placeOf.get(lever.id) ?? -1, benchOwn({ ...lever, massEachKg: 5 }, [], []));
    expect(all(before)).toEqual(copy);
  });
});

describe('a chain of 20 000 parts, each inside the last', () => {
  it('is rolled up like any other', () => {
    const [plate] = teardown('plate 1 kg').parts;
    const id = (n: number): string => testId(100_000 + n);
    const parts = Array.from({ length: 20_000 }, (_, n) => ({
      ...plate!,
      id: id(n),
      parentId: n === 0 ? null : id(n - 1),
      subsystemId: n === 0 ? DOOR.id : null,
    }));
    expect(door({ ...recordOf(), parts })).toMatchObject({ parts: 1, massKg: 1 });
  });
});

describe('parts that hang nowhere', () => {
  it('are named and left out, so that a broken record hides nothing else', () => {
    const record = recordOf(teardown(CARRIER));
    const lever = partNamed(record, 'lever');
    const loop = { ...record, parts: record.parts.map((p) => (p.id === lever.id ? { ...p, parentId: lever.id } : p)) };
    expect(outline(loop).issues).toMatchObject([{ code: 'adrift', recordId: lever.id }]);
    expect(door(loop).parts).toBe(5);
  });
});

describe('measures that a later stage adds', () => {
  /** handling time of each part, the longest run of it, and the time it takes to drive what holds it */
  const BUILD = {
    ...BENCH_MEASURES,
    handling: { label: 'handling', unit: '', of: 'part', adds: 'sum', says: ['variance', 'together', 'known'], outOf: 'parts' },
    driving: { label: 'driving', unit: '', of: 'held', adds: 'sum', says: ['variance'], joins: ['handling'] },
    longest: { label: 'longest', unit: '', of: 'part', adds: 'extreme', says: [] },
  } as const satisfies Measures;
  const SECONDS: Readonly<Record<string, number>> = { 'carrier plate': 5, 'cable guide': 3, lever: 4 };
  const built = (assembliesAs: AssembliesAs): Totals<typeof BUILD> => {
    const record = recordOf(teardown(CARRIER));
    const tree = outline(record);
    const own = ownOfParts(record, partsByPlace(record, tree), (part, fasteners, joints) => {
      const { count, figures } = benchOwn(part, fasteners, joints);
      const s = SECONDS[part.name];
      const time = s === undefined ? [] : [['handling', { value: s, variance: 0.25 }] as const, ['longest', { value: s }] as const];
      const driving = fasteners.length > 0 ? [['driving', { value: 8, variance: 1 }] as const] : [];
      return { count, figures: [...figures, Object.fromEntries<OwnFigure>([...time, ...driving])] };
    });
    return totalsOf(rollUp(layoutOf(BUILD), tree, own, assembliesAs), subsystemKey(LEFT.id, DOOR.id))!;
  };
  it('add up by their own table: sums with their variance, the largest, what is held apart', () => {
    const t = built('parts');
    // by hand: 5 + 2 × 3 + 4; two guides of one estimate err together, so 0.25 + 4 × 0.25 + 0.25
    expect([t.handling.value, t.handling.variance, t.handling.known]).toEqual([15, 1.5, 4]);
    expect([t.driving.value, t.driving.variance]).toEqual([16, 4]);
    expect(t.handling.together).toBeCloseTo(1.5 + 4, 12);
    expect(t.longest.value).toBe(5);
  });
  it('go over to an assembly that counts as one', () => {
    const t = built('one');
    expect([t.handling.value, t.driving.value, t.handling.known, t.longest.value]).toEqual([31, 0, 1, 5]);
  });
  it('leave those of the bench as they are', () => {
    const record = recordOf(teardown(CARRIER));
    const { handling: _handling, driving: _driving, longest: _longest, ...bench } = built('parts');
    expect(bench).toEqual(totalsOf(rolled(record), subsystemKey(LEFT.id, DOOR.id)));
  });
  it('that contradict themselves are refused', () => {
    const { mass: _mass, ...rest } = BENCH_MEASURES;
    expect(() => layoutOf({ fasteners: BENCH_MEASURES.fasteners })).toThrow('the first measure counts the parts');
    expect(() => layoutOf({ ...rest, run: { ...BENCH_MEASURES.mass, outOf: 'runs' } })).toThrow('names runs, which is not in the table');
  });
});

describe('a weighed assembly', () => {
  it('keeps what lies below it beside what stands for it', () => {
    const record = recordOf(teardown('2x module 10.0 kg\n  lid 3 kg\n  case'));
    const r = rolled(record);
    const place = r.outline.placeOf.get(partNamed(record, 'module').id)!;
    expect(totalsAt(r, place)?.mass.value).toBeCloseTo(20, 12);
    expect(belowAt(r, place)).toMatchObject({ mass: { value: 3, known: 1 }, parts: { value: 2 } });
    expect(belowAt(r, r.outline.placeOf.get(partNamed(record, 'lid').id)!)).toBeNull();
  });
});
