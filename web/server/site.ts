import type { Site } from '@melto/services/people/passkeys';
import { Problem } from '@melto/services/kernel/problem';
import { hostName } from './guards';

/** Under which address a request was opened; passkeys are of names, and of none that is a number. */
export function siteOf(headers: Headers): Site {
  const host = hostName(headers.get('host'));
  if (host === undefined || /^[[\d.]+$|^\[/.test(host))
    throw new Problem(
      'not-ready',
      'Passkeys need a name, and this house was opened by a number.',
      'Open it as localhost or by its name, or sign in by passphrase.',
    );
  const scheme = headers.get('x-forwarded-proto') === 'https' ? 'https' : 'http';
  return { host, origin: `${scheme}://${headers.get('host')?.toLowerCase() ?? ''}` };
}
