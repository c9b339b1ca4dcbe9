import { Injectable, type OnDestroy, signal } from '@angular/core';
import { makeMeshWorker } from './make-mesh-worker';
import type { MeasuredFile, MeshAnswer, MeshAsked, MeshTold, Numbered } from './mesh-told';

const STOPPED = 'Stopped. Nothing was kept';

/** One worker that reads, measures and cuts the scan that is open; it is ended to stop it. */
@Injectable()
export class MeshWork implements OnDestroy {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, (answer: MeshAnswer) => void>();
  private asked = 0;

  /** what it is at, in words; empty when it rests */
  readonly step = signal('');
  readonly file = signal<MeasuredFile | null>(null);

  async measure(bytes: ArrayBuffer, fileName: string, shareFraction: number): Promise<MeshAnswer> {
    const answer = await this.ask({ kind: 'measure', bytes, fileName, shareFraction }, [bytes]);
    if (answer.kind === 'measured') this.file.set(answer.file);
    return answer;
  }

  async ask(asked: MeshAsked, moved: Transferable[] = []): Promise<MeshAnswer> {
    const worker = (this.worker ??= this.start());
    const number = ++this.asked;
    return new Promise((done) => {
      this.waiting.set(number, done);
      worker.postMessage({ number, what: asked } satisfies Numbered<MeshAsked>, moved);
    });
  }

  /** Stops what is going on; the scan that was open is open no more. */
  stop(why = STOPPED): void {
    this.worker?.terminate();
    this.worker = null;
    this.file.set(null);
    this.step.set('');
    const left = [...this.waiting.values()];
    this.waiting.clear();
    for (const done of left) done({ kind: 'fault', message: why });
  }

  ngOnDestroy(): void {
    this.stop();
  }

  private start(): Worker {
    const worker = makeMeshWorker();
    worker.onmessage = ({ data: { number, what } }: MessageEvent<Numbered<MeshTold>>) => {
      if (what.kind === 'step') {
        this.step.set(what.step);
        return;
      }
      this.step.set('');
      this.waiting.get(number)?.(what);
      this.waiting.delete(number);
    };
    worker.onerror = (fault) => {
      this.stop(`The measuring failed: ${fault.message}. Nothing was kept`);
    };
    return worker;
  }
}
