import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { actingAs } from '../src/kernel/context.ts';
import type { Context } from '../src/kernel/context.ts';
import { changeHouse, ownHouse } from '../src/house/ownHouse.ts';
import { Problem } from '../src/kernel/problem.ts';
import { detailOf } from '../src/people/acts.ts';
import { keyOwner, makeMachineKey } from '../src/people/machineKeys.ts';
import { checkPassphrase, givenPassphrase, hashPassphrase, isPassphrase } from '../src/people/passphrase.ts';
import { changePerson, givePassphrase, makePerson, people, setLeft } from '../src/people/people.ts';
import {
  changePassphrase,
  claimHouse,
  isUnclaimed,
  LOCKED_MS,
  MOST_FAILURES,
  SESSION_MS,
  sessionOf,
  signIn,
} from '../src/people/signIn.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const PASSPHRASE = 'three quiet herons wade';
const DOOR = { agent: 'test', origin: { keyId: null, origin: '10.0.0.7' } };
let services: TestServices;
let now = Date.UTC(2026, 10, 30);
/** The same house at a time of its own. */
let house: Context;

beforeAll(async () => {
  services = await openTestServices('melto_people');
  house = { ...services, now: () => now };
});
afterAll(() => services.database.close());

async function refusal(work: Promise<unknown>): Promise<Problem> {
  const error: unknown = await work.then(
    () => undefined,
    (thrown: unknown) => thrown,
  );
  if (error instanceof Problem) return error;
  throw new Error(`no refusal: ${String(error)}`);
}
const come = (name: string, passphrase = PASSPHRASE) => signIn(house, { name, passphrase, ...DOOR });
const kind = async (work: Promise<unknown>): Promise<string> => (await refusal(work)).type;

describe('a passphrase', () => {
  it('is long enough and no one letter over and over', () => {
    expect(() => checkPassphrase('abcdefghijk')).toThrow(Problem);
    expect(() => checkPassphrase('abcdefghijkl')).not.toThrow();
    expect(() => checkPassphrase('abcdabcdabcd')).toThrow(/five different/);
    expect(() => checkPassphrase('abcdeabcdeab')).not.toThrow();
    expect(() => checkPassphrase('é🙂bcde'.repeat(2))).not.toThrow();
    expect(() => checkPassphrase(`${'abcde'.repeat(40)}`)).not.toThrow();
    expect(() => checkPassphrase(`${'abcde'.repeat(40)}f`)).toThrow(Problem);
  });

  it('is kept as argon2id with a salt of its own, and is the same however its letters are put together', async () => {
    const [one, two] = await Promise.all([
      hashPassphrase('Café at the marsh'),
      hashPassphrase('Café at the marsh'),
    ]);
    expect(one).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(one).not.toBe(two);
    expect(await isPassphrase(one, 'Cafe\u0301 at the marsh')).toBe(true);
    expect(await isPassphrase(one, 'cafe at the marsh')).toBe(false);
    expect(await isPassphrase(null, 'anything at all')).toBe(false);
    expect(await isPassphrase('no hash', 'anything at all')).toBe(false);
  });

  it('that is given is another each time, and one that can be kept', () => {
    const given = new Set(Array.from({ length: 200 }, givenPassphrase));
    expect(given.size).toBe(200);
    for (const one of given) {
      expect(one).toMatch(/^([a-hjkmnp-z2-9]{5}-){3}[a-hjkmnp-z2-9]{5}$/);
      expect(() => checkPassphrase(one)).not.toThrow();
    }
  });
});

describe('the first person', () => {
  it('takes the house once of eight that try at once, and what was made before stays theirs', async () => {
    expect(await isUnclaimed(house)).toBe(true);
    expect(await kind(come('Ines Marlow'))).toBe('unauthenticated');
    expect(await kind(claimHouse(house, { name: 'Ines', passphrase: 'short', ...DOOR }))).toBe('bad-input');
    expect(await kind(claimHouse(house, { name: '  ', passphrase: PASSPHRASE, ...DOOR }))).toBe('bad-input');
    const tries = await Promise.allSettled(
      Array.from({ length: 8 }, (_, i) =>
        claimHouse(house, { name: `Ines ${i}`, passphrase: PASSPHRASE, ...DOOR }),
      ),
    );
    const [won] = tries.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
    expect(tries.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect(await isUnclaimed(house)).toBe(false);
    expect(await sessionOf(house, won.secret)).toMatchObject({ person: 1, role: 'keeper' });
    expect(await people(house)).toHaveLength(1);
    await changePerson(house, 1, { name: 'Ines Marlow', role: 'keeper' });
  });
});

describe('signing in', () => {
  it('locks a name after its failures, though they come at once, and opens again', async () => {
    const { id, passphrase } = await makePerson(house, { name: 'Tom Aldous', role: 'operator' });
    // One failure fewer locks nothing.
    await Promise.allSettled(
      Array.from({ length: MOST_FAILURES - 1 }, () => come('Tom Aldous', 'wrong wrong wrong')),
    );
    await come('Tom Aldous', passphrase);
    const tries = await Promise.all(
      Array.from({ length: MOST_FAILURES }, () => kind(come('Tom Aldous', 'wrong wrong wrong'))),
    );
    expect(tries).toContain('unauthenticated');
    expect(await kind(come('Tom Aldous', passphrase))).toBe('too-many');
    now += LOCKED_MS - 1;
    expect(await kind(come('Tom Aldous', passphrase))).toBe('too-many');
    now += 1;
    await come('Tom Aldous', passphrase);
    // A new passphrase opens it before its time.
    await Promise.allSettled(
      Array.from({ length: MOST_FAILURES }, () => come('Tom Aldous', 'wrong wrong wrong')),
    );
    const given = await givePassphrase(house, id);
    await come('Tom Aldous', given.passphrase);
    expect(await kind(come('Tom Aldous', passphrase))).toBe('unauthenticated');
  });

  it('says the same of a name that nobody has', async () => {
    const [unknown, wrong] = await Promise.all([
      refusal(come('Nobody', PASSPHRASE)),
      refusal(come('Ines Marlow', 'wrong wrong wrong')),
    ]);
    expect(unknown.title).toBe(wrong.title);
  });

  it('lasts while one comes by, and ends when one does not', async () => {
    const { secret } = await come('Ines Marlow');
    expect(await sessionOf(house, `${secret.slice(1)}A`)).toBeUndefined();
    now += SESSION_MS - 1;
    expect(await sessionOf(house, secret)).toMatchObject({ name: 'Ines Marlow' });
    now += SESSION_MS - 1;
    expect(await sessionOf(house, secret)).toBeDefined();
    now += SESSION_MS;
    expect(await sessionOf(house, secret)).toBeUndefined();
  });

  it('keeps no secret in the database', async () => {
    const { secret } = await come('Ines Marlow');
    const rows = await services.database.rows<{ digest: Buffer }>('SELECT digest FROM person_session');
    expect(rows.length).toBeGreaterThan(0);
    for (const { digest } of rows) expect(digest.toString('base64url')).not.toBe(secret);
  });
});

describe('a passphrase of one’s own', () => {
  it('is changed by whoever knows the one before, and signs out everywhere else', async () => {
    const [here, there] = [await come('Ines Marlow'), await come('Ines Marlow')];
    const change = (before: string, passphrase: string) =>
      changePassphrase(house, { before, passphrase, secret: here.secret });
    expect((await refusal(change('wrong wrong wrong', 'a new one for ines'))).field).toBe('before');
    expect(await kind(change(PASSPHRASE, 'short'))).toBe('bad-input');
    await change(PASSPHRASE, 'a new one for ines');
    expect(await sessionOf(house, here.secret)).toBeDefined();
    expect(await sessionOf(house, there.secret)).toBeUndefined();
    await change('a new one for ines', PASSPHRASE);
  });
});

describe('people of a house', () => {
  it('have names of their own, also where two are made at once', async () => {
    const made = await Promise.allSettled(
      Array.from({ length: 6 }, () => makePerson(house, { name: 'Ada Finch', role: 'viewer' })),
    );
    expect(made.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const { id } = (await people(house)).find(({ name }) => name === 'Ada Finch') ?? { id: 0 };
    expect((await refusal(changePerson(house, id, { name: 'ines marlow', role: 'viewer' }))).field).toBe(
      'name',
    );
    const own = await ownHouse(house);
    expect((await refusal(changeHouse(house, { ...own, name: 'Other', person: 'Ada Finch' }))).field).toBe(
      'person',
    );
    expect((await ownHouse(house)).name).toBe(own.name);
    await changeHouse(house, own);
    expect(await kind(changePerson(house, 9999, { name: 'X', role: 'viewer' }))).toBe('not-found');
    expect(await kind(setLeft(house, 9999, true))).toBe('not-found');
    expect(await kind(givePassphrase(house, 9999))).toBe('not-found');
  });

  it('are signed out when they leave, and can come back', async () => {
    const { id, passphrase } = await makePerson(house, { name: 'Rook', role: 'specialist' });
    const { secret } = await come('Rook', passphrase);
    await setLeft(house, id, true);
    expect(await sessionOf(house, secret)).toBeUndefined();
    expect(await kind(come('Rook', passphrase))).toBe('unauthenticated');
    expect((await people(house)).at(-1)).toMatchObject({ name: 'Rook', away: true });
    await setLeft(house, id, false);
    await come('Rook', passphrase);
  });

  it('never lose their last keeper, also where two leave at once', async () => {
    expect((await refusal(changePerson(house, 1, { name: 'Ines Marlow', role: 'specialist' }))).field).toBe(
      'role',
    );
    expect(await kind(setLeft(house, 1, true))).toBe('conflict');
    const { id } = await makePerson(house, { name: 'Second keeper', role: 'keeper' });
    const left = await Promise.allSettled([
      setLeft(house, 1, true),
      changePerson(house, id, { name: 'Second keeper', role: 'viewer' }),
    ]);
    expect(left.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const keepers = (await people(house)).filter(({ role, away }) => role === 'keeper' && !away);
    expect(keepers).toHaveLength(1);
    await setLeft(house, 1, false);
    await changePerson(house, 1, { name: 'Ines Marlow', role: 'keeper' });
  });
});

describe('a key of a program', () => {
  it('does no more than whoever made it does today, and ends with its days', async () => {
    const { id } = await makePerson(house, { name: 'Kestrel desk', role: 'specialist' });
    const desk = actingAs(house, { house: 1, person: id });
    expect(
      (await refusal(makeMachineKey(desk, 'operator', { name: 'x', role: 'specialist', days: 1 }))).field,
    ).toBe('role');
    const { key } = await makeMachineKey(desk, 'specialist', { name: 'feed', role: 'specialist', days: 2 });
    expect(await keyOwner(house, key)).toMatchObject({
      person: id,
      role: 'specialist',
      name: 'Kestrel desk',
    });
    await changePerson(house, id, { name: 'Kestrel desk', role: 'viewer' });
    expect(await keyOwner(house, key)).toMatchObject({ role: 'viewer' });
    await setLeft(house, id, true);
    expect(await keyOwner(house, key)).toBeUndefined();
    await setLeft(house, id, false);
    now += 2 * 86_400_000 - 1;
    expect(await keyOwner(house, key)).toBeDefined();
    now += 1;
    expect(await keyOwner(house, key)).toBeUndefined();
    expect(await keyOwner(house, 'melto_nothing')).toBeUndefined();
    expect(await keyOwner(house, 'other')).toBeUndefined();
  });
});

describe('what is written down of an act', () => {
  it('has no secret and no more than fits', () => {
    expect(detailOf({ name: 'a', passphrase: 'b', key: 'c', before: 'd' })).toBe(
      '{"name":"a","passphrase":"…","key":"…","before":"…"}',
    );
    expect(detailOf(new Uint8Array(12))).toBe('{"file":"12 bytes"}');
    expect(detailOf({ list: new Array(41).fill(1), few: [1] })).toBe('{"list":"41 entries","few":[1]}');
    expect(detailOf({ text: 'x'.repeat(401) })).toBe(`{"text":"${'x'.repeat(400)}…"}`);
    const wide = Object.fromEntries(Array.from({ length: 400 }, (_, i) => [`field${i}`, 'y'.repeat(300)]));
    expect(detailOf(wide).length).toBe(4001);
    expect(detailOf(undefined)).toBe('');
  });
});
