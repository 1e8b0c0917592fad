import { Type } from '@sinclair/typebox';
import { describe, expect, it } from 'vitest';
import { answers, makes, reads, sets, strict } from '@/endpoints/endpoint';
import { IN_PATH } from '@/endpoints/fields';
import { AWAY, fakeServer, Refused } from '@/testing/fakeServer';
import { addressOf, ApiProblem, ask, problemWords, SaidError, send } from './api';

const ANSWER = answers<{ readonly id?: number }>();
const TELL = reads({ path: '/api/x', says: 'x', who: 'viewer', answer: ANSWER });
const MAKE = makes({
  ...{ path: '/api/x', says: 'x', who: 'viewer', answer: ANSWER },
  body: strict({ a: Type.Optional(Type.Number()) }),
});
const SET = sets({
  ...{ path: '/api/x/{id}', says: 'x', who: 'viewer', params: IN_PATH, answer: ANSWER },
  body: strict({}),
});
const GIVE = makes({
  ...{ path: '/api/list', says: 'x', who: 'viewer', answer: ANSWER },
  query: strict({ name: Type.Optional(Type.String()) }),
  body: { file: true, mostBytes: 10 } as const,
});

const caught = (work: Promise<unknown>): Promise<unknown> => work.catch((error: unknown) => error);

describe('talking to the server', () => {
  it('fills an address with what is asked, and leaves out what is not', () => {
    expect(addressOf(SET, { params: { id: 7 } })).toBe('/api/x/7');
    expect(addressOf(GIVE, { query: { name: 'a b&c' } })).toBe('/api/list?name=a+b%26c');
    expect(addressOf(GIVE, { query: { name: undefined } })).toBe('/api/list');
    expect(addressOf({ path: '/api/sheets/{code}' }, { params: { code: '../x' } })).toBe(
      '/api/sheets/..%2Fx',
    );
  });

  it('sends each change with a key of its own, and the same key where it is told', async () => {
    const { sent } = fakeServer({ 'POST /api/x': { id: 1 }, 'PUT /api/x/3': {}, 'POST /api/list': {} });
    expect(await send(MAKE, { body: { a: 1 } })).toEqual({ id: 1 });
    await send(MAKE, { body: { a: 1 } });
    await send(SET, { params: { id: 3 }, body: {} }, 'again');
    await send(GIVE, { body: 'name,L,a,b' });
    expect(sent.map(({ method }) => method)).toEqual(['POST', 'POST', 'PUT', 'POST']);
    const keys = sent.map(({ key }) => key);
    expect(keys[2]).toBe('again');
    expect(new Set(keys).size).toBe(4);
    expect(keys.every((key) => key !== null && key !== '')).toBe(true);
  });

  it('sends a change once, however often its button is pressed before the answer', async () => {
    const { sent } = fakeServer({ 'POST /api/x': { id: 1 } });
    const both = await Promise.all([send(MAKE, { body: { a: 1 } }), send(MAKE, { body: { a: 1 } })]);
    expect(both).toEqual([{ id: 1 }, { id: 1 }]);
    expect(sent).toHaveLength(1);
    await Promise.all([send(MAKE, { body: { a: 1 } }), send(MAKE, { body: { a: 2 } })]);
    expect(sent).toHaveLength(3);
  });

  it('sends what had no answer again under the same key, and what was refused under a new one', async () => {
    let tries = 0;
    const { sent } = fakeServer({
      'POST /api/x': () => {
        tries++;
        if (tries === 1) throw AWAY;
        if (tries === 2) return new Refused(500, { title: 'Oh.', detail: 'Wait.' });
        if (tries === 3) return new Refused(400, { title: 'No.', detail: 'Mend it.' });
        return { id: tries };
      },
    });
    for (let i = 0; i < 3; i++) await caught(send(MAKE, { body: { a: 5 } }));
    expect(await send(MAKE, { body: { a: 5 } })).toEqual({ id: 4 });
    const [away, broken, refused, made] = sent.map(({ key }) => key);
    expect([broken, refused]).toEqual([away, away]);
    expect(made).not.toBe(away);
  });

  it('says what the server refused and what to do', async () => {
    fakeServer({
      'POST /api/x': new Refused(400, { title: 'No limit.', detail: 'Give one over 0.', field: 'limit' }),
    });
    const problem = await caught(send(MAKE, { body: {} }));
    expect(problem).toMatchObject({ status: 400, field: 'limit' });
    expect(problemWords(problem)).toBe('No limit. Give one over 0.');
  });

  it('tells an absent server from one that refuses', async () => {
    fakeServer({
      'GET /api/x': () => {
        throw AWAY;
      },
    });
    const problem = await caught(ask(TELL, {}));
    expect(problem).toBeInstanceOf(ApiProblem);
    expect(problem).toMatchObject({ status: 0 });
    expect(problemWords(problem)).toContain('What was confirmed is kept.');
  });

  it('finds words for anything else', () => {
    expect(problemWords(new SaidError('The file is larger than 200 MB.'))).toBe(
      'The file is larger than 200 MB.',
    );
    expect(problemWords(new Error('x is undefined'))).toBe(
      'Something went wrong. Nothing was changed; try again.',
    );
  });
});
