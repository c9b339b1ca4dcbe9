import fc from 'fast-check';
import { applyOps, blank, outline, rowFaults, type StudyRecord } from '../../record';
import { DOOR, LEFT, RIGHT, partNamed, recordOf, teardown, testId } from '../../../testing/teardown';
import { layoutOf } from '../roll-up/measure';
import { BENCH_MEASURES, benchOwn, ownOfParts, partsByPlace } from '../roll-up/own-figures';
import { rollUp, totalsOf } from '../roll-up/roll-up';
import { shown } from '../roll-up/shown';
import {
  assembleParts,
  copyParts,
  dissolvePart,
  giveParts,
  mergeParts,
  mergeSubsystems,
  moveParts,
  moveSubsystem,
  removeSubsystem,
  splitPart,
  type Place,
  type TreeChange,
} from '.';

const CARRIER = `
carrier module
  carrier plate dc04 1.5 kg
    6 clinch
  2x cable guide pom 40 g
    1 M6x16 T30 5 g
  lever 100 g
latch 350 g
2x roller 80 g
2x roller 80 g
`;
const DOOR_PLACE: Place = { kind: 'subsystem', vehicleId: LEFT.id, subsystemId: DOOR.id };

let last = 5000;
const newId = (): string => testId(++last);

/** The record after a change that must be possible. */
const after = (record: StudyRecord, change: TreeChange): StudyRecord => {
  if (!change.ok) throw new Error(change.issues[0]?.message);
  return applyOps(record, change.ops, record.revision + 1);
};
const why = (change: TreeChange): string => (change.ok ? 'it was done' : (change.issues[0]?.message ?? ''));

/** The record as lines, each as deep as it hangs, with its count. */
const tree = (record: StudyRecord, vehicleId = LEFT.id): readonly string[] => {
  const partById = new Map(record.parts.map((part) => [part.id, part]));
  return outline(record)
    .nodes.filter((node) => node.kind === 'part' && node.vehicleId === vehicleId)
    .map((node) => {
      const part = partById.get(node.id)!;
      return `${'  '.repeat(node.depth - 2)}${part.quantity === 1 ? '' : `${part.quantity}x `}${part.name}`;
    });
};
const sums = (record: StudyRecord, vehicle = LEFT.id): object => {
  const forest = outline(record);
  const rolled = rollUp(layoutOf(BENCH_MEASURES), forest, ownOfParts(record, partsByPlace(record, forest), benchOwn), 'parts');
  const { parts, fasteners, joints, massKg } = shown(totalsOf(rolled, vehicle)!, true);
  return { parts, fasteners, joints, massG: massKg === null ? null : Math.round(massKg * 1e6) / 1e3 };
};
const idOf = (record: StudyRecord, name: string): string => partNamed(record, name).id;

describe('moving parts', () => {
  const record = recordOf(teardown(CARRIER));
  it('takes them with all inside, behind what is there', () => {
    const moved = after(record, moveParts(record, [idOf(record, 'carrier module')], { kind: 'part', id: idOf(record, 'latch') }));
    expect(tree(moved)).toEqual([
      'latch',
      '  carrier module',
      '    carrier plate',
      '    2x cable guide',
      '    lever',
      '2x roller',
      '2x roller',
    ]);
  });
  it('keeps every sum where a part goes into an opened assembly, and in the order they were chosen in', () => {
    const moved = after(
      record,
      moveParts(record, [idOf(record, 'latch'), idOf(record, 'roller')], { kind: 'part', id: idOf(record, 'carrier module') }),
    );
    expect(tree(moved).slice(0, 6)).toEqual(['carrier module', '  carrier plate', '  2x cable guide', '  lever', '  latch', '  2x roller']);
    expect(sums(moved)).toEqual(sums(record));
  });
  it('moves a part once that was chosen together with what it is inside of', () => {
    const moved = after(record, moveParts(record, [idOf(record, 'lever'), idOf(record, 'carrier module')], DOOR_PLACE));
    expect(tree(moved).slice(-4)).toEqual(['carrier module', '  carrier plate', '  2x cable guide', '  lever']);
  });
  it('takes what is inside along to another vehicle', () => {
    const moved = after(record, moveParts(record, [idOf(record, 'carrier module')], { ...DOOR_PLACE, vehicleId: RIGHT.id }));
    expect(tree(moved, RIGHT.id)).toEqual(['carrier module', '  carrier plate', '  2x cable guide', '  lever']);
    expect(sums(moved, RIGHT.id)).toMatchObject({ fasteners: 2, joints: 6, massG: 1690 });
  });
  it('refuses a part inside itself, and a place that is gone', () => {
    expect(why(moveParts(record, [idOf(record, 'carrier module')], { kind: 'part', id: idOf(record, 'lever') }))).toBe(
      'lever would be inside itself; choose a place outside of what is moved',
    );
    expect(why(moveParts(record, [idOf(record, 'lever')], { kind: 'part', id: testId(4999) }))).toContain('not there any more');
    expect(why(moveParts(record, [], DOOR_PLACE))).toContain('Choose the parts first');
  });
});

describe('mending counts', () => {
  const record = recordOf(teardown(CARRIER));
  it('splits a line, and merges it again, with all sums as they were', () => {
    const guide = idOf(record, 'cable guide');
    const split = after(record, splitPart(record, guide, 1, newId));
    expect(tree(split)).toEqual([
      'carrier module',
      '  carrier plate',
      '  cable guide',
      '  lever',
      '  cable guide',
      'latch',
      '2x roller',
      '2x roller',
    ]);
    // the screw that holds each guide is on the new line as well
    expect(sums(split)).toEqual(sums(record));
    const both = split.parts.filter((part) => part.name === 'cable guide').map((part) => part.id);
    const merged = after(split, mergeParts(split, both));
    expect([tree(merged), sums(merged)]).toEqual([tree(record), sums(record)]);
  });
  it('says how many may be split off', () => {
    expect(why(splitPart(record, idOf(record, 'cable guide'), 2, newId))).toBe('Say how many of the 2 go into a line of their own: 1 to 1');
    expect(why(splitPart(record, idOf(record, 'latch'), 1, newId))).toContain('only a count of two or more');
  });
  it('merges two lines of the same part where they hang together', () => {
    const rollers = record.parts.filter((part) => part.name === 'roller').map((part) => part.id);
    const merged = after(record, mergeParts(record, rollers));
    expect(tree(merged).slice(-1)).toEqual(['4x roller']);
    expect(sums(merged)).toEqual(sums(record));
  });
  it('names what keeps lines from being merged', () => {
    const [lever, latch, plate] = ['lever', 'latch', 'carrier plate'].map((name) => idOf(record, name));
    expect(why(mergeParts(record, [lever!, latch!]))).toContain('hangs in another place than');
    expect(why(mergeParts(record, [lever!, plate!]))).toMatch(/^The lines differ in name, material, mass each; make them alike first/);
    expect(why(mergeParts(record, [idOf(record, 'carrier module'), latch!]))).toBe(
      'carrier module has parts inside; dissolve it or move them out first',
    );
  });
  it('carries readings over to the line that stays', () => {
    const rollers = record.parts.filter((part) => part.name === 'roller').map((part) => part.id);
    const reading = { id: testId(800), version: 1, aboutKind: 'part', aboutId: rollers[1] } as unknown as StudyRecord['readings'][number];
    const read = { ...record, readings: [reading] };
    const merged = after(read, mergeParts(read, rollers));
    expect(merged.readings.map((one) => one.aboutId)).toEqual([rollers[0]]);
  });
});

describe('assemblies', () => {
  const record = recordOf(teardown(CARRIER));
  it('are made of chosen parts, and dissolved, with all sums as they were', () => {
    const made = after(
      record,
      assembleParts(
        record,
        record.parts.filter((p) => p.name === 'roller' || p.name === 'latch').map((p) => p.id),
        'lock set',
        newId,
      ),
    );
    expect(tree(made).slice(-4)).toEqual(['lock set', '  latch', '  2x roller', '  2x roller']);
    expect(sums(made)).toEqual(sums(record));
    expect([...tree(after(made, dissolvePart(made, idOf(made, 'lock set'))))].sort()).toEqual([...tree(record)].sort());
  });
  it('count what is inside as often as they were there', () => {
    const two = recordOf(teardown(CARRIER.replace('carrier module', '2x carrier module')));
    const loose = after(two, dissolvePart(two, idOf(two, 'carrier module')));
    expect(tree(loose)).toEqual(expect.arrayContaining(['2x carrier plate', '4x cable guide', '2x lever']));
    expect(sums(loose)).toEqual(sums(two));
  });
  it('need a name, and something inside', () => {
    expect(why(assembleParts(record, [idOf(record, 'latch')], ' ', newId))).toBe('Give the assembly a name');
    expect(why(dissolvePart(record, idOf(record, 'latch')))).toBe('latch has nothing inside');
  });
});

describe('a copy on another vehicle', () => {
  const record = recordOf(teardown(CARRIER));
  const copied = after(record, copyParts(record, [idOf(record, 'carrier module')], { ...DOOR_PLACE, vehicleId: RIGHT.id }, newId));
  it('has the same parts, sets and figures, all to be confirmed', () => {
    expect(sums(copied, RIGHT.id)).toMatchObject({ parts: 6, fasteners: 2, joints: 6, massG: 1690 });
    const plate = copied.parts.find((part) => part.name === 'carrier plate' && part.vehicleId === RIGHT.id)!;
    expect(plate.evidence.massEachKg).toMatchObject({ mark: '?', source: 'copied from Left van, carrier plate' });
    expect(copied.parts.flatMap((part) => rowFaults('part', part))).toEqual([]);
  });
  it('leaves the original as it was', () => expect([tree(copied), sums(copied)]).toEqual([tree(record), sums(record)]));
  it('has lines that lead nowhere yet: where they led is on the other vehicle', () => {
    const ends = { fromPortId: testId(801), toPortId: testId(802), route: [[1, 2, 3]] as const };
    const led = {
      ...record,
      connections: [
        { id: testId(800), version: 1, ...blank('connection', { partId: idOf(record, 'latch'), kind: 'hose' }), lengthEachM: 0.4, ...ends },
      ],
    };
    const there = after(led, copyParts(led, [idOf(led, 'latch')], { ...DOOR_PLACE, vehicleId: RIGHT.id }, newId)).connections;
    expect(there.map(({ fromPortId, toPortId, route, lengthEachM }) => [fromPortId, toPortId, route, lengthEachM])).toEqual([
      [ends.fromPortId, ends.toPortId, ends.route, 0.4],
      [null, null, [], 0.4],
    ]);
  });
  it('has no tag of the original', () => {
    const tagged = { ...record, parts: record.parts.map((part) => ({ ...part, tag: 'DR2-1' })) };
    const twice = after(tagged, copyParts(tagged, [idOf(tagged, 'latch')], DOOR_PLACE, newId));
    expect(twice.parts.filter((part) => part.name === 'latch').map((part) => part.tag)).toEqual(['DR2-1', '']);
  });
});

describe('several parts at once', () => {
  const record = recordOf(teardown(CARRIER));
  it('are given a material and how it is known', () => {
    const ids = ['lever', 'latch'].map((name) => idOf(record, name));
    const given = after(record, giveParts(record, ids, { materialId: 's355', supplier: 'Tregear Pressings' }, 'T'));
    const said = (id: string): readonly unknown[] => {
      const part = given.parts.find((one) => one.id === id)!;
      return [part.materialId, part.supplier, part.evidence.materialId?.mark, part.evidence.supplier?.mark];
    };
    expect(ids.map(said)).toEqual(ids.map(() => ['s355', 'Tregear Pressings', 'T', 'T']));
    expect(why(giveParts(given, ids, { materialId: 's355' }, 'T'))).toBe('All of them have these values already');
  });
});

describe('subsystems', () => {
  const base = recordOf(teardown(CARRIER));
  const [latches, lid] = [testId(60), testId(61)];
  const record: StudyRecord = {
    ...base,
    subsystems: [
      ...base.subsystems,
      { id: latches, version: 1, parentId: DOOR.id, sequence: 0, name: 'Latches' },
      { id: lid, version: 1, parentId: null, sequence: 1, name: 'Lid' },
    ],
  };
  it('move below another, and not below themselves', () => {
    const moved = after(record, moveSubsystem(record, lid, DOOR.id));
    expect(moved.subsystems.find((one) => one.id === lid)).toMatchObject({ parentId: DOOR.id, sequence: 1 });
    expect(why(moveSubsystem(record, DOOR.id, latches))).toBe('Sliding cargo door would be below itself; choose a subsystem outside of it');
  });
  it('merge with all that is in them', () => {
    const merged = after(record, mergeSubsystems(record, DOOR.id, lid));
    expect(merged.subsystems.map((one) => [one.name, one.parentId])).toEqual([
      ['Latches', lid],
      ['Lid', null],
    ]);
    expect(sums(merged)).toEqual(sums(record));
    expect(why(mergeSubsystems(record, DOOR.id, latches))).toContain('is below Sliding cargo door');
  });
  it('are deleted when nothing is in them, and say what is', () => {
    expect(after(record, removeSubsystem(record, lid)).subsystems.some((one) => one.id === lid)).toBe(false);
    expect(why(removeSubsystem(record, DOOR.id))).toBe('Sliding cargo door holds 4 parts and 1 subsystem; move or merge them first');
  });
});

describe('any moves one after the other', () => {
  const acts = (least: number): fc.Arbitrary<[number, number, number][]> =>
    fc.array(fc.tuple(fc.nat(20), fc.nat(20), fc.integer({ min: least, max: 3 })), { maxLength: 12 });
  const done = (first: StudyRecord, all: readonly [number, number, number][]): StudyRecord => {
    let record = first;
    for (const [a, b, act] of all) {
      const [part, other] = [record.parts[a % record.parts.length]!, record.parts[b % record.parts.length]!];
      const change = [
        () => moveParts(record, [part.id], { kind: 'part', id: other.id }),
        () => moveParts(record, [part.id, other.id], DOOR_PLACE),
        () => assembleParts(record, [part.id], 'set', newId),
        () => splitPart(record, part.id, 1, newId),
      ][act]!();
      if (change.ok) record = applyOps(record, change.ops, record.revision + 1);
    }
    return record;
  };
  it('leave a tree without circles, with every part in it', () => {
    fc.assert(
      fc.property(acts(0), (all) => {
        const record = done(recordOf(teardown(CARRIER)), all);
        const forest = outline(record);
        expect([forest.issues, record.parts.filter((part) => !forest.placeOf.has(part.id))]).toEqual([[], []]);
      }),
      { numRuns: 60, seed: 5 },
    );
  });
  // an assembly of which everything was moved out counts as one part itself
  it('keep masses, fasteners and joints of the vehicle, as long as no part goes into one that is there more than once or weighed', () => {
    const masses = (record: StudyRecord): object => ({ ...sums(record), parts: 0 });
    const first = recordOf(teardown(CARRIER));
    fc.assert(
      fc.property(acts(1), (all) => expect(masses(done(first, all))).toEqual(masses(first))),
      { numRuns: 60, seed: 6 },
    );
  });
});
