import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { deltaEAb } from '@melto/core/colour/deltaEAb';
import { checkDetail } from '@/testing/checkDetail';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { AimCheckView } from './AimCheckView';
import { CheckSheet } from './CheckSheet';
import { DistributionPlot } from './DistributionPlot';
import { GroupTable } from './GroupTable';
import { PaperShift } from './PaperShift';

const detail = checkDetail();
const magenta = detail.patches.findIndex(({ name }) => name === 'M 100');
const spot = detail.patches.findIndex(({ name }) => name === 'Seed red');

describe('a check against aims', () => {
  it('has been made so that two metrics fail: the solid of magenta and a spot colour', () => {
    const failing = detail.metrics.filter(({ verdict }) => verdict === 'does-not-conform');
    expect(failing.map(({ group, worst }) => [group, worst])).toEqual([
      ['solids', magenta],
      ['spot colours', spot],
    ]);
  });

  it('shows each metric with value, limit and margin, and what decides in words', () => {
    show(<AimCheckView resultId={1} detail={detail} />);
    const line = detail.metrics.find(({ group }) => group === 'solids');
    const row = screen.getByRole('button', { name: 'solids' }).closest('tr') as HTMLElement;
    expect(within(row).getByRole('img', { name: 'does not conform' })).toBeTruthy();
    expect(within(row).getByText((line?.value ?? 0).toFixed(2))).toBeTruthy();
    expect(within(row).getByText(`−${Math.abs(line?.margin ?? 0).toFixed(2)}`)).toBeTruthy();
    expect(screen.getByText('One patch decides solids, largest ΔE00: M 100.')).toBeTruthy();
    expect(screen.getByText('One patch decides spot colours, largest ΔE00: Seed red.')).toBeTruthy();
  });

  it('opens the worst patch of a metric, a spot colour without inks', async () => {
    const { user } = show(<AimCheckView resultId={1} detail={detail} />);
    await user.click(screen.getByRole('button', { name: 'spot colours' }));
    expect(screen.getByText('spot colour, by its own aim')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'solids' }));
    expect(screen.getByText('C M Y K 0 100 0 0')).toBeTruthy();
  });

  it('says first what takes the edge off the verdict', () => {
    const told = checkDetail({
      header: { ...detail.header, early: true },
      otherwise: ['read in M1, the aims are for M0'],
      withoutAim: 2,
    });
    const { container } = show(<AimCheckView resultId={1} detail={told} />);
    const notice = container.querySelector('.notice')?.textContent ?? '';
    for (const words of ['before its rest was over', 'read in M1', '2 patches have no aim'])
      expect(notice).toContain(words);
  });

  it('keeps a metric without patches apart from one that is nought', () => {
    const [first, ...others] = detail.metrics;
    const empty = {
      ...first,
      value: null,
      margin: null,
      worst: null,
      verdict: 'not-judged',
      count: 0,
    } as const;
    show(
      <AimCheckView
        resultId={1}
        detail={checkDetail({ metrics: [empty, ...others], decides: { ...detail.decides, deciding: [] } })}
      />,
    );
    const row = screen.getByText('no patches').closest('tr') as HTMLElement;
    expect(within(row).getByRole<HTMLButtonElement>('button').disabled).toBe(true);
    expect(within(row).getByText('–')).toBeTruthy();
  });
});

describe('patches seen otherwise', () => {
  it('are compared by the formula that is chosen, the verdict untouched', async () => {
    const { user } = show(<AimCheckView resultId={1} detail={detail} />);
    const { aim, measured } = detail.patches[magenta];
    await user.click(screen.getByRole('button', { name: 'solids' }));
    expect(screen.getAllByText(deltaE2000(aim, measured).toFixed(2)).length).toBeGreaterThan(0);
    await user.click(screen.getByRole('combobox', { name: 'Difference' }));
    await user.click(screen.getByRole('option', { name: 'ΔE*ab' }));
    expect((await screen.findAllByText('ΔE*ab')).length).toBeGreaterThan(1);
    expect(deltaEAb(aim, measured)).not.toBeCloseTo(deltaE2000(aim, measured), 1);
  });

  it('under another light are asked for, and a refusal is said', async () => {
    const { sent } = fakeServer({
      'GET /api/results/1/seen': new Refused(400, { title: 'No spectra.', detail: 'Take others.' }),
    });
    const { user } = show(<AimCheckView resultId={1} detail={detail} />);
    await user.click(screen.getByRole('combobox', { name: 'Seen in' }));
    await user.click(await screen.findByRole('option', { name: 'F11, 2°' }));
    expect(await screen.findByText('No spectra. Take others.')).toBeTruthy();
    expect(sent[0].path).toBe('/api/results/1/seen?light=F11&observer=2deg');
  });
});

describe('the sheet of a check', () => {
  const marks = (container: HTMLElement): string[] =>
    [...container.querySelectorAll('button')]
      .filter((button) => button.querySelector('svg') !== null)
      .map((button) => button.title.split(':')[0]);

  it('marks the patches that decide, and picks one', () => {
    const pick = vi.fn();
    const { container } = show(<CheckSheet detail={detail} onPick={pick} />);
    expect(marks(container).sort()).toEqual(['M 100', 'Seed red']);
    fireEvent.click(screen.getByRole('button', { name: /^Seed red,/ }));
    expect(pick).toHaveBeenCalledWith(spot);
  });

  it('marks only the worst of each metric where nearly all decide', () => {
    const all = detail.patches.map((_, i) => i);
    const many = checkDetail({ decides: { ...detail.decides, deciding: [{ metric: 0, rows: all }] } });
    const { container } = show(<CheckSheet detail={many} onPick={() => {}} />);
    expect(marks(container)).toHaveLength(2);
    expect(screen.getByText(/the worst of each failing metric is marked/)).toBeTruthy();
  });

  it('shows a patch without an aim as such', () => {
    const { container } = show(<CheckSheet detail={checkDetail({ sheet: [[[0, -1]]] })} onPick={() => {}} />);
    expect(container.querySelectorAll('.no-aim')).toHaveLength(1);
  });
});

describe('figures of a check', () => {
  it('count spot colours by themselves', () => {
    show(<DistributionPlot detail={detail} />);
    expect(screen.getByText(`ΔE00 of ${detail.patches.length - 1} patches`)).toBeTruthy();
    show(<GroupTable detail={detail} />);
    const row = screen.getByRole('cell', { name: 'spot colours' }).closest('tr') as HTMLElement;
    expect(within(row).getByRole('cell', { name: '1' })).toBeTruthy();
  });

  it('tell how far the white of corrected aims was moved', () => {
    show(<PaperShift detail={detail} white={{ aim: [95, 0, -2], read: [95, 0, 1] }} />);
    const shift = deltaE2000([95, 0, -2], [95, 0, 1]);
    expect(shift).toBeGreaterThan(2);
    expect(screen.getByText(shift.toFixed(2))).toBeTruthy();
    expect(screen.getByRole('img', { name: 'outline of the aims' })).toBeTruthy();
    expect(screen.getByText('0.0 % of its area')).toBeTruthy();
  });

  it('can be seen as a table, from the worst', async () => {
    const { user } = show(<DistributionPlot detail={detail} />);
    await user.click(screen.getByRole('button', { name: 'table' }));
    await waitFor(() => expect(screen.getByRole('table')).toBeTruthy());
    const [, first] = screen.getAllByRole('row');
    expect(first.textContent).toContain('M 100');
  });
});
