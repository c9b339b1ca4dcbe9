import { hash, verify } from '@node-rs/argon2';

/** Hash of a password by argon2id with the library's defaults, which follow the usual advice (19 MiB, 2 passes). */
export const passwordHash = (password: string): Promise<string> => hash(password);

// what a sign-in under an unknown name is measured against, so that it takes as long as any other
let nobody: Promise<string> | null = null;

/** True when the password fits the hash; against no hash it is false after the same time. */
export const passwordFits = async (password: string, hashed: string | null): Promise<boolean> => {
  nobody ??= hash('nobody has this password');
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
