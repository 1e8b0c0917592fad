import { renderHook, screen, waitFor } from '@testing-library/react';
import type { Remote } from 'comlink';
import { describe, expect, it } from 'vitest';
import { SHARE_BANDS, SHARE_SECTORS } from '@melto/core/gamut/gamutBody';
import { show } from '@/testing/show';
import type { DrawnBody, DrawnComparison, GamutWorker } from '@/workers/gamut.worker';
import { HueLeaf } from './HueLeaf';
import { PointsPanel } from './PointsPanel';
import { ReachRing } from './ReachRing';
import { ShareTable } from './ShareTable';
import { usePoints } from './usePoints';
import type { LaidList } from './usePoints';

const body = (name: string, volume: number): DrawnBody => ({
  ...{
    name,
    madeBy: 'with its paper',
    volume,
    shared: 0,
    lab: new Float32Array(0),
    corners: new Uint32Array(0),
  },
  colours: new Float32Array(0),
});
const comparison: DrawnComparison = { a: body('Wren', 1000), b: body('Heron', 1000), more: [] };

describe('the table of hues and lightness', () => {
  it('says how much more or less, where only one prints, and where neither does', () => {
    const rows = (change: (hue: number, band: number) => { a: number; b: number }): string[] => {
      const shares = SHARE_SECTORS.flatMap((hue) =>
        SHARE_BANDS.map((_, band) => ({ hue, band, both: 0, ...change(hue, band) })),
      );
      const { unmount } = show(<ShareTable {...{ comparison, shares }} />);
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
        return Promise.resolve({
          a: new Float64Array(4).fill(50),
          b: new Float64Array(4).fill(20),
          more: [],
        });
      },
    } as unknown as Remote<GamutWorker>;
    const { user, container } = show(<ReachRing worker={worker} comparison={comparison} />);
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

describe('the cut along a hue', () => {
  it('has the hue to the right, its opposite to the left, light above', async () => {
    const asked: number[] = [];
    const worker = {
      hue: (degrees: number) => {
        asked.push(degrees);
        const cut = {
          near: [
            [0, 0],
            [50, 40],
            [100, 0],
          ],
          far: [
            [0, 0],
            [50, 20],
            [100, 0],
          ],
        };
        return Promise.resolve({ a: cut, b: cut, more: [] });
      },
    } as unknown as Remote<GamutWorker>;
    const { user, container } = show(<HueLeaf worker={worker} comparison={comparison} />);
    await screen.findByRole('img', { name: /at hue 30°: Wren dashed, Heron drawn through/ });
    expect(screen.getByText('red to the right, turquoise to the left')).toBeTruthy();
    const outlines = () => [...container.querySelectorAll('path')].map((path) => path.getAttribute('d'));
    await expect.poll(outlines).toContain('M0.0 100.0L40.0 50.0L0.0 0.0L0.0 0.0L-20.0 50.0L0.0 100.0Z');
    screen.getByRole('slider').focus();
    await user.keyboard('{ArrowRight}');
    await expect.poll(() => asked).toEqual([30, 31]);
  });
});

describe('colours beside the bodies', () => {
  it('say how many are out of reach of each, and name the farthest', () => {
    const names = ['inside', 'hardly', 'only a has it', 'nobody has it'];
    show(
      <PointsPanel
        list={{ name: 'own.csv', colours: names.map((name) => ({ name, lab: [50, 10, 10] })) }}
        points={{
          ...{ lab: new Float32Array(12), colours: new Float32Array(12) },
          beyondA: Float32Array.of(0, 0.9, 0, 5),
          beyondB: Float32Array.of(0, 0.9, 2, 7),
        }}
        comparison={comparison}
      />,
    );
    expect(screen.getByText(/1 of 4 for Wren, 2 for Heron/)).toBeTruthy();
    expect(
      screen
        .getAllByRole('row')
        .slice(1)
        .map(({ textContent }) => textContent),
    ).toEqual(['nobody has it50.0 10.0 10.05.07.0', 'only a has it50.0 10.0 10.0inside2.0']);
  });
});

describe('a list that is laid beside', () => {
  it('is asked for anew when another one of its name is opened, and never has the points of the one before', async () => {
    const asked: number[] = [];
    const worker = {
      points: (lab: Float32Array) => {
        asked.push(lab[0] ?? NaN);
        return Promise.resolve({ lab, colours: lab, beyondA: lab, beyondB: lab });
      },
    } as unknown as Remote<GamutWorker>;
    const list = (l: number): LaidList => ({ name: 'own.csv', colours: [{ name: 'x', lab: [l, 0, 0] }] });
    const { result, rerender } = renderHook(({ of }) => usePoints(worker, comparison, of), {
      initialProps: { of: list(20) },
    });
    await waitFor(() => expect(result.current?.lab[0]).toBe(20));
    rerender({ of: list(70) });
    expect(result.current).toBeUndefined();
    await waitFor(() => expect(result.current?.lab[0]).toBe(70));
    expect(asked).toEqual([20, 70]);
  });
});
