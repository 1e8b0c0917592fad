import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { DeskState } from '@melto/services/reading/desk';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { deskState } from '@/testing/deskState';
import { fakeBridge, WITH_READER } from '@/testing/fakeBridge';
import { AWAY, fakeServer } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { missingPlaces, nextMissing } from './missingPlaces';
import { PatchDialog } from './PatchDialog';

const PATCHES = '/api/sheets/HRN-0001-1/patches';
const KEPT = { ok: true, measured: '#818181', off: 1.234, complete: false, readingId: 9 };

/** Strip 1 read whole, strip 2 lacks its second patch, strip 3 both. */
function gappy(): DeskState {
  const state = deskState({}, [1]);
  const strips = state.strips.map((row) => (row.strip === 2 ? { ...row, partly: ['#808080', null] } : row));
  return { ...state, strips };
}

function dialog(answer: unknown, state: DeskState = gappy(), real = false) {
  const bridge = fakeBridge();
  const server = fakeServer({
    'GET /api/house': { nowMs: 0, offsetMs: 0, slips: [], person: 'Ines', ...WITH_READER },
    'POST /api/instruments': {},
    'GET /api/sheets/HRN-0001-1/under': { under: 'one patch' },
    [`POST ${PATCHES}`]: answer,
  });
  const stored: number[] = [];
  const shown = show(
    <BridgeProvider open={bridge.open}>
      <PatchDialog
        state={{ ...state, simulated: !real }}
        onStored={() => Promise.resolve(stored.push(1))}
        onClose={() => undefined}
      />
    </BridgeProvider>,
  );
  const bodies = (): unknown[] => server.sent.filter(({ path }) => path === PATCHES).map(({ body }) => body);
  return { ...shown, ...server, bodies, stored };
}

const at = (words: string): Promise<HTMLElement> => screen.findByText(words);

describe('patches that are missing', () => {
  it('come in the order of the sheet, the first again after the last', () => {
    const state = gappy();
    const places = [
      { strip: 2, patch: 2 },
      { strip: 3, patch: 1 },
      { strip: 3, patch: 2 },
    ];
    expect(missingPlaces(state)).toEqual(places);
    expect(nextMissing(state, undefined)).toEqual(places[0]);
    expect(nextMissing(state, { strip: 1, patch: 2 })).toEqual(places[0]);
    expect(nextMissing(state, places[0])).toEqual(places[1]);
    expect(nextMissing(state, places[2])).toEqual(places[0]);
    expect(nextMissing(deskState({}, [1, 2, 3]), { strip: 1, patch: 1 })).toBeUndefined();
  });
});

describe('a sheet patch by patch', () => {
  it('begins with the first that is missing, measures it and goes on', async () => {
    const { user, bodies, stored } = dialog(KEPT);
    await at('Strip 2, patch 2');
    await user.click(await screen.findByRole('button', { name: 'Measure' }));
    await at('Strip 3, patch 1');
    expect(bodies()).toMatchObject([
      { strip: 2, patch: 2, mode: 'M1', measured: { instrument: 3, startNm: 380, stepNm: 10 } },
    ]);
    expect(screen.getByText(/1\.2 ΔE00 from what it should give/)).toBeTruthy();
    expect(stored).toHaveLength(1);
  });

  it('takes what is typed or sent with Enter, and names what is none', async () => {
    const { user, bodies } = dialog(KEPT, gappy(), true);
    const field = screen.getByLabelText(/typed or sent by an instrument/);
    expect(screen.queryByRole('button', { name: 'Measure' })).toBeNull();
    await user.type(field, '50 2{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('expected L*, a*, b*');
    await user.type(field, ' −3{Enter}');
    await at('Strip 3, patch 1');
    expect(bodies()).toMatchObject([{ strip: 2, patch: 2, lab: [50, 2, -3] }]);
    expect((field as HTMLInputElement).value).toBe('');
  });

  it('asks before it keeps what looks like another patch', async () => {
    const words = 'This looks like patch 1 of strip 2.';
    const answer = ({ body }: Sent): unknown =>
      (body as { sure?: boolean }).sure === true
        ? KEPT
        : { ok: false, looksLike: { strip: 2, patch: 1 }, words };
    const { user, bodies } = dialog(answer);
    await user.click(await screen.findByRole('button', { name: 'Measure' }));
    await at(words);
    expect(screen.getByText('Strip 2, patch 2')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Keep it as it is' }));
    await at('Strip 3, patch 1');
    const [first, second] = bodies() as { attempt: string; sure?: boolean }[];
    expect([second.attempt, first.sure, second.sure]).toEqual([first.attempt, undefined, true]);
  });

  it('holds what the server did not take, and sends it again', async () => {
    let away = true;
    const { user, bodies } = dialog(() => {
      if (away) throw AWAY;
      return KEPT;
    });
    await user.click(await screen.findByRole('button', { name: 'Measure' }));
    await screen.findByText(/server does not answer/);
    away = false;
    await user.click(screen.getByRole('button', { name: 'Send it again' }));
    await at('Strip 3, patch 1');
    const [first, second] = bodies() as { attempt: string }[];
    expect(second).toEqual(first);
  });

  it('measures a patch again that is chosen, and none that the sheet does not have', async () => {
    const { user, bodies } = dialog(KEPT);
    const strip = screen.getByLabelText('strip');
    await user.clear(strip);
    await user.type(strip, '9');
    expect(screen.getByText('Strip 2, patch 2')).toBeTruthy();
    await user.clear(strip);
    await user.type(strip, '1');
    await at('Strip 1, patch 2');
    await user.click(await screen.findByRole('button', { name: 'Measure' }));
    await waitFor(() => expect(bodies()).toMatchObject([{ strip: 1, patch: 2 }]));
  });
});
