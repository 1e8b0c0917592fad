import { parse, serialize } from 'cookie';
import type { Role } from '@melto/core/people/role';
import { actingAs } from '@melto/services/kernel/context';
import type { Context } from '@melto/services/kernel/context';
import type { ActOrigin } from '@melto/services/people/acts';
import { keyOwner } from '@melto/services/people/machineKeys';
import { isSampleHouse, sessionOf } from '@melto/services/people/signIn';
import type { NewSession, SignedIn } from '@melto/services/people/signIn';
import { context } from './context';
import { hostName, LOOPBACK } from './guards';

const COOKIE = 'melto_session';
/** Beyond the end of a session as it is begun: a desk is one for a year. */
const KEPT_MS = 366 * 86_400_000;

/** Whoever sends a request, and the context that acts for them. */
export interface Caller {
  readonly context: Context;
  readonly role: Role;
  /** How they are known; the sample house knows whoever sits at its own machine. */
  readonly how: 'session' | 'key' | 'sample';
  /** The desk that sends it, and whether somebody works there. */
  readonly desk?: SignedIn['desk'];
  /** What the browser keeps of its session. */
  readonly secret?: string;
  readonly origin: ActOrigin;
}

/** Who sends a request: by the session of a browser, by a program's key, or at the sample house's own machine. */
export async function callerOf(headers: Headers): Promise<Caller | undefined> {
  const origin = { keyId: null, origin: addressOf(headers) };
  const bearer = /^Bearer (\S+)$/.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer !== undefined) {
    const owner = await keyOwner(context(), bearer);
    if (owner === undefined) return undefined;
    const { role, keyId, house, person } = owner;
    return {
      context: actingAs(context(), { house, person }),
      role,
      how: 'key',
      origin: { ...origin, keyId },
    };
  }
  const secret = parse(headers.get('cookie') ?? '')[COOKIE];
  if (secret !== undefined && secret !== '') {
    const found = await sessionOf(context(), secret);
    if (found !== undefined) {
      const { role, house, person, desk } = found;
      return { context: actingAs(context(), { house, person }), role, how: 'session', secret, origin, desk };
    }
  }
  if (!atOwnMachine(headers) || !(await isSampleHouse(context()))) return undefined;
  return { context: context(), role: 'keeper', how: 'sample', origin };
}

/** Whether the server is open to its own machine only, and was called by a name of that. */
export function atOwnMachine(headers: Headers): boolean {
  const own = process.env['MELTO_HOST'];
  const name = hostName(headers.get('host'));
  const here = name !== undefined && LOOPBACK.includes(name) && isLoopback(addressOf(headers));
  return here && (own === undefined || LOOPBACK.includes(own));
}

/** Whether an address is this machine's own; a proxy on it tells the address of whoever it serves. */
const isLoopback = (address: string): boolean =>
  /^(|127(\.\d{1,3}){3}|::1|::ffff:127(\.\d{1,3}){3})$/.test(address);

/** Where a request came from, as the server or the proxy before it was told. */
export function addressOf(headers: Headers): string {
  const told = headers.get('x-forwarded-for') ?? '';
  // A proxy writes the address that it sees last; what stands before that may be anything.
  return told.split(',').at(-1)?.trim() ?? '';
}

/** The header that has a browser keep a session, or forget it. */
export function sessionCookie(headers: Headers, session: NewSession | undefined): string {
  const secure = headers.get('x-forwarded-proto') === 'https';
  return serialize(COOKIE, session?.secret ?? '', {
    ...{ httpOnly: true, sameSite: 'lax', path: '/', secure },
    // When it is over the server says, which moves that on with each use: the browser keeps it as long as browsers do.
    expires: new Date(session === undefined ? 0 : session.endsMs + KEPT_MS),
  });
}
