import { MAKE_CURVES } from '@/endpoints/calibration';
import { send } from '@/ui/api';
import { OwnRole } from '@/ui/May';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { FromReading } from './FromReading';
import { LimitPlot } from './LimitPlot';

const plot = (value: number, onChange: (value: number) => void, from = 0, to = 100) => (
  <LimitPlot
    name="C"
    lines={[
      {
        points: [
          [0, 0],
          [100, 60],
        ],
        colour: '#00a',
      },
    ]}
    from={from}
    to={to}
    top={70}
    value={value}
    proposed={90}
    step={1}
    unit="ink, %"
    side="C*"
    onChange={onChange}
  />
);

describe('the handle of a limit', () => {
  it.each([
    ['{ArrowLeft}', 84],
    ['{ArrowDown}', 84],
    ['{ArrowRight}', 86],
    ['{Shift>}{ArrowRight}{/Shift}', 95],
    ['{Shift>}{ArrowLeft}{/Shift}', 75],
  ])('is moved by %s', async (keys, wanted) => {
    const change = vi.fn();
    const { user } = show(plot(85, change));
    screen.getByRole('slider', { name: 'Limit of C' }).focus();
    await user.keyboard(keys);
    expect(change).toHaveBeenCalledWith(wanted);
  });

  it.each([
    [98, '{Shift>}{ArrowRight}{/Shift}', 0, 100, 100],
    [22, '{Shift>}{ArrowLeft}{/Shift}', 0, 100, 20],
    [205, '{Shift>}{ArrowLeft}{/Shift}', 200, 400, 200],
  ])('at %d stays within its range', async (value, keys, from, to, wanted) => {
    const change = vi.fn();
    const { user } = show(plot(value, change, from, to));
    screen.getByRole('slider').focus();
    await user.keyboard(keys);
    expect(change).toHaveBeenCalledWith(wanted);
  });

  it('tells where it stands, and leaves other keys alone', async () => {
    const change = vi.fn();
    const { user } = show(plot(85, change));
    const slider = screen.getByRole('slider');
    expect(slider.getAttribute('aria-valuenow')).toBe('85');
    expect(slider.getAttribute('aria-valuetext')).toBe('85 per cent');
    slider.focus();
    await user.keyboard('a{Enter}{Tab}');
    expect(change).not.toHaveBeenCalled();
  });

  it('follows the pointer while a button is down', () => {
    const change = vi.fn();
    const { container } = show(plot(85, change));
    const svg = container.querySelector('svg') as SVGSVGElement;
    svg.getBoundingClientRect = () => ({ left: 0, width: 306 }) as DOMRect;
    // The plot runs from 44 to 290 of 306.
    fireEvent(svg, new MouseEvent('pointermove', { bubbles: true, clientX: 167, buttons: 0 }));
    expect(change).not.toHaveBeenCalled();
    fireEvent(svg, new MouseEvent('pointermove', { bubbles: true, clientX: 167, buttons: 1 }));
    expect(change).toHaveBeenCalledWith(50);
  });

  it('shows what was proposed only where it is elsewhere', () => {
    const { container, rerender } = show(plot(85, () => {}));
    const proposed = (): number => container.querySelectorAll('path[stroke-dasharray="2 3"]').length;
    expect(proposed()).toBe(1);
    rerender(plot(90, () => {}));
    expect(proposed()).toBe(0);
  });
});

describe('making something of a reading', () => {
  const reading = (id: number, faults: string | null = null): ReadingOfCondition =>
    ({ id, code: `HRN-000${id}`, startedMs: 0, curvesResultId: null, faults }) as ReadingOfCondition;
  const form = (readings: readonly ReadingOfCondition[]) => (
    <FromReading
      readings={readings}
      act="Make the curves"
      calls={MAKE_CURVES}
      onMake={(readingId) => send(MAKE_CURVES, { params: { id: 4 }, body: { readingId, measure: 'sctv' } })}
      first
    />
  );

  it('is not offered without one', () => {
    const { container } = show(form([]));
    expect(container.querySelector('form')).toBeNull();
  });

  it.each([
    ['viewer', 0],
    ['operator', 0],
    ['specialist', 1],
    ['keeper', 1],
  ] as const)('is offered to a %s as the server would have it', (role, times) => {
    show(<OwnRole value={role}>{form([reading(3)])}</OwnRole>);
    expect(screen.queryAllByRole('button', { name: 'Make the curves' })).toHaveLength(times);
  });

  it('takes the newest, or the one that is chosen', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/curves': { id: 1 } });
    const { user } = show(form([reading(3), reading(2)]));
    await user.click(screen.getByRole('button', { name: 'Make the curves' }));
    await waitFor(() => expect(navigation.refreshed).toBe(1));
    await user.click(screen.getByRole('combobox', { name: 'Reading' }));
    await user.click(screen.getByRole('option', { name: /HRN-0002/ }));
    await user.click(screen.getByRole('button', { name: 'Make the curves' }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map(({ body }) => body)).toEqual([
      { readingId: 3, measure: 'sctv' },
      { readingId: 2, measure: 'sctv' },
    ]);
  });

  it('warns of what was found wrong with the sheet, but not of what was put right', () => {
    const found = [
      { kind: 'strip-backwards', confidence: 1 },
      { kind: 'colour-management-on', confidence: 0.9 },
    ];
    const { container } = show(form([reading(3, JSON.stringify(found))]));
    expect(container.querySelector('.notice.bad')?.textContent?.toLowerCase()).toContain('colour management');
    expect(container.querySelector('.notice.bad')?.textContent).not.toContain('backwards');
  });

  it('says why it was refused', async () => {
    fakeServer({
      'POST /api/conditions/4/curves': new Refused(400, { title: 'No ramps.', detail: 'Print some.' }),
    });
    const { user } = show(form([reading(3)]));
    await user.click(screen.getByRole('button', { name: 'Make the curves' }));
    expect(await screen.findByText('No ramps. Print some.')).toBeTruthy();
  });
});
