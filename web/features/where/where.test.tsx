import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { NEARLY, REACHED } from '@melto/core/proof/placeList';
import type { PlacedList } from '@melto/core/proof/placeList';
import type { InkCosts } from '@melto/core/stock/inkCosts';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { ListColours } from './ListColours';
import { PlaceTable } from './PlaceTable';
import { MARKED_COUNTS, rankPlaces } from './rankPlaces';

const list = (...errors: number[]): PlacedList => ({
  colours: errors.map((deltaE) => ({ device: [0.1, 0.2, 0.3, 0], printed: [50, 0, 0] as const, deltaE })),
  ...{ mean: errors.reduce((a, b) => a + b, 0) / errors.length, p95: 0, largest: Math.max(...errors) },
  ...{ over3: 0, ink: 0.6, amounts: [0.1, 0.2, 0.3, 0] },
});

describe('where a job should go', () => {
  const at = (key: string, standing: 'go' | 'mark' | 'stop', mean: number) => ({
    ...{ key, standing },
    placed: list(mean),
  });
  const order = (...places: ReturnType<typeof at>[]): string =>
    rankPlaces(places)
      .map(({ key }) => key)
      .join(' ');

  it('is by how near its colours come', () => expect(order(at('a', 'go', 2), at('b', 'go', 1))).toBe('b a'));

  it('counts against what is to be seen to first, by so much and no more', () => {
    expect(order(at('marked', 'mark', 1), at('good', 'go', 1 + MARKED_COUNTS - 0.01))).toBe('good marked');
    expect(order(at('marked', 'mark', 1), at('good', 'go', 1 + MARKED_COUNTS + 0.01))).toBe('marked good');
  });

  it('puts what is stopped last, however near', () =>
    expect(order(at('stopped', 'stop', 0), at('marked', 'mark', 9))).toBe('marked stopped'));
});

describe('what inks cost', () => {
  const place = (key: string, costs: InkCosts) => ({
    ...{ key, costs, standing: 'go' as const, reasons: [], placed: list(1) },
    profile: { key, name: key, condition: null } as unknown as ShelfProfile,
  });
  const cost = { pricePerLitre: 50, millilitresPerM2: 2 };
  const table = (...ranked: ReturnType<typeof place>[]) =>
    render(
      <PlaceTable
        ranked={ranked}
        over3={({ over3 }) => `${over3} of 1`}
        how="absolute"
        chosen={undefined}
        onChoose={() => {}}
      />,
    );

  it('is told for a square metre where the library has prices, and nowhere else', () => {
    const { unmount } = table(place('a', [cost, cost, cost, cost]), place('b', []));
    expect(screen.getByRole('columnheader', { name: 'ink a m²' })).toBeDefined();
    // 0.6 of 2 ml at 50 a litre.
    expect(
      screen
        .getAllByRole('row')
        .slice(1)
        .map((row) => within(row).getAllByRole('cell')[7].textContent),
    ).toEqual(['0.060', '–']);
    unmount();
    table(place('b', []), place('c', [cost, cost]));
    expect(screen.queryByRole('columnheader', { name: 'ink a m²' })).toBeNull();
  });
});

describe('the colours of a list', () => {
  const colours = (count: number) =>
    Array.from({ length: count }, (_, i) => ({ name: `own ${i + 1}`, lab: [50, 0, 0] as const }));

  const show = (own: ReturnType<typeof colours>, placed: PlacedList, nearest?: PlacedList) =>
    render(
      <ListColours
        colours={own}
        placed={placed}
        nearest={nearest?.colours ?? []}
        name="Wren"
        space="CMYK"
        inDepth={({ name }) => `more of ${name}`}
      />,
    );

  it('say what is still looked for, and open in place', async () => {
    show(colours(2), list(1, 2));
    expect(screen.getByText('0 of 2 are looked for…')).toBeDefined();
    const opened = screen.getByRole('button', { name: 'own 1' });
    await userEvent.click(opened);
    expect(screen.getByText('more of own 1')).toBeDefined();
    await userEvent.click(opened);
    expect(screen.queryByText('more of own 1')).toBeNull();
  });

  it('are told reachable, nearly or not by what comes nearest, the farthest through the profile first', () => {
    show(colours(3), list(1, 4, 3.5), list(1, REACHED + 0.01, NEARLY + 0.01));
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows.map((row) => within(row).getAllByRole('cell')[5].textContent)).toEqual([
      'nearly',
      'no',
      'yes',
    ]);
    expect(within(rows[0]).getByText('own 2')).toBeDefined();
    expect(within(rows[0]).getAllByText('C10 M20 Y30 K0')).toHaveLength(2);
    expect(screen.getByText(/1 of 3 can be reached/)).toBeDefined();
  });

  it('come a hundred at a time', async () => {
    const many = list(...Array<number>(130).fill(2));
    show(colours(130), many, many);
    expect(screen.getAllByRole('row')).toHaveLength(101);
    await userEvent.click(screen.getByRole('button', { name: '30 more of 30' }));
    expect(screen.getAllByRole('row')).toHaveLength(131);
    expect(screen.queryByRole('button', { name: /more of/ })).toBeNull();
  });
});
