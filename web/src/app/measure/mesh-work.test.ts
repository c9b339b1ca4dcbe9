import { TestBed } from '@angular/core/testing';
import type { MeshAsked, MeshTold, Numbered } from './mesh-told';
import { MeshWork } from './mesh-work';

/** A worker that keeps what it is asked until it is told to answer. */
class SlowWorker {
  static last: SlowWorker;
  onmessage: ((event: { data: Numbered<MeshTold> }) => void) | null = null;
  onerror: ((fault: { message: string }) => void) | null = null;
  readonly asked: Numbered<MeshAsked>[] = [];
  isEnded = false;
  constructor() {
    SlowWorker.last = this;
  }
  postMessage(asked: Numbered<MeshAsked>): void {
    this.asked.push(asked);
  }
  terminate(): void {
    this.isEnded = true;
  }
  answer(number: number, what: MeshTold): void {
    this.onmessage?.({ data: { number, what } });
  }
}
jest.mock('./make-mesh-worker', () => ({ makeMeshWorker: () => new SlowWorker() }));

const slice = (offset: number): MeshAsked => ({ kind: 'slice', plane: { normal: [0, 0, 1], offset } });
const cut = (openLines: number): MeshTold => ({ kind: 'sliced', loops: [], openLines, right: [1, 0, 0], up: [0, 1, 0] });

describe('the worker that measures scans', () => {
  let work: MeshWork;
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [MeshWork] });
    work = TestBed.inject(MeshWork);
  });
  it('gives each question its own answer, also when the next was asked before it came', async () => {
    const [first, second] = [work.ask(slice(1)), work.ask(slice(2))];
    const [a, b] = SlowWorker.last.asked;
    SlowWorker.last.answer(a!.number, cut(1));
    SlowWorker.last.answer(b!.number, cut(2));
    expect([await first, await second]).toEqual([cut(1), cut(2)]);
  });
  it('tells its steps, and rests after the answer', async () => {
    const asked = work.ask(slice(1));
    SlowWorker.last.answer(1, { kind: 'step', step: 'hull' });
    expect(work.step()).toBe('hull');
    SlowWorker.last.answer(SlowWorker.last.asked[0]!.number, cut(0));
    await asked;
    expect(work.step()).toBe('');
  });
  it('stopped or failed, every question is answered in words, and the worker is ended', async () => {
    const asked = [work.ask(slice(1)), work.ask(slice(2))];
    const worker = SlowWorker.last;
    work.stop();
    expect(await Promise.all(asked)).toEqual([0, 1].map(() => ({ kind: 'fault', message: 'Stopped. Nothing was kept' })));
    expect(worker.isEnded).toBe(true);
    const again = work.ask(slice(3));
    SlowWorker.last.onerror?.({ message: 'out of memory' });
    expect(await again).toEqual({ kind: 'fault', message: 'The measuring failed: out of memory. Nothing was kept' });
  });
});
