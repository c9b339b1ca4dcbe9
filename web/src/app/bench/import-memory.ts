import { DOCUMENT, Injectable, inject } from '@angular/core';
import { columnKey, columnOfKey, shapeOf, type FoundColumn, type ReadOptions } from '@each-bolt/core/bench';

type Values = NonNullable<ReadOptions['values']>;

interface Remembered {
  /** by the shape of a file: what its columns hold, the latest last */
  readonly columns: Readonly<Record<string, readonly string[]>>;
  readonly values: Values;
}

const KEY = 'each-bolt-import';
/** Shapes of files that are remembered. */
const MOST_SHAPES = 40;
const NOTHING: Remembered = { columns: {}, values: {} };

/** What was said of files of parts before: what their columns hold, what words in them mean. Kept on this device. */
@Injectable({ providedIn: 'root' })
export class ImportMemory {
  private readonly storage = inject(DOCUMENT).defaultView?.localStorage;

  columnsOf(headings: readonly string[]): readonly (FoundColumn | null)[] | null {
    return this.recall().columns[shapeOf(headings)]?.map(columnOfKey) ?? null;
  }

  values(): Values {
    return this.recall().values;
  }

  /** Subsystems are those of one study: what a word for one means is not remembered. */
  remember(headings: readonly string[], columns: readonly (FoundColumn | null)[], { subsystem: _ofStudy, ...values }: Values): void {
    const shape = shapeOf(headings);
    const others = Object.entries(this.recall().columns).filter(([before]) => before !== shape);
    const kept = [...others, [shape, columns.map(columnKey)] as const].slice(-MOST_SHAPES);
    this.storage?.setItem(KEY, JSON.stringify({ columns: Object.fromEntries(kept), values } satisfies Remembered));
  }

  private recall(): Remembered {
    try {
      const kept = JSON.parse(this.storage?.getItem(KEY) ?? 'null') as Partial<Remembered> | null;
      return { columns: kept?.columns ?? {}, values: kept?.values ?? {} };
    } catch {
      // what cannot be read any more is said anew
      return NOTHING;
    }
  }
}
