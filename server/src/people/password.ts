import { hash, verify } from '@node-rs/argon2';

/**
 * Argon2id with 19 MiB of memory and two passes on one lane.
 *
 * @source RFC 9106 for the function; the figures are the least that the usual advice for web sign-ins gives (from memory)
 */
const ARGON2ID = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** Hash of a password, by argon2id. */
export const passwordHash = (password: string): Promise<string> => hash(password, ARGON2ID);

// what a sign-in under an unknown name is measured against, so that it takes as long as any other
let nobody: Promise<string> | null = null;

/** True when the password fits the hash; against no hash it is false after the same time. */
export const passwordFits = async (password: string, hashed: string | null): Promise<boolean> => {
  nobody ??= passwordHash('nobody has this password');
  const fits = await verify(hashed ?? (await nobody), password);
  return fits && hashed !== null;
};

/** What is wrong with a new password, or null. */
export const passwordFault = (password: string, login: string): string | null => {
  if (password.length < 10) return 'A password needs at least 10 characters; a few words do well';
  if (password.length > 200) return 'A password may have at most 200 characters';
  if (new Set(password).size < 4) return 'A password needs at least 4 different characters';
  return password.toLowerCase().includes(login.toLowerCase()) ? 'A password must not contain the sign-in name' : null;
};
