import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { PRINT_CHART } from '@/endpoints/charts';
import { send } from '@/ui/api';
import { PrintDialog } from './PrintDialog';

const POINTS = [
  { label: 'Colour management', value: 'off', tickAtPrint: true },
  { label: 'Media', value: 'gloss', tickAtPrint: true },
  { label: 'Driver', value: '', tickAtPrint: false },
];
const open = (
  answer: unknown = { printId: 1, code: 'HRN-0001', sheets: ['HRN-0001-1'], restUntilMs: 0 },
  conversions: readonly string[] = ['office'],
) => {
  const close = vi.fn();
  const server = fakeServer({ 'POST /api/charts/3/prints': answer });
  const shown = show(
    <PrintDialog
      title="Print ramps"
      onPrint={(chosen) => send(PRINT_CHART, { params: { id: 3 }, body: { curves: 'none', ...chosen } })}
      points={POINTS}
      conversions={conversions}
      frontEnd
      onClose={close}
    />,
  );
  return { ...shown, ...server, close };
};
const print = (): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name: 'Print' });

describe('printing', () => {
  it('waits until each point of the settings record is ticked, and sends the ticks', async () => {
    const { user, sent, close } = open();
    expect(print().disabled).toBe(true);
    expect(screen.getByText('2 points to tick')).toBeTruthy();
    await user.click(screen.getByRole('checkbox', { name: /Colour management/ }));
    expect(screen.getByText('1 point to tick')).toBeTruthy();
    await user.click(screen.getByRole('checkbox', { name: /Media/ }));
    await user.click(print());
    await waitFor(() => expect(close).toHaveBeenCalledOnce());
    expect(sent[0].body).toEqual({ curves: 'none', ticks: ['Colour management', 'Media'] });
    expect(navigation.refreshed).toBe(1);
    expect(await screen.findByText(/HRN-0001-1 on the rack/)).toBeTruthy();
  });

  it('shows what is not recorded as such, without a tick', () => {
    open();
    expect(screen.getByText('not recorded')).toBeTruthy();
    expect(screen.getAllByRole('checkbox')).toHaveLength(2);
  });

  it.each([
    ['wrong side of the paper', { side: 'wrong' }],
    ['colour management left on: office', { conversion: 'office' }],
    ['no curves loaded, whatever was asked for', { frontEnd: 'no curves' }],
  ])('with the mistake “%s” tells the simulated device', async (name, told) => {
    const { user, sent } = open();
    for (const box of screen.getAllByRole('checkbox')) await user.click(box);
    await user.click(screen.getByRole('combobox', { name: 'Simulated device' }));
    await user.click(screen.getByRole('option', { name }));
    await user.click(print());
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject(told);
  });

  it('stays open with the words of a refusal', async () => {
    const { user, close } = open(new Refused(409, { title: 'No chart.', detail: 'Make one.' }));
    for (const box of screen.getAllByRole('checkbox')) await user.click(box);
    await user.click(print());
    expect((await screen.findByRole('alert')).textContent).toBe('No chart. Make one.');
    expect(close).not.toHaveBeenCalled();
    expect(print().disabled).toBe(false);
  });

  it('of a device of the house’s own makes pages with codes, and simulates no mistake', async () => {
    const answer = { printId: 1, code: 'AVC-0001', sheets: ['AVC-0001-1', 'AVC-0001-2'], restUntilMs: 0 };
    const { user, sent, close } = open(answer, []);
    expect(screen.queryByRole('combobox', { name: 'Simulated device' })).toBeNull();
    for (const box of screen.getAllByRole('checkbox')) await user.click(box);
    await user.click(screen.getByRole('button', { name: 'Make the pages' }));
    expect(await screen.findByRole('heading', { name: 'Print AVC-0001' })).toBeTruthy();
    expect(sent[0].body).toEqual({ curves: 'none', ticks: ['Colour management', 'Media'] });
    expect(screen.getAllByRole('link', { name: 'PDF' }).map((link) => link.getAttribute('href'))).toEqual([
      '/api/sheets/AVC-0001-1/file?format=pdf',
      '/api/sheets/AVC-0001-2/file?format=pdf',
    ]);
    expect(close).not.toHaveBeenCalled();
    await user.click(screen.getByRole('button', { name: 'Done' }));
    expect(close).toHaveBeenCalledOnce();
  });
});
