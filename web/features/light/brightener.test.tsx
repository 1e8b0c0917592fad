import { screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { fakeServer } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { BrightenerPanel } from './BrightenerPanel';
import { UltravioletField } from './UltravioletField';
import type { Ultraviolet } from './UltravioletField';

const white = { whiteness: 121.44, tint: -1.26 };
const pair = (b: number, withId = 3, withoutId = 4) => ({
  withMode: 'M1',
  ...{ withId, withoutId, patches: { count: 9, mean: 0.84, p95: 2, largest: 3.14 } },
  paper: { deltaE: 4.5, b, whiteness: [white, null] },
  bent: [{ row: 11, deltaE: 3.14 }],
});

describe('brightener of a sheet', () => {
  it('is shown with what it bends, where the sheet was read both ways', async () => {
    fakeServer({ 'GET /api/readings/3/brightener': pair(-5.22) });
    const picked: number[] = [];
    const { user } = show(
      <BrightenerPanel readingId={3} conditionId={2} onPick={(row) => picked.push(row)} />,
    );
    expect(await screen.findByText(/depends on the ultraviolet/)).toBeTruthy();
    expect(screen.getByText(/b\* by −5\.2 with ultraviolet/)).toBeTruthy();
    expect(screen.getByText(/121\.4, tint −1\.3/)).toBeTruthy();
    expect(screen.getByText(/no white without/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'patch 12' }));
    expect(picked).toEqual([11]);
  });

  it.each([
    [-0.31, 'depends on the ultraviolet'],
    [-0.29, 'next to no brightener'],
    [0.1, 'next to no brightener'],
  ] as const)('by %d in b* is said', async (b, words) => {
    fakeServer({ 'GET /api/readings/3/brightener': pair(b) });
    show(<BrightenerPanel readingId={3} conditionId={2} onPick={() => {}} />);
    expect(await screen.findByText(new RegExp(words))).toBeTruthy();
  });

  it('of a lamp whose ultraviolet nobody knows is told, and leads to no study', async () => {
    fakeServer({ 'GET /api/readings/3/brightener': { ...pair(-5), withMode: 'M0' } });
    show(<BrightenerPanel readingId={3} conditionId={2} onPick={() => {}} />);
    expect(await screen.findByText('M0 against M2 of this sheet')).toBeTruthy();
    expect(screen.getByText(/a study needs M1/)).toBeTruthy();
    expect(screen.queryByRole('link', { name: 'Brightener study' })).toBeNull();
  });

  it('is no panel where it was not', async () => {
    const { sent } = fakeServer({ 'GET /api/readings/3/brightener': null });
    const { container } = show(<BrightenerPanel readingId={3} conditionId={2} onPick={() => {}} />);
    await expect.poll(() => sent.length).toBe(1);
    expect(container.textContent).toBe('');
  });
});

function Field({ ids }: { ids: readonly number[] }) {
  const [value, setValue] = useState<Ultraviolet>();
  return (
    <>
      <UltravioletField readingIds={ids} value={value} onChange={setValue} />
      <output>{JSON.stringify(value ?? null)}</output>
    </>
  );
}

describe('the share of ultraviolet', () => {
  it.each([
    ['0', { share: 0, withoutReadingIds: [4, 8] }],
    ['1.2', { share: 1.2, withoutReadingIds: [4, 8] }],
    ['1.21', null],
    ['-0.1', null],
    ['x', null],
    ['', null],
  ] as const)('%s is told as it is', async (typed, told) => {
    fakeServer({
      'GET /api/readings/3/brightener': pair(-5),
      'GET /api/readings/7/brightener': pair(-5, 7, 8),
    });
    const { user } = show(<Field ids={[3, 7]} />);
    const field = await screen.findByRole('textbox', { name: 'Share of ultraviolet' });
    await user.type(field, '0.5');
    expect(screen.getByRole('status').textContent).toBe('{"share":0.5,"withoutReadingIds":[4,8]}');
    await user.clear(field);
    if (typed !== '') await user.type(field, typed);
    expect(screen.getByRole('status').textContent).toBe(JSON.stringify(told));
    expect(screen.queryAllByText('A number from 0 to 1.2')).toHaveLength(
      told === null && typed !== '' ? 1 : 0,
    );
  });

  it.each([
    [
      'a sheet was read one way',
      [3, 7],
      { 'GET /api/readings/3/brightener': pair(-5), 'GET /api/readings/7/brightener': null },
    ],
    ['it is itself the one without', [4], { 'GET /api/readings/4/brightener': pair(-5) }],
  ] as const)('is not asked for where %s', async (_, ids, answers) => {
    fakeServer(answers);
    show(<Field ids={ids} />);
    expect(await screen.findByText(/Read each sheet in M1 and in M2/)).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
  });
});
