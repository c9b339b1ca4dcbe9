import fc from 'fast-check';
import { defused, undefused } from './spreadsheet-text';

/** @source the apostrophe rule as commonly advised against formula injection (CWE-1236), from memory */
describe('text on its way to a spreadsheet', () => {
  it('that would begin a formula gets an apostrophe, and numbers stay numbers', () => {
    for (const hostile of ['=1+1', '+cmd', '@SUM(A1)', '-2+3', '\t=1+1', '\r=1'])
      expect([hostile, defused(hostile)]).toEqual([hostile, `'${hostile}`]);
    for (const sound of ['plate', '-2.5', '12', '1e-9', '', 'a=b', '5 - 3']) expect(defused(sound)).toBe(sound);
  });
  it('is not fooled by blanks before the sign or by full-width signs', () => {
    for (const hostile of ['  =1+1', '\u00a0=1+1', '\u200b=1', '\ufeff=1', ' ＝1+1', '＋1', '－cmd', '＠SUM(1)', '﹦1', ' \n=1'])
      expect([hostile, defused(hostile)]).toEqual([hostile, `'${hostile}`]);
  });
  it('comes back as it was', () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.string().map((s) => `=${s}`),
          fc.string().map((s) => ` +${s}`),
        ),
        (text) => {
          // what begins with an apostrophe and a formula by itself cannot be told from what was defused
          fc.pre(!text.startsWith("'"));
          expect(undefused(defused(text))).toBe(text);
        },
      ),
    ));
  it('keeps an apostrophe that was there', () => expect(undefused("'s-Gravenhage bracket")).toBe("'s-Gravenhage bracket"));
});
