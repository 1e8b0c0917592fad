import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { CatalogueRow } from '@melto/services/overview/catalogue';
import { CatalogueSurface } from './CatalogueSurface';

const row = (conditionId: number, stock: string, volume: number | null): CatalogueRow => ({
  ...{ conditionId, stock, device: 'Heron', mode: 'standard', inkSet: 'process', brightener: null },
  profile: { key: `result-${conditionId}`, name: stock, madeMs: 0, fit: 0.4 },
  gamut: volume === null ? null : { volume, white: [94, 0, -2], darkest: 12, density: 1.6 },
  best: null,
});
const ROWS = [row(1, 'Chalk Rag', 310_000), row(2, 'Quay Proof', null), row(3, 'Marsh Silk', 420_000)];

const stocks = (): (string | null)[] =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((each) => each.querySelector('a')?.textContent ?? null);

describe('the catalogue', () => {
  it('is put in order by any column, what is not known last either way', async () => {
    render(<CatalogueSurface rows={ROWS} />);
    expect(stocks()).toEqual(['Chalk Rag', 'Marsh Silk', 'Quay Proof']);
    const gamut = screen.getByRole('button', { name: /^Gamut/ });
    await userEvent.click(gamut);
    expect(stocks()).toEqual(['Marsh Silk', 'Chalk Rag', 'Quay Proof']);
    await userEvent.click(gamut);
    expect(stocks()).toEqual(['Chalk Rag', 'Marsh Silk', 'Quay Proof']);
    expect(screen.getByRole('columnheader', { name: /^Gamut/ }).getAttribute('aria-sort')).toBe('ascending');
  });

  it('compares the two that were ticked last', async () => {
    render(<CatalogueSurface rows={ROWS} />);
    expect(screen.queryByRole('link', { name: 'Who wins where' })).toBeNull();
    for (const name of ['Chalk Rag', 'Quay Proof', 'Marsh Silk'])
      await userEvent.click(screen.getByRole('checkbox', { name: new RegExp(name) }));
    expect(screen.getByRole('link', { name: 'Who wins where' }).getAttribute('href')).toBe(
      '/gamut?a=result-2&b=result-3',
    );
    await userEvent.click(screen.getByRole('checkbox', { name: /Marsh Silk/ }));
    expect(screen.queryByRole('link', { name: 'Who wins where' })).toBeNull();
  });

  it('is searched, and says what is not there', async () => {
    render(<CatalogueSurface rows={ROWS} />);
    await userEvent.type(screen.getByLabelText('Find'), 'silk');
    expect(stocks()).toEqual(['Marsh Silk']);
    await userEvent.type(screen.getByLabelText('Find'), 'x');
    expect(screen.getByText('No condition is called like that.')).toBeDefined();
  });
});
