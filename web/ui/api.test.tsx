import { describe, expect, it } from 'vitest';
import { AWAY, fakeServer, Refused } from '@/testing/fakeServer';
import { ApiProblem, getJson, problemWords, sendJson, sendText } from './api';

const caught = (work: Promise<unknown>): Promise<unknown> => work.catch((error: unknown) => error);

describe('talking to the server', () => {
  it('sends each change with a key of its own, and the same key where it is told', async () => {
    const { sent } = fakeServer({ 'POST /api/x': { id: 1 }, 'PUT /api/x': {}, 'POST /api/list': {} });
    expect(await sendJson<{ id: number }>('/api/x', { a: 1 })).toEqual({ id: 1 });
    await sendJson('/api/x', { a: 1 });
    await sendJson('/api/x', {}, 'PUT', 'again');
    await sendText('/api/list', 'name,L,a,b');
    expect(sent.map(({ method, body }) => [method, body])).toEqual([
      ['POST', { a: 1 }],
      ['POST', { a: 1 }],
      ['PUT', {}],
      ['POST', 'name,L,a,b'],
    ]);
    const keys = sent.map(({ key }) => key);
    expect(keys[2]).toBe('again');
    expect(new Set(keys).size).toBe(4);
    expect(keys.every((key) => key !== null && key !== '')).toBe(true);
  });

  it('says what the server refused and what to do', async () => {
    fakeServer({
      'POST /api/x': new Refused(400, { title: 'No limit.', detail: 'Give one over 0.', field: 'limit' }),
    });
    const problem = await caught(sendJson('/api/x'));
    expect(problem).toMatchObject({ status: 400, field: 'limit' });
    expect(problemWords(problem)).toBe('No limit. Give one over 0.');
  });

  it('tells an absent server from one that refuses', async () => {
    fakeServer({
      'GET /api/x': () => {
        throw AWAY;
      },
    });
    const problem = await caught(getJson('/api/x'));
    expect(problem).toBeInstanceOf(ApiProblem);
    expect(problem).toMatchObject({ status: 0 });
    expect(problemWords(problem)).toContain('What was confirmed is kept.');
  });

  it('finds words for anything else', () => {
    expect(problemWords(new Error('x is undefined'))).toBe(
      'Something went wrong. Nothing was changed; try again.',
    );
  });
});
