import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { TrialFigures } from '@melto/core/stock/trialFigures';
import type { ConditionChoices } from '@melto/services/house/newCondition';
import type { PaperTrial } from '@melto/services/house/paperTrials';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { bestIn, pictureSentences, stateWords, TRIAL_COLUMNS, trialTable } from './trialColumns';
import type { TrialRow } from './trialColumns';
import { TrialsSurface } from './TrialsSurface';

const figures = (density: number, lost: number): TrialFigures => ({
  ...{ white: [93, 0, -3], darkest: [16, 0, 0], density, volume: 300_000, greys: 2, noise: null },
  pictures: [{ name: 'Seed catalogue', lost }],
});
const row = (stock: string, own: TrialFigures | undefined, more = {}): TrialRow => ({
  print: {
    ...{ printId: stock.length, conditionId: 7, code: 'WRN-0001', stock, facts: {}, restUntilMs: 0 },
    ...{ strips: 10, stripsRead: 10, readingId: 3, mode: 'M1', darkReadingId: null },
    ...more,
  },
  figures: own,
  brightened: undefined,
});
const column = (name: string) => {
  const found = TRIAL_COLUMNS.find((own) => own.name === name);
  if (found === undefined) throw new Error(name);
  return found;
};

vi.mock('@/ui/useRemoteWorker', () => ({
  useRemoteWorker: () => ({
    figures: (_: unknown, device: number[]) => Promise.resolve(figures(device[0], 0.9)),
  }),
}));

describe('who wins', () => {
  const rows = [
    row('rag', figures(1.6, 0.8)),
    row('gloss', figures(2.304, 0.95)),
    row('silk', figures(2.299, 0.945)),
  ];

  it('is what shows as the best; as good to the digit is as good', () => {
    expect([...bestIn(column('Dmax'), rows)]).toEqual([1, 2]);
    expect([...bestIn(column('darkest L*'), rows)]).toEqual([]);
    // Nobody wins alone, or where it is a matter of taste.
    expect([...bestIn(column('Dmax'), rows.slice(0, 1))]).toEqual([]);
    expect([...bestIn(column('brightener, b*'), rows)]).toEqual([]);
    const priced = [
      row('a', undefined, { facts: { pricePerM2: 2 } }),
      row('b', undefined, { facts: { pricePerM2: 1.99 } }),
      row('c', undefined),
    ];
    expect([...bestIn(column('price of a m²'), priced)]).toEqual([1]);
  });

  it('is said for each picture, those about as good with it', () => {
    const lost = [
      row('rag', figures(1.6, 6.04)),
      row('gloss', figures(2.3, 4)),
      row('silk', figures(2.2, 4.19)),
    ];
    expect(pictureSentences(lost)).toEqual([
      'Seed catalogue: gloss and silk lose least, 4.0 ΔE00 on average; the most is 6.0.',
    ]);
    const near = [row('a', figures(1, 4)), row('b', figures(1, 4.19))];
    expect(pictureSentences(near)[0]).toContain('none of them loses more than another, 4.0');
    expect(pictureSentences([row('a', figures(1, 4)), row('b', figures(1, 4.21))])[0]).toContain(
      'a loses least',
    );
    expect(pictureSentences(lost.slice(0, 1))).toEqual([]);
  });

  it('goes out as a table', () => {
    const { head, rows: cells } = trialTable([row('rag', figures(1.6, 0.8)), row('new', undefined)]);
    expect(head.at(-1)).toBe('Seed catalogue, ΔE00 lost');
    expect(cells[0].at(-1)).toBe('0.80');
    expect(cells[1].slice(2)).toEqual(Array<string>(head.length - 2).fill(''));
  });

  it.each([
    [{ readingId: null, stripsRead: 0, restUntilMs: 6 }, 'rests'],
    [{ readingId: null, stripsRead: 0, restUntilMs: 5 }, 'ready to read'],
    [{ readingId: null, stripsRead: 4, restUntilMs: 0 }, '4 of 10 strips read'],
    [{}, 'read'],
  ])('says how far a sheet is: %j', (more, words) =>
    expect(stateWords(row('x', undefined, more).print, 5)).toBe(words),
  );
});

const choices = {
  devices: [
    {
      ...{
        id: 2,
        name: 'Wren',
        kind: 'inkjet',
        inkSet: 'Pigment four',
        modes: ['fine'],
        process: 'RGB',
        own: false,
      },
      stocks: ['Chalk Rag', 'Quay Proof'].map((name, i) => ({
        id: 10 + i,
        name,
        finish: 'matt',
        restMinutes: 60,
      })),
      points: [],
    },
  ],
} as unknown as ConditionChoices;

describe('paper trials', () => {
  const trial = {
    ...{ id: 5, name: 'Gallery', device: 'Wren', mode: 'fine', patches: 300, author: 'Ines', madeMs: 0 },
    ...{ removedMs: null, process: { name: 'RGB' } },
    prints: [row('Chalk Rag', undefined).print, row('Quay', undefined, { readingId: 4 }).print],
  } as unknown as PaperTrial;

  it('show each stock with its figures, the best of them bold', async () => {
    fakeServer({
      'GET /api/readings/3/patches': { device: [1.6], xyz: [] },
      'GET /api/readings/4/patches': { device: [2.1], xyz: [] },
    });
    show(<TrialsSurface trials={[trial]} shown={trial} choices={choices} />);
    const best = await screen.findByText('2.10');
    expect(best.tagName).toBe('B');
    expect((await screen.findByText('1.60')).tagName).toBe('TD');
  });

  it('say that a reading cannot be had', async () => {
    fakeServer({
      'GET /api/readings/3/patches': new Refused(404, { title: 'Gone.', detail: 'Read again.' }),
      'GET /api/readings/4/patches': { device: [2.1], xyz: [] },
    });
    show(<TrialsSurface trials={[trial]} shown={trial} choices={choices} />);
    expect((await screen.findByRole('alert')).textContent).toBe('Gone. Read again.');
  });

  it('begin once name, two stocks and all points are there', async () => {
    const { sent } = fakeServer({
      'GET /api/paper-trials/points': [
        { label: 'Colour management off', value: 'none', tickAtPrint: true },
        { label: 'Media', value: 'x', tickAtPrint: false },
      ],
      'POST /api/paper-trials': { id: 9 },
    });
    const { user } = show(<TrialsSurface trials={[]} shown={undefined} choices={choices} />);
    await user.click(screen.getByRole('button', { name: 'New trial' }));
    const dialog = within(screen.getByRole('dialog'));
    const ready = () => !dialog.getByRole('button', { name: 'Print it' }).hasAttribute('disabled');
    await user.type(dialog.getByLabelText('Name'), 'Spring');
    await user.click(dialog.getByRole('checkbox', { name: /Chalk Rag/ }));
    expect(dialog.queryByRole('checkbox', { name: /Colour management/ })).toBeNull();
    await user.click(dialog.getByRole('checkbox', { name: /Quay Proof/ }));
    const point = await dialog.findByRole('checkbox', { name: /Colour management/ });
    expect(ready()).toBe(false);
    await user.click(point);
    expect(ready()).toBe(true);
    // 200 patches are enough, 199 are not.
    await user.clear(dialog.getByLabelText('Patches'));
    await user.type(dialog.getByLabelText('Patches'), '199');
    expect(ready()).toBe(false);
    await user.clear(dialog.getByLabelText('Patches'));
    await user.type(dialog.getByLabelText('Patches'), '200');
    await user.click(dialog.getByRole('button', { name: 'Print it' }));
    await expect.poll(() => navigation.went).toContain('/library/trials?trial=9');
    expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
      ...{ name: 'Spring', deviceId: 2, mode: 'fine', stockIds: [10, 11], patches: 200 },
      ticks: ['Colour management off'],
    });
  });
});
