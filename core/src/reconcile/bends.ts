import { materialById } from '../shared';
import type { Part } from '../record';

/** What bends may be longer than what it is inside of. */
export const bends = (part: Part): boolean =>
  part.runLengthM !== null ||
  materialById.get(part.materialId ?? '')?.family === 'rubber and foam' ||
  /\b(?:cable|harness|loom|wiring|hose|seal|gasket|pad|boot|strap|belt|felt|mat|carpet|cover|film|tape|spring)\b/i.test(part.name);
