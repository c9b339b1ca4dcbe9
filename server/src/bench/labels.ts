import { PDFDocument, StandardFonts, rgb, type PDFFont } from 'pdf-lib';
import bwip from 'bwip-js/node';
import { LABEL_STOCKS, labelPlace, type LabelStock } from '@each-bolt/core/bench';

/** One label: the tag as a Data Matrix and in letters, with two lines of words. */
export interface Label {
  readonly tag: string;
  readonly above: string;
  readonly below: string;
}

/** Rows of modules of a Data Matrix: true is dark. @source ISO/IEC 16022, encoded by bwip-js */
export const dataMatrix = (text: string): readonly (readonly boolean[])[] => {
  const [symbol] = bwip.raw('datamatrix', text) as readonly {
    readonly pixs: readonly number[];
    readonly pixx: number;
    readonly pixy: number;
  }[];
  if (!symbol) throw new RangeError('nothing was encoded');
  const { pixs, pixx, pixy } = symbol;
  return Array.from({ length: pixy }, (_, y) => Array.from({ length: pixx }, (_, x) => pixs[y * pixx + x] === 1));
};

const QUIET_MM = 1.5;

interface Drawn {
  readonly page: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly sideMm: number;
  readonly moduleMm: number;
  readonly matrix: readonly (readonly boolean[])[];
  readonly textXMm: number;
  readonly label: Label;
}

const drawn = (stock: LabelStock, label: Label, n: number, skip: number): Drawn => {
  const place = labelPlace(stock, n, skip);
  const matrix = dataMatrix(label.tag);
  const sideMm = Math.min(stock.labelHeightMm - 2 * QUIET_MM, stock.labelWidthMm * 0.45, 20);
  return {
    page: place.page,
    xMm: place.xMm + QUIET_MM,
    yMm: place.yMm + (stock.labelHeightMm - sideMm) / 2,
    sideMm,
    moduleMm: sideMm / matrix.length,
    matrix,
    textXMm: place.xMm + QUIET_MM + sideMm + QUIET_MM,
    label,
  };
};

export const stockNamed = (name: string): LabelStock | null => LABEL_STOCKS.find((stock) => stock.name === name) ?? null;

const POINTS_PER_MM = 72 / 25.4;
const TAG_MM = 3.6;
const WORDS_MM = 2.1;
const INK = rgb(0, 0, 0);

/** Only what the font of the PDF has; anything else would stop the whole sheet. */
const encodable = (text: string): string => text.replace(/[^\u0020-\u007e\u00a0-\u00ff]/g, '?');

const fitted = (text: string, font: PDFFont, sizePt: number, widthMm: number): string => {
  let shown = encodable(text);
  while (shown.length > 1 && font.widthOfTextAtSize(shown, sizePt) > widthMm * POINTS_PER_MM) shown = shown.slice(0, -1);
  return shown;
};

/** A sheet of labels as PDF, in true size. */
export const labelsPdf = async (stock: LabelStock, labels: readonly Label[], skip: number): Promise<Uint8Array> => {
  const document = await PDFDocument.create();
  document.setTitle('Tags');
  const bold = await document.embedFont(StandardFonts.HelveticaBold);
  const plain = await document.embedFont(StandardFonts.Helvetica);
  const [width, height] = [stock.pageWidthMm * POINTS_PER_MM, stock.pageHeightMm * POINTS_PER_MM];
  labels.forEach((label, n) => {
    const d = drawn(stock, label, n, skip);
    while (document.getPageCount() <= d.page) document.addPage([width, height]);
    const page = document.getPage(d.page);
    const up = (yMm: number): number => height - yMm * POINTS_PER_MM;
    const side = d.moduleMm * POINTS_PER_MM;
    d.matrix.forEach((row, y) =>
      row.forEach((dark, x) => {
        if (!dark) return;
        page.drawRectangle({
          x: (d.xMm + x * d.moduleMm) * POINTS_PER_MM,
          y: up(d.yMm + (y + 1) * d.moduleMm),
          width: side,
          height: side,
          color: INK,
        });
      }),
    );
    const place = labelPlace(stock, n, skip);
    const roomMm = place.xMm + stock.labelWidthMm - d.textXMm - 0.5;
    const middle = place.yMm + stock.labelHeightMm / 2;
    const text = (words: string, font: PDFFont, sizeMm: number, yMm: number): void =>
      page.drawText(fitted(words, font, sizeMm * POINTS_PER_MM, roomMm), {
        x: d.textXMm * POINTS_PER_MM,
        y: up(yMm),
        size: sizeMm * POINTS_PER_MM,
        font,
        color: INK,
      });
    text(label.above, plain, WORDS_MM, middle - 3);
    text(label.tag, bold, Math.min(TAG_MM, roomMm / 5.2), middle + 1);
    text(label.below, plain, WORDS_MM, middle + 4.4);
  });
  if (document.getPageCount() === 0) document.addPage([width, height]);
  return document.save();
};

const xml = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
const mm = (value: number): string => String(Number(value.toFixed(4)));

/** One page of labels as SVG, in true size. */
export const labelsSvg = (stock: LabelStock, labels: readonly Label[], skip: number, page: number): string => {
  const all = labels
    .map((label, n) => ({ d: drawn(stock, label, n, skip), place: labelPlace(stock, n, skip) }))
    .filter(({ d }) => d.page === page);
  const groups = all.map(({ d, place }) => {
    const dark = d.matrix.flatMap((row, y) =>
      row.flatMap((on, x) =>
        on ? [`M${mm(d.xMm + x * d.moduleMm)} ${mm(d.yMm + y * d.moduleMm)}h${mm(d.moduleMm)}v${mm(d.moduleMm)}h-${mm(d.moduleMm)}z`] : [],
      ),
    );
    const middle = place.yMm + stock.labelHeightMm / 2;
    const text = (words: string, size: number, yMm: number, weight: string): string =>
      `<text x="${mm(d.textXMm)}" y="${mm(yMm)}" font-size="${size}" font-weight="${weight}">${xml(words)}</text>`;
    return `<g><path d="${dark.join('')}"/>${text(d.label.above, WORDS_MM, middle - 3, 'normal')}${text(d.label.tag, TAG_MM, middle + 1, 'bold')}${text(d.label.below, WORDS_MM, middle + 4.4, 'normal')}</g>`;
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${stock.pageWidthMm}mm" height="${stock.pageHeightMm}mm" viewBox="0 0 ${stock.pageWidthMm} ${stock.pageHeightMm}" font-family="Helvetica, Arial, sans-serif" shape-rendering="crispEdges">`,
    `<rect width="100%" height="100%" fill="#fff"/>`,
    ...groups,
    '</svg>',
  ].join('\n');
};
