import { join } from 'node:path';
import { subsystemKey, type StudyRecord } from '@each-bolt/core/record';
import { ownAt, shown, totalsOf } from '@each-bolt/core/bench';
import { studyRollUp } from '@each-bolt/core/cost';
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
  beforeAll(async () => {
    ({ pool, drop } = await testDatabase());
    const listening = await listen(pool);
    api = new Api(listening.address, pool, listening.stop);
    expect(await loadDemo(pool, DEMO)).toBe(true);
    const [lead] = DEMO_PEOPLE;
    await api.post('/api/sign-in', JSON.stringify({ login: lead?.login, password: lead?.password }));
    const studies = await api.get<readonly { id: string }[]>('/api/studies');
    record = await api.record(studies.body[0]?.id ?? '');
  });
  afterAll(async () => {
    await api.stop();
    await drop();
  });

  it('is loaded into an empty database only', async () => expect(await loadDemo(pool, DEMO)).toBe(false));
  it('has two doors of 60 to 90 pieces each, with fasteners and joints', () => {
    const { rolled } = studyRollUp(record);
    for (const vehicle of record.vehicles) {
      const totals = totalsOf(rolled, subsystemKey(vehicle.id, record.subsystems[0]?.id ?? ''));
      expect(totals?.pieces).toBeGreaterThanOrEqual(60);
      expect(totals?.pieces).toBeLessThanOrEqual(90);
      expect(totals?.fasteners).toBeGreaterThan(50);
      expect(totals?.joints).toBeGreaterThan(100);
    }
  });

  /** @source the database’s own arithmetic: a recursive query over the same rows */
  it('rolls up to the totals that SQL works out', async () => {
    const { rolled } = studyRollUp(record);
    for (const vehicle of record.vehicles) {
      const sql = await one<{ pieces: number; mass: number; variance: number; fasteners: number; joints: number }>(
        pool,
        `with recursive tree as (
           select id, quantity::float8 as times, mass_each_kg, mass_u_kg from piece where vehicle_id = $1 and parent_id is null
           union all
           select p.id, t.times * p.quantity, p.mass_each_kg, p.mass_u_kg from piece p join tree t on p.parent_id = t.id
         ), leaf as (select * from tree t where not exists (select from piece c where c.parent_id = t.id))
         select (select sum(times) from leaf)::float8 as pieces,
           (select sum(times * mass_each_kg) from leaf) as mass,
           (select sum((times * mass_u_kg) ^ 2) from leaf) as variance,
           (select sum(f.count * t.times) from fastener_set f join tree t on t.id = f.piece_id)::float8 as fasteners,
           (select sum(j.count * t.times) from joint_set j join tree t on t.id = j.piece_id)::float8 as joints`,
        [vehicle.id],
      );
      const totals = totalsOf(rolled, vehicle.id);
      if (!totals) throw new Error('no totals');
      const s = shown(totals, false);
      expect([s.pieces, s.fasteners, s.joints]).toEqual([sql.pieces, sql.fasteners, sql.joints]);
      expect(s.massKg).toBeCloseTo(sql.mass, 9);
      expect((s.massUKg ?? 0) ** 2).toBeCloseTo(sql.variance, 9);
    }
  });
  it('closes: every weighed assembly agrees with its pieces and fasteners to within a few grams', () => {
    const { rolled } = studyRollUp(record);
    const whole = record.pieces.filter((p) => p.massEachKg !== null && record.pieces.some((c) => c.parentId === p.id));
    expect(whole.length).toBeGreaterThanOrEqual(10);
    for (const piece of whole) {
      const totals = totalsOf(rolled, piece.id);
      const held = record.fastenerSets.filter((f) => f.pieceId === piece.id).length;
      const own = ownAt(rolled, rolled.outline.placeOf.get(piece.id) ?? -1);
      const inside = (totals?.massKg ?? 0) + (totals?.fastenerMassKg ?? 0) - (held > 0 ? (own?.fastenerMassKg ?? 0) : 0);
      expect(Math.abs(inside - (piece.massEachKg ?? 0))).toBeLessThan(0.1);
    }
  });
});
