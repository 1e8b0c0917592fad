import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ColourListDetail, ColourListRow } from '@melto/services/lists/colourLists';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { changeSentences } from './changeWords';
import { ListTolerance } from './ListTolerance';
import { ListsSurface } from './ListsSurface';

const row: ColourListRow = {
  ...{ id: 4, family: 'f', version: 2, name: 'Brand', note: 'of ours', origin: 'From brand.csv' },
  ...{ count: 3, spectra: 1, author: 'Ines Marlow', madeMs: 0, removedMs: null, tolerance: null },
};
const values = Array.from({ length: 36 }, (_, i) => 0.1 + 0.02 * i);
const shown: ColourListDetail = {
  ...row,
  colours: [
    { name: 'Tide blue', lab: [32, 4, -41] },
    { name: 'Gorse', lab: [80, 8, 85], spectrum: { grid: { startNm: 380, stepNm: 10, count: 36 }, values } },
    { name: 'Tide grey', lab: [60, 0, 0] },
  ],
  versions: [row, { ...row, id: 3, version: 1 }],
  changes: { added: ['Gorse'], left: [], moved: [{ name: 'Tide blue', deltaE: 1.234 }] },
};

describe('what a version changed', () => {
  it('is said by names, many of them counted', () => {
    expect(changeSentences({ added: [], left: [], moved: [] })).toEqual([
      'The same colours as in the version before.',
    ]);
    const names = ['a', 'b', 'c', 'd', 'e'];
    expect(changeSentences({ added: names.slice(0, 4), left: names, moved: [] })).toEqual([
      'New in this version: a, b, c, d.',
      'No longer in it: a, b, c, d and 1 more.',
    ]);
  });
});

describe('colour lists', () => {
  it('show their colours, found by name, and what changed', async () => {
    fakeServer({});
    const { user } = show(<ListsSurface lists={[row]} shown={shown} />);
    expect(screen.getByText(/3 colours, 1 of them with a spectrum. From brand.csv/)).toBeTruthy();
    expect(
      screen.getByText('New in this version: Gorse. Another colour than before: Tide blue (1.23 ΔE00).'),
    ).toBeTruthy();
    expect(screen.getAllByRole('row')).toHaveLength(4);
    await user.type(screen.getByLabelText('Find'), 'TIDE');
    expect(screen.getAllByRole('row')).toHaveLength(3);
    expect(screen.getByText('2 of 3')).toBeTruthy();
  });

  it('are seen in a light: what moves most first, nothing said of colours without spectrum', async () => {
    fakeServer({});
    const { user } = show(<ListsSurface lists={[row]} shown={shown} />);
    await user.click(screen.getByRole('combobox', { name: 'Seen in' }));
    await user.click(await screen.findByRole('option', { name: 'F11, 2°' }));
    const [, first, second] = screen.getAllByRole('row');
    const cells = within(first).getAllByRole('cell');
    expect(cells[1].textContent).toBe('Gorse');
    expect(Number(cells.at(-1)?.textContent)).toBeGreaterThan(0.2);
    expect(within(second).getAllByRole('cell').at(-1)?.textContent).toBe('–');
  });

  it('are taken from a file, or refused in a sentence', async () => {
    const { sent } = fakeServer({ 'POST /api/colour-lists': { id: 7 } });
    const { user } = show(<ListsSurface lists={[]} shown={undefined} />);
    expect(screen.getByText(/The house has no list yet/)).toBeTruthy();
    await user.upload(screen.getByLabelText('Take a list'), new File(['x'], 'Our brand.csv'));
    await expect.poll(() => navigation.went).toContain('/library/lists?set=7');
    expect(sent[0].path).toContain('name=Our+brand&file=Our+brand.csv');
    await expect
      .poll(() => screen.getByRole('button', { name: 'Take a list' }).hasAttribute('disabled'))
      .toBe(false);
    fakeServer({
      'POST /api/colour-lists': new Refused(400, { title: 'No list.', detail: 'Nothing was stored.' }),
    });
    await user.upload(screen.getByLabelText('Take a list'), new File(['y'], 'b.csv'));
    expect((await screen.findByRole('alert')).textContent).toBe('No list. Nothing was stored.');
  });

  it('say what they allow, and keep a figure over nought or none at all', async () => {
    const { sent } = fakeServer({ 'PUT /api/colour-lists/4': {} });
    const { user } = show(<ListTolerance list={{ ...shown, tolerance: 2.5 }} />);
    const field = screen.getByLabelText('Tolerance, ΔE00');
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
    expect(keep.disabled).toBe(true);
    await user.clear(field);
    await user.type(field, '0');
    expect([keep.disabled, screen.queryByText('over 0, or empty') !== null]).toEqual([true, true]);
    await user.clear(field);
    await user.click(keep);
    await user.type(field, '1,5');
    await user.click(keep);
    await expect
      .poll(() => sent.map(({ body }) => body))
      .toEqual([
        { name: 'Brand', note: 'of ours', tolerance: null },
        { name: 'Brand', note: 'of ours', tolerance: 1.5 },
      ]);
  });

  it('get versions, names, and are removed with a way back', async () => {
    const { sent } = fakeServer({
      'POST /api/colour-lists': { id: 8 },
      'PUT /api/colour-lists/4': {},
      'PUT /api/colour-lists/4/removed': {},
    });
    const { user } = show(<ListsSurface lists={[row]} shown={shown} />);
    await user.upload(screen.getByLabelText('New version'), new File(['x'], 'later.csv'));
    await expect
      .poll(() => sent.some(({ path }) => path.includes('name=Brand&file=later.csv&versionOf=4')))
      .toBe(true);
    await user.click(screen.getByRole('button', { name: 'Name it' }));
    await user.clear(screen.getByLabelText('Name'));
    await user.type(screen.getByLabelText('Name'), 'Ours');
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    await expect
      .poll(() => sent.find(({ path }) => path === '/api/colour-lists/4')?.body)
      .toEqual({ name: 'Ours', note: 'of ours', tolerance: null });
    await user.click(await screen.findByRole('button', { name: 'Remove' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await expect
      .poll(() => sent.filter(({ path }) => path.endsWith('/removed')).map(({ body }) => body))
      .toEqual([{ removed: true }, { removed: false }]);
  });
});
