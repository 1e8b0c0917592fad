import { describe, expect, it } from 'vitest';
import { dispatcherOf } from './dispatch';
import type { Routes } from './dispatch';

/** Says where it stands and what it was given. */
const saying =
  (name: string) =>
  async (_: Request, { params }: { params: Promise<Record<string, string>> }): Promise<Response> =>
    Response.json({ name, params: await params });

const ROUTES: Routes = {
  '/api/rooms': { GET: saying('rooms'), POST: saying('new room') },
  '/api/rooms/best': { GET: saying('best') },
  '/api/rooms/{id}': { GET: saying('room') },
  '/api/rooms/{id}/doors/{door}': { PUT: saying('door') },
  '/api/rooms/best/beds': { GET: saying('beds') },
};

function ask(path: string, method = 'GET'): Promise<Response> {
  const words = path.split('/').slice(2).map(decodeURIComponent);
  return dispatcherOf(ROUTES)(new Request(`http://127.0.0.1${path}`, { method }), {
    params: Promise.resolve({ path: words }),
  });
}

const told = async (path: string, method?: string): Promise<unknown> => (await ask(path, method)).json();

describe('the one entry of the API', () => {
  it('answers an address by its own word before a parameter', async () => {
    expect(await told('/api/rooms/best')).toEqual({ name: 'best', params: {} });
    expect(await told('/api/rooms/7')).toEqual({ name: 'room', params: { id: '7' } });
    expect(await told('/api/rooms/best/beds')).toEqual({ name: 'beds', params: {} });
  });

  it('takes a word as a parameter where its own way ends', async () => {
    expect(await told('/api/rooms/best/doors/2', 'PUT')).toEqual({
      name: 'door',
      params: { id: 'best', door: '2' },
    });
  });

  it('keeps a parameter whole that holds a stroke', async () => {
    expect(await told('/api/rooms/a%2Fb')).toEqual({ name: 'room', params: { id: 'a/b' } });
  });

  it('tells one method from another', async () => {
    expect(await told('/api/rooms', 'POST')).toEqual({ name: 'new room', params: {} });
    expect(await told('/api/rooms')).toEqual({ name: 'rooms', params: {} });
  });

  it('answers the head of what is told', async () => {
    expect((await ask('/api/rooms', 'HEAD')).status).toBe(200);
    expect((await ask('/api/rooms/1/doors/2', 'HEAD')).status).toBe(405);
  });

  it('refuses a method that the address does not take, and names those that it does', async () => {
    const response = await ask('/api/rooms', 'DELETE');
    expect(response.status).toBe(405);
    expect(response.headers.get('allow')).toBe('GET, POST');
    expect(await response.json()).toMatchObject({ title: expect.stringContaining('method') as string });
  });

  it.each([
    '/api/room',
    '/api/rooms/7/doors',
    '/api/rooms/7/doors/2/hinges',
    '/api/rooms/{id}/x',
    '/api/__proto__',
  ])('says that there is nothing at %s', async (path) => {
    const response = await ask(path);
    expect(response.status).toBe(404);
    expect(response.headers.get('content-type')).toBe('application/problem+json');
  });
});
