import { CMYK, RGB } from '@melto/core/device/process';
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { fakeServer, Refused } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { aimSet, toleranceSet } from '@/testing/librarySets';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { firstChoice } from './CheckChoiceFields';
import type { ConformitySurfaceProps } from './ConformitySurface';
import { JudgeDialog } from './JudgeDialog';
import { ShortCheckDialog } from './ShortCheckDialog';
import { SpotsOverTimePanel } from './SpotsOverTimePanel';
import { WedgeDialog } from './WedgeDialog';

const OWN = aimSet({ id: 9, family: 'own-1', name: 'Saltmarsh gloss' });
const props = (change: Partial<ConformitySurfaceProps> = {}): ConformitySurfaceProps => ({
  condition: { id: 4, process: CMYK, device: 'Heron' } as ConditionRow,
  points: [{ label: 'Colour management', value: 'off', tickAtPrint: true }],
  conversions: ['office'],
  versions: [],
  shown: undefined,
  result: undefined,
  ...{ sharedCode: null, spots: undefined },
  profileResultId: 5,
  curves: { id: 12, words: 'Curves v2' },
  aims: [OWN, aimSet()],
  tolerances: [
    toleranceSet({ id: 6, set: { ...toleranceSet().set, id: 'own-x', name: 'Ours' } }),
    toleranceSet(),
    toleranceSet({ id: 8, set: { ...toleranceSet().set, id: 'iso12647-2-production', name: 'Production' } }),
  ],
  readings: [
    { id: 20, code: 'HRN-0004', title: 'Proof wedge', finishedMs: 0 },
    { id: 21, code: 'HRN-0005', title: 'Proof wedge', finishedMs: 1 },
  ] as unknown as ConformitySurfaceProps['readings'],
  waiting: [],
  waitingJobs: [],
  jobCheck: undefined,
  wedges: [],
  nowMs: 0,
  ...change,
});
const button = (name: string): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name });
const pick = async (user: ReturnType<typeof show>['user'], label: string, option: RegExp): Promise<void> => {
  await user.click(screen.getByRole('combobox', { name: label }));
  await user.click(within(screen.getByRole('listbox')).getByRole('option', { name: option }));
};

describe('spot colours over time', () => {
  it('stand with what they were from check to check, and how far they have moved', () => {
    const colour = { name: 'Seed red', aim: [52, 48, 26], measured: [50, 47, 27] } as const;
    const spots = { madeMs: [0, 604_800_000], colours: [{ ...colour, deltaE: [0.82, 2.11], moved: 1.94 }] };
    const { container } = show(<SpotsOverTimePanel spots={spots} />);
    expect(screen.getByRole('img', { name: 'ΔE00 of Seed red: 0.8, 2.1' })).toBeTruthy();
    expect(screen.getByRole('row', { name: /Seed red.*2\.1.*1\.9/ })).toBeTruthy();
    expect(screen.getByText(/^2 checks from /)).toBeTruthy();
    // The largest of all is as high as the line may be; time goes to the right.
    expect(container.querySelector('polyline')?.getAttribute('points')).toMatch(/^0,13\.\d+ 120,0$/);
  });
});

describe('the first choice of a check', () => {
  const { aims, tolerances } = props();
  it('is the first aims by the tolerances of a proof, or of production where a press prints them as they are', () => {
    const common = { aimSetId: 9, substrateCorrected: false };
    expect(firstChoice(aims, tolerances, undefined, true)).toEqual({ ...common, toleranceSetId: 7 });
    expect(firstChoice(aims, tolerances, undefined, false)).toEqual({ ...common, toleranceSetId: 8 });
  });

  it('is that of the last check, as far as its sets are still there', () => {
    const last = { aimSetId: 3, toleranceSetId: 6, substrateCorrected: true };
    expect(firstChoice(aims, tolerances, last, true)).toEqual(last);
    expect(firstChoice(aims, tolerances, { ...last, aimSetId: 99, toleranceSetId: 98 }, true)).toEqual({
      aimSetId: 9,
      toleranceSetId: 7,
      substrateCorrected: true,
    });
    expect(firstChoice([], [], undefined, true)).toMatchObject({ aimSetId: 0, toleranceSetId: 0 });
  });
});

describe('a new check', () => {
  const PRINTED = { printId: 1, code: 'HRN-0009', sheets: ['HRN-0009-1'], restUntilMs: 0 };
  const printOn = async (user: ReturnType<typeof show>['user']): Promise<void> => {
    await user.click(button('Go on to print'));
    await user.click(screen.getByRole('checkbox', { name: /Colour management/ }));
    await user.click(button('Print'));
  };

  it('is printed with what was chosen before reading', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/wedges': PRINTED });
    const close = vi.fn();
    const { user } = show(<WedgeDialog {...props({ profileResultId: undefined })} onClose={close} />);
    await pick(user, 'Aims', /FOGRA39L/);
    await user.click(screen.getByRole('checkbox', { name: /Correct the aims/ }));
    await user.click(button('Go on to print'));
    expect(screen.getByText('CMYK values as they are, through Curves v2.')).toBeTruthy();
    await user.click(screen.getByRole('checkbox', { name: /Colour management/ }));
    await user.click(button('Print'));
    await waitFor(() => expect(close).toHaveBeenCalled());
    expect(sent[0].body).toEqual({
      kind: 'proof',
      paper: 'a4',
      patchSize: 'usual',
      reader: 'strip',
      ticks: ['Colour management'],
      judgedBy: { aimSetId: 3, toleranceSetId: 8, substrateCorrected: true, through: 'device values' },
      // What the dialog told: another version in force by then is refused.
      told: { curves: 12 },
    });
  });

  it('takes spot colours through the profile only', async () => {
    const { sent } = fakeServer({
      'POST /api/conditions/4/wedges': PRINTED,
      'GET /api/conditions/4/predicted-conformity': ({ path }: Sent) => ({
        ...{ verdict: 'conforms', chance: path.includes('device') ? 0.4 : 0.97, meanBetween: [0.8, 1.3] },
        closest: { words: 'greys, mean ΔCh', value: 1.6, limit: 2 },
      }),
      'POST /api/colour-lists/preview': { colours: [{ name: 'Seed red', lab: [52, 48, 26] }] },
    });
    const { user } = show(<WedgeDialog {...props()} onClose={() => {}} />);
    // Through the profile where one is in force, without being asked for.
    expect(screen.getByRole('button', { name: 'Spot colours' })).toBeTruthy();
    // What is to be expected is told before anything is printed.
    expect(
      await screen.findByText(
        /conforms, 97 of 100 such prints would; mean ΔE00 0\.8 to 1\.3; nearest its limit: greys, mean ΔCh 1\.6 of 2/,
      ),
    ).toBeTruthy();
    await pick(user, 'Way to the device', /device values/);
    expect(screen.queryByRole('button', { name: 'Spot colours' })).toBeNull();
    expect(await screen.findByText(/40 of 100 such prints/)).toBeTruthy();
    await pick(user, 'Way to the device', /absolute/);
    await user.upload(
      screen.getByLabelText('spot colours file'),
      new File(['name,L,a,b\nSeed red,52,48,26\n'], 'house.csv'),
    );
    expect(await screen.findByText('1 colour')).toBeTruthy();
    expect(screen.getByText('Seed red')).toBeTruthy();
    await printOn(user);
    const posted = (): Sent[] => sent.filter(({ method }) => method === 'POST');
    await waitFor(() => expect(posted()).toHaveLength(2));
    expect(posted()[1].body).toMatchObject({
      spots: [{ name: 'Seed red', lab: [52, 48, 26] }],
      judgedBy: { through: 'profile, absolute' },
    });
  });

  it('of a list alone is printed with its paper, and is due again after the days that are said', async () => {
    const { sent } = fakeServer({
      'POST /api/conditions/4/wedges': PRINTED,
      'GET /api/conditions/4/predicted-conformity': null,
      'POST /api/colour-lists/preview': { colours: [{ name: 'Seed red', lab: [52, 48, 26] }] },
    });
    const { user } = show(<WedgeDialog {...props()} onClose={() => {}} />);
    await pick(user, 'Wedge', /the spot colours alone/);
    // Without a list there is nothing to print.
    expect(button('Go on to print').disabled).toBe(true);
    await user.upload(screen.getByLabelText('spot colours file'), new File(['x'], 'house.csv'));
    expect(await screen.findByText('1 colour')).toBeTruthy();
    const days = screen.getByRole('spinbutton', { name: 'Check again after, days' });
    for (const [wrong, right] of [
      ['31', '30'],
      ['0', '1'],
      ['1.5', '7'],
    ]) {
      await user.clear(days);
      await user.type(days, wrong);
      expect(screen.getByText('1 to 30 whole days, or empty.')).toBeTruthy();
      expect(button('Go on to print').disabled).toBe(true);
      await user.clear(days);
      await user.type(days, right);
      expect(button('Go on to print').disabled).toBe(false);
    }
    await printOn(user);
    const posted = (): Sent[] => sent.filter(({ path }) => path.endsWith('/wedges'));
    await waitFor(() => expect(posted()).toHaveLength(1));
    expect(posted()[0].body).toMatchObject({
      kind: 'own',
      patches: [{ name: 'paper', device: [0, 0, 0, 0] }],
      spots: [{ name: 'Seed red', lab: [52, 48, 26] }],
      judgedBy: { everyDays: 7 },
    });
  });

  it('says what is wrong with a list and how many are too many', async () => {
    const colours = Array.from({ length: 61 }, (_, i) => ({ name: `c${i}`, lab: [50, 0, 0] }));
    let answer: unknown = new Refused(400, { title: 'Line 2: found x.', detail: 'Mend it.' });
    fakeServer({ 'POST /api/colour-lists/preview': () => answer });
    const { user } = show(
      <WedgeDialog {...props({ condition: { id: 4, process: RGB } as ConditionRow })} onClose={() => {}} />,
    );
    const file = (): Promise<void> =>
      user.upload(screen.getByLabelText('spot colours file'), new File(['x'], 'list.csv'));
    await file();
    expect((await screen.findByRole('alert')).textContent).toBe('Line 2: found x. Mend it.');
    answer = { colours };
    await file();
    expect(await screen.findByText('61 spot colours; a wedge carries 60 at most.')).toBeTruthy();
    expect(button('Go on to print').disabled).toBe(true);
    await user.click(button('Take out'));
    expect(button('Go on to print').disabled).toBe(false);
  });

  it('of own patches wants every line right', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/wedges': PRINTED });
    const { user } = show(<WedgeDialog {...props()} onClose={() => {}} />);
    await pick(user, 'Wedge', /own patches/);
    const lines = screen.getByLabelText(/C M Y K in per cent, then a name/);
    await user.click(lines);
    await user.paste('0 0 0 0 paper\n70 0 130 10 green');
    expect(screen.getByText(/Line 2: found “70 0 130 10 green”/)).toBeTruthy();
    expect(button('Go on to print').disabled).toBe(true);
    await user.clear(lines);
    await user.click(lines);
    await user.paste('0 0 0 0 paper\n70 0 90 10 green');
    await printOn(user);
    await waitFor(() => expect(sent.filter(({ method }) => method === 'POST')).toHaveLength(1));
    expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
      kind: 'own',
      patches: [
        { name: 'paper', device: [0, 0, 0, 0] },
        { name: 'green', device: [70, 0, 90, 10] },
      ],
    });
  });
});

describe('judging a reading again', () => {
  it('asks whether spot colours follow the paper, where a sheet has any and the aims are moved', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/checks': { id: 1 } });
    const base = props();
    const readings = base.readings.map((reading) => ({ ...reading, hasSpots: true }));
    const { user } = show(<JudgeDialog {...base} readings={readings} onClose={() => {}} />);
    expect(screen.queryByLabelText(/Spot colours follow/)).toBeNull();
    await user.click(screen.getByLabelText(/Correct the aims/));
    await user.click(screen.getByLabelText(/Spot colours follow/));
    await user.click(button('Judge'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({ substrateCorrected: true, spotsMoved: true });
  });

  it('sends the reading and the choice, and shows the new check', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/checks': { id: 1 } });
    const close = vi.fn();
    const { user } = show(<JudgeDialog {...props()} onClose={close} />);
    await pick(user, 'Reading', /HRN-0005/);
    await pick(user, 'Tolerances', /Ours/);
    await user.click(button('Judge'));
    await waitFor(() => expect(close).toHaveBeenCalled());
    expect(sent[0].body).toEqual({
      readingId: 21,
      aimSetId: 9,
      toleranceSetId: 6,
      substrateCorrected: false,
    });
    expect(navigation.went).toEqual(['/conditions/4/conformity']);
  });
});

describe('a short check', () => {
  it('goes by the limits of photo prints, or by limits of one’s own that are in order', async () => {
    const { sent } = fakeServer({
      'POST /api/conditions/4/short-checks': { sheets: ['HRN-0009-1'], restUntilMs: 0 },
    });
    const close = vi.fn();
    const { user } = show(<ShortCheckDialog {...props()} profileResultId={31} onClose={close} />);
    expect(button('Go on to print').disabled).toBe(false);
    await user.click(button('own limits'));
    const [mean, largest] = [screen.getByLabelText('mean ΔE00'), screen.getByLabelText('largest ΔE00')];
    await user.clear(largest);
    await user.type(largest, '2,9');
    expect(button('Go on to print').disabled).toBe(true);
    await user.clear(mean);
    await user.type(mean, '2,9');
    await user.click(button('Go on to print'));
    for (const box of screen.queryAllByRole('checkbox')) await user.click(box);
    await user.click(button('Print'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({ profileResultId: 31, limits: { mean: 2.9, largest: 2.9 } });
  });
});
