import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { LABEL_STOCKS, tagText } from '@each-bolt/core/bench';
import { dataMatrix, labelsPdf, labelsSvg, type Label } from './labels';

// zxing-wasm 3.1.4 (MIT), a reader written by others; its program is taken from the package, not from a network
const reader = async () => {
  const zxing = await import('zxing-wasm/reader');
  const wasm = readFileSync(join(__dirname, '../../../node_modules/zxing-wasm/dist/reader/zxing_reader.wasm'));
  zxing.prepareZXingModule({
    overrides: { wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.byteLength) },
  });
  return zxing;
};
const labels = (n: number): readonly Label[] =>
  Array.from({ length: n }, (_, i) => ({
    tag: tagText({ prefix: 'A03', number: i + 1 }),
    above: 'Drayman II',
    below: 'Sliding cargo door <&>',
  }));

describe('printed labels', () => {
  it.each(LABEL_STOCKS)('$name: every Data Matrix of the page is read back as its tag by an independent reader', async (stock) => {
    const perPage = Math.min(24, stock.columns * stock.rows);
    const svg = labelsSvg(stock, labels(perPage), 0, 0);
    // lengths in mm are drawn by the renderer at about 300 dots an inch
    const data = await sharp(Buffer.from(svg), { density: 147 }).png().toBuffer();
    expect(svg).toContain(`width="${stock.pageWidthMm}mm" height="${stock.pageHeightMm}mm"`);
    const { readBarcodes } = await reader();
    const found = await readBarcodes(data, { formats: ['DataMatrix'], maxNumberOfSymbols: 100, tryHarder: true });
    expect(found.map((f) => f.text).sort()).toEqual(labels(perPage).map((l) => l.tag));
  });
  it('begin where the sheet is used up to, and go on over the page', () => {
    const [stock] = LABEL_STOCKS;
    const perPage = stock!.columns * stock!.rows;
    const all = labels(3);
    expect(labelsSvg(stock!, all, perPage - 1, 0).match(/<g>/g)).toHaveLength(1);
    expect(labelsSvg(stock!, all, perPage - 1, 1).match(/<g>/g)).toHaveLength(2);
  });
  it('write words as words, never as marks of the file', () => {
    const svg = labelsSvg(LABEL_STOCKS[1]!, labels(1), 0, 0);
    expect(svg).toContain('Sliding cargo door &#60;&#38;&#62;');
  });
  it('come as PDF in true size, whatever is in the words', async () => {
    const pdf = await labelsPdf(
      LABEL_STOCKS[0]!,
      [...labels(66), { tag: 'A03-999X', above: '車 Ωmega', below: 'a very long name that does not fit on so small a label' }],
      0,
    );
    const text = Buffer.from(pdf).toString('latin1');
    expect(text.startsWith('%PDF-')).toBe(true);
    expect(pdf.length).toBeGreaterThan(20_000);
  });
  it('hold a symbol with its finder: dark down the left and along the foot', () => {
    const matrix = dataMatrix('A03-001K');
    expect(matrix.every((line) => line[0])).toBe(true);
    expect(matrix.at(-1)?.every(Boolean)).toBe(true);
  });
});
