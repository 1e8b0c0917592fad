import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ConditionChoices } from '@melto/services/house/newCondition';
import type { ConditionView, SpineLink } from '@melto/services/overview/conditionView';
import type { VersionView } from '@melto/services/ledger/versions';
import { Versions } from '@/features/profile/Versions';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { NewCondition } from './NewCondition';
import { Spine } from './Spine';

const CHOICES = {
  inkSets: ['CMYK toner', 'pigment'],
  devices: [
    {
      ...{ id: 1, name: 'Heron', kind: 'toner press', inkSet: 'CMYK toner', modes: ['standard'] },
      stocks: [{ id: 10, name: 'Lantern Gloss 150', finish: 'gloss', restMinutes: 10 }],
    },
    {
      ...{ id: 2, name: 'Wren', kind: 'inkjet', inkSet: 'pigment', modes: ['fine', 'fast'] },
      stocks: [
        { id: 20, name: 'Quay Proof 200', finish: 'semi-matt', restMinutes: 60 },
        { id: 21, name: 'Chalk Rag 310', finish: 'matt', restMinutes: 120 },
      ],
    },
  ],
  points: [{ label: 'Colour management', value: 'off', tickAtPrint: true }],
} as unknown as ConditionChoices;
const make = (): HTMLButtonElement =>
  screen.getByRole<HTMLButtonElement>('button', { name: 'Make the condition' });

describe('a new condition', () => {
  it('changes stocks, modes and inks with the device, and is opened once it is made', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions': { id: 31 } });
    const { user } = show(<NewCondition choices={CHOICES} />);
    expect(screen.getByText('Heron / Lantern Gloss 150 / standard')).toBeTruthy();
    await user.click(screen.getByRole('combobox', { name: 'Device' }));
    await user.click(screen.getByRole('option', { name: 'Wren' }));
    expect(screen.getByText('Wren / Quay Proof 200 / fine')).toBeTruthy();
    expect(screen.getByText('semi-matt, rests 60 min before reading')).toBeTruthy();
    await user.click(make());
    await waitFor(() => expect(navigation.went).toEqual(['/conditions/31']));
    expect(sent[0].body).toEqual({
      ...{ deviceId: 2, stockId: 20, inkSet: 'pigment', mode: 'fine' },
      points: CHOICES.points,
    });
  });

  it('wants the inks named', async () => {
    const { user } = show(<NewCondition choices={CHOICES} />);
    await user.clear(screen.getByLabelText(/Ink set/));
    expect(screen.getByText('Name the inks, as on their cartridges.')).toBeTruthy();
    expect(make().disabled).toBe(true);
  });

  it('shows a refusal at its field, and one without a field by itself', async () => {
    let refusal = new Refused(409, { title: 'It is there already.', detail: 'Open it.', field: 'mode' });
    fakeServer({ 'POST /api/conditions': () => refusal });
    const { user } = show(<NewCondition choices={CHOICES} />);
    await user.click(make());
    expect((await screen.findByText('It is there already. Open it.')).id).toContain('helper-text');
    refusal = new Refused(500, { title: 'Melto has made a mistake.', detail: 'Try again.' });
    await user.click(make());
    expect((await screen.findByText('Melto has made a mistake. Try again.')).className).toBe('error');
    expect(make().disabled).toBe(false);
  });

  it('begins with a device of the house’s own where there is none', async () => {
    const { sent } = fakeServer({ 'POST /api/devices': { id: 3 }, 'GET /api/conditions/choices': CHOICES });
    const { user } = show(<NewCondition choices={{ ...CHOICES, devices: [] }} />);
    expect(screen.getByText(/The house has no device yet/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Add a device' }));
    const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add the device' });
    expect(add.disabled).toBe(true);
    await user.type(screen.getByLabelText('Name'), 'Avocet');
    await user.type(screen.getByLabelText('Ink set'), 'pigment');
    await user.type(screen.getByLabelText('Print modes'), ' , ');
    expect(add.disabled).toBe(true);
    await user.type(screen.getByLabelText('Print modes'), 'fine, fast,');
    expect(add.disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Takes' }));
    await user.click(screen.getByRole('option', { name: /RGB/ }));
    await user.click(add);
    await waitFor(() => expect(sent.at(-1)?.method).toBe('POST'));
    expect(sent.at(-1)?.body).toEqual({
      name: 'Avocet',
      kind: 'rgb-driver',
      inkSet: 'pigment',
      modes: ['fine', 'fast'],
    });
    expect(navigation.refreshed).toBe(1);
  });

  it('takes a stock of the house’s own, and does not send the condition with it', async () => {
    const own = CHOICES.devices.map((device) => ({ ...device, own: true }));
    const { sent } = fakeServer({ 'POST /api/stocks': { id: 9 } });
    const { user } = show(<NewCondition choices={{ ...CHOICES, devices: own }} />);
    await user.click(screen.getByRole('button', { name: 'A stock of your own' }));
    await user.type(screen.getByLabelText('Name'), 'Barn Owl Rag');
    const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add the stock' });
    expect(add.disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Surface' }));
    await user.click(screen.getByRole('option', { name: 'gloss' }));
    expect(add.disabled).toBe(false);
    const rest = screen.getByLabelText(/Minutes a print rests/);
    for (const wrong of ['-1', '1.5', '20161', 'x']) {
      await user.clear(rest);
      await user.type(rest, wrong);
      expect(add.disabled).toBe(true);
    }
    await user.clear(rest);
    await user.type(rest, '20160{Enter}');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({
      path: '/api/stocks',
      body: { name: 'Barn Owl Rag', finish: 'gloss', restMinutes: 20160 },
    });
    // Until the list has it, nothing can be made of it.
    await waitFor(() => expect(make().disabled).toBe(true));
  });
});

describe('the spine of a condition', () => {
  const link = (change: Partial<SpineLink>): SpineLink =>
    ({
      link: 'limits',
      state: 'current',
      version: 1,
      madeMs: 0,
      figures: null,
      borrowed: false,
      ...change,
    }) as SpineLink;
  const view = (links: readonly SpineLink[]): ConditionView =>
    ({
      ...{ condition: { id: 4 }, links, nowMs: 0, sheets: 12, points: 3 },
      evenness: { version: null },
    }) as unknown as ConditionView;

  it('leads to each link, tells its state in words, and where one is', () => {
    navigation.path = '/conditions/4/curves';
    show(
      <Spine
        view={view([
          link({ figures: '300 % in all' }),
          link({ link: 'curves', state: 'stale' }),
          link({ link: 'balance', state: 'none', version: null, madeMs: null }),
          link({ link: 'profile', borrowed: true }),
        ])}
      />,
    );
    const [, limits, curves, balance, profile] = within(
      screen.getByRole('navigation', { name: 'Chain of the condition' }),
    ).getAllByRole('link');
    expect(limits.textContent).toContain('v1 · 300 % in all');
    expect(limits.textContent).toContain('current');
    expect(curves.getAttribute('href')).toBe('/conditions/4/curves');
    expect(curves.getAttribute('aria-current')).toBe('page');
    expect(curves.textContent).toContain('stale');
    expect(balance.textContent).toContain('none yet');
    expect(profile.textContent).toContain('borrowed');
    expect(limits.getAttribute('aria-current')).toBeNull();
  });

  it('joins a stale link by a broken line', () => {
    const { container } = show(
      <Spine view={view([link({}), link({ link: 'curves', state: 'stale' }), link({ link: 'balance' })])} />,
    );
    expect([...container.querySelectorAll('.join')].map((join) => join.className)).toEqual([
      'join broken',
      'join',
    ]);
  });

  it('has the sheets and the record below', () => {
    show(<Spine view={view([link({})])} />);
    expect(screen.getByRole('link', { name: /Sheets and readings/ }).textContent).toContain('12');
    expect(screen.getByRole('link', { name: /Settings record/ }).textContent).toContain('3 points');
    expect(screen.getByRole('link', { name: /Evenness/ }).textContent).toContain('not corrected');
  });
});

describe('versions of a link', () => {
  const version = (id: number, change: Partial<VersionView> = {}): VersionView => ({
    ...{ id, version: id, madeMs: 0, author: 'Ines', verdict: null, inForce: false },
    ...{ borrowedFrom: null, stale: null },
    ...change,
  });

  it('are the latest seven, the shown one pressed; another is opened by its address', async () => {
    const versions = Array.from({ length: 9 }, (_, i) => version(i + 1, { inForce: i === 8 }));
    const { user } = show(
      <Versions versions={versions} shown={versions[8]} nowMs={0} path="/conditions/4/curves" />,
    );
    const buttons = screen.getAllByRole('button');
    expect(buttons.map((button) => /v\d+/.exec(button.textContent ?? '')?.[0])).toEqual([
      ...['v3', 'v4', 'v5', 'v6', 'v7', 'v8', 'v9'],
    ]);
    expect(buttons[6].getAttribute('aria-pressed')).toBe('true');
    await user.click(buttons[0]);
    expect(navigation.went).toEqual(['/conditions/4/curves?version=3']);
  });

  it('that are not in force can be put back', async () => {
    const { sent } = fakeServer({ 'PUT /api/results/1/in-force': {} });
    const versions = [version(1), version(2, { inForce: true })];
    const { user } = show(<Versions versions={versions} shown={versions[0]} nowMs={0} path="/x" />);
    await user.click(screen.getByRole('button', { name: 'put v1 in force' }));
    await waitFor(() => expect(navigation.refreshed).toBe(1));
    expect(sent).toHaveLength(1);
  });

  it('in force are not offered to be put there', () => {
    const versions = [version(2, { inForce: true })];
    show(<Versions versions={versions} shown={versions[0]} nowMs={0} path="/x" />);
    expect(screen.queryByRole('button', { name: /put v/ })).toBeNull();
  });
});
