/** What was sealed with the key of an account: only who signs in to it gets the key again. */
export interface Sealed {
  readonly iv: Uint8Array<ArrayBuffer>;
  readonly bytes: ArrayBuffer;
}

const IV_BYTES = 12;

/** Browsers have ciphers only on pages that came over https or from this machine. */
export const canSeal = (): boolean => (crypto as Partial<Crypto>).subtle !== undefined;

const keyOf = (key: string): Promise<CryptoKey> => {
  const bytes = Uint8Array.from(atob(key), (c) => c.charCodeAt(0));
  return crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt']);
};

/**
 * Seals bytes with the key of an account.
 *
 * @param key 32 bytes in base64, as the server gives them to whoever signs in
 * @source AES-256 in Galois counter mode, NIST SP 800-38D: a 96 bit initialisation vector, new for each seal
 */
export const seal = async (key: string, bytes: ArrayBuffer): Promise<Sealed> => {
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES));
  return { iv, bytes: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, await keyOf(key), bytes) };
};

/** The bytes again; throws when the key is another or a byte was changed. */
export const unseal = async (key: string, { iv, bytes }: Sealed): Promise<ArrayBuffer> =>
  crypto.subtle.decrypt({ name: 'AES-GCM', iv }, await keyOf(key), bytes);
