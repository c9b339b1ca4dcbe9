/** A sheet or roll of labels; lengths in mm as printed on the box. */
export interface LabelStock {
  readonly name: string;
  readonly pageWidthMm: number;
  readonly pageHeightMm: number;
  readonly columns: number;
  readonly rows: number;
  readonly labelWidthMm: number;
  readonly labelHeightMm: number;
  readonly leftMm: number;
  readonly topMm: number;
  readonly pitchXMm: number;
  readonly pitchYMm: number;
}

/** Label sizes that are easily bought. @source common practice, no source */
export const LABEL_STOCKS: readonly LabelStock[] = [
  {
    name: 'A4, 65 of 38.1 × 21.2 mm',
    ...{ pageWidthMm: 210, pageHeightMm: 297, columns: 5, rows: 13, labelWidthMm: 38.1, labelHeightMm: 21.2 },
    ...{ leftMm: 4.75, topMm: 10.7, pitchXMm: 40.6, pitchYMm: 21.2 },
  },
  {
    name: 'A4, 24 of 70 × 36 mm',
    ...{ pageWidthMm: 210, pageHeightMm: 297, columns: 3, rows: 8, labelWidthMm: 70, labelHeightMm: 36 },
    ...{ leftMm: 0, topMm: 4.5, pitchXMm: 70, pitchYMm: 36 },
  },
  {
    name: 'A4, 21 of 63.5 × 38.1 mm',
    ...{ pageWidthMm: 210, pageHeightMm: 297, columns: 3, rows: 7, labelWidthMm: 63.5, labelHeightMm: 38.1 },
    ...{ leftMm: 7.25, topMm: 15.15, pitchXMm: 66, pitchYMm: 38.1 },
  },
  {
    name: 'Letter, 30 of 2⅝ × 1 in',
    ...{ pageWidthMm: 215.9, pageHeightMm: 279.4, columns: 3, rows: 10, labelWidthMm: 66.675, labelHeightMm: 25.4 },
    ...{ leftMm: 4.7625, topMm: 12.7, pitchXMm: 69.85, pitchYMm: 25.4 },
  },
  {
    name: 'Roll, 50 × 25 mm',
    ...{ pageWidthMm: 50, pageHeightMm: 25, columns: 1, rows: 1, labelWidthMm: 50, labelHeightMm: 25 },
    ...{ leftMm: 0, topMm: 0, pitchXMm: 50, pitchYMm: 25 },
  },
];

interface LabelPlace {
  readonly page: number;
  readonly xMm: number;
  readonly yMm: number;
}

/** Where the n-th label stands, from the upper left corner of its page; `skip` labels of the first sheet are used up. */
export const labelPlace = (stock: LabelStock, n: number, skip: number): LabelPlace => {
  const at = n + skip;
  const perPage = stock.columns * stock.rows;
  const onPage = at % perPage;
  return {
    page: Math.floor(at / perPage),
    xMm: stock.leftMm + (onPage % stock.columns) * stock.pitchXMm,
    yMm: stock.topMm + Math.floor(onPage / stock.columns) * stock.pitchYMm,
  };
};
