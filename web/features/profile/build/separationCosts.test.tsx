import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { separationOf } from '@melto/core/separate/separation';
import type { Separation } from '@melto/core/separate/separation';
import type { SeparationCost } from '@melto/core/separate/separationCost';
import { show } from '@/testing/show';
import { SeparationCosts, withBlack } from './SeparationCosts';

const OWN: Separation = { ...separationOf('medium', 2.8), inkLimits: [1, 0.9, 1, 1], pureBlack: true };
const cost = (ink: SeparationCost['ink']): SeparationCost => ({
  ...{ ink, most: 2.5 },
  greys: { mean: 1.234, p95: 2.5 },
});

describe('what each black costs', () => {
  it('keeps the limits of what is set, for every amount', () => {
    expect(withBlack('max', OWN)).toMatchObject({
      ...{ blackStart: separationOf('max', 2.8).blackStart, totalInk: 2.8 },
      ...{ inkLimits: [1, 0.9, 1, 1], pureBlack: true },
    });
  });

  it('is worked out for what is set and for each amount, and told beside what is set', async () => {
    const costs = vi.fn((separations: readonly Separation[]) =>
      Promise.resolve(separations.map((_, i) => cost([0.4, 0.3, 0.2, 0.1 - 0.02 * i]))),
    );
    const onBlack = vi.fn();
    const { user } = show(
      <SeparationCosts
        names={['C', 'M', 'Y', 'K']}
        costs={costs}
        pictures={1}
        separation={OWN}
        black="medium"
        onBlack={onBlack}
      />,
    );
    const rows = (await screen.findAllByRole('row')).slice(1);
    expect(costs).toHaveBeenCalledTimes(1);
    expect(costs.mock.calls[0]?.[0]).toHaveLength(5);
    expect(rows.map((row) => within(row).getAllByRole('cell')[0].textContent)).toEqual([
      'as set now',
      'smoothest lights',
      'all-round use',
      'steady greys',
      'least ink',
    ]);
    const cells = (row: HTMLElement): (string | null)[] =>
      within(row)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent);
    expect(cells(rows[0]).slice(5, 9)).toEqual(['100.0', '–', '250', '1.23']);
    expect(cells(rows[4])[6]).toBe('−8.0 %');
    expect(rows[2].getAttribute('aria-selected')).toBe('true');
    await user.click(screen.getByRole('button', { name: 'least ink' }));
    expect(onBlack).toHaveBeenCalledWith('max');
  });

  it('follows how much inks vary', async () => {
    const varied: number[] = [];
    const costs = (separations: readonly Separation[], variation: number) => {
      varied.push(variation);
      return Promise.resolve(separations.map(() => cost([0.1, 0.1, 0.1, 0.1])));
    };
    const { user } = show(
      <SeparationCosts
        names={['C', 'M', 'Y', 'K']}
        costs={costs}
        pictures={1}
        separation={OWN}
        black="medium"
        onBlack={() => {}}
      />,
    );
    (await screen.findByRole('slider')).focus();
    await user.keyboard('{ArrowRight}');
    expect(screen.getByText('each ink varies by 4 %')).toBeTruthy();
    await waitFor(() => expect(varied.at(-1)).toBe(0.04));
  });
});
