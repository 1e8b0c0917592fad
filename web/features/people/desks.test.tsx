import { screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PersonMenu } from '@/features/frame/PersonMenu';
import { fakeServer, Refused } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { show } from '@/testing/show';

const reload = vi.fn();
const own = window.location;
beforeEach(() => vi.stubGlobal('location', { reload, assign: () => {} }));
afterEach(() => {
  vi.stubGlobal('location', own);
  reload.mockReset();
});

const house = (role: string, desk: { name: string; taken: boolean } | null) => ({
  ...{ nowMs: 0, offsetMs: 0, slips: [], waiting: 0, instruments: [], name: 'Marsh Works', sample: false },
  ...{ person: 'Tom Aldous', role, how: 'session', bridge: '', desk, roomMb: null },
});
/** What is asked for again meanwhile changes nothing. */
const changes = (sent: readonly Sent[]): Sent[] => sent.filter(({ method }) => method !== 'GET');
const PRESS = { name: 'Press desk', taken: false };
const open = async (user: ReturnType<typeof show>['user'], name: string) =>
  user.click(await screen.findByRole('button', { name }));

describe('a desk', () => {
  it('that nobody works at says so, and is taken over by a name and six digits', async () => {
    const { sent } = fakeServer({
      'GET /api/house': house('viewer', PRESS),
      'GET /api/desk': { ...PRESS, people: [{ id: 7, name: 'Una Brook' }] },
      'POST /api/desk/taken': {},
    });
    const { user } = show(<PersonMenu />);
    await open(user, 'Press desk · nobody');
    expect(screen.queryByRole('menuitem', { name: /Sign out/ })).toBeNull();
    expect(screen.queryByRole('menuitem', { name: /passphrase/ })).toBeNull();
    expect(screen.queryByRole('menuitem', { name: 'Leave the desk' })).toBeNull();
    await user.click(screen.getByRole('menuitem', { name: 'Take over' }));
    const act = screen.getByRole('button', { name: 'Take over' });
    await user.click(await screen.findByRole('combobox', { name: 'You are' }));
    await user.click(screen.getByRole('option', { name: 'Una Brook' }));
    await user.type(screen.getByLabelText('Code'), '40 29a1');
    expect(act).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Code'), '37');
    expect(screen.getByLabelText('Code')).toHaveProperty('value', '402913');
    await user.click(act);
    await waitFor(() => expect(reload).toHaveBeenCalledOnce());
    expect(changes(sent).at(-1)?.body).toEqual({ person: 7, code: '402913' });
  });

  it('says what is wrong with a code, and that nobody has one', async () => {
    fakeServer({
      'GET /api/house': house('viewer', PRESS),
      'GET /api/desk': { ...PRESS, people: [{ id: 7, name: 'Una Brook' }] },
      'POST /api/desk/taken': new Refused(400, { title: 'The code is not right.', detail: 'After five.' }),
    });
    const { user } = show(<PersonMenu />);
    await open(user, 'Press desk · nobody');
    await user.click(screen.getByRole('menuitem', { name: 'Take over' }));
    await user.click(await screen.findByRole('combobox', { name: 'You are' }));
    await user.click(screen.getByRole('option', { name: 'Una Brook' }));
    await user.type(screen.getByLabelText('Code'), '402913{Enter}');
    expect(await screen.findByText(/The code is not right/)).toBeTruthy();
    expect(reload).not.toHaveBeenCalled();
  });

  it('is left by whoever works there, whose name it shows', async () => {
    const { sent } = fakeServer({
      'GET /api/house': house('operator', { ...PRESS, taken: true }),
      'POST /api/desk/left': {},
    });
    const { user } = show(<PersonMenu />);
    await open(user, 'Tom');
    expect(screen.getByText('operator at Press desk')).toBeTruthy();
    await user.click(screen.getByRole('menuitem', { name: 'Leave the desk' }));
    await waitFor(() => expect(reload).toHaveBeenCalledOnce());
    expect(changes(sent).at(-1)?.path).toBe('/api/desk/left');
  });
});

describe('whoever is signed in', () => {
  it('sets a code, twice the same, and makes a desk where they may', async () => {
    const { sent } = fakeServer({
      'GET /api/house': house('specialist', null),
      'PUT /api/desk-code': {},
      'POST /api/desk': {},
    });
    const { user } = show(<PersonMenu />);
    await open(user, 'Tom');
    await user.click(screen.getByRole('menuitem', { name: 'Code for desks' }));
    await user.type(screen.getByLabelText('Code, six digits'), '402913');
    await user.type(screen.getByLabelText('The same again'), '402914');
    expect(screen.getByText('The two differ.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Set it' })).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('The same again'), '{Backspace}3{Enter}');
    await waitFor(() => expect(changes(sent).at(-1)?.body).toEqual({ code: '402913' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await open(user, 'Tom');
    await user.click(screen.getByRole('menuitem', { name: 'Make this browser a desk' }));
    await user.type(screen.getByLabelText('Name of the desk'), ' Press desk {Enter}');
    await waitFor(() => expect(changes(sent).at(-1)?.body).toEqual({ name: 'Press desk' }));
  });

  it('makes none as an operator, and has no code as a viewer', async () => {
    fakeServer({ 'GET /api/house': house('operator', null) });
    const { user, unmount } = show(<PersonMenu />);
    await open(user, 'Tom');
    expect(screen.getByRole('menuitem', { name: 'Code for desks' })).toBeTruthy();
    expect(screen.queryByRole('menuitem', { name: /desk$/ })).toBeNull();
    unmount();
    fakeServer({ 'GET /api/house': house('viewer', null) });
    const again = show(<PersonMenu />);
    await open(again.user, 'Tom');
    expect(screen.queryByRole('menuitem', { name: 'Code for desks' })).toBeNull();
  });
});
