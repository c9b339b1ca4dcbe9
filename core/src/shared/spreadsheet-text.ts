const NUMBER = /^[-−]?\d+(\.\d+)?(e-?\d+)?$/;
/** Signs that begin a formula, also full-width and small ones, behind blanks a spreadsheet may drop. */
const LIKE_FORMULA = /^[\s\u200b\u2060\ufeff]*(?:[=+\-−@＝＋－＠﹦﹢﹣﹫]|[\t\r\n])/u;

const isLikeFormula = (text: string): boolean => LIKE_FORMULA.test(text) && !NUMBER.test(text);

/** Text as a spreadsheet takes it for text: what would start a formula gets an apostrophe in front. */
export const defused = (text: string): string => (isLikeFormula(text) ? `'${text}` : text);

/** The text of a cell that was defused; any other as it stands. */
export const undefused = (cell: string): string => (cell.startsWith("'") && isLikeFormula(cell.slice(1)) ? cell.slice(1) : cell);
