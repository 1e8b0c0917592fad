import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { actingAs } from '../src/kernel/context.ts';
import type { Context } from '../src/kernel/context.ts';
import { acts } from '../src/people/acts.ts';
import {
  ANSWER_MS,
  beginPasskey,
  beginPasskeySignIn,
  keepPasskey,
  passkeys,
  removePasskey,
  signInByPasskey,
} from '../src/people/passkeys.ts';
import { makePerson, setLeft } from '../src/people/people.ts';
import { claimHouse, sessionOf } from '../src/people/signIn.ts';
import { refusal } from '../src/testing/refusal.ts';
import { TestDevice } from '../src/testing/testDevice.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const SITE = { host: 'melto.example', origin: 'https://melto.example' };
const ELSEWHERE = { host: 'melto.example', origin: 'https://evil.example' };
const DOOR = { agent: 'test', origin: { keyId: null, origin: '10.0.0.7' } };
let services: TestServices;
let now = Date.UTC(2026, 11, 1);
let house: Context;
let tom = 0;
let device: TestDevice;

const asTom = (): Context => actingAs(house, { house: 1, person: tom });
async function add(own: TestDevice, context = asTom(), site = SITE, name = 'Tablet'): Promise<void> {
  const { challenge } = await beginPasskey(context, SITE);
  await keepPasskey(context, SITE, { name, response: own.make(challenge, site.origin, site.host) });
}
async function come(own: TestDevice, site = SITE, context = house): ReturnType<typeof signInByPasskey> {
  const { challenge } = await beginPasskeySignIn(context, SITE);
  const response = own.prove(challenge, site.origin, site.host);
  return signInByPasskey(context, SITE, { ...DOOR, response });
}

beforeAll(async () => {
  services = await openTestServices('melto_passkeys');
  house = { ...services, now: () => now };
  await claimHouse(house, { name: 'Ines Marlow', passphrase: 'three quiet herons wade', ...DOOR });
  tom = (await makePerson(house, { name: 'Tom Aldous', role: 'operator' })).id;
  device = new TestDevice();
  await add(device);
});
afterAll(() => services.database.close());

describe('a passkey', () => {
  it('signs in whoever made it, with their role, and is noted', async () => {
    const { secret } = await come(device);
    expect(await sessionOf(house, secret)).toMatchObject({
      person: tom,
      name: 'Tom Aldous',
      role: 'operator',
    });
    expect((await acts(house, { limit: 1 }))[0]).toMatchObject({ what: 'Sign in', person: 'Tom Aldous' });
    expect((await passkeys(asTom()))[0]).toMatchObject({ name: 'Tablet', usedMs: now });
    expect(await passkeys(house)).toEqual([]);
  });

  it('is asked for as one that knows whose it is, and is not made twice by one device', async () => {
    const options = await beginPasskey(asTom(), SITE);
    expect(options.rp).toEqual({ name: 'Melto', id: 'melto.example' });
    expect(options.authenticatorSelection).toMatchObject({
      residentKey: 'required',
      userVerification: 'required',
    });
    expect(options.excludeCredentials?.map(({ id }) => id)).toEqual([device.id]);
    expect((await refusal(add(device))).type).toBe('conflict');
  });

  it('is kept only where it was asked for, by a device that has looked at who holds it', async () => {
    expect((await refusal(add(new TestDevice(), asTom(), ELSEWHERE))).type).toBe('bad-input');
    const other = { ...SITE, host: 'evil.example' };
    expect((await refusal(add(new TestDevice(), asTom(), other))).type).toBe('bad-input');
    expect((await refusal(add(new TestDevice(false)))).type).toBe('bad-input');
    expect((await refusal(add(new TestDevice(), asTom(), SITE, ' '))).field).toBe('name');
    // A challenge of somebody else.
    const { challenge } = await beginPasskey(house, SITE);
    const response = new TestDevice().make(challenge, SITE.origin, SITE.host);
    expect((await refusal(keepPasskey(asTom(), SITE, { name: 'x', response }))).type).toBe('bad-input');
    expect(await passkeys(asTom())).toHaveLength(1);
  });

  it('proves nothing from another page, of another house, without a look, or with a made-up answer', async () => {
    expect((await refusal(come(device, ELSEWHERE))).type).toBe('unauthenticated');
    expect((await refusal(come(device, { ...SITE, host: 'evil.example' }))).type).toBe('unauthenticated');
    expect((await refusal(come(device, SITE, actingAs(house, { house: 2, person: 1 })))).type).toBe(
      'unauthenticated',
    );
    expect((await refusal(come(new TestDevice()))).type).toBe('unauthenticated');
    for (const response of [{}, { id: device.id }, { id: device.id, response: {} }, { id: 7 }])
      expect((await refusal(signInByPasskey(house, SITE, { ...DOOR, response }))).type).toBe(
        'unauthenticated',
      );
  });

  it('answers a challenge once, within five minutes, and one that was asked for here', async () => {
    const begin = async (): Promise<string> => (await beginPasskeySignIn(house, SITE)).challenge;
    const answer = (challenge: string) =>
      signInByPasskey(house, SITE, { ...DOOR, response: device.prove(challenge, SITE.origin, SITE.host) });
    const once = await begin();
    await answer(once);
    expect((await refusal(answer(once))).type).toBe('unauthenticated');
    expect((await refusal(answer('AAAAAAAAAAAAAAAAAAAAAA'))).type).toBe('unauthenticated');
    const { challenge: ofMaking } = await beginPasskey(asTom(), SITE);
    expect((await refusal(answer(ofMaking))).type).toBe('unauthenticated');
    const late = await begin();
    now += ANSWER_MS - 1;
    await answer(late);
    const later = await begin();
    now += ANSWER_MS;
    expect((await refusal(answer(later))).type).toBe('unauthenticated');
  });

  it('that counts less than before is a copy, and comes in no more', async () => {
    device.counter -= 3;
    expect((await refusal(come(device))).type).toBe('unauthenticated');
    device.counter += 10;
    await come(device);
    const { challenge: one } = await beginPasskeySignIn(house, SITE);
    const { challenge: two } = await beginPasskeySignIn(house, SITE);
    // Two with the same count at once.
    const answers = [one, two].map((challenge, i) => {
      if (i === 1) device.counter--;
      return device.prove(challenge, SITE.origin, SITE.host);
    });
    const ends = await Promise.allSettled(
      answers.map((response) => signInByPasskey(house, SITE, { ...DOOR, response })),
    );
    expect(ends.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  });

  it('of somebody who has left, or that was taken away by its own person, is known no more', async () => {
    await setLeft(house, tom, true);
    expect((await refusal(come(device))).type).toBe('unauthenticated');
    await setLeft(house, tom, false);
    await come(device);
    const [{ id }] = await passkeys(asTom());
    expect((await refusal(removePasskey(house, id))).type).toBe('not-found');
    await removePasskey(asTom(), id);
    expect((await refusal(come(device))).type).toBe('unauthenticated');
  });
});
