import { act, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { InstrumentInfo, ReadMessage } from '@melto/bridge/protocol';
import type { DeskState } from '@melto/services/reading/desk';
import type { JudgedPass } from '@/endpoints/reading';
import { deskState } from '@/testing/deskState';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { fakeBridge, greyPass, STRIP_READER, WITH_READER } from '@/testing/fakeBridge';
import type { FakeBridge } from '@/testing/fakeBridge';
import { AWAY, fakeServer, Refused } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { ReadingDesk } from './ReadingDesk';

const SHEET = '/api/sheets/HRN-0001-1';
const HOUSE = { nowMs: 10_000, offsetMs: 0, slips: [], person: 'Tom Aldous', ...WITH_READER };

/** A server with a sheet of three strips that keeps what is read. */
function desk(
  answers: Readonly<Record<string, unknown>> = {},
  bridge: FakeBridge = fakeBridge(),
  initial: DeskState = deskState(),
) {
  const read = new Set<number>();
  const marked = new Set<number>();
  const pass = ({ body }: Sent): JudgedPass => {
    const { strip } = body as { strip: number };
    read.add(strip);
    return {
      ok: true,
      strip,
      measured: ['#818181', '#414141'],
      expected: ['#808080', '#404040'],
      reversed: false,
      complete: read.size === 3,
      readingId: 9,
      resultId: null,
      spread: null,
    };
  };
  const server = fakeServer({
    'GET /api/house': HOUSE,
    [`GET ${SHEET}`]: () => deskState({ marked: [...marked] }, [...read]),
    [`POST ${SHEET}/passes`]: pass,
    [`POST ${SHEET}/marks`]: ({ body }: Sent) => {
      const { strip, marked: on } = body as { strip: number; marked: boolean };
      if (on) marked.add(strip);
      else marked.delete(strip);
      return {};
    },
    'POST /api/instruments': {},
    'POST /api/instruments/3/tile': {},
    ...Object.fromEntries(
      [1, 2, 3].map((strip) => [
        `GET ${SHEET}/under?strip=${strip}&instrument=3`,
        { under: `strip ${strip}` },
      ]),
    ),
    ...answers,
  });
  const shown = show(
    <BridgeProvider open={bridge.open}>
      <ReadingDesk initial={initial} />
    </BridgeProvider>,
  );
  const passes = (): Sent[] => server.sent.filter(({ path }) => path.endsWith('/passes'));
  return { ...shown, ...server, passes, pass, bridge, read };
}

/** The desk has found its instrument: keys pressed before wait for it, but not for ever. */
const atInstrument = (): Promise<HTMLElement> =>
  screen.findByText(/Start on white|Press Space, then draw/, undefined, { timeout: 60_000 });

beforeEach(() => vi.useRealTimers());

describe('the reading desk by keys alone', () => {
  it('has the focus at once, reads with Space and Enter, and goes on by itself', async () => {
    const { user, passes } = desk();
    await atInstrument();
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Reading desk, sheet HRN-0001-1');
    await user.keyboard(' ');
    expect(await screen.findByText(/strips 1 of 3/)).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(await screen.findByText(/strips 2 of 3/)).toBeTruthy();
    await user.keyboard(' ');
    expect(await screen.findByRole('heading', { name: 'All read' })).toBeTruthy();
    expect(passes().map(({ body }) => (body as { strip: number }).strip)).toEqual([1, 2, 3]);
    const bodies = passes().map(({ body, key }) => [(body as { attempt: string }).attempt, key]);
    for (const [attempt, key] of bodies) expect(key).toBe(attempt);
    expect(new Set(bodies.map(([attempt]) => attempt)).size).toBe(3);
  });

  it('chooses strips with the arrows, within the sheet, and reads the last one again with R', async () => {
    const { user, passes } = desk();
    await atInstrument();
    await user.keyboard('{ArrowUp}');
    expect(screen.getByRole('heading', { name: /Strip 1/ })).toBeTruthy();
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(screen.getByRole('heading', { name: /Strip 3/ })).toBeTruthy();
    await user.keyboard(' ');
    await screen.findByText(/strips 1 of 3/);
    expect(screen.getByRole('heading', { name: /Strip 1/ })).toBeTruthy();
    await user.keyboard('r');
    expect(screen.getByRole('heading', { name: /Strip 3/ })).toBeTruthy();
    await user.keyboard(' ');
    await waitFor(() => expect(passes()).toHaveLength(2));
    expect(passes().map(({ body }) => (body as { strip: number }).strip)).toEqual([3, 3]);
  });

  it('marks a strip for later and takes the mark away', async () => {
    const { user, sent } = desk();
    await user.keyboard('{ArrowDown}m');
    expect(await screen.findByText('Strip 2 is marked for later.')).toBeTruthy();
    await user.keyboard('m');
    await waitFor(() => expect(screen.queryByText('Strip 2 is marked for later.')).toBeNull());
    expect(sent.filter(({ path }) => path.endsWith('/marks')).map(({ body }) => body)).toEqual([
      { strip: 2, marked: true },
      { strip: 2, marked: false },
    ]);
  });

  it('leaves with Escape to where the sheets are', async () => {
    const { user } = desk();
    await user.keyboard('{Escape}');
    expect(navigation.went).toEqual(['/conditions/4/sheets']);
  });

  it('calibrates with T, and leaves keys with Ctrl to the browser', async () => {
    const { user, sent, passes } = desk();
    await screen.findByText(/Start on white/);
    await user.keyboard('t');
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/instruments/3/tile')).toBe(true));
    await user.keyboard('{Control>}r{/Control}{Control>} {/Control}');
    expect(passes()).toHaveLength(0);
  });
});

describe('a pass that fails', () => {
  it('stays at its strip and says why', async () => {
    const bridge = fakeBridge({ read: ({ id }) => ({ type: 'failed', id, reason: 'too-fast' }) });
    const { user, passes } = desk({}, bridge);
    await atInstrument();
    await user.keyboard(' ');
    await waitFor(() => expect(screen.getByRole('status').textContent).toContain('Too fast'));
    // Nothing of it goes to the server.
    expect(passes()).toHaveLength(0);
    expect(screen.getByText(/strips 0 of 3/)).toBeTruthy();
    expect(screen.getByRole('heading', { name: /Strip 1/ })).toBeTruthy();
  });

  it('by a refusal shows the words of the server', async () => {
    const { user } = desk({
      [`POST ${SHEET}/passes`]: new Refused(409, {
        title: 'This sheet was thrown away.',
        detail: 'Take it back.',
      }),
    });
    await atInstrument();
    await user.keyboard(' ');
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toContain('This sheet was thrown away. Take it back.'),
    );
  });

  it('by an absent server is sent again, as the same attempt, until it answers', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    let away = 4;
    let give: (sent: Sent) => unknown = () => undefined;
    const { user, passes, pass } = desk({
      [`POST ${SHEET}/passes`]: (one: Sent) => {
        if (away-- > 0) throw AWAY;
        return give(one);
      },
    });
    await atInstrument();
    give = pass;
    await user.keyboard(' ');
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toContain('Strip 1 is kept here and sent again.'),
    );
    await act(() => vi.advanceTimersByTimeAsync(10_000));
    await waitFor(() => expect(screen.getByText(/strips 1 of 3/)).toBeTruthy());
    expect(passes()).toHaveLength(5);
    expect(new Set(passes().map(({ key }) => key)).size).toBe(1);
  });

  it('gives up in the end, in words, and the next key tries again', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    let away = true;
    let give: (sent: Sent) => unknown = () => undefined;
    const { user, pass } = desk({
      [`POST ${SHEET}/passes`]: (one: Sent) => {
        if (away) throw AWAY;
        return give(one);
      },
    });
    give = pass;
    await screen.findByText(/Start on white/);
    await user.keyboard(' ');
    await act(() => vi.advanceTimersByTimeAsync(50_000));
    await waitFor(() => expect(screen.getByRole('status').textContent).toContain('Try again in a moment.'));
    away = false;
    await user.keyboard(' ');
    expect(await screen.findByText(/strips 1 of 3/)).toBeTruthy();
  });
});

describe('the instrument', () => {
  const waiting = (): FakeBridge =>
    fakeBridge({
      instruments: [{ ...STRIP_READER, begins: 'at-instrument', movements: undefined }],
      read: ({ id }) => ({ type: 'armed', id }),
    });
  const reads = ({ said }: FakeBridge): ReadMessage[] => said.filter((one) => one.type === 'read');

  it('gives what it measured to the server, with what lay under it and the hand asked for', async () => {
    const bridge = fakeBridge();
    const { user, passes } = desk({}, bridge);
    await atInstrument();
    await user.click(await screen.findByRole('combobox', { name: 'Simulated hand' }));
    await user.click(screen.getByRole('option', { name: 'too fast' }));
    // The keys are the desk's again: Space opens no list.
    await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Reading desk/));
    await user.keyboard(' ');
    expect(await screen.findByText(/strips 1 of 3/)).toBeTruthy();
    const [asked] = reads(bridge);
    expect(asked).toMatchObject({ strip: 1, patches: 2, mode: 'M1', under: 'strip 1', movement: 'too-fast' });
    expect(passes()[0]?.body).toMatchObject({ attempt: asked.id, instrument: 3, startNm: 380, stepNm: 10 });
    // Once it is stored the bridge may forget it.
    await waitFor(() => expect(bridge.said).toContainEqual({ type: 'kept', id: asked.id }));
  });

  it('that waits for the hand is armed again and again; another strip re-arms it', async () => {
    const bridge = waiting();
    const { user, passes } = desk({}, bridge);
    await atInstrument();
    await user.keyboard(' ');
    expect(await screen.findByText(/Ready for strip 1/)).toBeTruthy();
    bridge.say(greyPass(reads(bridge)[0]));
    expect(await screen.findByText(/Ready for strip 2/)).toBeTruthy();
    await user.keyboard('{ArrowDown}');
    expect(await screen.findByText(/Ready for strip 3/)).toBeTruthy();
    expect(bridge.said.some(({ type }) => type === 'cancel')).toBe(true);
    bridge.say({ type: 'failed', id: reads(bridge)[2].id, reason: 'off-row' });
    expect(await screen.findByText(/The instrument left the row.*Ready for strip 3/)).toBeTruthy();
    bridge.say({ type: 'failed', id: reads(bridge)[3].id, reason: 'instrument', words: 'The lamp is out.' });
    expect(await screen.findByText('The lamp is out.')).toBeTruthy();
    // What the hand cannot mend waits for the person.
    expect(reads(bridge)).toHaveLength(4);
    expect(passes().map(({ body }) => (body as { strip: number }).strip)).toEqual([1]);
  });

  it('that is another than the one that began the sheet makes a reading of its own, in a mode it has', async () => {
    const spot: InstrumentInfo = { ...STRIP_READER, serial: 'S-2', name: 'Spot', modes: ['M0', 'M3'] };
    const bridge = fakeBridge({ instruments: [STRIP_READER, spot] });
    const instruments = [
      ...WITH_READER.instruments,
      { ...WITH_READER.instruments[0], id: 8, serial: 'S-2', name: 'Spot' },
    ];
    const { user, passes } = desk(
      {
        'GET /api/house': { ...HOUSE, instruments },
        [`GET ${SHEET}`]: deskState({ mode: 'M1', readBy: { serial: 'S-1', name: 'Strip reader 2' } }, [1]),
        [`GET ${SHEET}/under?strip=2&instrument=8`]: { under: 'strip 2' },
      },
      bridge,
      deskState({ mode: 'M1', readBy: { serial: 'S-1', name: 'Strip reader 2' } }, [1]),
    );
    await atInstrument();
    const mode = await screen.findByRole('combobox', { name: 'Mode' });
    expect(mode.getAttribute('aria-disabled')).toBe('true');
    await user.click(await screen.findByRole('combobox', { name: 'Instrument' }));
    await user.click(screen.getByRole('option', { name: 'Spot' }));
    expect(
      await screen.findByText(/Strip reader 2 has read this sheet. What Spot reads is a reading of/),
    ).toBeTruthy();
    expect(mode.getAttribute('aria-disabled')).not.toBe('true');
    screen.getByLabelText(/^Reading desk/).focus();
    await user.keyboard(' ');
    await waitFor(() => expect(passes()).toHaveLength(1));
    expect(passes()[0].body).toMatchObject({ instrument: 8, mode: 'M0' });
  });

  it('that goes and comes back goes on with the same pass', async () => {
    const bridge = waiting();
    const { user, passes } = desk({}, bridge);
    await atInstrument();
    await user.keyboard(' ');
    await screen.findByText(/Ready for strip 1/);
    bridge.drop();
    await waitFor(() => expect(reads(bridge)).toHaveLength(2));
    expect(reads(bridge)[1].id).toBe(reads(bridge)[0].id);
    bridge.say(greyPass(reads(bridge)[1]));
    await screen.findByText(/strips 1 of 3/);
    expect(passes()).toHaveLength(1);
  });

  it('that goes between two strips is armed for the next one when it is back', async () => {
    const bridge = waiting();
    const { user, passes } = desk({}, bridge);
    await atInstrument();
    await user.keyboard(' ');
    await screen.findByText(/Ready for strip 1/);
    bridge.say(greyPass(reads(bridge)[0]));
    bridge.drop();
    await screen.findByText(/strips 1 of 3/);
    expect(await screen.findByText(/Ready for strip 2/)).toBeTruthy();
    expect(passes()).toHaveLength(1);
  });

  it('that was asked before the page was loaded again is asked for the same pass', async () => {
    const first = waiting();
    const shown = desk({}, first);
    await atInstrument();
    await shown.user.keyboard(' ');
    await screen.findByText(/Ready for strip 1/);
    const kept = sessionStorage.getItem('melto-pass-HRN-0001-1');
    shown.unmount();
    await waitFor(() => expect(sessionStorage.getItem('melto-pass-HRN-0001-1')).toBeNull());
    // A page that is loaded again does not leave as one does that goes elsewhere.
    sessionStorage.setItem('melto-pass-HRN-0001-1', kept ?? '');
    const second = fakeBridge();
    const { passes } = desk({}, second);
    await screen.findByText(/strips 1 of 3/);
    expect(reads(second).map(({ id }) => id)).toEqual([reads(first)[0].id]);
    expect(passes()).toHaveLength(1);
    expect(sessionStorage.getItem('melto-pass-HRN-0001-1')).toBeNull();
  });

  it('waits for one that was here and comes again, and says no more that there was none', async () => {
    const bridge = fakeBridge();
    const { user, passes } = desk({}, bridge);
    await atInstrument();
    bridge.drop();
    await user.keyboard(' ');
    await screen.findByText(/strips 1 of 3/);
    expect(passes()).toHaveLength(1);
    expect(screen.queryByText(/Connect one, or take the reading from a file/)).toBeNull();
  });

  it('says so where there is none, and where what it gave does not fit', async () => {
    const { user, unmount } = desk({ 'GET /api/house': { ...HOUSE, bridge: '' } });
    expect(await screen.findByText('No instrument is connected.')).toBeTruthy();
    await user.keyboard(' ');
    expect(await screen.findByText(/Connect one, or take the reading from a file/)).toBeTruthy();
    unmount();
    const short = fakeBridge({ read: (one) => greyPass({ ...one, patches: one.patches - 1 }) });
    const { user: other, passes } = desk({}, short);
    await atInstrument();
    await other.keyboard(' ');
    expect(await screen.findByText(/Strip reader 2 saw 1 patches, not 2/)).toBeTruthy();
    expect(passes()).toHaveLength(0);
  });
});

describe('a file in place of a reading', () => {
  const FOUND = {
    ...{ code: 'HRN-0001-1', told: {}, spectral: true, unused: ['SPIN'], notes: [] },
    damaged: [{ line: 7, why: 'LAB_A is empty' }],
    modes: [
      {
        ...{ mode: null, by: 'device values as asked', patches: 3, ofPatches: 4, strips: 1, ofStrips: 2 },
        ...{ repeated: 1, foreign: 2, doubtful: [{ id: '3', off: 41.2 }] },
        pages: [
          [
            ['#111111', '#222222'],
            ['#333333', null],
          ],
        ],
      },
    ],
  };
  const MODE = { asks: 'mode', options: ['M0', 'M1', 'M2', 'M3'] };
  const LIGHT = { asks: 'light', options: ['D50 2°'] };

  async function dropped(answers: Record<string, unknown>, size = 10) {
    const shown = desk(answers);
    const file = new File(['x'], 'house.txt');
    Object.defineProperty(file, 'size', { value: size });
    const event = new Event('drop', { bubbles: true, cancelable: true });
    Object.defineProperty(event, 'dataTransfer', { value: { files: [file] } });
    await act(async () => (shown.container.querySelector('.desk') as HTMLElement).dispatchEvent(event));
    const taken = (): Sent[] => shown.sent.filter(({ path }) => path.split('?')[0]?.endsWith('/reading'));
    return { ...shown, taken };
  }

  it('is refused where it is too large, before it is sent', async () => {
    const { sent } = await dropped({}, 32_000_001);
    expect((await screen.findByRole('alert')).textContent).toContain('larger than 32 MB');
    expect(sent.some(({ path }) => path.includes('/reading'))).toBe(false);
    expect(screen.getByRole('button', { name: 'Take the reading' })).toHaveProperty('disabled', true);
  });

  it('is shown, asked what it leaves open, and taken with the answers', async () => {
    const { user, taken, read } = await dropped({
      [`POST ${SHEET}/reading/preview`]: ({ path }: Sent) => {
        const query = new URLSearchParams(path.split('?')[1]);
        const open = [...(query.has('light') ? [] : [LIGHT]), ...(query.has('mode') ? [] : [MODE])];
        return { ...FOUND, questions: open };
      },
      [`POST ${SHEET}/reading`]: { readingId: 9, readings: [], notes: [] },
    });
    const take = await screen.findByRole('button', { name: 'Take the reading' });
    expect(await screen.findByRole('img', { name: /page 1: 3 of 4 patches/ })).toBeTruthy();
    for (const words of [
      /3 of 4 patches, matched by device values as asked; 1 patch averaged/,
      /1 of 2 strips are whole/,
      /2 rows of the file belong to no patch/,
      /patch 3 \(41 ΔE\*ab\)/,
      /1 row, line 7: LAB_A is empty/,
      /SPIN/,
    ])
      expect(screen.getByText(words)).toBeTruthy();
    expect(take).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('radio', { name: /^M2/ }));
    await user.click(screen.getByRole('checkbox', { name: /D50 and the 2° observer/ }));
    await waitFor(() => expect(take).toHaveProperty('disabled', false));
    await user.click(screen.getByRole('checkbox', { name: /bandpass: take it out/ }));
    // What was asked stays, with its answer.
    expect(screen.getByRole('radio', { name: /^M2/ })).toHaveProperty('checked', true);
    read.add(1).add(2);
    await user.click(take);
    await waitFor(() => expect(taken()).toHaveLength(1));
    const query = new URLSearchParams(taken()[0]?.path.split('?')[1]);
    expect(Object.fromEntries(query)).toEqual({ mode: 'M2', light: 'D50 2°', bandpass: 'take out' });
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    // What came with one's own file is no other desk's.
    expect(await screen.findByText(/strips 2 of 3/)).toBeTruthy();
    expect(screen.queryByText(/Another desk/)).toBeNull();
  });

  it('keeps the keys of the desk to itself while it is shown', async () => {
    const { user, taken, passes, sent } = await dropped({
      [`POST ${SHEET}/reading/preview`]: { ...FOUND, questions: [] },
    });
    const out = await screen.findByRole('button', { name: 'Not now' });
    out.focus();
    await user.keyboard('rmt');
    expect(passes()).toEqual([]);
    expect(sent.some(({ path }) => /tile|marks/.test(path))).toBe(false);
    await user.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(navigation.went).toEqual([]);
    expect(taken()).toEqual([]);
  });

  it('that cannot be used says why, and takes nothing', async () => {
    const { taken } = await dropped({
      [`POST ${SHEET}/reading/preview`]: new Refused(400, {
        title: 'The file cannot be used: line 6.',
        detail: 'Nothing was stored.',
      }),
    });
    expect((await screen.findByRole('alert')).textContent).toBe(
      'The file cannot be used: line 6. Nothing was stored.',
    );
    expect(screen.getByRole('button', { name: 'Take the reading' })).toHaveProperty('disabled', true);
    expect(taken()).toEqual([]);
  });
});
