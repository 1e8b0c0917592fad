import { fireEvent, screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { ReadingView } from '@melto/services/reading/readingView';
import { CMYK, inkProcess, RGB } from '@melto/core/device/process';
import { deskState } from '@/testing/deskState';
import { navigation } from '@/testing/navigation';
import { readingView } from '@/testing/readingView';
import { show } from '@/testing/show';
import { deviceOnScreen, deviceWords } from './deviceWords';
import { PatchInspector } from './PatchInspector';
import { ReadingSurface } from './ReadingSurface';
import { SheetUnderInstrument } from './SheetUnderInstrument';
import { SheetView } from './SheetView';
import type { LastPass } from './useDesk';

const SIX = inkProcess([...'CMYKOG']);

describe('device values in words and on the screen', () => {
  it('are RGB of 255 or inks in per cent', () => {
    expect(deviceWords(RGB, [255, 0, 127.6])).toBe('RGB 255 0 128');
    expect(deviceWords(CMYK, [100, 0, 12.34, 0])).toBe('CMYK 100.0 0.0 12.3 0.0');
    expect(deviceWords(SIX, [1, 2, 3, 4, 5, 6])).toBe('CMYKOG 1.0 2.0 3.0 4.0 5.0 6.0');
  });

  it('of paper are light, of all inks dark, of RGB as they are', () => {
    const level = (css: string): number => Number(/\d+/.exec(css)?.[0]);
    expect(level(deviceOnScreen(CMYK, [0, 0, 0, 0]))).toBeGreaterThan(225);
    expect(level(deviceOnScreen(CMYK, [100, 100, 100, 100]))).toBeLessThan(50);
    expect(deviceOnScreen(RGB, [10, 20, 30])).toBe('rgb(10 20 30)');
    // Other inks are not taken for paper, nor by their place for cyan.
    const [red, green, blue] = deviceOnScreen(SIX, [0, 0, 0, 0, 100, 0]).match(/\d+/g)?.map(Number) ?? [];
    expect(red - blue).toBeGreaterThan(100);
    expect(red - green).toBeGreaterThan(40);
  });
});

describe('the patches of a sheet', () => {
  const view = readingView();
  const sheet = (picked: number, onPick: (row: number) => void) => (
    <SheetView
      process={CMYK}
      strips={view.pages[0]}
      patches={view.patches}
      recolour="measured"
      picked={picked}
      onPick={onPick}
    />
  );

  it.each([
    ['ArrowRight', 0, 1],
    ['ArrowLeft', 0, 0],
    ['ArrowDown', 1, 4],
    ['ArrowUp', 4, 1],
    ['ArrowDown', 4, 4],
    ['ArrowRight', 5, 5],
  ])('%s goes from patch %d to %d', (key, from, to) => {
    const pick = vi.fn();
    show(sheet(from, pick));
    fireEvent.keyDown(screen.getByRole('application'), { key });
    expect(pick).toHaveBeenCalledWith(to);
  });

  it('are picked by a click', () => {
    const pick = vi.fn();
    const { container } = show(sheet(0, pick));
    fireEvent.click(container.querySelector('[data-row="4"]') as Element);
    expect(pick).toHaveBeenCalledWith(4);
  });

  it('are coloured as measured, as sent, or by their difference', () => {
    const fills = (recolour: 'measured' | 'device' | 'difference'): (string | null)[] => {
      const { container, unmount } = show(
        <SheetView
          process={CMYK}
          strips={view.pages[0]}
          patches={view.patches}
          recolour={recolour}
          differences={
            new Map([
              [0, 0],
              [1, 1.5],
              [2, 9],
            ])
          }
          onPick={() => {}}
        />,
      );
      const found = [0, 1, 2].map(
        (row) => container.querySelector(`[data-row="${row}"]`)?.getAttribute('fill') ?? null,
      );
      unmount();
      return found;
    };
    expect(fills('difference')).toEqual(['rgb(255 255 255)', 'rgb(128 128 128)', 'rgb(0 0 0)']);
    expect(fills('measured')).not.toEqual(fills('device'));
  });

  it('that were not read are empty frames', () => {
    const few = { ...view, patches: view.patches.slice(0, 5) };
    const { container } = show(
      <SheetView
        process={CMYK}
        strips={few.pages[0]}
        patches={few.patches}
        recolour="measured"
        onPick={() => {}}
      />,
    );
    expect(container.querySelector('[data-row="5"]')?.getAttribute('fill')).toBe('none');
  });
});

describe('one patch', () => {
  it('has its figures, and the difference to another reading', () => {
    const [, patch, other] = readingView().patches;
    show(
      <PatchInspector process={CMYK} patch={patch} grid={readingView().grid} other={{ ...other, row: 1 }} />,
    );
    // C* = √(20² + 25²), h = 180° + atan(25/20).
    expect(screen.getByText('75.00 32.02 231.3°')).toBeTruthy();
    expect(screen.getByText(deltaE2000([75, -20, -25], [55, -37, -50]).toFixed(2))).toBeTruthy();
    expect(screen.getByText('Density, status E')).toBeTruthy();
  });

  it('without a spectrum has no densities', () => {
    const [patch] = readingView().patches;
    show(<PatchInspector process={CMYK} patch={{ ...patch, spectrum: null }} grid={null} />);
    expect(screen.queryByText('Density, status E')).toBeNull();
  });
});

describe('a reading', () => {
  it.each([
    ['curves', 'To the curves'],
    ['conformity', 'To the check'],
    ['watch', 'To the watch'],
    ['profile', 'To the profile'],
  ] as const)('that serves %s leads there', (serves, words) => {
    show(<ReadingSurface view={readingView({ serves })} others={[]} />);
    expect(screen.getByRole('link', { name: words }).getAttribute('href')).toBe(`/conditions/4/${serves}`);
  });

  it('shows its faults first, with what was measured of them', () => {
    const faults = [
      { kind: 'wrong-side', confidence: 0.93, strips: [2, 3], figures: { dmax: 1.1, usual: 2 } },
    ] as unknown as ReadingView['faults'];
    const { container } = show(<ReadingSurface view={readingView({ faults })} others={[]} />);
    const notice = container.querySelector('.notice.bad')?.textContent ?? '';
    expect(notice).toContain('Strips 2, 3.');
    expect(notice).toContain('confidence 93 %, Dmax 1.10, usual 2');
  });

  it('is compared with another of the same chart, the largest differences first', async () => {
    const other = readingView({ id: 8, code: 'HRN-0002' });
    const moved = other.patches.map((patch) =>
      patch.row === 4
        ? { ...patch, lab: [72, 38, -5] }
        : patch.row === 5
          ? { ...patch, lab: [48.5, 74, -3] }
          : patch,
    );
    const view = readingView();
    const { user } = show(
      <ReadingSurface
        view={view}
        other={{ ...other, patches: moved }}
        others={[{ id: 8, code: 'HRN-0002', mode: 'M1', startedMs: 0 }]}
      />,
    );
    const [first, second] = within(screen.getByRole('list')).getAllByRole('listitem');
    expect(first.textContent).toContain('patch 5');
    expect(first.textContent).toContain(deltaE2000([70, 38, -5], [72, 38, -5]).toFixed(2));
    expect(second.textContent).toContain('patch 6');
    await user.click(within(first).getByRole('button'));
    expect(navigation.went).toEqual(['/readings/9?patch=4']);
    await user.click(screen.getByRole('button', { name: 'difference' }));
    expect(navigation.went.at(-1)).toBe('/readings/9?colour=difference');
  });

  it('takes page, patch and colours from the address, whatever stands there', () => {
    for (const query of ['patch=5', 'patch=900&page=77&colour=pink', 'page=-3', 'patch=x']) {
      navigation.query = query;
      const { unmount } = show(<ReadingSurface view={readingView()} others={[]} />);
      expect(screen.getByRole('heading', { name: query === 'patch=5' ? 'Patch 6' : 'Patch 1' })).toBeTruthy();
      unmount();
    }
  });
});

describe('the sheet under the instrument', () => {
  it('points at the strip to read, marks read, turned and marked ones, and says how long it rests', () => {
    const state = deskState({ restUntilMs: 1_210_000, marked: [3] }, [1]);
    const turned = { ...state, strips: state.strips.map((row) => ({ ...row, reversed: row.strip === 1 })) };
    show(<SheetUnderInstrument state={turned} strip={2} onChoose={() => {}} now={10_000} />);
    expect(screen.getByRole('button', { name: 'Strip 2, not read', current: true }).textContent).toContain(
      '→',
    );
    expect(screen.getByRole('button', { name: 'Strip 1, read' })).toBeTruthy();
    expect(screen.getByRole('img', { name: 'read backwards, turned' })).toBeTruthy();
    expect(screen.getByRole('img', { name: 'marked for later' })).toBeTruthy();
    expect(screen.getByText('rests 20 min more')).toBeTruthy();
  });

  it('shows the strip that was read over what was expected of it', () => {
    const last: LastPass = {
      kind: 'read',
      ...{ strip: 1, reversed: false, spread: null, pass: 1, passes: 1 },
      ...{ measured: ['#ff0000', '#00ff00'], expected: ['#fe0000', '#00fe00'] },
    };
    const { container } = show(
      <SheetUnderInstrument
        state={deskState({}, [1])}
        strip={2}
        last={last}
        onChoose={() => {}}
        now={10_000}
      />,
    );
    const [first] = container.querySelectorAll<HTMLElement>('.last > div');
    expect(first.style.background).toBe('rgb(255, 0, 0)');
    expect(first.querySelector('i')?.style.background).toBe('rgb(254, 0, 0)');
  });
});
