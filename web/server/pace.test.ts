import { describe, expect, it } from 'vitest';
import { MOST_A_MINUTE, requirePace } from './pace';

const spend = async (
  whom: string,
  endpoint: Parameters<typeof requirePace>[1],
  times: number,
): Promise<number> => {
  const sent = await Promise.allSettled(Array.from({ length: times }, () => requirePace(whom, endpoint)));
  return sent.filter(({ status }) => status === 'fulfilled').length;
};

describe('how much one may send', () => {
  const door = { method: 'POST', path: '/api/session', who: 'anyone' } as const;
  const change = { method: 'POST', path: '/api/conditions', who: 'specialist' } as const;
  const read = { method: 'GET', path: '/api/floor', who: 'viewer' } as const;

  it('ends at its limit for each by itself', async () => {
    expect(await spend('a', door, MOST_A_MINUTE.anyone)).toBe(MOST_A_MINUTE.anyone);
    expect(await spend('a', door, 5)).toBe(0);
    expect(await spend('b', door, 5)).toBe(5);
    expect(await spend('a', change, MOST_A_MINUTE.changes + 7)).toBe(MOST_A_MINUTE.changes);
    expect(await spend('a', read, MOST_A_MINUTE.reads + 7)).toBe(MOST_A_MINUTE.reads);
    await expect(requirePace('a', read)).rejects.toThrow('6,000 requests');
  });

  it('is no matter for whoever asks whether the server is well', async () => {
    const health = { method: 'GET', path: '/api/health', who: 'anyone' } as const;
    expect(await spend('c', health, 1000)).toBe(1000);
  });
});
