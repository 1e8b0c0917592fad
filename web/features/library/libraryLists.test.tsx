import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { LibraryDevice, LibraryStock } from '@melto/services/house/library';
import type { Agreement } from '@melto/services/reading/agreement';
import type { InstrumentRow } from '@melto/services/reading/instruments';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { SettingsRecord } from '@/features/condition/SettingsRecord';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { fakeBridge, WITH_READER } from '@/testing/fakeBridge';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { ArchivedSurface } from './ArchivedSurface';
import { DevicesSurface } from './DevicesSurface';
import { HouseSurface } from './HouseSurface';
import { InstrumentsSurface } from './InstrumentsSurface';
import { StocksSurface } from './StocksSurface';

const button = (name: RegExp | string): HTMLButtonElement =>
  screen.getByRole<HTMLButtonElement>('button', { name });
const device = (change: Partial<LibraryDevice> = {}): LibraryDevice => ({
  ...{
    id: 1,
    name: 'Avocet',
    code: 'AVC',
    kind: 'printer driver that takes RGB',
    channels: 'RGB',
    inks: false,
  },
  ...{ inkSet: 'pigment', modes: ['fine', 'fast'], note: '', away: false, own: true, uses: 2, duty: null },
  facts: {},
  ownKind: 'rgb-driver',
  inkNames: ['R', 'G', 'B'],
  ...change,
});
const stock = (change: Partial<LibraryStock> = {}): LibraryStock => ({
  ...{ id: 5, name: 'Barn Owl Rag', finish: 'matt', restMinutes: 30, boxLabel: 'Rag 310' },
  ...{ note: '', away: false, uses: 1, facts: {} },
  ...change,
});

describe('devices of the library', () => {
  it('are found by any word of them; what was put away is shown when asked for', async () => {
    const away = device({ id: 2, name: 'Dunlin', code: 'DNL', away: true });
    const { user } = show(
      <DevicesSurface devices={[device(), device({ id: 3, name: 'Wren', own: false }), away]} />,
    );
    expect(screen.queryByText('Dunlin')).toBeNull();
    expect(screen.getByText('printer driver that takes RGB, simulated')).toBeTruthy();
    await user.type(screen.getByLabelText('Find'), 'avc pigment');
    expect(screen.queryByText('Wren')).toBeTruthy();
    await user.type(screen.getByLabelText('Find'), ' avocet');
    expect(screen.queryByText('Wren')).toBeNull();
    expect(screen.getByText('1 of 3')).toBeTruthy();
    await user.clear(screen.getByLabelText('Find'));
    await user.click(screen.getByRole('switch'));
    expect(screen.getByText('Dunlin')).toBeTruthy();
    expect(button('Take out Dunlin')).toBeTruthy();
  });

  it('say when their own calibration is due, and keep that it was done', async () => {
    const { sent } = fakeServer({ 'POST /api/devices/1/duty': { doneMs: 1 }, 'PUT /api/devices/1': {} });
    const duty = { words: 'Front end calibrated', days: 7, doneMs: Date.UTC(2026, 2, 1, 12), due: true };
    const { user } = show(<DevicesSurface devices={[device({ duty })]} />);
    expect(screen.getByText(/due since 8 Mar/)).toBeTruthy();
    await user.click(button('Front end calibrated done today at Avocet'));
    await waitFor(() => expect(sent.map(({ path }) => path)).toEqual(['/api/devices/1/duty']));
    await user.click(button('Change Avocet'));
    const days = screen.getByLabelText('every … days');
    await user.clear(days);
    await user.type(days, '0');
    expect(button('Keep it').disabled).toBe(true);
    await user.clear(days);
    await user.type(days, '14');
    await user.click(button('Keep it'));
    await waitFor(() =>
      expect(sent.at(-1)?.body).toMatchObject({ duty: { words: 'Front end calibrated', days: 14 } }),
    );
  });

  it('are renamed, with their modes where they are real; a refusal stays in the dialog', async () => {
    let answer: unknown = new Refused(409, { title: 'Taken.', detail: 'Give another.', field: 'name' });
    const { sent } = fakeServer({ 'PUT /api/devices/1': () => answer });
    const { user } = show(<DevicesSurface devices={[device()]} />);
    await user.click(button('Change Avocet'));
    const dialog = screen.getByRole('dialog');
    await user.clear(within(dialog).getByLabelText('Name'));
    expect(button('Keep it').disabled).toBe(true);
    await user.type(within(dialog).getByLabelText('Name'), 'Avocet 2');
    await user.type(within(dialog).getByLabelText('Print modes'), ', draft');
    await user.click(button('Keep it'));
    expect((await screen.findByRole('alert')).textContent).toBe('Taken. Give another.');
    answer = {};
    await user.click(button('Keep it'));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(sent[1].body).toEqual({
      name: 'Avocet 2',
      note: '',
      modes: ['fine', 'fast', 'draft'],
      duty: null,
      facts: {},
    });
  });

  it('are put away with ten seconds to undo it', async () => {
    const { sent } = fakeServer({ 'PUT /api/devices/1/away': {} });
    const { user } = show(<DevicesSurface devices={[device()]} />);
    await user.click(button('Put away Avocet'));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map(({ body }) => body)).toEqual([{ away: true }, { away: false }]);
  });
});

describe('stocks of the library', () => {
  it('take whole minutes of rest, 0 to 20160', async () => {
    const { sent } = fakeServer({ 'PUT /api/stocks/5': {} });
    const { user } = show(<StocksSurface stocks={[stock()]} />);
    await user.click(button('Change Barn Owl Rag'));
    const rest = within(screen.getByRole('dialog')).getByLabelText(/Minutes/);
    for (const [text, disabled] of [
      ['-1', true],
      ['0.5', true],
      ['20161', true],
      ['20160', false],
    ] as const) {
      await user.clear(rest);
      await user.type(rest, text);
      expect(button('Keep it').disabled).toBe(disabled);
    }
    await user.click(button('Keep it'));
    await waitFor(() =>
      expect(sent[0]?.body).toEqual({
        name: 'Barn Owl Rag',
        boxLabel: 'Rag 310',
        note: '',
        restMinutes: 20_160,
        facts: {},
      }),
    );
  });

  it('say that there is none', () => {
    show(<StocksSurface stocks={[]} />);
    expect(screen.getByText('The house has no stock yet.')).toBeTruthy();
  });
});

describe('the house', () => {
  it('is named; without a name or a person nothing is kept', async () => {
    const { sent } = fakeServer({ 'PUT /api/house': {} });
    const house = {
      name: 'Reed Press',
      units: 'metric' as const,
      densityStatus: 'E' as const,
      timeZone: 'Europe/London',
      shifts: '06:00, 18:00',
      person: 'Jo Sedge',
    };
    const { user } = show(
      <HouseSurface house={house} zones={['Europe/Amsterdam', 'Europe/London']} logo={undefined} />,
    );
    await user.clear(screen.getByLabelText('Name of the house'));
    expect(button('Keep it').disabled).toBe(true);
    await user.type(screen.getByLabelText('Name of the house'), 'Sedge Print');
    await user.click(screen.getByLabelText('Time zone'));
    await user.click(screen.getByRole('option', { name: 'Europe/Amsterdam' }));
    await user.clear(screen.getByLabelText('Shifts begin at'));
    await user.type(screen.getByLabelText('Shifts begin at'), '7:00, 5:00');
    expect(button('Keep it').disabled).toBe(true);
    await user.clear(screen.getByLabelText('Shifts begin at'));
    await user.type(screen.getByLabelText('Shifts begin at'), '7:00, 15:00');
    await user.click(screen.getByRole('combobox', { name: 'Lengths and screens' }));
    await user.click(screen.getByRole('option', { name: 'inches, lines per inch' }));
    await user.click(screen.getByRole('combobox', { name: 'Densities' }));
    await user.click(screen.getByRole('option', { name: /^status I/ }));
    await user.click(button('Keep it'));
    await waitFor(() =>
      expect(sent[0]?.body).toEqual({
        name: 'Sedge Print',
        timeZone: 'Europe/Amsterdam',
        units: 'inches',
        shifts: '7:00, 15:00',
        densityStatus: 'I',
        person: 'Jo Sedge',
      }),
    );
  });
});

describe('a condition at its settings record', () => {
  const condition = {
    ...{ stockFacts: {}, deviceFacts: {} },
    ...{ id: 4, device: 'Avocet', stock: 'Barn Owl Rag', mode: 'fine', label: '', archivedMs: null },
    ...{ inkSet: 'pigment', finish: 'matt', restMinutes: 30, madeMs: 0, process: { name: 'RGB' } },
  } as ConditionRow;
  const points = [
    { label: 'Media', value: '', tickAtPrint: false },
    { label: 'Scaling', value: '100 %', tickAtPrint: true },
  ];

  it('is named; an empty point is filled in, a told one has no button', async () => {
    const { sent } = fakeServer({
      'PUT /api/conditions/4/label': {},
      'PUT /api/conditions/4/settings-point': {},
    });
    const { user } = show(
      <SettingsRecord condition={condition} points={points} deletable={false} pictures={[]} />,
    );
    expect(screen.getAllByRole('button', { name: /Fill in/ })).toHaveLength(1);
    await user.click(button('Fill in Media'));
    expect(button('Keep it').disabled).toBe(true);
    await user.type(screen.getByLabelText('As the driver shows it'), 'rag');
    await user.click(button('Keep it'));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await user.click(button('Rename'));
    await user.type(screen.getByLabelText(/What tells it/), 'heavy');
    await user.click(button('Keep it'));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map(({ body }) => body)).toEqual([{ label: 'Media', value: 'rag' }, { label: 'heavy' }]);
  });

  it('is copied, archived and taken back', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/archived': {} });
    const { user, unmount } = show(
      <SettingsRecord condition={condition} points={points} deletable={false} pictures={[]} />,
    );
    await user.click(button('Copy'));
    expect(navigation.went).toContain('/conditions/new?from=4');
    await user.click(button('Archive'));
    await waitFor(() => expect(sent).toHaveLength(1));
    unmount();
    const { user: again } = show(
      <SettingsRecord
        condition={{ ...condition, archivedMs: Date.UTC(2026, 2, 14) }}
        points={points}
        deletable={false}
        pictures={[]}
      />,
    );
    await again.click(button('Take back'));
    await waitFor(() =>
      expect(sent.map(({ body }) => body)).toEqual([{ archived: true }, { archived: false }]),
    );
  });

  it('rests as its stock says until another time is kept; what is none stays in the dialog', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/rest': {} });
    const own = { ...condition, usualRestMinutes: 30 };
    const { user } = show(<SettingsRecord condition={own} points={points} deletable={false} pictures={[]} />);
    expect(screen.getByText(/as the stock and the inks say/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Delete' })).toBeNull();
    await user.click(button('Change the rest'));
    const field = screen.getByLabelText(/Minutes a print rests/);
    await user.type(field, '.5');
    await user.click(button('Keep it'));
    expect((await screen.findByRole('alert')).textContent).toContain('0 to 20160 whole minutes');
    await user.clear(field);
    await user.type(field, '5');
    await user.click(button('Keep it'));
    await waitFor(() => expect(sent.map(({ body }) => body)).toEqual([{ restMinutes: 5 }]));
  });

  it('keeps pictures of its dialogs, and its points as a template of the device', async () => {
    const { sent } = fakeServer({
      'POST /api/conditions/4/pictures': { id: 8 },
      'PUT /api/pictures/7/removed': {},
      'PUT /api/conditions/4/template': { before: [points[0]] },
    });
    const picture = { id: 7, name: 'media dialog', width: 9, height: 9, madeMs: 0 };
    const { user } = show(
      <SettingsRecord condition={condition} points={points} deletable={false} pictures={[picture]} />,
    );
    expect(screen.getByRole('img', { name: 'media dialog' }).getAttribute('src')).toBe(
      '/api/pictures/7/file',
    );
    const file = new File(['x'], 'colour tab.png', { type: 'image/png' });
    await user.upload(screen.getByLabelText('Add a picture', { selector: 'input' }), file);
    await waitFor(() => expect(sent[0]?.path).toBe('/api/conditions/4/pictures?name=colour+tab.png'));
    await user.click(button('Remove media dialog'));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(sent.slice(1).map(({ body }) => body)).toEqual([{ removed: true }, { removed: false }]),
    );
    await user.click(button('Keep as template'));
    expect(await screen.findByText('New conditions of Avocet begin with these points.')).toBeTruthy();
    await user.click(screen.getAllByRole('button', { name: 'Undo' }).at(-1) as HTMLElement);
    await waitFor(() =>
      expect(sent.slice(-2).map(({ body }) => body)).toEqual([
        { keep: true },
        { keep: true, points: [points[0]] },
      ]),
    );
  });

  it('is deleted where nothing was printed, and comes back with undo', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/deleted': {} });
    const { user } = show(<SettingsRecord condition={condition} points={points} deletable pictures={[]} />);
    await user.click(button('Delete'));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(sent.map(({ body }) => body)).toEqual([{ deleted: true }, { deleted: false }]),
    );
    expect(navigation.went.slice(-2)).toEqual(['/', '/conditions/4/settings']);
  });

  it('is taken back from the list of the archived', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/archived': {} });
    const { user } = show(
      <ArchivedSurface conditions={[{ id: 4, name: 'Avocet / Rag / fine', archivedMs: 0 }]} />,
    );
    await user.click(button('Take back Avocet / Rag / fine'));
    await waitFor(() => expect(sent[0]?.body).toEqual({ archived: false }));
  });
});

describe('instruments of the library', () => {
  const instrument = (change: Partial<InstrumentRow> = {}): InstrumentRow => ({
    ...{ id: 3, serial: 'S-1', name: 'Strip reader 2', kind: 'strip', modes: ['M0', 'M1'] },
    ...{ tileLifeMs: 3_600_000, apertureMm: 4.5, filter: 'UV cut', backing: 'black', simulated: false },
    ...{ note: '', tileMs: null },
    ...change,
  });
  const away = instrument({ id: 4, serial: 'S-2', name: 'Spare' });
  const agreement: Agreement = {
    ...{ instruments: ['Strip reader 2', 'Spare'], ids: [3, 4], mode: 'M1', code: 'HRN-0001', patches: 90 },
    ...{ mean: 0.314, p95: 0.715, largest: 1.236, shift: [-0.204, 0.05, 0.1] },
  };
  function shown(agreements: readonly Agreement[] = [], answers: Record<string, unknown> = {}) {
    const now = Date.now();
    const server = fakeServer({
      'GET /api/house': { nowMs: now, offsetMs: 0, slips: [], person: 'Ines', ...WITH_READER },
      'POST /api/instruments': {},
      'POST /api/instruments/3/tile': {},
      ...answers,
    });
    const bridge = fakeBridge();
    const page = show(
      <BridgeProvider open={bridge.open}>
        <InstrumentsSurface instruments={[instrument(), away]} agreements={agreements} />
      </BridgeProvider>,
    );
    return { ...page, ...server, bridge };
  }

  it('say which are connected; the tile of those is read', async () => {
    const { user, sent } = shown();
    expect(await screen.findByText('connected')).toBeTruthy();
    expect(screen.getByText('not connected')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Read the tile of Spare' })).toBeNull();
    await user.click(button('Read the tile of Strip reader 2'));
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/instruments/3/tile')).toBe(true));
    expect(screen.getByText(/Read one sheet with two of them/)).toBeTruthy();
  });

  it('show how far two of them agree', async () => {
    shown([agreement]);
    const row = (await screen.findByText('HRN-0001')).closest('tr') as HTMLElement;
    const cells = within(row)
      .getAllByRole('cell')
      .map(({ textContent }) => textContent);
    expect(cells.slice(3)).toEqual(['90', '0.31', '0.71', '1.24', '−0.20  +0.05  +0.10']);
  });

  it('are named by the house; a refusal stays in the dialog', async () => {
    let answer: unknown = new Refused(409, { title: 'Taken.', detail: 'Give another.', field: 'name' });
    const { user, sent } = shown([], { 'PUT /api/instruments/4': () => answer });
    await user.click(button('Change Spare'));
    const dialog = screen.getByRole('dialog');
    await user.clear(within(dialog).getByLabelText('Name'));
    expect(button('Keep it').disabled).toBe(true);
    await user.type(within(dialog).getByLabelText('Name'), 'By the window');
    await user.click(button('Keep it'));
    expect((await screen.findByRole('alert')).textContent).toBe('Taken. Give another.');
    answer = {};
    await user.click(button('Keep it'));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(sent.filter(({ method }) => method === 'PUT').at(-1)?.body).toEqual({
      name: 'By the window',
      note: '',
    });
  });

  it('are looked for where a bridge may be, and nowhere else', async () => {
    const { user } = shown();
    await screen.findByText('connected');
    await user.click(button('Connect an instrument'));
    const field = screen.getByLabelText('Address of the bridge');
    await user.clear(field);
    await user.paste('ws://elsewhere.example:3471');
    expect(button('Look there').disabled).toBe(true);
    await user.clear(field);
    await user.paste('ws://127.0.0.1:70000');
    expect(button('Look there').disabled).toBe(true);
    await user.clear(field);
    await user.paste('ws://127.0.0.1:3472');
    await user.click(button('Look there'));
    await waitFor(() => expect(localStorage.getItem('melto-bridge')).toBe('ws://127.0.0.1:3472'));
    expect(await screen.findByText('Test bridge: Strip reader 2.')).toBeTruthy();
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    localStorage.clear();
  });
});
