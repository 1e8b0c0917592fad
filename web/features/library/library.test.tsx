import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { AimSetDetail } from '@melto/services/conformity/aimSetDetail';
import type { TrialCheck } from '@melto/services/conformity/trialChecks';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { aimSet, toleranceSet } from '@/testing/librarySets';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { AimSetsSurface } from './AimSetsSurface';
import { TolerancesSurface } from './TolerancesSurface';

const OWN = { family: 'own-1', name: 'Saltmarsh gloss', source: 'reading' } as const;
const button = (name: RegExp | string): HTMLButtonElement =>
  screen.getByRole<HTMLButtonElement>('button', { name });

const TRIAL: TrialCheck = {
  id: 1,
  condition: 'Heron / Lantern Gloss 150 / standard',
  code: 'HRN-0001',
  madeMs: 0,
  tolerances: 'x',
  verdict: 'conforms',
  // Two patches about L* 50 on the grey axis: ΔE00 is ΔL*, 1 and 3.
  patches: [
    { device: [0.5, 0.5, 0.5, 0], aim: [49.5, 0, 0], measured: [50.5, 0, 0], estimated: false },
    { device: [0.2, 0.6, 0.3, 0], aim: [48.5, 0, 0], measured: [51.5, 0, 0], estimated: false },
  ],
};

describe('aim sets', () => {
  const detail = (change: Partial<AimSetDetail> = {}): AimSetDetail => ({
    view: aimSet(),
    versions: [aimSet()],
    primaries: [
      { name: 'paper', lab: [95, 0, -2], origin: 'given' },
      { name: 'C', lab: [55, -37, -50], origin: 'given' },
    ],
    sinceBefore: null,
    hasSpectra: false,
    ...change,
  });

  it('that come with Melto cannot be changed or removed; their figures are there to read', () => {
    show(<AimSetsSurface sets={[aimSet()]} shown={detail()} />);
    expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'New version' })).toBeNull();
    const cyan = screen.getByText('C').closest('tr') as HTMLElement;
    expect(within(cyan).getByText('−37.00')).toBeTruthy();
    // C* = √(37² + 50²), h = 180° + atan(50/37) = 233.50°, from below.
    expect(within(cyan).getByText('62.20')).toBeTruthy();
    expect(within(cyan).getByText('233')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Save as CGATS' }).getAttribute('href')).toBe(
      '/api/aim-sets/3/file',
    );
    expect(screen.getByText('none: D50/2° only')).toBeTruthy();
  });

  it('that do not tell their mode ask for it, the latest version only', async () => {
    const untold = aimSet({ conditions: {} });
    const server = fakeServer({ 'POST /api/aim-sets/3/mode': { id: 12 } });
    const { unmount, user } = show(
      <AimSetsSurface sets={[untold]} shown={detail({ view: untold, versions: [untold] })} />,
    );
    await user.click(button('M1'));
    expect(server.sent.map(({ path, body }) => [path, body])).toEqual([
      ['/api/aim-sets/3/mode', { mode: 'M1' }],
    ]);
    unmount();
    const newer = aimSet({ id: 4, version: 2 });
    show(<AimSetsSurface sets={[newer]} shown={detail({ view: untold, versions: [newer, untold] })} />);
    expect(screen.queryByRole('button', { name: 'M1' })).toBeNull();
  });

  it('of the house have versions, which say how far they are apart', () => {
    const versions = [aimSet({ ...OWN, id: 9, version: 2 }), aimSet({ ...OWN, id: 8, version: 1 })];
    const { unmount } = show(
      <AimSetsSurface
        sets={[versions[0]]}
        shown={detail({
          view: versions[0],
          versions,
          sinceBefore: { common: 84, mean: 0.413, largest: 1.9 },
        })}
      />,
    );
    expect(
      screen.getByText('From version 1: 0.41 ΔE00 on the mean of 84 patches in common, 1.90 at most.'),
    ).toBeTruthy();
    const list = screen.getByRole('navigation', { name: 'Versions' });
    expect(
      within(list)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href')),
    ).toEqual(['/library/aims?set=9', '/library/aims?set=9&version=8']);
    unmount();
    show(<AimSetsSurface sets={[versions[0]]} shown={detail({ view: versions[1], versions })} />);
    expect(screen.getByText(/version 1 of 2, checks made by it keep it/)).toBeTruthy();
  });

  it('are made by hand from lines, and a wrong line is named', async () => {
    const { sent } = fakeServer({ 'POST /api/aim-sets': { id: 12 } });
    const { user } = show(<AimSetsSurface sets={[aimSet()]} shown={detail()} />);
    await user.click(button('New aim set'));
    await user.type(screen.getByLabelText(/Name/), 'Press as it is');
    await user.click(button('by hand'));
    const lines = screen.getByLabelText(/C M Y K in per cent/);
    await user.click(lines);
    await user.paste('0 0 0 0 95 0 -2\n100 0 0');
    expect(screen.getByText(/Line 2: found “100 0 0”/)).toBeTruthy();
    expect(button('Make the aim set').disabled).toBe(true);
    await user.paste(' 0 55 -37,5 −50');
    await user.click(button('Make the aim set'));
    await waitFor(() => expect(navigation.refreshed).toBe(1));
    expect(sent[0].body).toMatchObject({
      name: 'Press as it is',
      rows: [
        { device: [0, 0, 0, 0], lab: [95, 0, -2] },
        { device: [100, 0, 0, 0], lab: [55, -37.5, -50] },
      ],
      conditions: { mode: 'M1' },
    });
  });

  it('are moved to a white that was measured, shown before they are kept', async () => {
    const told = aimSet({ conditions: { mode: 'M1' } });
    const shift = {
      ...{ from: [95, 0, -2], to: [90, 0, 4], deltaE: 6.54 },
      primaries: [{ name: 'paper', before: [95, 0, -2], after: [90, 0, 4], deltaE: 6.54 }],
    };
    const { sent } = fakeServer({
      'GET /api/house': {},
      'GET /api/aim-sets/papers': [],
      'GET /api/aim-sets/3/on-paper': shift,
      'POST /api/aim-sets/3/on-paper': { id: 14 },
    });
    const { user } = show(<AimSetsSurface sets={[told]} shown={detail({ view: told, versions: [told] })} />);
    await user.click(button('Aims on this paper'));
    await user.click(button('measured by itself'));
    await user.type(screen.getByLabelText('L*'), '90');
    await user.type(screen.getByLabelText('a*'), '0');
    expect(button('Keep these aims').disabled).toBe(true);
    await user.type(screen.getByLabelText('b*'), '4,0');
    await user.type(screen.getByLabelText(/Name of the paper/), 'Ivory 90');
    // The mode is that of whoever measured, not that of the aims.
    expect(button('Keep these aims').disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Mode' }));
    await user.click(screen.getByRole('option', { name: 'M0' }));
    expect(await screen.findByText('6.54', { selector: 'b' })).toBeTruthy();
    expect(screen.getByText('House FOGRA39L on Ivory 90')).toBeTruthy();
    await user.click(button('Keep these aims'));
    await waitFor(() => expect(navigation.went.at(-1)).toBe('/library/aims?set=14'));
    // Whatever is asked for once more afterwards.
    const kept = sent.filter(({ method }) => method === 'POST');
    expect(kept.map(({ body }) => body)).toEqual([
      { name: 'House FOGRA39L on Ivory 90', lab: [90, 0, 4], mode: 'M0' },
    ]);
  });

  it('of the house are removed, and taken back within the time', async () => {
    const own = aimSet({ ...OWN, id: 9 });
    const { sent } = fakeServer({ 'PUT /api/aim-sets/9/removed': {} });
    const { user } = show(<AimSetsSurface sets={[own]} shown={detail({ view: own, versions: [own] })} />);
    await user.click(button('Remove'));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map(({ body }) => body)).toEqual([{ removed: true }, { removed: false }]);
    expect(navigation.went[0]).toBe('/library/aims');
  });
});

describe('tolerance sets', () => {
  it('that come with Melto are read, and say which metric a wedge need not have', () => {
    const set = toleranceSet();
    show(<TolerancesSurface sets={[set]} shown={set} versions={[set]} />);
    expect(screen.getByText(', where the wedge has any')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull();
    expect(screen.queryByRole('navigation', { name: 'Versions' })).toBeNull();
  });

  it('are written as an own set, tried on past checks while they are', async () => {
    const { sent } = fakeServer({
      'GET /api/tolerance-sets/trials': [TRIAL],
      'POST /api/tolerance-sets': { id: 21 },
    });
    const set = toleranceSet();
    const { user } = show(<TolerancesSurface sets={[set]} shown={set} versions={[set]} />);
    await user.click(button('Write an own set from this'));
    // The mean of 1 and 3 is 2: within 2.5, not within 1,9.
    expect(await screen.findByText(/1 of 1 would conform/)).toBeTruthy();
    const [limit] = screen.getAllByRole<HTMLInputElement>('textbox', { name: 'limit' });
    await user.clear(limit);
    expect(button('Save as an own set').disabled).toBe(true);
    await user.type(limit, '1,9');
    expect(await screen.findByText(/0 of 1 would conform/)).toBeTruthy();
    await user.click(button('remove spot colours largest'));
    await user.click(button('Save as an own set'));
    await waitFor(() => expect(navigation.went).toEqual(['/library/tolerances?set=21']));
    expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({
      name: 'House, from ISO 12647-7 proof',
      source: 'house limits',
      substrateUncorrected: true,
      metrics: [{ group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 1.9 }],
    });
  });

  it('keep what was typed when the server refuses', async () => {
    fakeServer({
      'GET /api/tolerance-sets/trials': [],
      'POST /api/tolerance-sets': new Refused(409, { title: 'It stays as it is.', detail: 'Rename it.' }),
    });
    const set = toleranceSet();
    const { user } = show(<TolerancesSurface sets={[set]} shown={set} versions={[set]} />);
    await user.click(button('Write an own set from this'));
    await user.clear(screen.getByLabelText('Name'));
    await user.type(screen.getByLabelText('Name'), 'Ours');
    await user.click(button('Save as an own set'));
    expect(await screen.findByText('It stays as it is. Rename it.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Ours');
  });

  it('tell in words what a version changed, and an older one becomes the next', async () => {
    const first = toleranceSet({
      id: 30,
      shipped: false,
      set: {
        ...toleranceSet().set,
        id: 'own-2',
        name: 'Ours',
        metrics: [
          { group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 2 },
          { group: 'greys', statistic: 'mean', quantity: 'ΔCh', limit: 1 },
        ],
      },
    });
    const second = toleranceSet({
      id: 31,
      version: 2,
      shipped: false,
      set: {
        ...first.set,
        metrics: [
          { group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 1.5 },
          { group: 'solids', statistic: 'largest', quantity: 'ΔE00', limit: 3 },
        ],
      },
    });
    const { unmount } = show(<TolerancesSurface sets={[second]} shown={second} versions={[second, first]} />);
    expect(
      screen.getByText(
        /all patches mean ΔE00 from 2 to 1.5; solids largest ΔE00 ≤ 3 is new; greys mean ΔCh is gone\./,
      ),
    ).toBeTruthy();
    unmount();
    const { sent } = fakeServer({
      'GET /api/tolerance-sets/trials': [],
      'POST /api/tolerance-sets': { id: 32 },
    });
    const { user } = show(<TolerancesSurface sets={[second]} shown={first} versions={[second, first]} />);
    expect(screen.getByText(/version 1 of 2, checks made by it keep it/)).toBeTruthy();
    await user.click(button('Make it version 3'));
    await user.click(button('Save as version 3'));
    await waitFor(() => expect(sent.some(({ method }) => method === 'POST')).toBe(true));
    expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
      versionOf: 30,
      metrics: first.set.metrics,
    });
  });
});
