import { expect, it } from 'vitest';
import { ROOM_MB } from '@/endpoints/house';
import { requireRoom, roomLeft } from './room';

it('free space is looked at now and then, and nothing is stored where there is too little', async () => {
  let free = 5000;
  let asked = 0;
  const ask = () => {
    asked++;
    return Promise.resolve({ bavail: free * 1000, bsize: 1000 });
  };
  expect(await roomLeft(0, undefined, ask)).toBeUndefined();
  expect(await roomLeft(1e6, '/data', ask)).toBe(5000);
  free = 10;
  expect(await roomLeft(1e6 + 4999, '/data', ask)).toBe(5000);
  expect(asked).toBe(1);
  expect(await roomLeft(1e6 + 5000, '/data', ask)).toBe(10);
  expect(await roomLeft(2e6, '/data', () => Promise.reject(new Error('gone')))).toBeUndefined();
  expect(() => requireRoom(ROOM_MB.least)).not.toThrow();
  expect(() => requireRoom(undefined)).not.toThrow();
  expect(() => requireRoom(ROOM_MB.least - 0.1)).toThrow(
    'Nothing can be stored: the disk of the database has 299 MB left.',
  );
});
