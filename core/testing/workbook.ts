import { strToU8, zipSync } from 'fflate';

const ESCAPE: Readonly<Record<string, string>> = { '<': '&lt;', '&': '&amp;' };
const xml = (text: string): string => text.replace(/[<&]/g, (c) => ESCAPE[c]!);

type Cell = string | number | { readonly f: string; readonly v: number } | { readonly day: number } | { readonly error: string } | null;
/**
 * A workbook as common programs write one, by its parts: shared strings, numbers, formulas with their value, days as numbers in a style of
 * their own, merged cells. @source ECMA-376, part 1, 18.2 to 18.4 and 18.8
 */
export const workbook = (sheets: Readonly<Record<string, readonly (readonly Cell[])[]>>, merged = ''): Uint8Array => {
  const shared: string[] = [];
  const at = (i: number, row: number): string => `${String.fromCharCode(65 + i)}${row + 1}`;
  const cell = (value: Cell, ref: string): string => {
    if (value === null) return '';
    if (typeof value === 'string') return `<c r="${ref}" t="s"><v>${shared.push(value) - 1}</v></c>`;
    if (typeof value === 'number') return `<c r="${ref}"><v>${value}</v></c>`;
    if ('error' in value) return `<c r="${ref}" t="e"><v>${value.error}</v></c>`;
    return 'f' in value ? `<c r="${ref}"><f>${value.f}</f><v>${value.v}</v></c>` : `<c r="${ref}" s="1"><v>${value.day}</v></c>`;
  };
  const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
  const main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
  const rel = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const names = Object.keys(sheets);
  const files: Record<string, string> = {};
  names.forEach((name, n) => {
    const rows = sheets[name]!.map((row, r) => `<row r="${r + 1}">${row.map((value, i) => cell(value, at(i, r))).join('')}</row>`).join('');
    files[`xl/worksheets/sheet${n + 1}.xml`] = `${head}<worksheet ${main}><sheetData>${rows}</sheetData>${merged}</worksheet>`;
  });
  files['xl/sharedStrings.xml'] = `${head}<sst ${main}>${shared.map((text) => `<si><t>${xml(text)}</t></si>`).join('')}</sst>`;
  files['xl/styles.xml'] =
    `${head}<styleSheet ${main}><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="14" applyNumberFormat="1"/></cellXfs></styleSheet>`;
  files['xl/workbook.xml'] =
    `${head}<workbook ${main} xmlns:r="${rel}"><sheets>${names.map((name, n) => `<sheet name="${xml(name)}" sheetId="${n + 1}" r:id="rId${n + 1}"/>`).join('')}</sheets></workbook>`;
  files['xl/_rels/workbook.xml.rels'] = `${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${names
    .map((_, n) => `<Relationship Id="rId${n + 1}" Type="${rel}/worksheet" Target="worksheets/sheet${n + 1}.xml"/>`)
    .join(
      '',
    )}<Relationship Id="rId90" Type="${rel}/sharedStrings" Target="sharedStrings.xml"/><Relationship Id="rId91" Type="${rel}/styles" Target="styles.xml"/></Relationships>`;
  files['_rels/.rels'] =
    `${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${rel}/officeDocument" Target="xl/workbook.xml"/></Relationships>`;
  files['[Content_Types].xml'] =
    `${head}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>`;
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
};
