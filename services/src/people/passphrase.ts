import { hash, verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import { Problem } from '../kernel/problem.ts';

/** Letters of a passphrase at least and at most. */
export const PASSPHRASE_LETTERS = { least: 12, most: 200 } as const;
/** argon2id with 19 MiB and two passes (OWASP, Password Storage Cheat Sheet). */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
/** Signs that are not taken for one another. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
const GROUPS = 4;
const GROUP = 5;

/** Refuses what is too easily guessed to keep a house. */
export function checkPassphrase(passphrase: string, field = 'passphrase'): void {
  const { least, most } = PASSPHRASE_LETTERS;
  const letters = [...passphrase];
  if (letters.length < least || letters.length > most || new Set(letters).size < 5)
    throw new Problem(
      'bad-input',
      `A passphrase has ${least} to ${most} letters, and at least five different ones.`,
      'A few words that only you put together are easy to keep and hard to guess.',
      field,
    );
}

/** What is stored of a passphrase. */
export const hashPassphrase = (passphrase: string): Promise<string> =>
  hash(passphrase.normalize('NFC'), COST);

let nobody: Promise<string> | undefined;

/** Whether it is the passphrase; where there is none to compare with, it takes as long to say no. */
export async function isPassphrase(stored: string | null, passphrase: string): Promise<boolean> {
  nobody ??= hashPassphrase(randomBytes(16).toString('hex'));
  const right = await verify(stored ?? (await nobody), passphrase.normalize('NFC')).catch(() => false);
  return stored !== null && right;
}

/** A passphrase that is given to somebody until they choose their own: 98 bits. */
export function givenPassphrase(): string {
  const letter = (): string => {
    // Bytes beyond the last whole round of the signs would favour the first of them.
    for (;;) {
      const [byte] = randomBytes(1);
      if (byte < SIGNS.length * Math.floor(256 / SIGNS.length)) return SIGNS[byte % SIGNS.length];
    }
  };
  return Array.from({ length: GROUPS }, () => Array.from({ length: GROUP }, letter).join('')).join('-');
}
