import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { HouseState } from '@melto/services/house/house';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { Header } from './Header';

const HOUR_MS = 3_600_000;

function header(house: Partial<HouseState> = {}, answers: Readonly<Record<string, unknown>> = {}) {
  const server = fakeServer({
    'GET /api/house': {
      nowMs: Date.now(),
      offsetMs: 0,
      slips: [],
      instrument: { name: 'Strip reader 2', tileMs: Date.now() - 30 * 60_000, tileLifeMs: HOUR_MS },
      person: 'Ines Marlow',
      ...house,
    },
    'GET /api/conditions/4': {
      condition: { id: 4, device: 'Heron', stock: 'Lantern Gloss 150', mode: 'standard', label: '' },
      links: [],
    },
    'GET /api/search': [],
    'POST /api/tile': {},
    'POST /api/clock': {},
    ...answers,
  });
  return { ...show(<Header />), ...server };
}

describe('the header', () => {
  it('says where one is: the floor, or the condition', async () => {
    const { unmount } = header();
    expect(screen.getByText('Floor')).toBeTruthy();
    unmount();
    navigation.path = '/conditions/4/curves';
    header();
    expect((await screen.findByTitle('Switch to another condition')).textContent).toBe(
      'Heron / Lantern Gloss 150 / standard',
    );
  });

  it('switches conditions from the breadcrumb, and finds anything by Ctrl K', async () => {
    navigation.path = '/conditions/4/curves';
    const { user } = header();
    await user.click(await screen.findByTitle('Switch to another condition'));
    expect(screen.getByPlaceholderText(/Condition: device, stock or mode/)).toBeTruthy();
    await user.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('combobox', { name: 'Find or do' })).toBeNull());
    await user.keyboard('{Control>}k{/Control}');
    expect(await screen.findByPlaceholderText(/sheet code, profile, action/)).toBeTruthy();
  });

  it('tells how old the white tile is, when it is due, and reads it', async () => {
    const { unmount } = header();
    expect(await screen.findByText('tile 30 min ago')).toBeTruthy();
    unmount();
    const { user, sent } = header({
      instrument: { name: 'Strip reader 2', tileMs: null, tileLifeMs: HOUR_MS },
    });
    await user.click(await screen.findByText('tile due'));
    expect(await screen.findByText('White tile read.')).toBeTruthy();
    expect(sent.some(({ method, path }) => method === 'POST' && path === '/api/tile')).toBe(true);
  });

  it('says what is wrong with the instrument, or that there is none', async () => {
    const refusal = new Refused(409, { title: 'The instrument is away.', detail: 'Plug it in.' });
    const { user, unmount } = header({}, { 'POST /api/tile': refusal });
    await user.click(await screen.findByText('tile 30 min ago'));
    expect(await screen.findByText('The instrument is away. Plug it in.')).toBeTruthy();
    unmount();
    header({ instrument: null });
    expect(await screen.findByText('no instrument')).toBeTruthy();
  });

  it('shows the simulated clock only where it was moved, and moves it on', async () => {
    const { unmount } = header();
    expect(await screen.findByText('real time')).toBeTruthy();
    unmount();
    const slips = [
      { state: 'resting', restUntilMs: Date.now() + 2 * HOUR_MS + 7200_000 },
    ] as unknown as HouseState['slips'];
    const { user, sent } = header({ offsetMs: 2 * HOUR_MS, slips });
    await user.click(await screen.findByText('clock +2 h'));
    await user.click(screen.getByRole('menuitem', { name: /Rest until ready, 2 h/ }));
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/clock')).toBe(true));
    const { byMs } = sent.find(({ path }) => path === '/api/clock')?.body as { byMs: number };
    expect(byMs / HOUR_MS).toBeCloseTo(2, 1);
  });

  it('cannot rest what does not rest', async () => {
    const { user } = header();
    await user.click(await screen.findByText('real time'));
    expect(screen.getByRole('menuitem', { name: 'Rest until ready' }).getAttribute('aria-disabled')).toBe(
      'true',
    );
  });
});
