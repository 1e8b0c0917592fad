import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { HouseOnPages } from '@/endpoints/house';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { fakeBridge, WITH_READER } from '@/testing/fakeBridge';
import type { FakeBridge } from '@/testing/fakeBridge';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { Header } from './Header';

const HOUR_MS = 3_600_000;

const tileAt = (tileMs: number | null): Pick<HouseOnPages, 'instruments' | 'bridge'> => ({
  ...WITH_READER,
  instruments: WITH_READER.instruments.map((one) => ({ ...one, tileMs })),
});

function header(
  house: Partial<HouseOnPages> = {},
  answers: Readonly<Record<string, unknown>> = {},
  bridge: FakeBridge = fakeBridge(),
) {
  const server = fakeServer({
    'GET /api/house': {
      nowMs: Date.now(),
      offsetMs: 0,
      slips: [],
      ...tileAt(Date.now() - 30 * 60_000),
      sample: true,
      person: 'Ines Marlow',
      ...house,
    },
    'GET /api/conditions/4': {
      condition: { id: 4, device: 'Heron', stock: 'Lantern Gloss 150', mode: 'standard', label: '' },
      links: [],
    },
    'GET /api/search': [],
    'POST /api/instruments': {},
    'POST /api/instruments/3/tile': {},
    'POST /api/clock': {},
    ...answers,
  });
  const shown = show(
    <BridgeProvider open={bridge.open}>
      <Header />
    </BridgeProvider>,
  );
  return { ...shown, ...server, bridge };
}

describe('the header', () => {
  it('says in time that the disk gets full, and when nothing can be stored', async () => {
    for (const [roomMb, words] of [
      [299.9, 'nothing can be stored: 299 MB left on disk'],
      [300, '300 MB left on disk'],
      [1999.9, '1,999 MB left on disk'],
    ] as const) {
      const { unmount } = header({ roomMb });
      expect((await screen.findByText(/left on disk/)).textContent).toBe(words);
      unmount();
    }
    for (const roomMb of [2000, null]) {
      const { unmount } = header({ roomMb });
      await screen.findByRole('button', { name: 'Ines' });
      expect(screen.queryByText(/left on disk/)).toBeNull();
      unmount();
    }
  });

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
    const { user, sent, bridge } = header(tileAt(null));
    await user.click(await screen.findByText('tile due'));
    expect(await screen.findByText('White tile read.')).toBeTruthy();
    expect(bridge.said.at(-1)).toMatchObject({ type: 'calibrate', instrument: 'S-1' });
    expect(sent.some(({ path }) => path === '/api/instruments/3/tile')).toBe(true);
  });

  it('says what is wrong with the instrument, or that there is none', async () => {
    const failing = fakeBridge({
      calibrate: ({ id }) => ({ type: 'failed', id, reason: 'instrument', words: 'The tile is missing.' }),
    });
    const { user, unmount, sent } = header({}, {}, failing);
    await user.click(await screen.findByText('tile 30 min ago'));
    expect(await screen.findByText('The tile is missing.')).toBeTruthy();
    // What was not read is not kept as read.
    expect(sent.some(({ path }) => path.endsWith('/tile'))).toBe(false);
    unmount();
    const away = new Refused(500, { title: 'The server could not answer.', detail: 'Try again.' });
    const { user: again, unmount: gone } = header({}, { 'POST /api/instruments/3/tile': away });
    await again.click(await screen.findByText('tile 30 min ago'));
    expect(await screen.findByText('The server could not answer. Try again.')).toBeTruthy();
    gone();
    header({ bridge: '' });
    expect(await screen.findByText('no instrument')).toBeTruthy();
  });

  it('shows the simulated clock only where it was moved, and moves it on', async () => {
    const { unmount } = header();
    expect(await screen.findByText('real time')).toBeTruthy();
    unmount();
    const own = header({ sample: false });
    await screen.findByText('tile 30 min ago');
    expect(screen.queryByText('real time')).toBeNull();
    own.unmount();
    const slips = [
      { state: 'resting', restUntilMs: Date.now() + 2 * HOUR_MS + 7200_000 },
    ] as unknown as HouseOnPages['slips'];
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
