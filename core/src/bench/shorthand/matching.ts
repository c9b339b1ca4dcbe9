/** The match of a sticky pattern at a place, or null. */
export const matchAt = (pattern: RegExp, line: string, at: number): RegExpExecArray | null => {
  pattern.lastIndex = at;
  return pattern.exec(line);
};

/** A word that begins where something is or what it is for, and so begins a remark, not the rest of a name. */
export const isPlaceWord = (word: string): boolean =>
  /^(?:with|without|for|on|onto|at|in|into|to|from|and|of|under|over|above|below|beside|besides|behind|near|next|around|along|between|by|through|inside|outside|per|plus|incl\.?|captive|loose|reused|new|old|upper|lower|left|right|front|rear|inner|outer|top|bottom)[,;]?$/i.test(
    word,
  );
