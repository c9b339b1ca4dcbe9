import { UNANSWERED, USUAL_HAZARDS, type HoldPoint, type Op, type Scope, type StudyRecord } from '../../record';
import { packageId, plan } from '../../../testing/plan';
import { DOOR, LEFT, STUDY, testId } from '../../../testing/teardown';
import { HAZARDS } from '../safety/hazards';
import { hazardOps, numbered, printAfter, readAfter, removePackageOps, swapOps } from './package-edits';
import { packagesFromScope, usualHazardsOf } from './packages-from-scope';

const PLAN = plan('a | 1\nb | 1 | a\nc | 1 | b\nd | 1 | b, a');
const [a, b, c, d] = PLAN.packages as [StudyRecord['packages'][number], ...StudyRecord['packages'][number][]];
let n = 0;
const newId = (): string => testId(900 + n++);
const kinds = (ops: readonly Op[]): readonly string[] => ops.map((op) => op.kind);

describe('predecessors', () => {
  it('are typed by number and print back', () => {
    expect(printAfter(d!, PLAN.packages)).toBe('1, 2');
    expect(readAfter('2 1, 2', c!, PLAN.packages)).toEqual({ ok: true, after: [b!.id, a.id] });
    expect(readAfter('3', c!, PLAN.packages)).toEqual({ ok: false, message: 'A package does not wait for itself' });
    expect(readAfter('9', c!, PLAN.packages)).toEqual({ ok: false, message: 'There is no package 9; the numbers go from 1 to 4' });
  });
  it('are numbers alone, parted as people part them; the numbers are those of the plan, not of the list', () => {
    for (const text of ['1;3', ' 1 , 3 ', '1,,3', '1\n3'])
      expect(readAfter(text, b!, PLAN.packages)).toEqual({ ok: true, after: [a.id, c!.id] });
    expect(readAfter('', b!, PLAN.packages)).toEqual({ ok: true, after: [] });
    for (const word of ['1a', 'a1', '0', '-1']) expect(readAfter(word, b!, PLAN.packages)).toMatchObject({ ok: false });
    // another order in the list changes no number
    const shuffled = [d!, b!, a, c!];
    expect(numbered(shuffled).map((p) => p.id)).toEqual([a.id, b!.id, c!.id, d!.id]);
    expect(readAfter('1', d!, shuffled)).toEqual({ ok: true, after: [a.id] });
    expect(printAfter({ ...c!, after: [d!.id, testId(999), a.id] }, shuffled)).toBe('1, 4');
    // of two at one place the id decides, the same for everybody
    const twins = [
      { ...b!, sequence: 0 },
      { ...a, sequence: 0 },
    ];
    expect(numbered(twins).map((p) => p.id)).toEqual([a.id, b!.id]);
    expect(numbered([...twins].reverse()).map((p) => p.id)).toEqual([a.id, b!.id]);
    const many = plan(Array.from({ length: 12 }, (_, i) => `p${i} | 1`).join('\n')).packages;
    expect(readAfter('12', many[0]!, many)).toEqual({ ok: true, after: [many[11]!.id] });
  });
  it('are handed on when a package is taken off, and its readings go with it, those of others stay', () => {
    const reading = (at: number, packageId: string): HoldPoint => ({
      ...{ id: testId(970 + at), version: 3, packageId, sequence: at, hazard: '', asks: `t${at}`, kind: 'yes' },
      ...{ unit: '', low: null, high: null, ...UNANSWERED },
    });
    const ops = removePackageOps({ ...PLAN, holdPoints: [reading(0, b!.id), reading(1, a.id)] }, b!);
    expect(kinds(ops)).toEqual(['package.edit', 'package.edit', 'holdPoint.remove', 'package.remove']);
    expect(ops[2]).toMatchObject({ id: testId(970), was: { packageId: b!.id, asks: 't0' } });
    expect(ops[3]).toMatchObject({ id: b!.id, was: { name: 'b', after: [a.id] } });
    expect('version' in (ops[2] as { was: object }).was).toBe(false);
    // d waited for a as well, and still does, once
    expect(ops[1]).toMatchObject({ fields: { after: [a.id] } });
  });
  it('of the first and the last stay where they are', () => {
    expect(swapOps(PLAN.packages, a, -1)).toEqual([]);
    expect(swapOps(PLAN.packages, d!, 1)).toEqual([]);
    expect(swapOps(PLAN.packages, c!, -1).map((op) => [op.id, 'fields' in op ? op.fields : {}])).toEqual([
      [c!.id, { sequence: 1 }],
      [b!.id, { sequence: 2 }],
    ]);
    // two at one place are parted: the one that is moved goes on, and below 0 there is no place
    const twins = [
      { ...a, sequence: 0 },
      { ...b!, sequence: 0 },
    ];
    expect(swapOps(twins, twins[0]!, 1).map((op) => [op.id, 'fields' in op ? op.fields : {}])).toEqual([[a.id, { sequence: 1 }]]);
    expect(swapOps(twins, twins[1]!, -1)).toEqual([]);
  });
  it('are handed on when a package is taken off', () => {
    const ops = removePackageOps(PLAN, b!);
    expect(kinds(ops)).toEqual(['package.edit', 'package.edit', 'package.remove']);
    expect(ops[0]).toMatchObject({ id: c!.id, fields: { after: [a.id] } });
    expect(ops[1]).toMatchObject({ id: d!.id, fields: { after: [a.id] } });
  });
  it('stay when packages change places', () =>
    expect(swapOps(PLAN.packages, a, 1).map((op) => ('fields' in op ? op.fields : {}))).toEqual([{ sequence: 1 }, { sequence: 0 }]));
});

describe('hazards of a package', () => {
  it('bring their readings, once', () => {
    const ops = hazardOps(PLAN, a, ['high-voltage', 'oil'], newId);
    expect(kinds(ops)).toEqual(['package.edit', ...Array<string>(4).fill('holdPoint.add')]);
    expect(ops[2]).toMatchObject({
      fields: { asks: 'Voltage measured at the terminals after the wait', unit: 'V', high: 60, value: null },
    });
  });
  it('change nothing where they are the same, and ask nothing that is asked already', () => {
    const hot = { ...a, hazards: ['oil'] };
    expect(hazardOps({ packages: [hot], holdPoints: [] }, hot, ['oil'], newId)).toEqual([]);
    const asked = HAZARDS.find((h) => h.id === 'high-voltage')!.holdPoints;
    const kept: HoldPoint = {
      id: testId(980),
      version: 1,
      packageId: a.id,
      sequence: 6,
      hazard: 'high-voltage',
      ...asked[0]!,
      ...UNANSWERED,
    };
    const elsewhere: HoldPoint = { ...kept, id: testId(981), packageId: b!.id, ...asked[1]!, sequence: 40 };
    // the same words under another hazard, and the same hazard with other words, are not it
    const other: HoldPoint = { ...kept, id: testId(982), sequence: 2, hazard: 'oil', ...asked[2]! };
    const added = hazardOps({ packages: [a], holdPoints: [kept, elsewhere, other] }, a, ['high-voltage'], newId).slice(1);
    expect(added.map((op) => (op.kind === 'holdPoint.add' ? op.fields.asks : ''))).toEqual(asked.slice(1).map((g) => g.asks));
    // they stand behind the last of the package
    expect(added.map((op) => (op.kind === 'holdPoint.add' ? op.fields.sequence : 0))).toEqual(asked.slice(1).map((_, i) => 7 + i));
    expect(hazardOps({ packages: [a], holdPoints: [] }, a, ['no such hazard'], newId).map((op) => op.kind)).toEqual(['package.edit']);
  });
  it('that stay keep their readings, and so do readings that somebody added', () => {
    const holdPoint = (at: number, hazard: string, said = ''): HoldPoint => ({
      ...{ id: testId(985 + at), version: 1, packageId: a.id, sequence: at, hazard, asks: `t${at}`, kind: 'text' },
      ...{ unit: '', low: null, high: null, ...UNANSWERED, said },
    });
    const hot = { ...a, hazards: ['coolant', 'oil'] };
    const holdPoints = [
      holdPoint(0, 'oil'),
      holdPoint(1, ''),
      holdPoint(2, 'coolant', 'yes'),
      holdPoint(3, 'coolant', '  '),
      holdPoint(4, 'magnets'),
    ];
    const ops = hazardOps(
      { packages: [hot], holdPoints: [...holdPoints, { ...holdPoint(5, 'coolant'), packageId: b!.id }] },
      hot,
      ['oil'],
      newId,
    );
    expect(ops.map((op) => [op.kind, op.id])).toEqual([['package.edit', a.id], ['holdPoint.remove', testId(988)]]); // prettier-ignore
  });
  it('take unanswered readings with them, not answered ones', () => {
    const holdPoint = (at: number, value: number | null): HoldPoint => ({
      ...{ id: testId(950 + at), version: 1, packageId: packageId(0), sequence: at, hazard: 'coolant', asks: `t${at}`, kind: 'number' },
      ...{ unit: '°C', low: null, high: null, ...UNANSWERED, value },
    });
    const hot = { ...a, hazards: ['coolant'] };
    const ops = hazardOps({ packages: [hot], holdPoints: [holdPoint(0, null), holdPoint(1, 30)] }, hot, [], newId);
    expect(ops.map((op) => [op.kind, op.id])).toEqual([['package.edit', a.id], ['holdPoint.remove', testId(950)]]); // prettier-ignore
  });
});

describe('packages from the scope', () => {
  const scope = (fields: Partial<Scope>): Scope => ({
    ...{
      id: testId(960),
      version: 1,
      vehicleId: LEFT.id,
      subsystemId: DOOR.id,
      depth: 'parts',
      reason: '',
      expectedParts: null,
      expectedS: null,
    },
    ...fields,
  });
  const made = (scopes: readonly Scope[], packages: StudyRecord['packages'] = []) =>
    packagesFromScope({ packages, scopes, vehicles: [LEFT], subsystems: [DOOR], study: STUDY }, [], newId);
  it('are off the vehicle, then opened, with the hours shared between two people', () => {
    const { ops, withoutTime } = made([scope({ expectedS: 36_000 })]);
    const packs = ops.flatMap((op) => (op.kind === 'package.add' ? [op.fields] : []));
    expect(packs.map((p) => [p.name, p.place, p.people, p.mostLikelyS])).toEqual([
      ['Sliding cargo door off Left van', 'lift', 2, 5400],
      ['Take to parts: Sliding cargo door, Left van', 'bay', 2, 12_600],
    ]);
    expect(packs[1]!.after).toEqual([ops[0]!.id]);
    // 2 people × (1.5 h + 3.5 h) = the 10 h of people that were expected
    expect(packs.reduce((sum, p) => sum + p.mostLikelyS! * p.people, 0)).toBe(36_000);
    expect(withoutTime).toEqual([]);
  });
  it('carry the hazards their subsystem usually has, with the readings these ask for', () => {
    const battery = { ...DOOR, id: testId(41), name: 'High-voltage battery' };
    const { ops } = packagesFromScope(
      { packages: [], scopes: [scope({ subsystemId: battery.id })], vehicles: [LEFT], subsystems: [battery], study: STUDY },
      [],
      newId,
    );
    const packs = ops.flatMap((op) => (op.kind === 'package.add' ? [op] : []));
    expect(packs.map((p) => p.fields.hazards.includes('high-voltage'))).toEqual([true, true]);
    for (const pack of packs) {
      const asked = ops.flatMap((op) => (op.kind === 'holdPoint.add' && op.fields.packageId === pack.id ? [op.fields] : []));
      expect(asked.map((g) => g.asks)).toContain('Voltage measured at the terminals after the wait');
      expect(asked.map((g) => g.sequence)).toEqual(asked.map((_, i) => i));
    }
  });
  it('have the hazards of the table of the study, whatever it says', () => {
    const table = [{ words: ['Exhaust', 'silencer'], hazards: ['fibres', 'sharp-edges'] }];
    expect(usualHazardsOf('Rear silencer', table)).toEqual(['fibres', 'sharp-edges']);
    expect(usualHazardsOf('Sliding cargo door', table)).toEqual([]);
    const known = new Set(HAZARDS.map((h) => h.id));
    expect(USUAL_HAZARDS.flatMap((line) => line.hazards).filter((id) => !known.has(id))).toEqual([]);
  });
  it('wait, on an electric vehicle, until it is made safe; a vehicle without high voltage needs no such package', () => {
    const electric = { ...LEFT, voltageV: 400 };
    const of = (vehicle: typeof LEFT, packages: StudyRecord['packages'] = []) =>
      packagesFromScope(
        { packages, scopes: [scope({ expectedS: 3600 })], vehicles: [vehicle], subsystems: [DOOR], study: STUDY },
        [],
        newId,
      ).ops.flatMap((op) => (op.kind === 'package.add' ? [op] : []));
    const [safe, off, open] = of(electric);
    expect(safe!.fields).toMatchObject({ name: 'Make safe: high voltage of Left van', hazards: ['high-voltage', 'capacitors'], after: [] });
    expect(off!.fields.after).toEqual([safe!.id]);
    expect(open!.fields.after).toEqual([off!.id]);
    // 48 V is below 60 V DC
    expect(of({ ...LEFT, voltageV: 48 })).toHaveLength(2);
    expect(of({ ...LEFT, batteryJ: 2.7e8 })[0]!.fields.name).toContain('Make safe');
    // it is made once
    const made = { id: safe!.id, version: 1, ...safe!.fields };
    const [next] = of(electric, [made]);
    expect(next!.fields.after).toEqual([safe!.id]);
  });
  it('stand behind what is planned, vehicle after vehicle and subsystem after subsystem, each on the lift after the one before', () => {
    const second = { ...LEFT, id: testId(42), sequence: 1, name: 'Second van' };
    const seat = { ...DOOR, id: testId(43), sequence: 1, name: 'Seat' };
    const earlier = { ...a, sequence: 7, name: 'floor out', vehicleId: LEFT.id, subsystemId: testId(44), place: 'lift' as const };
    const onBench = { ...b!, sequence: 9, vehicleId: LEFT.id, subsystemId: testId(45), place: 'bay' as const };
    const { ops } = packagesFromScope(
      {
        packages: [earlier, onBench],
        scopes: [scope({ vehicleId: second.id, subsystemId: seat.id }), scope({ subsystemId: seat.id }), scope({})],
        ...{ vehicles: [second, LEFT], subsystems: [seat, DOOR], study: { ...STUDY, usualHazards: [] } },
      },
      [],
      newId,
    );
    const packs = ops.flatMap((op) => (op.kind === 'package.add' ? [op] : []));
    expect(packs.map((p) => `${p.fields.sequence} ${p.fields.name}`)).toEqual([
      '10 Sliding cargo door off Left van',
      '11 Take to parts: Sliding cargo door, Left van',
      '12 Seat off Left van',
      '13 Take to parts: Seat, Left van',
      '14 Seat off Second van',
      '15 Take to parts: Seat, Second van',
    ]);
    expect(packs.map((p) => p.fields.after)).toEqual([[earlier.id], [packs[0]!.id], [packs[0]!.id], [packs[2]!.id], [], [packs[4]!.id]]);
  });
  it('are estimated from three quarters to half as much again, or as far as earlier studies scatter', () => {
    const packs = (scopes: readonly Scope[], cases: Parameters<typeof packagesFromScope>[1] = []) =>
      packagesFromScope({ packages: [], scopes, vehicles: [LEFT], subsystems: [DOOR], study: STUDY }, cases, newId).ops.flatMap((op) =>
        op.kind === 'package.add' ? [[op.fields.optimisticS, op.fields.mostLikelyS, op.fields.pessimisticS]] : [],
      );
    // 10 h of people: 0.3 of it for two on the lift is 1.5 h
    expect(packs([scope({ expectedS: 36_000 })])[0]).toEqual([4050, 5400, 8100]);
    // only weighed as a module, most of the time goes into taking it off
    expect(packs([scope({ expectedS: 36_000, depth: 'module' })]).map(([, likely]) => likely)).toEqual([12_600, 5400]);
    expect(packs([scope({})])[0]).toEqual([null, null, null]);
    const case_ = (parts: number, hours: number) => ({
      study: 's',
      vehicle: `v${parts}`,
      subsystem: 'x',
      depth: 'parts',
      parts,
      peopleS: hours * 3600,
    });
    const learnt = packs([scope({ expectedParts: 100 })], [case_(50, 4), case_(100, 11), case_(150, 14), case_(200, 21)]);
    const [least, likely, most] = learnt[0]!;
    // the line through them: 0.108 h a part from −1 h, 9.8 h at 100 parts; 80 % within t(2) s √(1 + 1/4 + 625/12500)
    expect(likely! / 3600).toBeCloseTo((9.8 * 0.3) / 2, 6);
    expect(least!).toBeLessThan(likely!);
    expect(likely! - least!).toBeCloseTo(most! - likely!, 6);
    expect(most! / 3600).toBeCloseTo((9.8 + 1.8856 * Math.sqrt(3.2 / 2) * Math.sqrt(1.3)) * 0.15, 3);
    // a time that a person typed does not scatter as the line does
    expect(packs([scope({ expectedParts: 100, expectedS: 36_000 })], [case_(50, 4), case_(100, 11), case_(150, 14)])[0]).toEqual([
      4050, 5400, 8100,
    ]);
  });
  it('of another vehicle or subsystem do not count as there, nor does another’s make-safe', () => {
    const elsewhere = { ...a, vehicleId: testId(77), subsystemId: DOOR.id, name: 'Make safe: another' };
    expect(made([scope({})], [elsewhere]).ops.filter((op) => op.kind === 'package.add')).toHaveLength(2);
    const electric = packagesFromScope(
      { packages: [elsewhere], scopes: [scope({})], vehicles: [{ ...LEFT, voltageV: 60 }], subsystems: [DOOR], study: STUDY },
      [],
      newId,
    );
    expect(electric.ops.find((op) => op.kind === 'package.add')).toMatchObject({ fields: { name: 'Make safe: high voltage of Left van' } });
    expect(made([scope({ vehicleId: testId(77) })]).ops).toEqual([]);
    expect(made([scope({ subsystemId: testId(78) })]).ops).toEqual([]);
  });
  it('are not made twice, nor of what stays closed, and say whose time is not known', () => {
    expect(made([scope({ depth: 'closed', reason: 'not asked' })]).ops).toEqual([]);
    expect(made([scope({})]).withoutTime).toEqual(['Sliding cargo door, Left van']);
    expect(made([scope({})], [{ ...a, vehicleId: LEFT.id, subsystemId: DOOR.id }]).ops).toEqual([]);
  });
});
