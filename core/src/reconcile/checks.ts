import { BASIS_CHECKS } from './checks/basis';
import { COUNT_CHECKS } from './checks/counts';
import { MASS_CHECKS } from './checks/mass';
import { MATERIAL_CHECKS } from './checks/materials';
import { READING_CHECKS } from './checks/readings';
import { REMOVAL_CHECKS } from './checks/removals';
import { SIZE_CHECKS } from './checks/size';
import { SYSTEM_CHECKS } from './checks/systems';
import { TAG_CHECKS } from './checks/tags';
import { WORD_CHECKS } from './checks/words';
import type { Check } from './finding';

/** Every check of the record, declared once. */
export const CHECKS: readonly Check[] = [
  ...MASS_CHECKS,
  ...SIZE_CHECKS,
  ...COUNT_CHECKS,
  ...MATERIAL_CHECKS,
  ...TAG_CHECKS,
  ...REMOVAL_CHECKS,
  ...SYSTEM_CHECKS,
  ...READING_CHECKS,
  ...WORD_CHECKS,
  ...BASIS_CHECKS,
];

export const checkById: ReadonlyMap<string, Check> = new Map(CHECKS.map((check) => [check.id, check]));
