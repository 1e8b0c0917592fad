import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Problem } from '@melto/services/kernel/problem';
import type { Endpoint } from '@/endpoints/endpoint';

/** Requests of one person, key or address in a minute: more than any desk sends, fewer than hold a server up. */
export const MOST_A_MINUTE = { reads: 6000, changes: 1800, anyone: 60 } as const;

const limiters = Object.fromEntries(
  Object.entries(MOST_A_MINUTE).map(([kind, points]) => [
    kind,
    new RateLimiterMemory({ points, duration: 60 }),
  ]),
) as Record<keyof typeof MOST_A_MINUTE, RateLimiterMemory>;

/** Refuses whoever sends too much at once. Health is asked as often as anyone likes. */
export async function requirePace(
  whom: string,
  { method, who, path }: Pick<Endpoint, 'method' | 'who' | 'path'>,
): Promise<void> {
  if (path === '/api/health') return;
  const kind = who === 'anyone' ? 'anyone' : method === 'GET' ? 'reads' : 'changes';
  await limiters[kind].consume(whom).catch(() => {
    throw new Problem(
      'too-many',
      `More than ${MOST_A_MINUTE[kind].toLocaleString('en-GB')} requests came in a minute.`,
      'Nothing was changed. Wait a minute, and send fewer at once.',
    );
  });
}
