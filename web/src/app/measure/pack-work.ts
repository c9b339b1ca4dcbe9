import { DestroyRef, Injectable, inject } from '@angular/core';
import { Observable } from 'rxjs';
import { makePackWorker } from './make-pack-worker';
import type { PackAsked, PackTold } from './pack-told';

/** Works packs out beside the page, in one worker while it keeps up; who no longer listens ends the work. */
@Injectable()
export class PackWork {
  private idle: Worker | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.idle?.terminate());
  }

  figures(asked: PackAsked): Observable<PackTold> {
    return new Observable<PackTold>((told) => {
      const worker = this.idle ?? makePackWorker();
      this.idle = null;
      let isDone = false;
      worker.onmessage = ({ data }: MessageEvent<PackTold>) => {
        isDone = true;
        this.idle = worker;
        told.next(data);
        told.complete();
      };
      worker.onerror = (fault) => told.error(new Error(`The pack could not be worked out: ${fault.message}. Open it again`));
      worker.postMessage(asked);
      return () => {
        if (!isDone) worker.terminate();
      };
    });
  }
}
