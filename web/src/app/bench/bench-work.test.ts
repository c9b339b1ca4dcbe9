import { computed, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { parseLine, type Entry } from '@each-bolt/core/bench';
import { applyOps, type Op, type Part, type StudyRecord } from '@each-bolt/core/record';
import { BARE_ROWS } from '../../../../core/testing/rows';
import { DOOR, LEFT, recordOf, testId } from '../../../testing/record';
import { Session } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { BenchWork } from './bench-work';

const line = (text: string): Entry => {
  const { entry } = parseLine(text);
  if (!entry) throw new Error(`not understood: ${text}`);
  return entry;
};
const HEATER = { ...DOOR, id: testId(720), name: 'Cab heater' };
const PACK = {
  ...{ id: testId(700), version: 1, ...BARE_ROWS.package, name: 'Door off', vehicleId: LEFT.id, subsystemId: DOOR.id, people: 1 },
  hazards: ['high-voltage'],
};
const HOLD_POINT = {
  id: testId(710),
  version: 1,
  ...BARE_ROWS.holdPoint,
  packageId: PACK.id,
  kind: 'number' as const,
  unit: 'V',
  high: 30,
  asks: 'Voltage after the wait',
};

describe('the session at the bench', () => {
  const record = signal<StudyRecord>(recordOf());
  const part = signal<Part | null>(null);
  const chosen = signal(DOOR);
  let work: BenchWork;
  let sent: (readonly Op[])[];
  let refusal: object | null;
  let ids = 0;

  const service = {
    can: () => () => true,
    send: (ops: readonly Op[]) => {
      if (refusal) return Promise.resolve({ kept: false, refusal });
      sent.push(ops);
      record.update((now) => applyOps(now, ops, now.revision + 1));
      return Promise.resolve({ kept: true, id: '' });
    },
  };
  const start = (): BenchWork => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        { provide: RecordService, useValue: service },
        {
          provide: OpenStudy,
          useValue: {
            record,
            study: computed(() => record().study),
            subsystemById: computed(() => new Map(record().subsystems.map((s) => [s.id, s]))),
            partById: computed(() => new Map(record().parts.map((p) => [p.id, p]))),
          },
        },
        {
          provide: Selection,
          useValue: {
            ...{ vehicle: signal(LEFT), subsystem: chosen, inside: signal(null), part },
            choose: ({ part: id }: { part?: string | null }) => {
              if (id !== undefined) part.set(record().parts.find((p) => p.id === id) ?? null);
              return Promise.resolve();
            },
          },
        },
        { provide: Session, useValue: { person: { id: testId(900), name: 'Wenna Tarn' } } },
      ],
    });
    const made = TestBed.inject(BenchWork);
    TestBed.tick();
    return made;
  };
  const steps = (): StudyRecord['steps'] => record().steps;

  beforeEach(() => {
    jest.useFakeTimers({ now: new Date('2026-05-19T09:00:00.000Z') });
    localStorage.clear();
    Object.defineProperty(globalThis.crypto, 'randomUUID', { value: () => testId(5000 + ids++), configurable: true });
    record.set({ ...recordOf(), vehicles: [LEFT], subsystems: [DOOR], packages: [PACK], holdPoints: [HOLD_POINT] });
    part.set(null);
    chosen.set(DOOR);
    [sent, refusal] = [[], null];
    work = start();
  });
  afterEach(() => jest.useRealTimers());

  it('begun for a package is of its vehicle and part, by who is signed in, and the package is begun with it', async () => {
    expect(await work.begin(PACK)).toBeNull();
    expect(work.session()).toMatchObject({
      name: 'Door off',
      packageId: PACK.id,
      recorder: 'Wenna Tarn',
      openedAt: '2026-05-19T09:00:00.000Z',
    });
    expect(record().packages[0]?.startedOn).toBe('2026-05-19');
    // for one that was begun before, nothing of the package changes
    await work.close();
    await work.begin(record().packages[0]!);
    expect(sent.at(-1)).toHaveLength(1);
  });
  it('without a package is named after what it is on', async () => {
    await work.begin(null);
    expect(work.session()).toMatchObject({ name: `Bench work on ${DOOR.name}`, packageId: null });
  });

  it('asks for precautions before a part comes off: cautions read by name, readings within their limits', async () => {
    await work.begin(PACK);
    const off = await work.keep([line('plate 1 kg')], 'plate 1 kg');
    expect(off).toMatchObject({ kept: false, refusal: { code: 'precautions' } });
    await work.acknowledge('high-voltage');
    expect(work.precautions()).toMatchObject({ isClear: false, hazards: [{ readBy: 'Wenna Tarn' }] });
    record.update((now) => ({
      ...now,
      holdPoints: [{ ...HOLD_POINT, value: 48, answeredBy: 'Odo', answeredAt: '2026-05-19T09:01:00.000Z' }],
    }));
    expect(work.precautions().holdPoints[0]?.fault).toMatch(/30/);
    record.update((now) => ({
      ...now,
      holdPoints: [{ ...HOLD_POINT, value: 0.4, answeredBy: 'Odo', answeredAt: '2026-05-19T09:01:00.000Z' }],
    }));
    expect(work.precautions().isClear).toBe(true);
    expect(await work.keep([line('plate 1 kg')], 'plate 1 kg')).toMatchObject({ kept: true });
    expect(steps()[0]?.otherwise).toBe('');
  });
  it('goes on without them only with a reason, which stays with the removal', async () => {
    await work.begin(PACK);
    work.otherwise.set(' no second person at hand ');
    expect(await work.keep([line('plate 1 kg')], '')).toMatchObject({ kept: true });
    expect(steps()[0]?.otherwise).toBe('no second person at hand');
  });
  it('fasteners may be recorded before: nothing comes off by that', async () => {
    await work.begin(null);
    await work.keep([line('plate 1 kg')], '');
    const held = record().parts[0]!;
    await work.close();
    await work.begin(PACK);
    part.set(held);
    expect(await work.keep([line('4 M6x16 T30')], '')).toMatchObject({ kept: true });
  });

  it('counts the time from one line to the next, and stands when nothing happens', async () => {
    await work.begin(null);
    jest.setSystemTime(new Date('2026-05-19T09:02:00.000Z'));
    await work.keep([line('plate 1 kg')], '');
    expect(steps()[0]).toMatchObject({ startedAt: '2026-05-19T09:00:00.000Z', endedAt: '2026-05-19T09:02:00.000Z', workedS: 120 });
    jest.setSystemTime(new Date('2026-05-19T09:03:00.000Z'));
    work.touch();
    jest.setSystemTime(new Date('2026-05-19T09:33:00.000Z'));
    jest.advanceTimersByTime(1000);
    expect(work.paused()).toBe(true);
    await work.keep([line('lever')], '');
    // a minute to the touch, and ten of the thirty after it
    expect(steps()[1]?.workedS).toBeLessThan(12 * 60);
    expect(steps()[1]?.after).toEqual([steps()[0]?.id]);
  });
  it('what was left out is counted after all when somebody says so', async () => {
    await work.begin(null);
    jest.setSystemTime(new Date('2026-05-19T09:20:00.000Z'));
    work.touch();
    expect(work.leftOutS()).toBeGreaterThan(0);
    const before = work.clockS();
    work.countLeftOut();
    expect(work.leftOutS()).toBe(0);
    await work.keep([line('plate')], '');
    expect(steps()[0]?.workedS).toBeGreaterThan(before);
    expect(steps()[0]?.workedS).toBe(1200);
  });
  it('carries the tool on until another is said', async () => {
    await work.begin(null);
    await work.keep([line('plate')], '');
    record.update((now) => ({ ...now, steps: now.steps.map((s) => ({ ...s, tool: 'ratchet', bit: 'T30' })) }));
    await work.keep([line('lever')], '');
    expect(steps()[1]).toMatchObject({ tool: 'ratchet', bit: 'T30' });
  });

  it('is the same after a reload of this bench; a clock that cannot be read starts anew', async () => {
    await work.begin(null);
    const { id } = work.session()!;
    expect(start().session()?.id).toBe(id);
    localStorage.setItem(`bench ${record().study.id}`, `${id} %7Bbroken`);
    work = start();
    expect([work.session()?.id, work.clockS()]).toEqual([id, 0]);
  });
  it('that was closed elsewhere is open here no more', async () => {
    await work.begin(null);
    record.update((now) => ({ ...now, sessions: now.sessions.map((s) => ({ ...s, closedAt: '2026-05-19T10:00:00.000Z' })) }));
    expect([work.session(), work.openSessions()]).toEqual([null, []]);
  });
  it('changes hands, and left open it waits for another bench', async () => {
    await work.begin(null);
    await work.edit({ remover: 'Odo Farrow' });
    await work.handOver();
    expect(work.session()).toMatchObject({ remover: 'Wenna Tarn', recorder: 'Odo Farrow' });
    const session = work.session()!;
    work.leave();
    expect([work.session(), work.openSessions().map((s) => s.id)]).toEqual([null, [session.id]]);
    await work.goOn(session);
    expect(work.session()?.id).toBe(session.id);
  });
  it('what is missing at its end may stay so with a reason, by name', async () => {
    await work.begin(null);
    await work.keep([line('plate')], '');
    const [loss] = work.losses();
    expect(loss).toBeDefined();
    await work.waive([loss!], 'weighed with its nut');
    expect(work.session()?.waived).toMatchObject([{ reason: 'weighed with its nut', by: 'Wenna Tarn' }]);
  });
  it('asks where a line goes that is of another subsystem than the session, and does as it is told', async () => {
    await work.begin(null);
    record.update((now) => ({ ...now, subsystems: [...now.subsystems, HEATER] }));
    chosen.set(HEATER);
    const answered = async (answer: 'there' | 'here' | 'back') => {
      const kept = work.keep([line('plate')], 'plate');
      await Promise.resolve();
      expect(work.elsewhere()).toEqual({
        typed: 'plate',
        here: 'Cab heater of Left van',
        isOtherVehicle: false,
        there: `${DOOR.name} of Left van`,
      });
      work.answerElsewhere(answer);
      return kept;
    };
    expect(await answered('back')).toMatchObject({ kept: false, refusal: null });
    expect(await answered('here')).toMatchObject({ kept: true });
    // it is asked once: what follows goes here too, each a removal of the session, for it is the same vehicle
    expect(await work.keep([line('bracket')], 'bracket')).toMatchObject({ kept: true });
    expect([work.steps(), record().parts.map((p) => p.subsystemId)]).toEqual([
      [expect.anything(), expect.anything()],
      [HEATER.id, HEATER.id],
    ]);
  });
  it('a refusal of the record comes back, and the session stays as it was', async () => {
    await work.begin(null);
    refusal = { code: 'invalid', message: 'Not kept', issues: [] };
    expect(await work.close()).toMatchObject({ message: 'Not kept' });
    expect(work.session()).not.toBeNull();
    expect(await work.keep([line('plate')], '')).toMatchObject({ kept: false, refusal: { message: 'Not kept' } });
  });
});
