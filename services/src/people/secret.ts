import { createHash, randomBytes } from 'node:crypto';

/** How often it is noted that a secret was used. */
export const NOTED_EVERY_MS = 60_000;

/** What a browser or a program keeps: 256 bits. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** What is stored of it. */
export const digestOf = (secret: string): Buffer => createHash('sha256').update(secret).digest();
