/** The match of a sticky pattern at a place, or null. */
export const matchAt = (pattern: RegExp, line: string, at: number): RegExpExecArray | null => {
  pattern.lastIndex = at;
  return pattern.exec(line);
};
