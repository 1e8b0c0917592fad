import { Problem } from '@melto/services/kernel/problem';
import type { Caller } from './caller';

/** What the browser of somebody keeps who signed in by name; refused for programs, for the sample house and at desks. */
export function ownSession(caller: Caller | undefined): string {
  if (caller?.desk !== undefined)
    throw new Problem('not-ready', 'This is a desk.', 'Do it where you are signed in yourself.');
  if (caller?.secret === undefined)
    throw new Problem('not-ready', 'Nobody is signed in by a passphrase here.', 'Sign in by name before.');
  return caller.secret;
}

/** The session of a desk. */
export function deskSession(caller: Caller | undefined): Caller & { readonly secret: string } {
  if (caller?.desk === undefined || caller.secret === undefined)
    throw new Problem('not-ready', 'This is no desk.', 'Make it one in the menu under your name.');
  return { ...caller, secret: caller.secret };
}
