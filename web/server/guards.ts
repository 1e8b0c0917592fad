import { Problem } from '@melto/services/kernel/problem';

/** Names under which this machine calls itself; others are named by whoever opens the server to them. */
export const LOOPBACK: readonly string[] = ['localhost', '127.0.0.1', '[::1]'];

/** Host names that are answered: a page of another name that points here gets nothing. */
export function allowedHosts(named = process.env['MELTO_HOSTS']): ReadonlySet<string> {
  const own = process.env['MELTO_HOST'];
  const others = (named ?? '').split(',').map((name) => name.trim().toLowerCase());
  return new Set([...LOOPBACK, ...(own === undefined ? [] : [own.toLowerCase()]), ...others].filter(Boolean));
}

/** The name in a Host header, without its port. */
export function hostName(header: string | null): string | undefined {
  if (header === null) return undefined;
  return /^(\[[0-9a-f:]+\]|[^:/@\s]+)(:\d{1,5})?$/i.exec(header)?.[1]?.toLowerCase();
}

export function hostAllowed(header: string | null, hosts = allowedHosts()): boolean {
  const name = hostName(header);
  return name !== undefined && hosts.has(name);
}

/**
 * Refuses a change that another site's page sends: browsers say where a request comes from, and programs that say
 * nothing are not led there by a page.
 */
export function requireOwnOrigin(headers: Headers): void {
  const origin = headers.get('origin');
  const site = headers.get('sec-fetch-site');
  const host = headers.get('host');
  if (!hostAllowed(host))
    throw new Problem(
      'forbidden',
      'This server does not go by that name.',
      'Use the address it was opened under; further names are set in MELTO_HOSTS.',
    );
  const foreign = origin !== null && hostOf(origin) !== host?.toLowerCase();
  if (foreign || (site !== null && site !== 'same-origin' && site !== 'none'))
    throw new Problem(
      'forbidden',
      'A change was sent by a page of another site.',
      'Nothing was changed. Make it in Melto itself.',
    );
}

function hostOf(origin: string): string | undefined {
  try {
    return new URL(origin).host.toLowerCase();
  } catch {
    // `null`, as sandboxed pages send it, and whatever is no address.
    return undefined;
  }
}

/** Refuses a body that a form of any page could send: only JSON, and bytes that say that they are such. */
export function requireMediaType(
  headers: Headers,
  wanted: 'application/json' | 'application/octet-stream',
): void {
  const [type = ''] = (headers.get('content-type') ?? '').split(';');
  if (type.trim().toLowerCase() !== wanted)
    throw new Problem(
      'unsupported',
      `The request is ${type.trim().slice(0, 60) || 'of no type'}.`,
      `Send it as ${wanted}.`,
    );
}
