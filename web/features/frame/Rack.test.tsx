import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { RackSlip } from '@melto/services/charts/rack';
import { fakeServer } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { Rack, RestRing } from './Rack';

const now = Date.now();
const slip = (change: Partial<RackSlip>): RackSlip =>
  ({
    code: 'HRN-0001-1',
    title: 'Ramps',
    conditionId: 1,
    state: 'ready',
    printedMs: now - 3_600_000,
    restUntilMs: now - 1000,
    strips: 12,
    stripsRead: 0,
    thumbnail: ['#000000'],
    ...change,
  }) as RackSlip;
const rack = (slips: readonly RackSlip[]): void => {
  fakeServer({
    'GET /api/house': { nowMs: now, offsetMs: 0, slips, instruments: [], bridge: '', person: 'Ines' },
  });
};

describe('the rack', () => {
  it('says how sheets get there when it is empty', async () => {
    rack([]);
    show(<Rack folded={false} />);
    expect(await screen.findByText(/Sheets come here when a chart is printed/)).toBeTruthy();
    expect(screen.getByText('0 sheets')).toBeTruthy();
  });

  it('tells resting, ready and partly read sheets apart; each leads to its desk', async () => {
    rack([
      slip({}),
      slip({ code: 'HRN-0002-1', state: 'resting', restUntilMs: now + 3_600_000 }),
      slip({ code: 'HRN-0003-1', state: 'partly read', stripsRead: 5 }),
    ]);
    show(<Rack folded={false} />);
    const ready = await screen.findByRole('link', { name: /HRN-0001-1/ });
    expect(ready.textContent).toContain('ready');
    expect(ready.getAttribute('href')).toBe('/read/HRN-0001-1');
    const resting = screen.getByRole('link', { name: /HRN-0002-1/ });
    expect(resting.textContent).toMatch(/in (59 min|1 h)/);
    expect(resting.className).not.toContain('ready');
    expect(screen.getByRole('link', { name: /HRN-0003-1/ }).textContent).toContain('5 of 12');
  });

  it('counts a sheet as ready as soon as its rest is over, before the server says so', async () => {
    rack([slip({ state: 'resting', restUntilMs: now - 5 })]);
    show(<Rack folded={false} />);
    expect((await screen.findByRole('link', { name: /HRN-0001-1/ })).textContent).toContain('ready');
  });

  it('folds away to one line and back', async () => {
    rack([slip({}), slip({ code: 'HRN-0002-1', state: 'resting', restUntilMs: now + 60_000 })]);
    const { user } = show(<Rack folded={false} />);
    await screen.findByRole('link', { name: /HRN-0001-1/ });
    await user.click(screen.getByTitle('Fold the rack away'));
    expect(screen.queryByRole('link')).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Rack: 1 to read, 1 resting' }));
    expect(screen.getAllByRole('link')).toHaveLength(2);
  });

  it('stays folded at the reading desk', async () => {
    rack([slip({})]);
    show(<Rack folded />);
    const line = await screen.findByRole<HTMLButtonElement>('button', { name: /Rack: 1 to read/ });
    expect(line.disabled).toBe(true);
  });
});

describe('the ring of a resting sheet', () => {
  it.each([
    [0, 0],
    [0.25, 0.25],
    [1, 1],
  ])('is closed by %d', (share, closed) => {
    const { container } = show(<RestRing share={share} />);
    const [drawn, length] = (container.querySelectorAll('circle')[1].getAttribute('stroke-dasharray') ?? '')
      .split(' ')
      .map(Number);
    expect(drawn / length).toBeCloseTo(closed, 9);
    expect(screen.getByRole('img', { name: `rested ${100 * share} %` })).toBeTruthy();
  });
});
