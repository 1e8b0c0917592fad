import { screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { MachineKey } from '@melto/services/people/machineKeys';
import type { Person } from '@melto/services/people/people';
import { ENDPOINTS } from '@/endpoints/all';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { ActsSurface } from './ActsSurface';
import { FirstPerson, ownPath, SignIn } from './ComeIn';
import { PassphraseDialog } from './PassphraseDialog';
import { PeopleSurface } from './PeopleSurface';
import { roleActs } from './roleActs';

vi.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => {} }), usePathname: () => '/' }));

const INES: Person = {
  ...{
    id: 1,
    name: 'Ines Marlow',
    role: 'keeper',
    comesIn: true,
    seenMs: Date.UTC(2026, 10, 30),
    away: false,
  },
};
const TOM: Person = { ...INES, id: 2, name: 'Tom Aldous', role: 'operator', comesIn: false, seenMs: null };
const KEY: MachineKey = {
  ...{
    id: 4,
    name: 'front end',
    role: 'operator',
    author: 'Ines Marlow',
    madeMs: 0,
    usedMs: null,
    over: false,
  },
  endsMs: Date.UTC(2027, 0, 9),
};
const assigned: string[] = [];
const own = window.location;

beforeEach(() => {
  assigned.length = 0;
  vi.stubGlobal('location', { assign: (to: string) => assigned.push(to) });
});
// Not all that is stubbed: the setup of these tests stubs what takes their time.
afterEach(() => vi.stubGlobal('location', own));

describe('the door', () => {
  it('leads back to where one came from, and to no other server', async () => {
    const { sent } = fakeServer({ 'POST /api/session': {} });
    const { user } = show(<SignIn back="/conditions/3" />);
    await user.type(screen.getByLabelText('Name'), ' Tom Aldous ');
    const act = screen.getByRole('button', { name: 'Sign in' });
    expect(act).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Passphrase'), 'three quiet herons wade{Enter}');
    await waitFor(() => expect(assigned).toEqual(['/conditions/3']));
    expect(sent[0].body).toEqual({ name: 'Tom Aldous', passphrase: 'three quiet herons wade' });
    for (const path of ['//evil.example', 'https://evil.example', '/\\evil.example', 'x', ''])
      expect(ownPath(path)).toBe('/');
    expect(ownPath('/read/WRN-1')).toBe('/read/WRN-1');
  });

  it('says what is refused, and keeps what was typed', async () => {
    const refused = new Refused(401, { title: 'Name or passphrase is not right.', detail: 'Try again.' });
    fakeServer({ 'POST /api/session': refused });
    const { user } = show(<SignIn />);
    await user.type(screen.getByLabelText('Name'), 'Tom');
    await user.type(screen.getByLabelText('Passphrase'), 'x{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('not right');
    expect(screen.getByLabelText('Name')).toHaveProperty('value', 'Tom');
    expect(assigned).toEqual([]);
  });

  it('has a new passphrase typed twice alike', async () => {
    const { sent } = fakeServer({ 'POST /api/first-person': {} });
    const { user } = show(<FirstPerson />);
    await user.type(screen.getByLabelText('Name'), 'Ines');
    await user.type(screen.getByLabelText('Passphrase'), 'three quiet herons');
    await user.type(screen.getByLabelText('The same again'), 'three quiet heron');
    expect(screen.getByText('It differs from the one above')).toBeTruthy();
    const begin = screen.getByRole('button', { name: 'Begin' });
    expect(begin).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('The same again'), 's');
    await user.click(begin);
    await waitFor(() => expect(assigned).toEqual(['/']));
    expect(sent).toHaveLength(1);
  });
});

describe('people of the house', () => {
  it('are added with a passphrase that is shown once', async () => {
    const { sent } = fakeServer({ 'POST /api/people': { id: 5, passphrase: 'abcde-fghjk-mnpqr-stuvw' } });
    const { user } = show(<PeopleSurface people={[INES, TOM]} keys={[]} acts={[]} />);
    expect(screen.getByText('cannot sign in: has no passphrase')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'New person' }));
    await user.type(screen.getByLabelText('Name'), 'Ada Finch');
    await user.click(screen.getByLabelText('Is'));
    await user.click(screen.getByRole('option', { name: 'specialist' }));
    await user.click(screen.getByRole('button', { name: 'Add the person' }));
    expect(await screen.findByText('abcde-fghjk-mnpqr-stuvw')).toBeTruthy();
    expect(sent[0].body).toEqual({ name: 'Ada Finch', role: 'specialist' });
    await user.click(screen.getByRole('button', { name: 'I have it' }));
    await waitFor(() => expect(screen.queryByText('abcde-fghjk-mnpqr-stuvw')).toBeNull());
  });

  it('are changed, given another passphrase, and leave; a refusal is said', async () => {
    const { sent } = fakeServer({
      'PUT /api/people/2': {},
      'POST /api/people/2/passphrase': { passphrase: 'bcdef-ghjkm-npqrs-tuvwx' },
      'PUT /api/people/1/away': new Refused(409, {
        title: 'The house would have no keeper.',
        detail: 'Make another.',
      }),
    });
    const { user } = show(<PeopleSurface people={[INES, TOM]} keys={[]} acts={[]} />);
    await user.click(screen.getByRole('button', { name: 'Change Tom Aldous' }));
    await user.type(screen.getByLabelText('Name'), ' jr');
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await user.click(screen.getByRole('button', { name: 'New passphrase for Tom Aldous' }));
    expect(await screen.findByText('bcdef-ghjkm-npqrs-tuvwx')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'I have it' }));
    await user.click(screen.getByRole('button', { name: 'Ines Marlow has left' }));
    expect((await screen.findByRole('alert')).textContent).toContain('no keeper');
    expect(sent.map(({ path, body }) => [path, body])).toEqual([
      ['/api/people/2', { name: 'Tom Aldous jr', role: 'operator' }],
      ['/api/people/2/passphrase', {}],
      ['/api/people/1/away', { away: true }],
    ]);
  });

  it('give programs keys that are no keeper’s, and end them', async () => {
    const { sent } = fakeServer({
      'POST /api/machine-keys': { id: 9, key: 'melto_secret' },
      'POST /api/machine-keys/4/end': {},
    });
    const { user } = show(<PeopleSurface people={[INES]} keys={[KEY]} acts={[]} />);
    await user.click(screen.getByRole('button', { name: 'End front end' }));
    await user.click(screen.getByRole('button', { name: 'New key for a program' }));
    await user.type(screen.getByLabelText('For'), 'feed');
    await user.click(screen.getByLabelText('Is'));
    expect(screen.queryByRole('option', { name: 'keeper' })).toBeNull();
    await user.click(screen.getByRole('option', { name: 'viewer' }));
    const days = screen.getByLabelText('Days it can be used');
    await user.clear(days);
    const make = screen.getByRole('button', { name: 'Make the key' });
    expect(make).toHaveProperty('disabled', true);
    await user.type(days, '801');
    expect(make).toHaveProperty('disabled', true);
    await user.clear(days);
    await user.type(days, '800');
    await user.click(make);
    expect(await screen.findByText('melto_secret')).toBeTruthy();
    expect(sent.at(-1)?.body).toEqual({ name: 'feed', role: 'viewer', days: 800 });
  });

  it('read what each role may do, as the routes check it', () => {
    const acts = roleActs(ENDPOINTS);
    expect(acts.map(({ role }) => role)).toEqual(['viewer', 'operator', 'specialist', 'keeper']);
    const of = (role: string) => acts.find((own) => own.role === role)?.acts ?? [];
    expect(of('keeper')).toContain('End a key');
    expect(of('operator')).not.toContain('Make an ink set');
    expect(of('specialist')).toContain('Make an ink set');
    expect(acts.flatMap((own) => own.acts).length).toBe(
      ENDPOINTS.filter(({ method, who }) => method !== 'GET' && who !== 'anyone').length,
    );
    show(<PeopleSurface people={[INES]} keys={[]} acts={acts} />);
    expect(screen.getByText('End a key')).toBeTruthy();
  });
});

describe('one’s own passphrase', () => {
  it('is changed once the two new ones are alike', async () => {
    const { sent } = fakeServer({ 'PUT /api/passphrase': {} });
    let closed = 0;
    const { user } = show(<PassphraseDialog onClose={() => closed++} />);
    await user.type(screen.getByLabelText('Until now'), 'old');
    await user.type(screen.getByLabelText(/^New/), 'three quiet herons');
    await user.type(screen.getByLabelText('The same again'), 'three quiet heron');
    expect(screen.getByRole('alert').textContent).toContain('differ');
    expect(screen.getByRole('button', { name: 'Change it' })).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('The same again'), 's{Enter}');
    await waitFor(() => expect(closed).toBe(1));
    expect(sent[0].body).toEqual({ before: 'old', passphrase: 'three quiet herons' });
  });
});

describe('the record of acts', () => {
  const act = (id: number) => ({
    ...{ id, atMs: 0, person: 'Ines Marlow', key: id === 7 ? 'feed' : null, origin: '10.0.0.7' },
    ...{
      what: `act ${id}`,
      object: '/api/people/2',
      detail:
        '{"name":"Tom","list":[1,2],"deep":{"a":null},"changed":{"role":["operator","viewer"],"away_ms":[null,5]}}',
    },
  });

  it('is found by words, and goes on with what is older', async () => {
    const { sent } = fakeServer({
      'GET /api/acts?find=&limit=100': Array.from({ length: 100 }, (_, i) => act(200 - i)),
      'GET /api/acts?find=&limit=100&before=101': [act(7)],
      'GET /api/acts?find=zz&limit=100': [],
      'GET /api/acts?find=z&limit=100': [],
    });
    const { user } = show(<ActsSurface />);
    expect(await screen.findByText('act 200')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Show older' }));
    expect(await screen.findByText('act 7')).toBeTruthy();
    expect(screen.getByText('by key feed')).toBeTruthy();
    expect(
      screen.getAllByText(
        'name Tom · list 1, 2 · deep {"a":null} · role: operator → viewer · away ms: nothing → 5',
      ).length,
    ).toBe(101);
    expect(screen.queryByRole('button', { name: 'Show older' })).toBeNull();
    await user.type(screen.getByLabelText('Find'), 'zz');
    expect(await screen.findByText('No act has these words.')).toBeTruthy();
    expect(sent.at(-1)?.path).toBe('/api/acts?find=zz&limit=100');
    expect(screen.getByRole('link', { name: 'CSV' }).getAttribute('href')).toBe('/api/acts/file?find=zz');
  });
});
