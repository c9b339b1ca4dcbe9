import { Injectable } from '@angular/core';
import { Observable, of, tap } from 'rxjs';
import { makeSectionWorker } from './make-section-worker';
import type { SectionAsked, SectionTold } from './section-text';

/** Sections worked out before that are kept. */
const MOST_KEPT = 60;

/** Works sections out beside the page; who no longer listens ends the work. */
@Injectable()
export class SectionWork {
  private readonly kept = new Map<string, SectionTold>();

  figures(asked: SectionAsked): Observable<SectionTold> {
    const key = JSON.stringify(asked);
    const known = this.kept.get(key);
    if (known) return of(known);
    return new Observable<SectionTold>((told) => {
      const worker = makeSectionWorker();
      worker.onmessage = ({ data }: MessageEvent<SectionTold>) => {
        told.next(data);
        told.complete();
      };
      worker.onerror = (fault) => {
        told.next({ figures: null, fault: `The section could not be worked out: ${fault.message}. Open it again` });
        told.complete();
      };
      worker.postMessage(asked);
      return () => worker.terminate();
    }).pipe(
      tap((answer) => {
        if (this.kept.size >= MOST_KEPT) this.kept.delete([...this.kept.keys()][0] ?? '');
        if (answer.fault === '') this.kept.set(key, answer);
      }),
    );
  }
}
