import { screen } from '@testing-library/react';
import type { Remote } from 'comlink';
import { describe, expect, it } from 'vitest';
import { SHARE_BANDS, SHARE_SECTORS } from '@melto/core/gamut/gamutBody';
import { show } from '@/testing/show';
import type { DrawnBody, DrawnComparison, GamutWorker } from '@/workers/gamut.worker';
import { ReachRing } from './ReachRing';
import { ShareTable } from './ShareTable';

const body = (name: string, volume: number): DrawnBody => ({
  ...{ name, volume, white: 'paper', lab: new Float32Array(0), corners: new Uint32Array(0) },
  ...{ colours: new Float32Array(0), beyond: new Float32Array(0) },
});
const comparison = (change: (hue: number, band: number) => { a: number; b: number }): DrawnComparison => ({
  ...{ a: body('Wren', 1000), b: body('Heron', 1000), shared: 0, sentences: [], tookMs: 1 },
  shares: SHARE_SECTORS.flatMap((hue) =>
    SHARE_BANDS.map((_, band) => ({ hue, band, both: 0, ...change(hue, band) })),
  ),
});

describe('the table of hues and lightness', () => {
  it('says how much more or less, where only one prints, and where neither does', () => {
    const rows = (change: Parameters<typeof comparison>[0]): string[] => {
      const { unmount } = show(<ShareTable comparison={comparison(change)} />);
      const text = screen.getAllByRole('row').map(({ textContent }) => textContent ?? '');
      unmount();
      return text;
    };
    const [head, magenta, red] = rows((hue, band) =>
      hue === 0 ? { a: 100, b: [125, 80, 100, 100.4, 0][band] ?? 0 } : { a: 0, b: band === 0 ? 20 : 0 },
    );
    expect(head).toContain('L* 0–20');
    expect(magenta).toBe(' magenta+25−2000none−19');
    expect(red).toBe(' redonly it––––only it');
  });
});

describe('the ring', () => {
  it('asks the worker for a cut at the lightness that is chosen', async () => {
    const asked: number[] = [];
    const worker = {
      slice: (l: number) => {
        asked.push(l);
        return Promise.resolve({ a: new Float64Array(4).fill(50), b: new Float64Array(4).fill(20) });
      },
    } as unknown as Remote<GamutWorker>;
    const { user, container } = show(
      <ReachRing worker={worker} comparison={comparison(() => ({ a: 1, b: 1 }))} />,
    );
    await screen.findByRole('img', { name: /at L\* 60: Wren dashed, Heron drawn through/ });
    screen.getByRole('slider').focus();
    await user.keyboard('{ArrowUp}');
    expect(asked).toEqual([60, 61]);
    expect(await screen.findByText('L* 61')).toBeTruthy();
    expect(container.querySelectorAll('polygon')[1]?.getAttribute('points')).toMatch(
      /^20\.0,0\.0 0\.0,-20\.0 /,
    );
  });
});
