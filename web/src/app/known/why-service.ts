import { Injectable, signal } from '@angular/core';
import type { Measure } from '@each-bolt/core/cost';

/** A figure somebody asks about: the node it stands at, and which of its figures. */
export interface AskedFigure {
  readonly key: string;
  readonly measure: Measure;
}

/** "How do we know?", asked of any figure from anywhere. */
@Injectable({ providedIn: 'root' })
export class WhyService {
  /** from the figure asked about down to where one has gone; empty: nothing is asked */
  readonly path = signal<readonly AskedFigure[]>([]);

  ask(key: string, measure: Measure): void {
    this.path.set([{ key, measure }]);
  }
}
