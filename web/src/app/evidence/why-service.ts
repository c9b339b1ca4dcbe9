import { Injectable, signal } from '@angular/core';
import type { Measure } from '@each-bolt/core/cost';

/** A figure somebody asks about: the node it stands at, and which of its figures. */
interface AskedFigure {
  readonly key: string;
  readonly measure: Measure;
}

/** "How do we know?", asked of any figure from anywhere. */
@Injectable({ providedIn: 'root' })
export class WhyService {
  /** null: nothing is asked */
  readonly asked = signal<AskedFigure | null>(null);

  ask(key: string, measure: Measure): void {
    this.asked.set({ key, measure });
  }
}
