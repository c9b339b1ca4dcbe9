/** A reader of labels types this fast; no hand types many keys so. A capital or a digit waits this long before it means anything. */
export const BETWEEN_MS = 35;
/** shorter than the shortest tag is no scan */
const SHORTEST = 5;
/** tags are printed in capitals and begin with one, or with a digit */
const BEGINS = /^[A-Z0-9]$/;

export interface Fed {
  /** keys that were pressed by a person after all, in order: what they mean is done now */
  readonly keys: readonly string[];
  /** the whole text of a scan, once its Enter has come */
  readonly text: string | null;
}

const NOTHING: Fed = { keys: [], text: null };

/**
 * Tells the typing of a label reader from that of a person, by its speed. Feed it every key that goes to no field;
 * what may be the beginning of a tag is held until it is sure whose it is, so that no letter of a scan does anything and no
 * key of a hand is lost.
 */
export class ScanReader {
  private held: readonly string[] = [];
  private lastMs = Number.NEGATIVE_INFINITY;

  feed(key: string, nowMs: number): Fed {
    // a shifted letter comes as two keys, of which the first is no letter
    if (key === 'Shift') return NOTHING;
    const before = nowMs - this.lastMs <= BETWEEN_MS ? [] : this.release();
    this.lastMs = nowMs;
    if (key.length === 1) {
      if (this.held.length === 0 && !BEGINS.test(key)) return { keys: [...before, key], text: null };
      this.held = [...this.held, key];
      return { keys: before, text: null };
    }
    const held = this.release();
    return key === 'Enter' && held.length >= SHORTEST ? { keys: before, text: held.join('') } : { keys: [...before, ...held], text: null };
  }

  get isHolding(): boolean {
    return this.held.length > 0;
  }

  /** The keys held so far, once nothing has followed them for `BETWEEN_MS`: they were a person's. */
  release(): readonly string[] {
    const { held } = this;
    this.held = [];
    return held;
  }
}
