import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { ChartState } from '@melto/services/charts/chartStates';
import { show } from '@/testing/show';
import { ChartTable } from './ChartTable';

const chart = (id: number, change: Partial<ChartState>): ChartState => ({
  ...{ id, conditionId: 4, purpose: 'ramps', kind: null, processName: 'CMYK', title: `Ramps ${id}` },
  ...{ patches: 84, paper: 'a4', seed: 1, reader: 'strip', patchSize: 'usual', copies: 1, madeMs: 0 },
  ...{ prints: 1, strips: 20, stripsRead: 0, waiting: null, state: 'made' },
  ...change,
});

it('says where each chart stands, leads to the sheet that waits, and prints any of them again', async () => {
  const printed: number[] = [];
  const { user } = show(
    <ChartTable
      charts={[
        chart(9, { prints: 0, strips: 0 }),
        chart(8, { state: 'waits', stripsRead: 7, waiting: 'HRN-0008-1' }),
        chart(7, { state: 'read', stripsRead: 20 }),
        chart(6, { state: 'thrown away' }),
      ]}
      nowMs={0}
      pixels={['tiff']}
      onPrint={({ id }) => printed.push(id)}
    />,
  );
  const row = (title: string): HTMLElement => screen.getByText(title).closest('tr') as HTMLElement;
  expect(within(row('Ramps 9')).getByText('made, not printed yet')).toBeTruthy();
  expect(row('Ramps 8').textContent).toContain('on the rack, 7 of 20 strips read: read HRN-0008-1');
  expect(within(row('Ramps 8')).getByRole('link', { name: /HRN/ }).getAttribute('href')).toBe(
    '/read/HRN-0008-1',
  );
  expect(within(row('Ramps 7')).getByText('read')).toBeTruthy();
  expect(within(row('Ramps 6')).getByText('thrown away')).toBeTruthy();
  // A chart that was taken as PDF only has its files and its print.
  expect(within(row('Ramps 9')).getByRole('link', { name: 'PDF' }).getAttribute('href')).toContain(
    '/api/charts/9/file?format=pdf',
  );
  await user.click(screen.getByRole('button', { name: 'Print Ramps 7' }));
  expect(printed).toEqual([7]);
});
