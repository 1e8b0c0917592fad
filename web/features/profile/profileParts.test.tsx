import { CMYK, RGB } from '@melto/core/device/process';
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { UncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import type { FitReport } from '@melto/core/characterise/fitReport';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import { ChartMaker } from '@/features/charts/ChartMaker';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { newestFirstReading } from './AddedReadings';
import { BuildForm } from './BuildForm';
import type { ProfileDetail, ProfileSummary } from '@melto/services/ledger/kinds/profileKind';
import { PlainWords } from './PlainWords';
import { InstallNotes } from './InstallNotes';
import { RefineDialog } from './RefineDialog';
import { SurenessMap } from './SurenessMap';
import { WorstPatches } from './WorstPatches';

const WREN = { id: 1, process: RGB, device: 'Wren', stock: 'Quay Proof 200', mode: 'fine' } as ConditionRow;
const button = (name: string): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name });

describe('building a profile', () => {
  const readings = [
    { id: 7, code: 'WRN-0002', title: 'RGB 900', mode: 'M1', startedMs: 0, faults: null },
    {
      id: 6,
      code: 'WRN-0001',
      title: 'RGB 400',
      mode: 'M1',
      startedMs: 0,
      faults: '[{"kind":"wrong-side"}]',
    },
  ] as unknown as ReadingOfCondition[];

  it('sends the newest reading with version, tables and name, and shows the name filled in', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/1/profiles': { jobId: 1 } });
    const close = vi.fn();
    const { user } = show(<BuildForm condition={WREN} readings={readings} base={readings} onClose={close} />);
    expect(screen.getByText(/Filled in, for example: .*Wren.*Quay.*\.icc/)).toBeTruthy();
    await user.click(screen.getByRole('combobox', { name: 'ICC version' }));
    await user.click(screen.getByRole('option', { name: '2' }));
    expect(screen.getByText('For older software.')).toBeTruthy();
    await user.click(screen.getByRole('combobox', { name: 'Tables' }));
    await user.click(screen.getByRole('option', { name: 'large' }));
    await user.click(button('Build'));
    await waitFor(() => expect(close).toHaveBeenCalled());
    expect(sent[0].body).toMatchObject({ readingId: 7, version: 2, tableSize: 'large' });
  });

  it('warns where the reading that is chosen shows a fault', async () => {
    const { user } = show(
      <BuildForm condition={WREN} readings={readings} base={readings} onClose={() => {}} />,
    );
    expect(screen.queryByText(/shows a fault/)).toBeNull();
    await user.click(screen.getByRole('combobox', { name: 'Reading' }));
    await user.click(screen.getByRole('option', { name: /WRN-0001/ }));
    expect(screen.getByText(/This reading shows a fault \(wrong side\)/)).toBeTruthy();
  });

  it('takes the reading of a second chart along, and leaves it out where it is told to', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/1/profiles': { jobId: 1 } });
    const second = { ...readings[1], id: 9, code: 'WRN-0003', kind: 'second' as const };
    const other = { ...second, id: 10, code: 'WRN-0004', mode: 'M2' as const };
    const all = [second, other, ...readings];
    // The newest is that of the second chart: it is large enough, but adds to the one before it.
    const { user } = show(<BuildForm condition={WREN} readings={all} base={all} onClose={() => {}} />);
    expect(screen.queryByRole('checkbox', { name: /WRN-0004/ })).toBeNull();
    await user.click(button('Build'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({ readingId: 7, addedReadingIds: [9] });
    await user.click(screen.getByRole('checkbox', { name: /WRN-0003/ }));
    await user.click(button('Build'));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1].body).not.toHaveProperty('addedReadingIds');
  });

  it('wants a name', async () => {
    const { user } = show(
      <BuildForm condition={WREN} readings={readings} base={readings} onClose={() => {}} />,
    );
    await user.clear(screen.getByLabelText('Name'));
    expect(button('Build').disabled).toBe(true);
  });
});

describe('making a profiling chart', () => {
  const maker = (press: Parameters<typeof ChartMaker>[0]['press']) => (
    <ChartMaker
      conditionId={4}
      charts={[]}
      points={[]}
      conversions={[]}
      nowMs={0}
      process={press === null ? RGB : CMYK}
      press={press}
    />
  );

  it.each([
    ['99', 'inkjet', false],
    ['100', 'inkjet', true],
    ['3000', 'inkjet', true],
    ['3001', 'inkjet', false],
    ['900.5', 'inkjet', false],
    ['199', 'press', false],
    ['200', 'press', true],
  ])('of %s patches on a %s: %s', async (count, kind, right) => {
    const press = { curves: { id: 7, words: 'Balance v1' }, totalInk: 3 };
    const { user } = show(maker(kind === 'press' ? press : null));
    await user.clear(screen.getByLabelText('Patches'));
    await user.type(screen.getByLabelText('Patches'), count);
    expect(button('Make the chart').disabled).toBe(!right);
  });

  it('is asked for once, and says why it was refused', async () => {
    const { sent } = fakeServer({
      'POST /api/conditions/4/charts': new Refused(409, { title: 'No curves.', detail: 'Make some.' }),
    });
    const { user } = show(maker(null));
    await user.click(button('Make the chart'));
    expect(await screen.findByText('No curves. Make some.')).toBeTruthy();
    expect(sent[0].body).toEqual({ patches: 900, paper: 'a4', reader: 'strip', patchSize: 'usual' });
    expect(navigation.refreshed).toBe(0);
  });
});

describe('a refinement', () => {
  const dialog = (hasProfile: boolean) => (
    <RefineDialog
      condition={{ ...WREN, id: 4 }}
      readingIds={[9, 8]}
      hasProfile={hasProfile}
      onClose={() => {}}
    />
  );

  it('counts what is printed: what is unsure, and each colour as often as it is read', async () => {
    fakeServer({
      'POST /api/colour-lists/preview': {
        colours: [
          { name: 'Seed red', lab: [52, 48, 26] },
          { name: 'Tide blue', lab: [42, 0, -30] },
        ],
      },
    });
    const { user, container } = show(dialog(true));
    const patches = (): number =>
      Number(/(\d+) patches with papers/.exec(document.body.textContent ?? '')?.[1]);
    const before = patches();
    await user.upload(screen.getByLabelText('colour list file'), new File(['x'], 'list.csv'));
    await screen.findByText('2 colours');
    expect(patches()).toBe(before + 2 * 4);
    await user.click(screen.getByRole('combobox', { name: 'Readings of each colour' }));
    await user.click(screen.getByRole('option', { name: '6' }));
    expect(patches()).toBe(before + 2 * 6);
    await user.click(button('Take out'));
    expect(patches()).toBe(before);
    expect(container).toBeTruthy();
  });

  it('of nothing is not made, nor of a number that there is not', async () => {
    const { user } = show(dialog(true));
    const unsure = screen.getByLabelText('Patches where the model is least sure');
    for (const [text, right] of [
      ['0', false],
      ['801', false],
      ['1.5', false],
      ['800', true],
    ] as const) {
      await user.clear(unsure);
      await user.type(unsure, text);
      expect(button('Make the chart').disabled).toBe(!right);
    }
  });

  it('before there is a profile takes no colours', () => {
    show(dialog(false));
    expect(screen.getByRole('dialog', { name: 'A second chart' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Colour list' })).toBeNull();
  });
});

describe('the report of a profile', () => {
  const report = (outliers: number): FitReport =>
    ({
      outliers: Array.from({ length: outliers }, (_, i) => i),
      worst: Array.from({ length: 9 }, (_, row) => ({
        ...{ row, measured: [50, 0, 0], predicted: [51, 0, 0], deltaE: 1 + row },
        device: row === 0 ? [0, 0.5, 1] : [0, 0.5, 1, 0],
      })),
    }) as unknown as FitReport;

  it('shows the six worst patches, RGB of 255 and inks in per cent', () => {
    show(<WorstPatches report={report(0)} />);
    expect(screen.getAllByRole('img')).toHaveLength(6);
    expect(screen.getByText('0 128 255')).toBeTruthy();
    expect(screen.getAllByText('0 50 100 0')).toHaveLength(5);
    expect(screen.getByText('none is over five medians')).toBeTruthy();
  });

  it.each([
    [[0, 0.5, 1], '0 128 255', 'R G B'],
    [[0, 0.5, 1, 0], '0 50 100 0', 'inks, %'],
  ] as const)('tells which colours a light moves most: %j', (device, words, head) => {
    const moved = [{ device, a: [40, 20, -50], b: [41, 25, -52], deltaE: 3.456 }];
    const detail = {
      choices: {},
      report: report(0),
      compared: {
        ...{ version: 1, before: { black: [9, 0, 0] }, after: { black: [9, 0, 0] }, moved },
        difference: { mean: 1.2, largest: 3.456 },
      },
    } as unknown as ProfileDetail;
    show(
      <PlainWords
        summary={{ mean: 0.4, p95: 0.8, light: 'North hall, 2°' } as ProfileSummary}
        detail={detail}
      />,
    );
    const row = within(screen.getByRole('row', { name: /blue/ }));
    expect(row.getAllByRole('cell').map((cell) => cell.textContent)).toEqual([
      ...['blue', '', words, '40.0 20.0 -50.0', '41.0 25.0 -52.0', '3.46'],
    ]);
    expect(screen.getByRole('columnheader', { name: head })).toBeTruthy();
    expect(screen.getByRole('columnheader', { name: 'in North hall, 2°' })).toBeTruthy();
  });

  it('leads to patches that are worth another reading', () => {
    const suspicious = Array.from({ length: 5 }, (_, i) => ({ readingId: 9, code: 'HRN-0001', row: 10 + i }));
    show(<WorstPatches report={report(5)} suspicious={suspicious} />);
    const links = screen.getAllByRole('link').map((link) => link.getAttribute('href'));
    expect(links).toEqual([10, 11, 12].map((row) => `/readings/9?patch=${row}`));
    expect(screen.getByText(/5 over five medians/)).toBeTruthy();
  });

  it('maps how sure the model is, darkest first, and what was not printed', () => {
    const map: UncertaintyMap = {
      ...{ lightness: [0, 50], columns: ['grey', '0'], mean: 0.3 },
      deltaE: [0.9, null, 0.1, 0.3],
    } as unknown as UncertaintyMap;
    show(<SurenessMap map={map} />);
    const [, light, dark] = screen.getAllByRole('row');
    expect(within(light).getByRole('rowheader').textContent).toBe('50–100');
    expect(within(light).getByText('0.10').style.background).toBe('rgb(219, 219, 219)');
    expect(within(dark).getByText('0.90').style.background).toBe('rgb(40, 40, 40)');
    expect(within(dark).getByText('0.90').style.color).toBe('rgb(255, 255, 255)');
    expect(within(dark).getByLabelText('not printed')).toBeTruthy();
  });

  it('tells where each system keeps the file', () => {
    show(<InstallNotes resultId={5} name="Wren Quay" onClose={() => {}} />);
    expect(screen.getByRole('dialog', { name: 'Wren Quay.icc' })).toBeTruthy();
    for (const system of ['Windows', 'macOS', 'Linux']) expect(screen.getByText(system)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Download the profile' }).getAttribute('href')).toBe(
      '/api/results/5/file?role=profile',
    );
    expect(screen.getByRole('link', { name: 'Download its settings' }).getAttribute('href')).toBe(
      '/api/results/5/settings',
    );
    expect(screen.getByRole('link', { name: 'All of it as a package' }).getAttribute('href')).toBe(
      '/api/results/5/package',
    );
  });
});

describe('the reading that a profile is built from', () => {
  const row = (id: number, mode: string, printId: number, kind: string | null = 'first') =>
    ({ id, mode, printId, kind }) as ReadingOfCondition;
  it.each([
    ['the newest', [row(3, 'M1', 2), row(2, 'M1', 1)], 3],
    ['none that adds to another', [row(3, 'M1', 2, 'refinement'), row(2, 'M1', 1)], 2],
    ['with ultraviolet where its sheet was read both ways', [row(3, 'M2', 1), row(2, 'M1', 1)], 2],
    ['without where it was read so alone', [row(3, 'M2', 2), row(2, 'M1', 1)], 3],
  ] as const)('is %s', (_, rows, id) => {
    expect(newestFirstReading(rows)?.id).toBe(id);
  });
});
