import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { PressView } from '@melto/services/calibration/pressView';
import { fakeServer } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { LimitsSurface } from './LimitsSurface';
import { ToneFigures } from './ToneFigures';

const point = (tone: number) => ({
  tone,
  chroma: 60 * tone,
  lightness: 95 - 60 * tone,
  hueDeg: 200,
  density: tone,
});
const ramp = Array.from({ length: 101 }, (_, i) => point(i / 100));
const proposal = (ink: string, limit: number) => ({
  ...{ ink, limit, reason: 'none' as const, densityAtLimit: 1.2, dmax: 1.4, read: ramp, smooth: ramp },
});

function view(inForce = true): PressView<'limits'> {
  return {
    ...{ link: 'limits', points: [], conversions: [], reached: null, readings: [], inForce: null },
    ...{ dmax: [], lenders: [], nowMs: 0, versions: [], charts: [] },
    condition: { id: 4, process: { name: 'CMYK', channels: [] } },
    shown: { id: 9, version: 1, inForce, borrowedFrom: null, stale: null },
    result: {
      row: { id: 9 },
      summary: { limits: [0.9, 0.95, 1, 1], total: 3, dmax: [], code: 'HRN-0001', edited: false },
      detail: {
        ...{ readingId: 1, totalInk: null, colours: ['#00a0c0', '#c02080', '#f0e000', '#202020'] },
        proposals: [proposal('C', 0.9), proposal('M', 0.95), proposal('Y', 1), proposal('K', 1)],
      },
    },
  } as unknown as PressView<'limits'>;
}

const keep = (): HTMLButtonElement => screen.getByRole('button', { name: 'Keep these limits' });

describe('limits that are typed', () => {
  it('are kept as numbers, and move the handle of their plot', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/limits': { id: 10 } });
    const { user } = show(<LimitsSurface view={view()} />);
    expect(keep().disabled).toBe(true);
    const cyan = screen.getByLabelText('Limit of C, per cent');
    await user.clear(cyan);
    await user.type(cyan, '85');
    expect(screen.getByRole('slider', { name: /Limit of C/ }).getAttribute('aria-valuenow')).toBe('85');
    const total = screen.getByLabelText('Total ink, per cent');
    await user.clear(total);
    await user.type(total, '280');
    await user.click(keep());
    await waitFor(() => expect(navigation.went).toEqual(['/conditions/4/limits']));
    expect(sent[0].body).toEqual({ limits: [0.85, 0.95, 1, 1], total: 2.8 });
  });

  it.each([
    ['Limit of C, per cent', '19', true],
    ['Limit of C, per cent', '20', false],
    ['Limit of C, per cent', '100', false],
    ['Limit of C, per cent', '101', true],
    ['Limit of C, per cent', '85.5', true],
    ['Limit of C, per cent', '', true],
    ['Total ink, per cent', '99', true],
    ['Total ink, per cent', '400', false],
    ['Total ink, per cent', '401', true],
  ])('%s of %s is no limit: %s', async (name, text, wrong) => {
    const { user } = show(<LimitsSurface view={view()} />);
    // Something else has changed, so that only this can hold it back.
    const other = screen.getByLabelText('Limit of M, per cent');
    await user.clear(other);
    await user.type(other, '80');
    const field = screen.getByLabelText(name);
    await user.clear(field);
    if (text !== '') await user.type(field, text);
    expect(keep().disabled).toBe(wrong);
    expect(field.getAttribute('aria-invalid')).toBe(String(wrong));
    await user.tab();
    // What is wrong stays to be mended.
    expect((field as HTMLInputElement).value).toBe(text);
  });

  it('of a version that is not in force are read only', () => {
    show(<LimitsSurface view={view(false)} />);
    expect(screen.queryByLabelText('Limit of C, per cent')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Keep these limits' })).toBeNull();
  });
});

describe('the tone of inks', () => {
  const round = (ink: string, largest: number) => ({
    ink,
    steps: [],
    wrong: [],
    noise: 0.001,
    largest,
    mean: 0.001,
  });
  const curves = (reached: readonly number[] | null): PressView<'curves'> =>
    ({
      result: {
        summary: { limits: [1, 1, 1, 1], total: null, round: 1, measure: 'tvi', tvi: { letter: 'A' } },
        detail: {
          inks: ['C', 'M', 'Y', 'K'].map((ink, i) => round(ink, [0.01, 0.04, 0.02, 0.01][i])),
          ...{
            curves: [
              [0, 1],
              [0, 1],
              [0, 1],
              [0, 1],
            ],
            limits: [1, 1, 1, 1],
          },
          colours: ['#00a0c0', '#c02080', '#f0e000', '#202020'],
        },
      },
      reached:
        reached === null ? null : { detail: ['C', 'M', 'Y', 'K'].map((ink, i) => round(ink, reached[i])) },
    }) as unknown as PressView<'curves'>;

  it.each([
    [null, 'M', '4.00'],
    [[0.001, 0.002, 0.003, 0.0123], 'K', '1.23'],
  ])('shows the ink that is farthest first: %o', (reached, ink, figure) => {
    const page = curves(reached);
    show(<ToneFigures view={page} result={page.result as NonNullable<PressView<'curves'>['result']>} />);
    const pressed = screen.getAllByRole('button', { pressed: true }).map(({ textContent }) => textContent);
    expect(pressed[0]?.replace('\u00a0', ' ')).toBe(`${ink} ${figure}`);
    expect(screen.getByText(`Tone of ${ink} against its aim`)).toBeTruthy();
  });
});
