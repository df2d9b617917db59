import { hash, verify } from '@node-rs/argon2';
import * as v from 'valibot';
import { invalid } from '../http/problem.js';

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

/** From this score on guessing takes more than 10⁸ tries. */
const LEAST_SCORE = 3;

type Guesser = { check(password: string, own: string[]): { readonly score: number } };
let guesser: Promise<Guesser> | undefined;

/** Counts guesses over common passwords, names, rows of keys, dates and repetitions; read when it is first needed. */
async function openGuesser(): Promise<Guesser> {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  return new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
}

/**
 * @param own login and name: a password made of them is guessed first
 * @throws Problem 400 for a common or trivial password
 */
export async function demandStrong(password: string, own: readonly string[] = []): Promise<void> {
  const { score } = (await (guesser ??= openGuesser())).check(password, [...own, 'tactron']);
  if (score < LEAST_SCORE)
    throw invalid([
      {
        path: 'password',
        message: 'this password is among the first that would be tried: take a longer phrase',
      },
    ]);
}
