const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const MODULUS = 36;

/**
 * Check character of a text of digits and capital letters, in the hybrid system MOD 37,36: it finds every single wrong
 * character and nearly all neighbours that changed places.
 *
 *   p₁ = 36;  sᵢ = pᵢ + aᵢ (mod 36, 0 counts as 36);  pᵢ₊₁ = 2 sᵢ (mod 37);  p + check ≡ 1 (mod 36)
 *
 * @param text digits and capital letters; anything else throws
 * @throws RangeError for a text with other characters, or empty
 * @source ISO 7064:2003, hybrid systems, MOD 37,36
 * @example
 * checkCharacter('A12425GABC1234002'); // => 'M'
 */
export const checkCharacter = (text: string): string => {
  if (!/^[0-9A-Z]+$/.test(text)) throw new RangeError('a tag holds digits and capital letters only');
  let p = MODULUS;
  for (const character of text) {
    const s = (p + ALPHABET.indexOf(character)) % MODULUS || MODULUS;
    p = (s * 2) % (MODULUS + 1);
  }
  return ALPHABET[(MODULUS + 1 - p) % MODULUS] ?? '';
};
