import { render, screen, within } from '@testing-library/react';
import type { Remote } from 'comlink';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { PlacedPictures } from '@melto/core/proof/placePictures';
import { isPicture } from '@/features/proof/openPicture';
import type { ToldPicture } from '@/features/proof/openPicture';
import type { ListWorker } from '@/workers/list.worker';
import { MOST_PICTURES, openPage } from './openPage';
import { areaWords, PagePictures } from './PagePictures';

const picture = (name: string, mean: number, over3: number): PlacedPictures['pictures'][number] => ({
  ...{ name, mean, p95: 2 * mean, largest: 3 * mean, over3, ink: 1.234 },
  lost: mean > 1 ? [{ asked: [50, 60, 40], printed: [50, 50, 30], deltaE: 3 * mean, share: 0.2 }] : [],
});
const placed: PlacedPictures = {
  pictures: [picture('still.png', 0.4, 0), picture('bright.tif', 2.5, 0.31)],
  ...{ mean: 1.4, p95: 4, largest: 7.5, over3: 0.15, ink: 1.2, amounts: [0.3, 0.3, 0.3, 0.3] },
};

describe('the pictures of a page on a condition', () => {
  it('stand the farthest first, with what is lost most', () => {
    render(<PagePictures placed={placed} name="Heron / Lantern Gloss" />);
    const [, first, second] = screen.getAllByRole('row');
    expect(
      within(first)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual(['bright.tif', '2.50', '5.00', '7.5', '31 %', '123', 'red 7.5']);
    expect(second.textContent).toContain('nothing over 1 ΔE00');
  });

  it('tell a part that is under one per cent of the area as such', () => {
    expect([0, 0.004, 0.005, 0.5].map(areaWords)).toEqual(['0 %', 'under 1 %', '1 %', '50 %']);
  });
});

describe('opening the pictures of a page', () => {
  const read = (icc: string | null): Response =>
    Response.json({
      ...{ width: 1, height: 1, channels: 3, values: btoa('abc'), icc },
      ...{ fullWidth: 1, fullHeight: 1, bits: 8, notes: [] },
    });
  const before = globalThis.fetch;
  const opened: (readonly ToldPicture[])[] = [];
  const worker = (answer?: string): Remote<ListWorker> =>
    ({
      openPage: (pictures: readonly ToldPicture[]) => {
        opened.push(pictures);
        return Promise.resolve(answer);
      },
    }) as unknown as Remote<ListWorker>;
  afterEach(() => {
    vi.stubGlobal('fetch', before);
    opened.length = 0;
  });
  const files = (count: number): File[] =>
    Array.from({ length: count }, (_, i) => new File(['x'], `${i}.png`));

  it('hands their values and profiles to the worker', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(read(btoa('icc'))));
    expect(await openPage(worker(), files(2))).toEqual([{ name: '0.png' }, { name: '1.png' }]);
    expect(
      opened[0].map(({ name, channels, values, icc }) => [name, channels, values.length, icc.length]),
    ).toEqual([
      ['0.png', 3, 3, 3],
      ['1.png', 3, 3, 3],
    ]);
  });

  it('is refused as a whole where one tells no profile, where there are too many, and by the worker', async () => {
    let answers = 0;
    vi.stubGlobal('fetch', () => Promise.resolve(read(answers++ === 1 ? null : btoa('icc'))));
    await expect(openPage(worker(), files(3))).rejects.toThrow('1.png tells no profile');
    expect(opened).toEqual([]);
    await expect(openPage(worker(), files(MOST_PICTURES + 1))).rejects.toThrow('more than a page has');
    vi.stubGlobal('fetch', () => Promise.resolve(read(btoa('icc'))));
    expect(await openPage(worker(), files(MOST_PICTURES))).toHaveLength(MOST_PICTURES);
    await expect(openPage(worker('0.png: no profile'), files(1))).rejects.toThrow('0.png: no profile');
  });

  it('knows pictures by their names', () => {
    expect(['a.TIF', 'b.jpeg', 'c.csv', 'd.icc'].map((name) => isPicture(new File([], name)))).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
});
