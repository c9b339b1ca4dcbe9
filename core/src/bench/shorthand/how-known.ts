import { EVIDENCE_MARKS, type EvidenceMark } from '../../shared';
import { countRange, impliedMark, evidence, rangeText, type Evidence, type KnowingEntity, type EvidenceOf } from '../../record';
import { matchAt } from './matching';

const SUFFIX = /\s?@([MCSPTRI?])(?=\s|,(?=\s|$)|$)|\s?(\?)(?=\s|,(?=\s|$)|$)/iy;

/** `@P`, `?` right behind a value: how it is known. */
export const markBehind = (line: string, at: number): { readonly mark: EvidenceMark; readonly end: number } | null => {
  const match = matchAt(SUFFIX, line, at);
  const mark = match && EVIDENCE_MARKS.find((m) => m === (match[1]?.toUpperCase() ?? match[2]));
  return match && mark ? { mark, end: at + match[0].length } : null;
};

/** The suffix that says a mark, in the one spelling the printer uses; empty where the mark goes without saying. */
export const markSuffix = (entity: KnowingEntity, field: string, said: Evidence | undefined): string => {
  const implied = said?.typed?.includes('~') ? 'I' : impliedMark(entity, field);
  if (!said || said.mark === implied) return '';
  return said.mark === '?' ? ' ?' : ` @${said.mark}`;
};

/** `12`, `~12`, `2-3`, `20+`, each with `?` or `@P` behind it: a count, its range and how it is known. */
export const COUNT_TEXT = String.raw`(~)?(\d{1,7})(?:-(\d{1,7})|(\+))?(?:(\?)|@([MCSPTRI?]))?`;

export interface CountSaid {
  readonly count: number;
  readonly evidence: Evidence | null;
  /** "2 to 3", "12" */
  readonly value: string;
  readonly mark: EvidenceMark;
}

/**
 * What the groups of COUNT_TEXT say. The value of a range is its low end: two, perhaps three is 2 within 2 to 3.
 * Null when the range is upside down.
 */
export const readCount = ([about, low = '', high, plus, doubt, letter]: readonly (string | undefined)[]): CountSaid | null => {
  const count = Number(low);
  const most = high === undefined ? null : Number(high);
  if (most !== null && most <= count) return null;
  const mark = doubt ? '?' : ((letter?.toUpperCase() as EvidenceMark | undefined) ?? (about ? 'I' : 'C'));
  const ranged = most !== null || plus !== undefined;
  const said = evidence(mark, ranged ? { low: count, high: most } : {});
  const value = rangeText(said) ?? String(count);
  return { count, evidence: ranged || mark !== 'C' ? said : null, value, mark };
};

/** A count as typed, with its range and mark. */
export const countText = (entity: KnowingEntity, field: string, count: number, evidence: EvidenceOf): string => {
  const said = evidence[field];
  const [low, high] = countRange(count, said);
  const digits = low === high ? String(count) : Number.isFinite(high) ? `${low}-${high}` : `${low}+`;
  return digits + markSuffix(entity, field, said).trimStart();
};
