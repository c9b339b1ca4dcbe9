import { join } from 'node:path';
import { materialById, processById } from '@each-bolt/core/shared';
import { subsystemKey, type StudyRecord } from '@each-bolt/core/record';
import { ownAt, shown, totalsOf } from '@each-bolt/core/bench';
import { studyRollUp } from '@each-bolt/core/cost';
import {
  UNSEEN_BY_X_RAYS,
  boardDutyReport,
  boardFigures,
  circuitOf,
  cueById,
  density,
  heatingOf,
  heatingReport,
  matchGrades,
  matchHoles,
  materialsByDensity,
  portsById,
  routeOf,
  runsOf,
  supplyTree,
  type Place,
} from '@each-bolt/core/measure';
import { liftBalance, lumpOf, planSchedule, sampleWarnings, scopeExpectation, type Experience } from '@each-bolt/core/plan';
import { Api, listen } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { one } from '../db/rows';
import type { Pool } from '../db/pool';
import { DEMO_PEOPLE } from '../people/demo-people';
import { loadDemo } from './load-demo';

const DEMO = join(__dirname, '..', '..', '..', 'demo');

describe('the demo study', () => {
  let api: Api;
  let pool: Pool;
  let drop: () => Promise<void>;
  let record: StudyRecord;
  let studyId: string;
  beforeAll(async () => {
    ({ pool, drop } = await testDatabase());
    const listening = await listen(pool);
    api = new Api(listening.address, pool, listening.stop);
    expect(await loadDemo(pool, DEMO, '2026-11-25')).toBe(true);
    const [lead] = DEMO_PEOPLE;
    await api.post('/api/sign-in', JSON.stringify({ login: lead?.login, password: lead?.password }));
    const studies = await api.get<readonly { id: string }[]>('/api/studies');
    studyId = studies.body[0]?.id ?? '';
    record = await api.record(studyId);
  });
  afterAll(async () => {
    await api.stop();
    await drop();
  });

  it('is loaded into an empty database only', async () => expect(await loadDemo(pool, DEMO)).toBe(false));
  it('stands first in the list, above the studies that were loaded with it', async () => {
    const { body } = await api.get<readonly { title: string }[]>('/api/studies');
    expect(body.map((s) => s.title)).toEqual(['Last-mile vans', 'Second bench, half recorded', 'City vans']);
  });
  it('has two doors of 60 to 90 parts each, with fasteners and joints', () => {
    const { rolled } = studyRollUp(record);
    for (const vehicle of record.vehicles.filter((v) => v.acquiredOn !== null)) {
      const totals = totalsOf(rolled, subsystemKey(vehicle.id, record.subsystems[0]?.id ?? ''));
      expect(totals?.parts.value).toBeGreaterThanOrEqual(60);
      expect(totals?.parts.value).toBeLessThanOrEqual(90);
      expect(totals?.fasteners.value).toBeGreaterThan(50);
      expect(totals?.joints.value).toBeGreaterThan(100);
    }
  });

  /** @source the database’s own arithmetic: a recursive query over the same rows */
  it('rolls up to the totals that SQL works out', async () => {
    const { rolled } = studyRollUp(record);
    // what was weighed as a whole stands for its parts; without those weighings only the sums of the parts are left
    const opened = new Set(record.parts.map((p) => p.parentId));
    const summed = studyRollUp({
      ...record,
      parts: record.parts.map((p) => (opened.has(p.id) ? { ...p, massEachKg: null, massUKg: null, massEvidence: null } : p)),
    }).rolled;
    for (const vehicle of record.vehicles.filter((v) => v.acquiredOn !== null)) {
      const sql = await one<{ parts: number; mass: number; variance: number; fasteners: number; joints: number }>(
        pool,
        `with recursive tree as (
           select id, quantity::float8 as times, mass_each_kg, (evidence #>> '{massEachKg,u}')::float8 as mass_u_kg from part where vehicle_id = $1 and parent_id is null
           union all
           select p.id, t.times * p.quantity, p.mass_each_kg, (p.evidence #>> '{massEachKg,u}')::float8 from part p join tree t on p.parent_id = t.id
         ), leaf as (select * from tree t where not exists (select from part c where c.parent_id = t.id))
         select (select sum(times) from leaf)::float8 as parts,
           (select sum(times * mass_each_kg) from leaf) as mass,
           (select sum((times * mass_u_kg) ^ 2) from leaf) as variance,
           (select sum(f.count * t.times) from fastener_set f join tree t on t.id = f.part_id)::float8 as fasteners,
           (select sum(j.count * t.times) from joint_set j join tree t on t.id = j.part_id)::float8 as joints`,
        [vehicle.id],
      );
      const totals = totalsOf(rolled, vehicle.id);
      if (!totals) throw new Error('no totals');
      const s = shown(totals, false);
      const parts = totalsOf(summed, vehicle.id);
      if (!parts) throw new Error('no sums');
      const sums = shown(parts, false);
      expect([s.parts, s.fasteners, s.joints]).toEqual([sql.parts, sql.fasteners, sql.joints]);
      expect(sums.massKg).toBeCloseTo(sql.mass, 9);
      expect((sums.massUKg ?? 0) ** 2).toBeCloseTo(sql.variance, 9);
      // the weighings agree with the sums
      expect(Math.abs((s.massKg ?? 0) - sql.mass) / sql.mass).toBeLessThan(5e-4);
    }
  });
  it('closes: every weighed assembly agrees with its parts and fasteners to within a few grams', () => {
    const { rolled } = studyRollUp(record);
    const weighed = record.parts.filter((p) => p.massEachKg !== null && record.parts.some((c) => c.parentId === p.id));
    expect(weighed.length).toBeGreaterThanOrEqual(30);
    for (const part of weighed) {
      const totals = totalsOf(rolled, part.id);
      const held = record.fastenerSets.filter((f) => f.partId === part.id).length;
      const own = ownAt(rolled, rolled.outline.placeOf.get(part.id) ?? -1);
      const inside =
        (totals?.mass.value ?? 0) +
        (totals?.fastenerMass.value ?? 0) -
        part.quantity * (held > 0 ? (own?.figures.fastenerMass?.value ?? 0) : 0);
      const whole = (part.massEachKg ?? 0) * part.quantity;
      expect([part.name, Math.abs(inside - whole) < Math.max(0.1, 5e-4 * whole)]).toEqual([part.name, true]);
    }
  });

  it('is whole: seven subsystems of three vans, some nine hundred loose parts, each subsystem removed with tools, order and times', () => {
    const { rolled } = studyRollUp(record);
    for (const { id, name } of record.vehicles) {
      const recorded = record.subsystems.filter((s) => record.parts.some((p) => p.vehicleId === id && p.subsystemId === s.id));
      expect([name, recorded.length]).toEqual([name, 7]);
    }
    const parts = record.vehicles.reduce((sum, { id }) => sum + shown(totalsOf(rolled, id)!, false).parts, 0);
    expect([parts > 850, parts < 1200]).toEqual([true, true]);
    expect([record.sessions.length, record.steps.length]).toEqual([21, 232]);
    const timed = record.steps.filter((s) => s.tool !== '' && s.direction !== null && s.people !== null && (s.workedS ?? 0) > 30);
    expect(timed).toHaveLength(232);
    // most waited for another, none for one that came later
    const at = new Map(record.steps.map((s) => [s.id, s.sequence]));
    expect(record.steps.filter((s) => s.after.length > 0).length).toBeGreaterThan(120);
    for (const step of record.steps) for (const id of step.after) expect(at.get(id)!).toBeLessThan(step.sequence);
    for (const kind of ['connector', 'cable', 'hose', 'pipe'])
      expect(record.connections.filter((c) => c.kind === kind).length).toBeGreaterThan(5);
    expect([record.boards.length, record.fluids.length]).toEqual([4, 12]);
  });
  it('is planned whole: some forty packages, four people, two bays and a lift, partly done, a vehicle still to come', () => {
    const of = (kind: string): number => record.resources.filter((r) => r.kind === kind).length;
    expect([of('person'), of('bay'), of('lift')]).toEqual([4, 2, 1]);
    expect(record.packages.length).toBeGreaterThanOrEqual(40);
    const { schedule, issues } = planSchedule(record, { today: '2026-11-25', tries: 60, samples: 20 });
    expect(issues).toEqual([]);
    const states = schedule!.packages.map((s) => s.state);
    expect(states.filter((s) => s === 'done').length).toBeGreaterThan(10);
    expect(states.filter((s) => s === 'running').length).toBeGreaterThan(1);
    expect(record.vehicles.map((v) => [v.name, v.acquiredOn !== null, v.expectedOn])).toContainEqual(['Drayman', false, '2026-12-07']);
    // about ten weeks of five days
    const days = schedule!.finish / schedule!.axis.slotsPerDay;
    expect([days > 42, days < 58]).toEqual([true, true]);
  });
  it('is warned of a sample that was changed, and of the step that would tip a van off its pads', () => {
    const warned = sampleWarnings(record, (figure) => figure).map((w) => w.code);
    expect(warned).toContain('modified');
    const pannier = record.vehicles.find((v) => v.name === 'Pannier')!;
    const steps = record.liftSteps.filter((u) => u.vehicleId === pannier.id).sort((a, b) => a.sequence - b.sequence);
    const liftSetUp = record.liftSetUps.find((h) => h.vehicleId === pannier.id)!;
    const balance = liftBalance(
      liftSetUp,
      steps,
      steps.map((u) => lumpOf(u, null, null, null)),
    );
    expect(steps[balance.firstBad ?? -1]?.label).toBe('Traction battery and cooling');
  });
  it('has an earlier study to learn from: parts and hours of a door', async () => {
    const { body } = await api.get<readonly Experience[]>(`/api/studies/${studyId}/plan/experience`);
    expect(body.filter((row) => row.study === 'City vans')).toHaveLength(10);
    const scope = record.scopes.find((s) => s.subsystemId === record.subsystems[0]!.id)!;
    const expected = scopeExpectation('Sliding cargo door', { ...scope, expectedParts: null }, body);
    expect(expected.learntParts?.cases).toBe(2);
    expect(expected.learntTime?.cases).toBe(10);
    expect(expected.peopleS! / 3600).toBeGreaterThan(50);
  });
  it('has scans of eight parts, each watertight and as dense as the material it is said to be of', () => {
    expect(record.scans).toHaveLength(8);
    for (const { partId, figures, fileName } of record.scans) {
      const part = record.parts.find((p) => p.id === partId)!;
      const read = density(
        { massKg: part.massEachKg!, uKg: part.evidence.massEachKg?.u ?? 0 },
        { volumeM3: figures.volumeM3!, uM3: figures.volumeUM3! },
      );
      const said = materialsByDensity(read).find((m) => m.material.id === part.materialId);
      expect([fileName, figures.openEdges, figures.nonManifoldEdges, (said?.apart ?? 9) < 1]).toEqual([fileName, 0, 0, true]);
    }
  });
  it('has alloy readings of a dozen parts; all but the planted one fit the material that is recorded', () => {
    const readings = record.readings.filter((r) => r.elements !== null);
    expect(readings.length).toBeGreaterThanOrEqual(12);
    const contradicting = readings.filter((r) => {
      const part = record.parts.find((p) => p.id === r.aboutId)!;
      return !matchGrades(r.elements!, UNSEEN_BY_X_RAYS).matches.some((m) => m.fits && m.grade.materialId === part.materialId);
    });
    expect(contradicting.map((r) => record.parts.find((p) => p.id === r.aboutId)?.tag)).toEqual(['DR2-2-11']);
  });
  it('has decisions that name materials, processes and cues of the catalogues', () => {
    expect(record.identifications.length).toBeGreaterThanOrEqual(3);
    for (const i of record.identifications)
      expect([i.materialId, i.processId, i.cues]).toEqual([
        materialById.get(i.materialId ?? '')?.id,
        processById.get(i.processId ?? '')?.id,
        i.cues.filter((cue) => cueById.has(cue)),
      ]);
  });
  it('has sections of both doors to hold against each other, a hole pattern that would bolt on and one that would not', () => {
    const tagOf = (partId: string): string => record.parts.find((p) => p.id === partId)?.tag ?? '';
    expect(record.sections.map((s) => tagOf(s.partId))).toEqual(expect.arrayContaining(['DR2-5-1', 'PAN-5-1', 'DR2-1-5', 'PAN-1-7']));
    const points = (tag: string): readonly Place[] => record.holePatterns.find((p) => tagOf(p.partId) === tag)!.points;
    const clearanceM = 0.0005;
    expect(matchHoles(points('DR2-4-6'), points('PAN-4-7'), clearanceM, false).bolts).toBe(true);
    const roller = matchHoles(points('DR2-1-6'), points('PAN-1-9'), clearanceM, false);
    expect(roller.points.filter((p) => !p.isWithin).map((p) => p.from + 1)).toEqual([4]);
  });

  it('has a second bench left half recorded: removals with tools and times, one of which waits for nothing', async () => {
    const studies = (await api.get<readonly { id: string; title: string }[]>('/api/studies')).body;
    const bench = await api.record(studies.find((s) => s.title === 'Second bench, half recorded')?.id ?? '');
    expect(bench.sessions).toMatchObject([{ closedAt: null, remover: 'Odo Farrow' }]);
    expect(bench.steps.map((s) => [s.tool, s.after.length])).toEqual([
      ['ratchet', 0],
      ['ratchet', 1],
      ['trim lever', 1],
      ['by hand', 1],
      ['cordless driver', 1],
    ]);
    expect(bench.steps.reduce((sum, s) => sum + (s.workedS ?? 0), 0)).toBe(17 * 210);
    expect(bench.connections.map((c) => c.kind).sort()).toEqual(['cable', 'connector', 'hose']);
  });
  it('has circuits that run on every van and for both heaters, and no line shorter than its ends are apart', () => {
    const ports = portsById(record);
    for (const { connection, part } of runsOf(
      record,
      () => true,
      () => 1,
    ))
      // prettier-ignore
      expect([part.name, routeOf(connection, part.name, ports).issues]).toEqual([part.name, []]);
    const fluid = { densityKgPerM3: 1065, viscosityPaS: 2.8e-3 };
    const pumpsOf = (vehicleId: string): readonly string[] => {
      const own = runsOf(record, (part) => part.vehicleId === vehicleId, () => 1).filter(({ connection }) => connection.fromPortId !== null); // prettier-ignore
      const { links, issues } = circuitOf(record, own, fluid);
      expect(issues).toEqual([]);
      return links.filter(({ does }) => does === 'pumps').map(({ name }) => name);
    };
    expect(record.vehicles.map(({ id }) => pumpsOf(id).length)).toEqual([2, 2, 1]);
  });
  it('has one load that nothing feeds, on purpose, and nothing else wrong with its supply', () => {
    const issues = record.vehicles.flatMap(({ id }) => supplyTree(record, id).issues);
    expect(issues.map(({ code, message }) => [code, message.slice(0, 17)])).toEqual([['unfed', '“shunt amplifier”']]);
  });
  it('has boards that lie in their boxes and stay below what they may be, by their own figures', () => {
    const parts = new Map(record.parts.map((part) => [part.id, part]));
    for (const board of record.boards) {
      const box = parts.get(parts.get(board.partId)?.parentId ?? '') ?? null;
      expect(boardFigures(board, [], box).issues).toEqual([]);
    }
    for (const duty of record.boardDuties) expect(boardDutyReport(duty).values.headroomK ?? 1).toBeGreaterThan(0);
  });
  it('heats its cabs at a COP below that of the ideal cycle, from what its vehicles state', () => {
    for (const heating of record.heatings) {
      const { values, missing } = heatingReport(
        heatingOf(
          heating,
          record.vehicles.find(({ id }) => id === heating.vehicleId)!,
        ),
      );
      expect([missing, values.cop! < values.idealCop!, values.gainM! > 0]).toEqual([[], true, true]);
    }
  });
  it('has schematic pictures of packs, heaters and chargers, with their marks', () => {
    expect(record.pictures.filter(({ shows }) => shows.startsWith('schematic'))).toHaveLength(9);
    expect(record.pictures.every(({ widthPx, heightPx }) => widthPx === 640 && heightPx === 480)).toBe(true);
  });
});
