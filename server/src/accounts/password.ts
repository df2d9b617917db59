import { hash, verify } from '@node-rs/argon2';
import * as v from 'valibot';

/** Argon2id with the least memory and passes that OWASP's Password Storage Cheat Sheet names for it. */
const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const passwordSchema = v.pipe(
  v.string(),
  v.minLength(12, 'at least 12 characters'),
  v.maxLength(200, 'at most 200 characters'),
);

export const hashPassword = (password: string): Promise<string> => hash(password, cost);

let nobody: Promise<string> | undefined;

/** Whether the password is this account's; for an unknown account it takes as long, and is never right. */
export async function isPassword(stored: string | undefined, password: string): Promise<boolean> {
  nobody ??= hashPassword('nobody has this password');
  const right = await verify(stored ?? (await nobody), password).catch(() => false);
  return right && stored !== undefined;
}
