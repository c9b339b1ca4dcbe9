import { SEQUENCE, reference } from '../field';

/** A record that belongs to a part and goes with it. */
export const OF_PART = {
  partId: reference('Part', 'part', 'remove too', { unsaid: true }),
  sequence: SEQUENCE,
} as const;
