/** Place behind the last of rows that stand in an order; 0 for the first. */
export const nextSequence = (rows: readonly { readonly sequence: number }[]): number =>
  rows.reduce((last, { sequence }) => Math.max(last, sequence), -1) + 1;
