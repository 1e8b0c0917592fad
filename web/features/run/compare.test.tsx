import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { shareOf } from '@melto/core/press/capability';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import type { ComparedRun, RunComparison } from '@melto/services/press/compareRuns';
import type { RunRow } from '@melto/services/press/runs';
import { fakeServer } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { AnalysisReport } from './AnalysisReport';
import { NewRunDialog } from './NewRunDialog';
import { CompareSurface } from './CompareSurface';
import { RunsSurface } from './RunsSurface';

const CODE = 'abcdefghijklmnopqrstuvwxyz012345';
const row = (id: number): RunRow => ({
  ...{ id, conditionId: 3, condition: 'Osprey', jobNumber: `26-0${id}`, title: 'Tide tables', customer: '' },
  ...{ side: '', quantity: 0, repeatMm: null, aimSetId: 1, aims: 'aims', phase: 'finished', edition: 1 },
  ...{ productionFrom: null, okImpression: null, fromRunId: null, author: 'Jo', madeMs: 0 },
  ...{ sheets: 9, lastImpression: 900, judged: 90, outside: 3 },
});
const compared = (id: number, within: number, spot = false): ComparedRun => {
  const line = {
    ...{ key: 'solid C', words: 'C solid', quantity: 'ΔE' as const, zones: [], mean: 1.5, at95: 3 },
    ...{ largest: 4, limit: 3.5, capability: undefined, share: shareOf(within, 400) },
  };
  return {
    ...{ run: row(id), sheets: 9, values: 400, sheetShare: shareOf(8, 9), patchShare: shareOf(within, 400) },
    rows: {
      'solid C': line,
      ...(spot ? { 'solid Tar': { ...line, key: 'solid Tar', words: 'Tar solid' } } : {}),
    },
  };
};

describe('runs beside each other', () => {
  const comparison: RunComparison = {
    runs: [compared(1, 396), compared(2, 392), compared(3, 340, true)],
    keys: [
      { key: 'solid C', words: 'C solid', quantity: 'ΔE' },
      { key: 'solid Tar', words: 'Tar solid', quantity: 'ΔE' },
    ],
    unlike: ['They are printed to different aims.'],
  };

  it('mark what is less than the best by more than chance, and only that', () => {
    show(<CompareSurface comparison={comparison} phase={undefined} />);
    const cells = within(screen.getByRole('row', { name: /C solid/ })).getAllByTitle(/95 % certainty/);
    expect(cells.map(({ textContent }) => textContent)).toEqual(['99.0', '98.0', '85.0']);
    expect(cells.map(({ title }) => title.includes('less than the best'))).toEqual([false, false, true]);
    expect(screen.getByText('They are printed to different aims.')).toBeTruthy();
  });

  it('leave out an ink that a run did not print', () => {
    show(<CompareSurface comparison={comparison} phase={undefined} />);
    const cells = within(screen.getByRole('row', { name: /Tar solid/ })).getAllByRole('cell');
    expect(cells.map(({ textContent }) => textContent)).toEqual(['–', '–', '85.0', '1.50']);
  });

  it('are chosen in the list, two at least and eight at most', async () => {
    const rows = Array.from({ length: 9 }, (_, i) => row(i + 1));
    const { user } = show(
      <RunsSurface page={{ rows, next: null }} find="" from={undefined} presses={[]} aims={[]} lists={[]} />,
    );
    const boxes = screen.getAllByRole<HTMLInputElement>('checkbox');
    await user.click(boxes[1]);
    expect(screen.getByRole('link', { name: 'Compare 1' }).getAttribute('aria-disabled')).toBe('true');
    await user.click(boxes[0]);
    expect(screen.getByRole('link', { name: 'Compare 2' }).getAttribute('href')).toBe(
      '/runs/compare?runs=2,1',
    );
    for (const box of boxes.slice(2, 8)) await user.click(box);
    expect(boxes.map(({ disabled }) => disabled)).toEqual([...Array.from({ length: 8 }, () => false), true]);
    await user.click(boxes[1]);
    expect(boxes[8].disabled).toBe(false);
  });
});

describe('a new run', () => {
  const press = { conditionId: 3, name: 'Osprey', zones: 12 };
  const aims = [{ id: 1, name: 'aims' }] as unknown as readonly AimSetView[];

  it('takes the bar that is on the sheet, once its words make one', async () => {
    const { sent } = fakeServer({ 'POST /api/runs': { id: 9 } });
    const { user } = show(
      <NewRunDialog presses={[press]} aims={aims} lists={[]} from={undefined} onClose={() => {}} />,
    );
    await user.type(screen.getByLabelText('Job number'), '26-1');
    await user.type(screen.getByLabelText('Title'), 'Tide tables');
    const begin = screen.getByRole<HTMLButtonElement>('button', { name: 'Begin' });
    expect(begin.disabled).toBe(false);
    await user.click(screen.getByRole('combobox', { name: 'Colour bar' }));
    await user.click(await screen.findByRole('option', { name: 'already there' }));
    expect(screen.queryByLabelText('Ink zones')).toBeNull();
    const words = screen.getByLabelText('Patches of the bar');
    await user.type(words, '8 x K, C, M, Q');
    expect(screen.getByRole('alert').textContent).toContain('“Q”');
    expect(begin.disabled).toBe(true);
    await user.type(words, '{Backspace}Y, paper');
    expect(screen.getByText(/has 40 patches over 256 mm; it is found on the sheet/)).toBeTruthy();
    await user.click(begin);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({ bar: '8 x K, C, M, Y, paper', zones: 8, zoneMm: 32, patchMm: 5 });
  });
});

describe('the report of an analysis', () => {
  it('is public as it is looked at, and no more after that', async () => {
    let code: string | null = null;
    const { sent } = fakeServer({
      'GET /api/runs/7/link': () => ({ code }),
      'PUT /api/runs/7/link': ({ body }: Sent) => {
        const { shared } = body as { readonly shared: boolean };
        code = shared ? CODE : null;
        return shared ? { code: CODE } : {};
      },
    });
    const { user } = show(<AnalysisReport runId={7} asked={{ scope: 'shift', at: 1000 }} />);
    const open = () => user.click(screen.getByRole('button', { name: 'Report' }));
    await open();
    expect(screen.getByRole('menuitem', { name: 'Report as PDF' }).getAttribute('href')).toBe(
      '/api/runs/7/report?scope=shift&at=1000&format=pdf',
    );
    await user.click(await screen.findByRole('menuitem', { name: 'Make a public link' }));
    expect(await screen.findByText(`Copied: ${location.origin}/shared/${CODE}`)).toBeTruthy();
    await open();
    await user.click(await screen.findByRole('menuitem', { name: 'End the public link' }));
    expect(await screen.findByText('The link shows nothing any more.')).toBeTruthy();
    expect(sent.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([
      { shared: true, scope: 'shift', at: 1000 },
      { shared: false, scope: 'shift', at: 1000 },
    ]);
  });
});
