import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { ShelfSurface } from './ShelfSurface';

const found = vi.hoisted(() => ({ answer: {} as { data?: unknown; error: Error | null } }));
vi.mock('./useInspection', () => ({ useInspection: () => found.answer }));
const worker = vi.hoisted(() => ({ slice: vi.fn(), inOtherVersion: vi.fn(), beside: vi.fn() }));
vi.mock('./useInspectionWorker', () => ({ useInspectionWorker: () => worker }));
vi.mock('@/ui/Pixels', () => ({
  Pixels: ({ label }: { label: string }) => <i role="img" aria-label={label} />,
}));
const saved = vi.hoisted(() => [] as string[]);
vi.mock('@/ui/save', async (load) => ({
  ...(await load<object>()),
  save: (name: string) => saved.push(name),
}));

const PRESS: ShelfProfile = {
  ...{
    key: 'result-10',
    name: 'Heron_gloss',
    origin: 'built here',
    space: 'CMYK',
    note: 'for the catalogue',
  },
  ...{ file: '/api/results/10/file', digest: 'aa', madeMs: Date.UTC(2026, 6, 25), kept: null },
  condition: {
    ...{
      id: 6,
      device: 'Heron',
      stock: 'Lantern Gloss 150',
      mode: 'standard',
      version: 2,
      light: null,
      inForceOn: 2,
    },
    inkSet: 'Toner four',
  },
};
const CARRIED: ShelfProfile = {
  ...{ key: 'source-1', name: 'Coated offset', origin: 'carried by jobs', space: 'CMYK', note: '' },
  ...{ file: '/api/source-profiles/1/file', digest: 'aa', madeMs: null, kept: null, condition: null },
};
const INSPECTION: ProfileInspection & { bytes: number } = {
  ...{ name: 'x', copyright: 'none', version: '4.4', kind: 'output', colourSpace: 'CMYK', connection: 'Lab' },
  channels: ['cyan', 'magenta', 'yellow', 'black'],
  ...{
    bytes: 1_234_567,
    intents: ['perceptual'],
    mostInk: 3,
    data: 'CGATS.17',
    remarks: ['Its greys have a cast.'],
  },
  tags: [{ signature: 'A2B0', type: 'lut16', says: '4 to 3 channels' }],
  roundTrip: { count: 9, mean: 0.13, median: 0.1, p95: 0.5, largest: 1.4 },
};

/** One whose tables are not cut: nothing of it is fetched. */
const SCREEN = { ...INSPECTION, kind: 'screen or working space' };
const PICTURE = { width: 1, height: 1, rgba: new Uint8ClampedArray(4) };

beforeEach(() => {
  found.answer = { data: INSPECTION, error: null };
  saved.length = 0;
  worker.slice.mockReset().mockResolvedValue([PICTURE]);
  worker.inOtherVersion.mockReset();
  worker.beside.mockReset();
  // The bytes of every profile on the shelf.
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(new Uint8Array(4))));
});

describe('the shelf', () => {
  it('says where a profile stands, under which other name its file does, and what stands against it', () => {
    show(<ShelfSurface shelf={[PRESS, CARRIED]} />);
    expect(screen.getByText(/in force on 2 conditions/)).toBeTruthy();
    expect(screen.getByText('The same file stands here as Coated offset.')).toBeTruthy();
    expect(screen.getByText('Its greys have a cast.')).toBeTruthy();
    expect(screen.getByText(/output, CMYK to Lab, ICC 4\.4, 1,235 kB/)).toBeTruthy();
    expect(screen.getByText(/ΔE00 0\.13 mean, 0\.50 at 95 %, 1\.40/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Soft proof' }).getAttribute('href')).toBe(
      '/proof?device=result-10',
    );
    expect(screen.getByRole('link', { name: 'Download' }).getAttribute('href')).toBe('/api/results/10/file');
    expect(screen.getByRole('link', { name: 'Package' }).getAttribute('href')).toBe(
      '/api/results/10/package',
    );
    expect(screen.getByRole('button', { name: 'Take it out' })).toBeTruthy();
  });

  it('is searched by device, stock and note', async () => {
    const { user } = show(<ShelfSurface shelf={[PRESS, CARRIED]} />);
    await user.type(screen.getByLabelText('Find'), 'catalogue');
    expect(screen.getByRole('button', { name: /Heron \/ Lantern Gloss 150/ })).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Coated offset/ })).toBeNull();
    await user.clear(screen.getByLabelText('Find'));
    await user.type(screen.getByLabelText('Find'), 'zzz');
    expect(screen.getByText('No profile has this in its name.')).toBeTruthy();
  });

  it('looks into a file of one’s own, and says what is wrong with it', async () => {
    const { user } = show(<ShelfSurface shelf={[]} />);
    expect(screen.getByText(/No profile yet/)).toBeTruthy();
    found.answer = { error: new Error('odd.icc: found acsq, expected acsp') };
    await user.upload(
      screen.getByLabelText('Look into a file', { selector: 'input' }),
      new File(['x'], 'odd.icc'),
    );
    expect(screen.getByRole('alert').textContent).toContain('odd.icc: found acsq');
    expect(screen.queryByRole('link', { name: 'Download' })).toBeNull();
  });

  it('cuts its tables where one wants: two channels, the level of the others, and a lightness', async () => {
    const tags = ['A2B0', 'A2B1', 'B2A1'].map((signature) => ({ signature, type: 'lut16', says: '' }));
    found.answer = { data: { ...INSPECTION, tags }, error: null };
    const { user } = show(<ShelfSurface shelf={[PRESS]} />);
    expect(await screen.findByRole('img', { name: 'Slice: cyan → magenta ↓' })).toBeTruthy();
    await user.click(screen.getByRole('combobox', { name: 'To the right' }));
    // One channel cannot run both ways.
    expect(screen.getByRole('option', { name: 'magenta' }).getAttribute('aria-disabled')).toBe('true');
    await user.click(screen.getByRole('option', { name: 'black' }));
    const level = screen.getByRole('slider', { name: 'yellow' });
    level.focus();
    await user.keyboard('{ArrowRight}');
    await waitFor(() =>
      expect(worker.slice.mock.lastCall?.slice(2)).toEqual([
        1,
        { way: 'from device', across: 3, down: 1, fixed: [0, 0, 0.01, 0] },
      ]),
    );
    worker.slice.mockResolvedValue([PICTURE, PICTURE, PICTURE, PICTURE]);
    await user.click(screen.getByRole('combobox', { name: 'Table' }));
    expect(screen.getAllByRole('option')).toHaveLength(3);
    await user.click(screen.getByRole('option', { name: 'relative colorimetric, Lab to device' }));
    expect(await screen.findByRole('img', { name: 'Slice: black' })).toBeTruthy();
    worker.slice.mockResolvedValue('Heron: B2A1: found none, expected a table');
    screen.getByRole('slider', { name: 'L*' }).focus();
    await user.keyboard('{ArrowLeft}');
    expect((await screen.findByRole('alert')).textContent).toContain('expected a table');
    expect(worker.slice.mock.lastCall?.[3]).toEqual({ way: 'to device', lightness: 49 });
  });

  it('cuts the tables of six inks by their names, and a device link by those of both sides', async () => {
    const six = ['cyan', 'magenta', 'yellow', 'black', 'orange', 'green'];
    const tags = [{ signature: 'A2B0', type: 'mAB', says: '' }];
    found.answer = { data: { ...INSPECTION, tags, colourSpace: '6CLR', channels: six }, error: null };
    const { user, unmount } = show(<ShelfSurface shelf={[PRESS]} />);
    await user.click(await screen.findByRole('combobox', { name: 'To the right' }));
    await user.click(screen.getByRole('option', { name: 'orange' }));
    expect(await screen.findByRole('img', { name: 'Slice: orange → magenta ↓' })).toBeTruthy();
    expect(screen.getByRole('slider', { name: 'green' })).toBeTruthy();
    unmount();
    worker.slice.mockResolvedValue(six.map(() => PICTURE));
    const link = { kind: 'device link', channels: ['red', 'green', 'blue'], goal: six };
    found.answer = { data: { ...INSPECTION, tags, ...link }, error: null };
    show(<ShelfSurface shelf={[PRESS]} />);
    expect(await screen.findByRole('img', { name: 'Slice: orange' })).toBeTruthy();
    expect(worker.slice.mock.lastCall?.[3]).toEqual({
      ...{ way: 'to another', across: 0, down: 1, fixed: [1, 1, 1] },
    });
    expect(screen.getByText('dark is much ink')).toBeTruthy();
    // What two profiles predict is not asked of a link.
    expect(screen.queryByText('Beside another')).toBeNull();
  });

  it('writes a profile in the other version, or says why it cannot', async () => {
    worker.inOtherVersion.mockResolvedValueOnce('Heron: B2A0: found a matrix');
    const { user } = show(<ShelfSurface shelf={[PRESS]} />);
    const write = screen.getByRole('button', { name: 'Write it as version 2' });
    await user.click(write);
    expect((await screen.findByRole('alert')).textContent).toContain('found a matrix');
    expect(saved).toEqual([]);
    worker.inOtherVersion.mockResolvedValueOnce(new Uint8Array(8));
    await user.click(write);
    await waitFor(() => expect(saved).toEqual(['Heron_Lantern_Gloss_150_standard_v2_v2.icc']));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('lays another profile beside the one that is open', async () => {
    const figures = {
      ...{ channels: 4, white: [95, 0, -2], black: [9, 0, 0], blackDevice: [0.6, 0.5, 0.5, 1], cast: 0.4 },
      ...{ totalInk: 2.9, greys: [{ asked: 50, device: [0.4, 0.3, 0.3, 0.1] }] },
    };
    worker.beside.mockResolvedValueOnce({
      ...{ own: figures, other: null },
      difference: { count: 9, mean: 1.234, median: 1, p95: 3.21, largest: 6 },
    });
    const { user } = show(<ShelfSurface shelf={[PRESS, CARRIED]} />);
    await user.click(screen.getByRole('combobox', { name: 'Compare with' }));
    expect(screen.queryByRole('option', { name: /Heron/ })).toBeNull();
    await user.click(screen.getByRole('option', { name: 'Coated offset' }));
    expect(await screen.findByText(/ΔE00 1\.23 apart on average, 95 % within 3\.21, 6\.00/)).toBeTruthy();
    expect(screen.getByText('60 50 50 100')).toBeTruthy();
    expect(screen.getAllByText('no tables both ways').length).toBeGreaterThan(0);
    expect(screen.getByText('carries none')).toBeTruthy();
  });

  it('has nothing to say against one where nothing is', () => {
    found.answer = { data: { ...INSPECTION, remarks: [], data: undefined }, error: null };
    show(<ShelfSurface shelf={[CARRIED]} />);
    expect(screen.getByText('Nothing that its file shows.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Take it out' })).toBeNull();
  });

  it('keeps a file once it is said where it is from; a refusal stays beside it', async () => {
    found.answer = { data: SCREEN, error: null };
    const { sent } = fakeServer({
      'POST /api/kept-profiles': new Refused(400, {
        title: 'maker.icc is no ICC profile.',
        detail: 'Nothing was stored.',
      }),
    });
    const { user } = show(<ShelfSurface shelf={[PRESS]} />);
    await user.upload(
      screen.getByLabelText('Look into a file', { selector: 'input' }),
      new File(['x'], 'maker.icc'),
    );
    const keep = screen.getByRole('button', { name: 'Keep it on the shelf' });
    expect(keep).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Note'), 'for coated');
    expect(keep).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('combobox', { name: 'It is from' }));
    await user.click(screen.getByRole('option', { name: 'the device’s maker' }));
    await user.click(keep);
    expect((await screen.findByRole('alert')).textContent).toContain('maker.icc is no ICC profile.');
    expect(sent.map(({ path }) => path)).toEqual([
      '/api/kept-profiles?name=maker.icc&origin=maker&note=for+coated',
    ]);
    expect(screen.getByLabelText('Note')).toHaveProperty('value', 'for coated');
  });

  it('tells a kept one anew, and takes it off with a word', async () => {
    found.answer = { data: SCREEN, error: null };
    const own: ShelfProfile = {
      ...{ ...CARRIED, key: 'kept-7', name: 'Coated by the seller', origin: 'kept', note: 'old' },
      kept: { id: 7, origin: 'paper seller' },
    };
    const { sent } = fakeServer({ 'PUT /api/kept-profiles/7': {}, 'PUT /api/kept-profiles/7/away': {} });
    const { user } = show(<ShelfSurface shelf={[own]} />);
    expect(screen.getByRole('button', { name: /kept, from the paper’s seller/ })).toBeTruthy();
    const change = screen.getByRole('button', { name: 'Keep the change' });
    expect(change).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Note'), 'er');
    await user.click(change);
    await user.click(screen.getByRole('button', { name: 'Take it off the shelf' }));
    expect(await screen.findByText('Coated by the seller is off the shelf.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(sent.map(({ path, body }) => [path, body])).toEqual([
      ['/api/kept-profiles/7', { origin: 'paper seller', note: 'older' }],
      ['/api/kept-profiles/7/away', { away: true }],
      ['/api/kept-profiles/7/away', { away: false }],
    ]);
  });
});
