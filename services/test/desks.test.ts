import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Context } from '../src/kernel/context.ts';
import { actingAs } from '../src/kernel/context.ts';
import { acts } from '../src/people/acts.ts';
import { changeDeskCode, deskPeople, leaveDesk, makeDesk, takeDesk } from '../src/people/desks.ts';
import { changePerson, makePerson, setLeft } from '../src/people/people.ts';
import {
  claimHouse,
  DESK_MS,
  LOCKED_MS,
  MOST_FAILURES,
  SESSION_MS,
  sessionOf,
  signOut,
  TAKEN_MS,
} from '../src/people/signIn.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const CODE = '402913';
const ORIGIN = { keyId: null, origin: '10.0.0.7' };
let services: TestServices;
let now = Date.UTC(2026, 11, 1);
let house: Context;
let desk = '';
let tom = 0;
let una = 0;

const as = (person: number): Context => actingAs(house, { house: 1, person });
const take = (person: number, code = CODE): Promise<void> =>
  takeDesk(house, desk, { person, code, origin: ORIGIN });

beforeAll(async () => {
  services = await openTestServices('melto_desks');
  house = { ...services, now: () => now };
  const claimed = await claimHouse(house, {
    ...{ name: 'Ines Marlow', passphrase: 'three quiet herons wade', agent: 'tablet', origin: ORIGIN },
  });
  desk = claimed.secret;
  tom = (await makePerson(house, { name: 'Tom Aldous', role: 'specialist' })).id;
  una = (await makePerson(house, { name: 'Una Brook', role: 'viewer' })).id;
});
afterAll(() => services.database.close());

describe('a code', () => {
  it('has six digits that are not guessed first', async () => {
    for (const code of ['12345', '1234567', '12345a', '111111', '112211', '123456', '987654', ''])
      expect((await refusal(changeDeskCode(as(tom), code))).field).toBe('code');
    expect(await deskPeople(house)).toEqual([]);
    await changeDeskCode(as(tom), '112213');
    await changeDeskCode(as(tom), CODE);
    await changeDeskCode(as(una), CODE);
    expect((await deskPeople(house)).map(({ name }) => name)).toEqual(['Tom Aldous', 'Una Brook']);
  });
});

describe('a desk', () => {
  it('shows only until somebody takes it over, and is theirs for a shift', async () => {
    expect(await sessionOf(house, desk)).toMatchObject({ name: 'Ines Marlow', role: 'keeper' });
    await makeDesk(house, desk, ' Press desk ');
    const untaken = { role: 'viewer', desk: { name: 'Press desk', taken: false } };
    expect(await sessionOf(house, desk)).toMatchObject(untaken);
    await take(tom);
    // However much they may do elsewhere.
    expect(await sessionOf(house, desk)).toMatchObject({
      ...{ person: tom, name: 'Tom Aldous', role: 'operator', desk: { name: 'Press desk', taken: true } },
    });
    now += TAKEN_MS - 1;
    expect(await sessionOf(house, desk)).toMatchObject({ person: tom });
    now += 1;
    expect(await sessionOf(house, desk)).toMatchObject(untaken);
  });

  it('is noted in the name of whoever takes it over', async () => {
    const [act] = await acts(house, { find: 'Take over', limit: 5 });
    expect(act).toMatchObject({ person: 'Tom Aldous', origin: '10.0.0.7' });
    expect(act.detail).not.toContain(CODE);
  });

  it('changes hands, is left, and never lets do more than one may', async () => {
    await take(tom);
    await take(una);
    expect(await sessionOf(house, desk)).toMatchObject({
      person: una,
      role: 'viewer',
      desk: { taken: true },
    });
    await leaveDesk(house, desk);
    expect(await sessionOf(house, desk)).toMatchObject({ role: 'viewer', desk: { taken: false } });
  });

  it('is nobody’s where whoever works there has left the house, or has another code', async () => {
    await take(tom);
    await changeDeskCode(as(tom), '650182');
    expect(await sessionOf(house, desk)).toMatchObject({ desk: { taken: false } });
    expect((await refusal(take(tom))).field).toBe('code');
    await changeDeskCode(as(tom), CODE);
    await take(tom);
    await setLeft(house, tom, true);
    expect(await sessionOf(house, desk)).toMatchObject({ desk: { taken: false } });
    expect((await refusal(take(tom))).field).toBe('code');
    await setLeft(house, tom, false);
    await changePerson(house, tom, { name: 'Tom Aldous', role: 'viewer' });
    await take(tom);
    expect(await sessionOf(house, desk)).toMatchObject({ person: tom, role: 'viewer' });
    await changePerson(house, tom, { name: 'Tom Aldous', role: 'operator' });
  });

  it('stays one longer than a person stays signed in', async () => {
    now += SESSION_MS + 1;
    expect(await sessionOf(house, desk)).toMatchObject({ desk: { taken: false } });
    now += DESK_MS + 1;
    expect(await sessionOf(house, desk)).toBeUndefined();
  });
});

describe('guessing', () => {
  it('is over after five failures, counted before the code is looked at, for five minutes', async () => {
    const tries = await Promise.allSettled(
      Array.from({ length: 20 }, (_, i) => take(tom, String(400_000 + i * 7))),
    );
    expect(tries.every(({ status }) => status === 'rejected')).toBe(true);
    expect((await refusal(take(tom))).type).toBe('too-many');
    now += LOCKED_MS - 1;
    expect((await refusal(take(tom))).type).toBe('too-many');
    now += 1;
    await take(tom);
    for (let i = 0; i < MOST_FAILURES - 1; i++) await refusal(take(tom, '650182'));
    await take(tom);
  });

  it('of somebody who has no code says the same', async () => {
    const nobody = await refusal(takeDesk(house, desk, { person: 1, code: CODE, origin: ORIGIN }));
    const wrong = await refusal(take(tom, '650182'));
    expect([nobody.title, nobody.type]).toEqual([wrong.title, wrong.type]);
  });

  it('from another house reaches nobody of this one', async () => {
    const other = actingAs(house, { house: 2, person: 1 });
    expect(await deskPeople(other)).toEqual([]);
    expect((await refusal(takeDesk(other, desk, { person: tom, code: CODE, origin: ORIGIN }))).field).toBe(
      'code',
    );
  });

  it('does nothing to a session that is no desk', async () => {
    now = Date.UTC(2029, 0, 1);
    const { signIn } = await import('../src/people/signIn.ts');
    const own = await signIn(house, {
      ...{ name: 'Ines Marlow', passphrase: 'three quiet herons wade', agent: '', origin: ORIGIN },
    });
    await takeDesk(house, own.secret, { person: tom, code: CODE, origin: ORIGIN });
    expect(await sessionOf(house, own.secret)).toMatchObject({ name: 'Ines Marlow', role: 'keeper' });
    await makeDesk(house, own.secret, 'Reading desk');
    await signOut(actingAs(house, { house: 1, person: 1 }), own.secret, true);
    expect(await sessionOf(house, own.secret)).toBeUndefined();
  });
});
