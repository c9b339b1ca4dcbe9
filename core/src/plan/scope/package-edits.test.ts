import { UNANSWERED, USUAL_HAZARDS, type Gate, type Op, type Scope, type StudyRecord } from '../../record';
import { packageId, plan } from '../../../testing/plan';
import { DOOR, LEFT, STUDY, testId } from '../../../testing/teardown';
import { HAZARDS } from '../safety/hazards';
import { hazardOps, printAfter, readAfter, removePackageOps, swapOps } from './package-edits';
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
    expect(kinds(ops)).toEqual(['package.edit', ...Array<string>(4).fill('gate.add')]);
    expect(ops[2]).toMatchObject({
      fields: { asks: 'Voltage measured at the terminals after the wait', unit: 'V', high: 60, value: null },
    });
  });
  it('take unanswered readings with them, not answered ones', () => {
    const gate = (at: number, value: number | null): Gate => ({
      ...{ id: testId(950 + at), version: 1, packageId: packageId(0), sequence: at, hazard: 'coolant', asks: `t${at}`, kind: 'number' },
      ...{ unit: '°C', low: null, high: null, ...UNANSWERED, value },
    });
    const hot = { ...a, hazards: ['coolant'] };
    const ops = hazardOps({ packages: [hot], gates: [gate(0, null), gate(1, 30)] }, hot, [], newId);
    expect(ops.map((op) => [op.kind, op.id])).toEqual([['package.edit', a.id], ['gate.remove', testId(950)]]); // prettier-ignore
  });
});

describe('packages from the scope', () => {
  const scope = (fields: Partial<Scope>): Scope => ({
    ...{
      id: testId(960),
      version: 1,
      vehicleId: LEFT.id,
      subsystemId: DOOR.id,
      depth: 'pieces',
      reason: '',
      expectedPieces: null,
      expectedS: null,
    },
    ...fields,
  });
  const made = (scopes: readonly Scope[], packages: StudyRecord['packages'] = []) =>
    packagesFromScope({ packages, scopes, vehicles: [LEFT], subsystems: [DOOR], study: STUDY }, [], newId);
  it('are off the vehicle, then opened, with the hours shared between two people', () => {
    const { ops, withoutTime } = made([scope({ expectedS: 36_000 })]);
    const packs = ops.flatMap((op) => (op.kind === 'package.add' ? [op.fields] : []));
    expect(packs.map((p) => [p.name, p.place, p.people, p.likelyS])).toEqual([
      ['Sliding cargo door off Left van', 'lift', 2, 5400],
      ['Take to pieces: Sliding cargo door, Left van', 'bay', 2, 12_600],
    ]);
    expect(packs[1]!.after).toEqual([ops[0]!.id]);
    // 2 people × (1.5 h + 3.5 h) = the 10 h of people that were expected
    expect(packs.reduce((sum, p) => sum + p.likelyS! * p.people, 0)).toBe(36_000);
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
      const asked = ops.flatMap((op) => (op.kind === 'gate.add' && op.fields.packageId === pack.id ? [op.fields] : []));
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
  it('are not made twice, nor of what stays closed, and say whose time is not known', () => {
    expect(made([scope({ depth: 'closed', reason: 'not asked' })]).ops).toEqual([]);
    expect(made([scope({})]).withoutTime).toEqual(['Sliding cargo door, Left van']);
    expect(made([scope({})], [{ ...a, vehicleId: LEFT.id, subsystemId: DOOR.id }]).ops).toEqual([]);
  });
});
