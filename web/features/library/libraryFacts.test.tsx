import { screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { LibraryInkSet } from '@melto/services/house/inkSets';
import type { LibraryDevice, LibraryStock } from '@melto/services/house/library';
import { fakeServer } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { tellHouseUnits } from '@/ui/units';
import { DevicesSurface } from './DevicesSurface';
import { InkSetsSurface } from './InkSetsSurface';
import { StocksSurface } from './StocksSurface';

const keep = (): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
const press: LibraryDevice = {
  ...{ id: 2, name: 'Kestrel', code: 'KST', kind: 'offset or other press', channels: 'CMYK', inks: true },
  ...{ inkSet: 'Process four', modes: ['plates'], note: '', away: false, own: true, uses: 1, duty: null },
  ...{
    ownKind: 'press',
    inkNames: ['C', 'M', 'Y', 'K'],
    facts: { zones: 24, pages: ['720x1020'] },
  },
};
const rag: LibraryStock = {
  ...{ id: 5, name: 'Barn Owl Rag', finish: 'matt', restMinutes: 30, boxLabel: '', note: '', away: false },
  ...{ uses: 1, facts: { weightGsm: 310, brightener: 'free' } },
};
const inks: LibraryInkSet = {
  ...{
    id: 7,
    name: 'Pigment six',
    kind: 'pigment',
    restMinutes: null,
    costs: [],
    note: '',
    away: false,
    uses: 4,
  },
};

describe('a device', () => {
  it('is known by its pages, width, zones, screen and what its front end takes', async () => {
    const { sent } = fakeServer({ 'PUT /api/devices/2': {} });
    const { user } = show(<DevicesSurface devices={[press]} />);
    expect(screen.getByText('24 ink zones, 720 × 1,020 mm')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change Kestrel' }));
    const pages = screen.getByLabelText<HTMLInputElement>('Pages of its own');
    expect(pages.value).toBe('720 x 1020');
    await user.type(pages, ', 50 x 100');
    expect(await screen.findByText(/Width x height in mm, 90 to 1,620 each/)).toBeTruthy();
    expect(keep().disabled).toBe(true);
    await user.clear(pages);
    await user.type(pages, '520 × 740, 1020x720');
    await user.clear(screen.getByLabelText('Ink zones'));
    await user.type(screen.getByLabelText('Screen, lines/cm'), '3');
    expect(await screen.findByText('4 to 200')).toBeTruthy();
    await user.type(screen.getByLabelText('Screen, lines/cm'), '0');
    await user.type(screen.getByLabelText('Prints, mm wide'), '1030');
    await user.click(screen.getByRole('combobox', { name: 'Its front end takes curves as' }));
    await user.click(screen.getByRole('option', { name: 'CSV' }));
    await user.keyboard('{Escape}');
    await waitFor(() => expect(keep().disabled).toBe(false));
    await user.click(keep());
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({
      facts: {
        ...{ pages: ['520x740', '1020x720'], printedWidthMm: 1030, screenPerCm: 30, curveFormats: ['csv'] },
      },
    });
    expect((sent[0].body as { facts: object }).facts).not.toHaveProperty('zones');
  });
});

describe('a device of a house that tells inches', () => {
  afterEach(() => tellHouseUnits('metric'));

  it('is known in inches and lines per inch, and kept in mm and lines/cm', async () => {
    tellHouseUnits('inches');
    const { sent } = fakeServer({ 'PUT /api/devices/2': {} });
    const { user } = show(<DevicesSurface devices={[{ ...press, facts: { screenPerCm: 69 } }]} />);
    expect(screen.getByText('175 lpi')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change Kestrel' }));
    await user.type(screen.getByLabelText('Pages of its own'), '24 x 36');
    await user.type(screen.getByLabelText('Prints, in wide'), '300');
    expect(await screen.findByText('1.97 to 236.22')).toBeTruthy();
    await user.type(screen.getByLabelText('Prints, in wide'), '{Backspace}');
    await user.click(keep());
    await waitFor(() =>
      expect(sent[0]?.body).toMatchObject({
        facts: { pages: ['610x914'], printedWidthMm: 762, screenPerCm: 69 },
      }),
    );
  });
});

describe('a copy', () => {
  it('of a device begins like it, with a name of its own; a simulated one has none', async () => {
    const { sent } = fakeServer({
      'POST /api/devices': { id: 9 },
      'GET /api/conditions/choices': { inkSets: [] },
    });
    const simulated = { ...press, id: 3, name: 'Heron', own: false, ownKind: null };
    const { user } = show(<DevicesSurface devices={[press, simulated]} />);
    expect(screen.queryByRole('button', { name: 'Copy Heron' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Copy Kestrel' }));
    const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add the device' });
    expect(add.disabled).toBe(true);
    await user.type(screen.getByLabelText('Name'), 'Kestrel two');
    await user.click(add);
    await waitFor(() => expect(sent.at(-1)?.method).toBe('POST'));
    expect(sent.at(-1)?.body).toEqual({
      ...{ name: 'Kestrel two', kind: 'press', inkSet: 'Process four', modes: ['plates'] },
      facts: press.facts,
    });
  });

  it('of a stock and of an ink set as well', async () => {
    const { sent } = fakeServer({ 'POST /api/stocks': { id: 9 }, 'POST /api/ink-sets': { id: 9 } });
    const { user } = show(<StocksSurface stocks={[rag]} />);
    await user.click(screen.getByRole('button', { name: 'Copy Barn Owl Rag' }));
    await user.type(screen.getByLabelText('Name'), 'Barn Owl Rag 190');
    await user.click(screen.getByRole('button', { name: 'Add the stock' }));
    await waitFor(() =>
      expect(sent[0]?.body).toEqual({
        ...{ name: 'Barn Owl Rag 190', finish: 'matt', restMinutes: 30, facts: rag.facts },
      }),
    );
    show(<InkSetsSurface inkSets={[inks]} />);
    await user.click(screen.getByRole('button', { name: 'Copy Pigment six' }));
    await user.type(screen.getByLabelText('Name'), 'Pigment eight');
    await user.click(screen.getByRole('button', { name: 'Add the ink set' }));
    await waitFor(() =>
      expect(sent[1]?.body).toEqual({
        name: 'Pigment eight',
        kind: 'pigment',
        restMinutes: null,
        costs: [],
        note: '',
      }),
    );
  });
});

describe('a stock', () => {
  it('is known by its weight, side, brightener and backing', async () => {
    const { sent } = fakeServer({ 'PUT /api/stocks/5': {} });
    const { user } = show(<StocksSurface stocks={[rag]} />);
    expect(screen.getByText('310 g/m², free of brightener')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change Barn Owl Rag' }));
    const weight = screen.getByLabelText('Weight, g/m²');
    for (const [text, right] of [
      ['19', false],
      ['20', true],
      ['2001', false],
      ['2000', true],
    ] as const) {
      await user.clear(weight);
      await user.type(weight, text);
      await waitFor(() => expect(keep().disabled).toBe(!right));
    }
    await user.type(screen.getByLabelText(/Side that is printed/), 'the smooth side, long edge first');
    await user.click(screen.getByRole('combobox', { name: /Brightener/ }));
    await user.click(screen.getByRole('option', { name: 'not told' }));
    await user.click(screen.getByRole('combobox', { name: 'Measured over' }));
    await user.click(screen.getByRole('option', { name: 'black backing' }));
    await user.click(keep());
    await waitFor(() =>
      expect(sent[0]?.body).toMatchObject({
        facts: { weightGsm: 2000, side: 'the smooth side, long edge first', backing: 'black' },
      }),
    );
    expect((sent[0].body as { facts: object }).facts).not.toHaveProperty('brightener');
  });
});

it('a stock that was read with and without ultraviolet light says what it does to its white', () => {
  show(<StocksSurface stocks={[rag]} brighteners={[{ stockId: 5, by: -3.42, modes: 'M1, M2' }]} />);
  expect(screen.getByText(/ultraviolet light moves its white by b\* −3.4 \(M1, M2\)/)).toBeTruthy();
});

describe('ink sets', () => {
  it('are made, changed and put away', async () => {
    const { sent } = fakeServer({
      'POST /api/ink-sets': { id: 8 },
      'PUT /api/ink-sets/7': {},
      'PUT /api/ink-sets/7/away': {},
    });
    const { user } = show(<InkSetsSurface inkSets={[inks]} />);
    await user.click(screen.getByRole('button', { name: 'New ink set' }));
    await user.type(screen.getByLabelText('Name'), ' Toner four ');
    await user.type(screen.getByLabelText(/Minutes these inks dry/), '15');
    // Each price has its laydown, or there is no cost to tell.
    await user.type(screen.getByLabelText(/Price of a litre/), '72 70,5');
    const add = screen.getByRole('button', { name: 'Add the ink set' });
    expect(add).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText(/Millilitres of each/), '4.2 101');
    expect(add).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText(/Millilitres of each/), '{Backspace}{Backspace}0');
    await user.click(add);
    await waitFor(() =>
      expect(sent[0]?.body).toEqual({
        ...{ name: 'Toner four', kind: '', restMinutes: 15, note: '' },
        costs: [
          { pricePerLitre: 72, millilitresPerM2: 4.2 },
          { pricePerLitre: 70.5, millilitresPerM2: 10 },
        ],
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Change Pigment six' }));
    await user.type(screen.getByLabelText('Name'), 'teen');
    await user.click(keep());
    await waitFor(() =>
      expect(sent[1]?.body).toEqual({
        name: 'Pigment sixteen',
        kind: 'pigment',
        restMinutes: null,
        costs: [],
        note: '',
      }),
    );
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await user.click(screen.getByRole('button', { name: 'Put away Pigment six' }));
    await waitFor(() => expect(sent[2]?.body).toEqual({ away: true }));
  });
});
