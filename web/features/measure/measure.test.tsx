import { screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { FromBridge, ReadMessage } from '@melto/bridge/protocol';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { fakeBridge, greyPass, STRIP_READER, WITH_READER } from '@/testing/fakeBridge';
import type { FakeBridge } from '@/testing/fakeBridge';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { colourOf } from './InstrumentSpot';
import { MeasureSurface } from './MeasureSurface';

const FIELD = /typed, pasted or sent/;
const SLIPS = [{ code: 'HRN-0001-1', restUntilMs: 0, state: 'ready' }];

function page(
  bridge: FakeBridge = fakeBridge(),
  house: Record<string, unknown> = {},
  answers: Record<string, unknown> = {},
) {
  const server = fakeServer({
    'GET /api/house': { nowMs: 0, offsetMs: 0, slips: SLIPS, person: 'Ines', ...WITH_READER, ...house },
    'POST /api/instruments': {},
    'POST /api/instruments/3/tile': {},
    'GET /api/sheets/HRN-0001-1/under': { under: 'one patch' },
    'GET /api/aim-sets/4/colours': {
      colours: [
        { name: 'paper', lab: [95, 0, -2] },
        { name: 'C', lab: [55, -37, -50] },
      ],
      conditions: { mode: 'M1' },
    },
    'POST /api/colour-lists/preview': {
      colours: [
        { name: 'Seed red', lab: [52, 48, 26] },
        { name: 'Reed green', lab: [60, -40, 20] },
      ],
    },
    ...answers,
  });
  const shown = show(
    <BridgeProvider open={bridge.open}>
      <MeasureSurface aimSets={[{ id: 4, name: 'Quarry Press', version: 2 }]} />
    </BridgeProvider>,
  );
  const row = (name: string): string[] =>
    within(screen.getByLabelText(`Name of ${name}`).closest('tr') as HTMLElement)
      .getAllByRole('cell')
      .map(({ textContent }) => textContent ?? '');
  const type = async (text: string): Promise<void> => {
    await shown.user.click(screen.getByLabelText(FIELD));
    await shown.user.paste(text);
    await shown.user.keyboard('{Enter}');
  };
  return { ...shown, ...server, bridge, row, type };
}

beforeEach(() => localStorage.clear());

describe('colours that are typed or sent', () => {
  it('come into the list with their names, are renamed, taken out, and stay when the page is loaded again', async () => {
    const { user, type, row, unmount } = page();
    await type('Seed red 52,1;48;26\n50 0 0');
    expect(row('Seed red').slice(2, 7)).toEqual(['52.10', '48.00', '26.00', '54.59', '28.4']);
    expect(row('Colour 2').slice(2, 5)).toEqual(['50.00', '0.00', '0.00']);
    const named = screen.getByLabelText('Name of Colour 2');
    await user.clear(named);
    await user.type(named, 'grey');
    await user.click(screen.getByRole('button', { name: 'Take out Seed red' }));
    unmount();
    page();
    expect(await screen.findByLabelText('Name of grey')).toBeTruthy();
    expect(screen.queryByLabelText('Name of Seed red')).toBeNull();
  });

  it('are all taken or none: what is no colour is named with its line', async () => {
    const { type } = page();
    await type('50 0 0\nred');
    expect(screen.getByText(/line 2: found "red"/)).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
    expect((screen.getByLabelText(FIELD) as HTMLTextAreaElement).value).toContain('red');
  });

  it('are compared with one of them, or with the nearest of a colour list', async () => {
    const { user, type, row } = page();
    await type('one 50 0 0\ntwo 52 0 0');
    await user.click(screen.getByRole('combobox', { name: 'Compare with' }));
    await user.click(screen.getByRole('option', { name: 'one' }));
    expect(row('one').slice(7, 9)).toEqual(['', '']);
    // ΔE00 of two greys 2 L* apart at L* 51: 2 / (1 + 0.015·1² / √21).
    expect(row('two').slice(7, 9)).toEqual(['one', (2 / (1 + 0.015 / Math.sqrt(21))).toFixed(2)]);
    await user.upload(screen.getByLabelText('colour list file'), new File(['x'], 'house.csv'));
    await type('near red 53 48 26');
    await waitFor(() => expect(row('near red')[7]).toBe('Seed red'));
    expect(Number(row('near red')[8])).toBeLessThan(1.1);
  });

  it('are compared with the nearest solid of an aim set, whose mode is told', async () => {
    const { user, type, row } = page();
    await type('cyan 56 -37 -50\nwhite 94 0 -2');
    await user.click(screen.getByRole('combobox', { name: 'Compare with' }));
    await user.click(screen.getByRole('option', { name: 'the nearest of Quarry Press v2' }));
    await waitFor(() => expect(row('cyan')[7]).toBe('C'));
    expect(row('white')[7]).toBe('paper');
    // ΔE00 of 1 L* at L* 55.5, where the weight of lightness is 1 + 0.015·5.5² / √(20 + 5.5²).
    expect(Number(row('cyan')[8])).toBeCloseTo(1 / (1 + (0.015 * 5.5 ** 2) / Math.sqrt(20 + 5.5 ** 2)), 2);
    expect(screen.getByText(/solids and overprints of Quarry Press, measured in M1/)).toBeTruthy();
  });

  it('say so where the aim set cannot be had', async () => {
    const { user, type, row } = page(fakeBridge(), undefined, {
      'GET /api/aim-sets/4/colours': new Refused(404, {
        title: 'There is no aim set 4.',
        detail: 'Choose another.',
      }),
    });
    await type('cyan 56 -37 -50');
    await user.click(screen.getByRole('combobox', { name: 'Compare with' }));
    await user.click(screen.getByRole('option', { name: 'the nearest of Quarry Press v2' }));
    expect((await screen.findByRole('alert')).textContent).toContain('no aim set 4');
    expect(row('cyan').slice(7, 9)).toEqual(['', '']);
  });

  it('with spectra say how a pair holds together in other lights, and are kept with them as a list', async () => {
    const grid = { startNm: 380, stepNm: 10, count: 36 };
    const kept = (id: string, values: readonly number[]) => ({
      ...{ id, name: id, from: 'Strip reader', density: null },
      lab: spectrumLab(grid, values),
      spectrum: { grid, values },
    });
    const flat = Array<number>(36).fill(0.3);
    const wavy = flat.map((value, i) => value + 0.06 * Math.sin(i / 2));
    localStorage.setItem('melto-measured', JSON.stringify([kept('flat', flat), kept('wavy', wavy)]));
    const { user, sent } = page(fakeBridge(), undefined, { 'POST /api/colour-lists/measured': { id: 12 } });
    await user.click(await screen.findByRole('combobox', { name: 'Compare with' }));
    await user.click(screen.getByRole('option', { name: 'flat' }));
    const table = within(await screen.findByRole('table', { name: 'The pair in other lights' }));
    const [, own] = table.getAllByRole('row');
    const [name, apart, index] = within(own)
      .getAllByRole('cell')
      .map((cell) => cell.textContent);
    expect(name).toBe('F11');
    expect(Number(apart)).toBeGreaterThan(0.5);
    expect(Number(index)).toBeGreaterThan(0.5);
    await user.click(screen.getByRole('button', { name: 'Keep as a list' }));
    await user.type(screen.getByRole('textbox', { name: 'Name' }), 'Waves');
    await user.click(screen.getByRole('button', { name: 'Keep them' }));
    const put = () => sent.find(({ path }) => path === '/api/colour-lists/measured')?.body;
    await waitFor(() => expect(put()).toBeDefined());
    expect(put()).toMatchObject({
      name: 'Waves',
      colours: [{ name: 'flat', spectrum: { grid } }, { name: 'wavy' }],
    });
  });

  it('are taken out all at once, and come back by Undo', async () => {
    const { user, type } = page();
    await type('one 50 0 0\ntwo 52 0 0');
    await user.click(screen.getByRole('button', { name: 'Take all out' }));
    expect(screen.queryByRole('table')).toBeNull();
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    expect(screen.getByLabelText('Name of two')).toBeTruthy();
  });
});

describe('a colour that is measured', () => {
  it('is one patch of what lies under the instrument, with its densities', async () => {
    const { user, bridge, sent, row } = page();
    await user.click(await screen.findByRole('button', { name: 'Measure' }));
    await screen.findByLabelText('Name of Colour 1');
    expect(bridge.said.find(({ type }) => type === 'read')).toMatchObject({
      ...{ instrument: 'S-1', mode: 'M1', patches: 1, under: 'one patch' },
    });
    expect(sent.some(({ path }) => path.endsWith('/under?strip=1&patch=1&instrument=3'))).toBe(true);
    // Half of the light: L* of Y = 50, no colour, density log10 2.
    expect(row('Colour 1').slice(2, 5)).toEqual(
      ['76.07', '0.00', '0.00'].map(
        (value) => expect.stringMatching(value.replace('0.00', '−?0\\.0\\d')) as string,
      ),
    );
    expect(screen.getByText(/r 0\.30 g 0\.30 b 0\.30 v 0\.30/)).toBeTruthy();
    await waitFor(() => expect(bridge.said.some(({ type }) => type === 'kept')).toBe(true));
  });

  it('by a real instrument needs no sheet; what failed says why and adds nothing', async () => {
    const real = { ...STRIP_READER, simulated: undefined, movements: undefined };
    let answer = (one: ReadMessage): FromBridge => ({ type: 'failed', id: one.id, reason: 'tile-needed' });
    const { user, bridge } = page(fakeBridge({ instruments: [real], read: (one) => answer(one) }));
    const measure = await screen.findByRole('button', { name: 'Measure' });
    expect(screen.queryByLabelText('It lies on sheet')).toBeNull();
    await user.click(measure);
    expect((await screen.findByRole('alert')).textContent).toContain('The white tile is due');
    expect(screen.queryByRole('table')).toBeNull();
    answer = (one) => ({ ...greyPass(one), startNm: 410 }) as FromBridge;
    await user.click(measure);
    expect((await screen.findByText(/too little of the spectrum/)).textContent).toContain('410 nm');
    answer = greyPass;
    await user.click(measure);
    expect(await screen.findByLabelText('Name of Colour 1')).toBeTruthy();
    expect(bridge.said.filter(({ type }) => type === 'read').every((one) => !('under' in one))).toBe(true);
  });

  it('is the colour of its spectrum', () => {
    const { lab, density } = colourOf({
      startNm: 380,
      stepNm: 10,
      spectrum: Array.from({ length: 36 }, () => 1),
    });
    expect(lab[0]).toBeCloseTo(100, 3);
    expect(density?.visual).toBeCloseTo(0, 6);
  });
});
