import { NextResponse } from 'next/server';
import type { NextRequest } from 'next/server';
import { hostAllowed } from '@/server/guards';

/** What a page may load and run: its own files, and inline scripts that carry the page's own number. */
function contentPolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // The styles of components are written into the page as it is drawn.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    // Instruments are reached by a bridge on the person's own machine.
    "connect-src 'self' ws://127.0.0.1:*",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
} as const;

/** Before all pages and routes: other names of this server get nothing, pages get what they may load. */
export function proxy(request: NextRequest): NextResponse {
  if (!hostAllowed(request.headers.get('host')))
    return new NextResponse('This server does not go by that name. Further names are set in MELTO_HOSTS.', {
      status: 421,
      headers: { 'content-type': 'text/plain; charset=utf-8', ...HEADERS },
    });
  const pages = !/^\/(api|shared)\//.test(request.nextUrl.pathname);
  const headers = new Headers(request.headers);
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const policy = contentPolicy(nonce);
  if (pages) {
    headers.set('x-nonce', nonce);
    headers.set('content-security-policy', policy);
  }
  const response = NextResponse.next({ request: { headers } });
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  if (pages) response.headers.set('content-security-policy', policy);
  return response;
}

export const config = { matcher: ['/((?!_next/static|_next/image|icon.svg|pictures/).*)'] };
