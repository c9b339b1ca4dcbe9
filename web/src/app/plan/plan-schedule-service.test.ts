import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { StudyRecord } from '@each-bolt/core/record';
import { plan } from '../../../../core/testing/plan';
import { OpenStudy } from '../record/open-study';
import { PlanScheduleService } from './plan-schedule-service';
import type { ScheduleAsked, ScheduleTold } from './schedule-told';

/** A worker that makes nothing until it is told to. */
class SlowWorker {
  static readonly all: SlowWorker[] = [];
  onmessage: ((event: { data: ScheduleTold }) => void) | null = null;
  onerror: ((fault: { message: string }) => void) | null = null;
  asked: ScheduleAsked | null = null;
  isEnded = false;
  constructor() {
    SlowWorker.all.push(this);
  }
  postMessage(asked: ScheduleAsked): void {
    this.asked = asked;
  }
  terminate(): void {
    this.isEnded = true;
  }
}
jest.mock('./make-worker', () => ({ makeScheduleWorker: () => new SlowWorker() }));

const MADE: ScheduleTold = { kind: 'result', result: { schedule: { finish: 9 } as never, issues: [] } };

describe('the schedule of the open study', () => {
  const record = signal<StudyRecord>(plan('door off | 2 4 6'));
  let service: PlanScheduleService;
  const settle = async (): Promise<void> => {
    TestBed.tick();
    await jest.advanceTimersByTimeAsync(200);
  };
  const last = (): SlowWorker => SlowWorker.all.at(-1)!;

  beforeEach(async () => {
    jest.useFakeTimers();
    SlowWorker.all.length = 0;
    record.set(plan('door off | 2 4 6'));
    TestBed.configureTestingModule({ providers: [{ provide: OpenStudy, useValue: { record } }] });
    service = TestBed.inject(PlanScheduleService);
    await settle();
  });
  afterEach(() => jest.useRealTimers());

  it('is made in a worker, with how far it is, and is there once it is made', () => {
    expect(last().asked).toMatchObject({ plan: { packages: [{ name: 'door off' }] } });
    expect(service.state()).toMatchObject({ doneFraction: 0, result: null });
    last().onmessage?.({ data: { kind: 'progress', doneFraction: 0.4 } });
    expect(service.state().doneFraction).toBe(0.4);
    last().onmessage?.({ data: MADE });
    expect([service.state().doneFraction, service.schedule()?.finish]).toEqual([null, 9]);
  });
  it('is made anew when the plan changes, and the run of the old plan is ended', async () => {
    const old = last();
    record.set(plan('door off | 2 4 6\nlatch | 1'));
    await settle();
    expect([old.isEnded, SlowWorker.all.length, last().asked?.plan.packages.length]).toEqual([true, 2, 2]);
    // an answer that comes too late counts no more
    old.onmessage?.({ data: MADE });
    expect(service.schedule()).toBeNull();
  });
  it('is not made anew by what has nothing to do with the plan', async () => {
    record.set({ ...record(), revision: 9, questions: [] });
    await settle();
    expect(SlowWorker.all).toHaveLength(1);
  });
  it('shows the last one while the next is made', async () => {
    last().onmessage?.({ data: MADE });
    record.set(plan('door off | 2 4 6\nlatch | 1'));
    await settle();
    expect(service.state()).toMatchObject({ doneFraction: 0, result: { schedule: { finish: 9 } } });
  });
  it('that failed says that nothing is lost, and is tried again with the next change', async () => {
    last().onerror?.({ message: 'out of memory' });
    expect(service.state().failure).toContain('Nothing is lost');
    record.set(plan('latch | 1'));
    await settle();
    expect(service.state()).toMatchObject({ failure: '', doneFraction: 0 });
  });
  it('of a plan without packages needs no worker', async () => {
    SlowWorker.all.length = 0;
    record.set({ ...record(), packages: [] });
    await settle();
    expect([SlowWorker.all.length, service.state()]).toEqual([
      0,
      { doneFraction: null, result: { schedule: null, issues: [] }, failure: '' },
    ]);
  });
});
