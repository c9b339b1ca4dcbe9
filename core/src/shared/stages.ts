/** The stages that exist, in the order of work. Navigation, folders and the import rule follow this list. */
export const STAGES = ['plan', 'bench', 'measure', 'reconcile', 'cost', 'compare'] as const;

export type Stage = (typeof STAGES)[number];

/** The word shown for each stage. */
export const STAGE_WORD: Readonly<Record<Stage, string>> = {
  plan: 'Plan',
  bench: 'Bench',
  measure: 'Measure',
  reconcile: 'Reconcile',
  cost: 'Cost',
  compare: 'Compare',
};
