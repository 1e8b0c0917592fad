import { describe, expect, it } from 'vitest';
import { CMYK, RGB } from '@melto/core/device/process';
import type { Mark } from '@melto/core/judgement/mark';
import type { LinkName } from '../ledger/links.ts';
import { nextMove } from './nextMove.ts';
import type { MoveFacts } from './nextMove.ts';

const NOW = 1_000_000;
const INK_LINKS = ['limits', 'curves', 'balance', 'profile', 'conformity', 'watch'] as const;
const DRIVER_LINKS = ['profile', 'conformity', 'watch'] as const;

/** A condition of which all stands well, but for what is told. */
function facts(
  process: MoveFacts['process'],
  states: Partial<Record<LinkName, Mark>>,
  change: Partial<MoveFacts> = {},
): MoveFacts {
  const links = process === RGB ? DRIVER_LINKS : INK_LINKS;
  return {
    ...{ conditionId: 4, process, sheets: [], busy: false, reading: undefined, watch: undefined, nowMs: NOW },
    links: links.map((link) => ({ link, state: states[link] ?? 'current' })),
    ...change,
  };
}
const reading = (purpose: string, finishedMs: number | null = 5): MoveFacts['reading'] =>
  ({ id: 9, purpose, finishedMs, faults: null }) as unknown as MoveFacts['reading'];
const sheet = (code: string, stripsRead: number, restUntilMs: number): MoveFacts['sheets'][number] =>
  ({ code, conditionId: 4, strips: 20, stripsRead, restUntilMs }) as unknown as MoveFacts['sheets'][number];
const said = (own: MoveFacts): string => {
  const { move, attention } = nextMove(own);
  return move === null ? `nothing ${attention}` : `${move.words} → ${move.href} ${attention}`;
};

describe('the next move at a press', () => {
  it.each<[Partial<Record<LinkName, Mark>>, MoveFacts['reading'], string]>([
    [
      { curves: 'none', balance: 'none', profile: 'none' },
      undefined,
      'Print the ramps → /conditions/4/curves 4',
    ],
    [
      { curves: 'none', balance: 'none', profile: 'none' },
      reading('ramps'),
      'Make the curves → /conditions/4/curves 4',
    ],
    [
      { curves: 'none', balance: 'none', profile: 'none' },
      reading('ramps', null),
      'Print the ramps → /conditions/4/curves 4',
    ],
    // What was read is no ramp: no curves are made of it.
    [
      { curves: 'none', balance: 'none', profile: 'none' },
      reading('profile'),
      'Print the ramps → /conditions/4/curves 4',
    ],
    // Profiled as it is.
    [{ curves: 'none', balance: 'none' }, reading('profile'), 'nothing 0'],
    [
      { conformity: 'due' },
      undefined,
      'Check it again: the last is past its days → /conditions/4/conformity 7',
    ],
    [{ conformity: 'not-judged' }, undefined, 'See why it was not judged → /conditions/4/conformity 5'],
    [{ curves: 'does-not-conform' }, undefined, 'Do another round → /conditions/4/curves 7'],
    [{ balance: 'does-not-conform' }, undefined, 'Do another round → /conditions/4/balance 7'],
    [{ limits: 'stale' }, undefined, 'Limits: see why stale → /conditions/4/limits 7'],
    [{ balance: 'none' }, reading('ramps'), 'Print the near-neutral chart → /conditions/4/balance 3'],
    [{ balance: 'none' }, reading('near-neutral'), 'Balance the greys → /conditions/4/balance 4'],
    [
      { balance: 'none' },
      reading('near-neutral', null),
      'Print the near-neutral chart → /conditions/4/balance 3',
    ],
    [{ profile: 'none' }, reading('near-neutral'), 'Print a profiling chart → /conditions/4/profile 3'],
    [{ profile: 'none' }, reading('profile'), 'Build the profile → /conditions/4/profile 4'],
    [{ profile: 'stale' }, undefined, 'Profile: see why stale → /conditions/4/profile 7'],
    [
      { conformity: 'does-not-conform', curves: 'does-not-conform' },
      undefined,
      'See why it does not conform → /conditions/4/conformity 9',
    ],
    [{ conformity: 'stale' }, undefined, 'Check it again → /conditions/4/conformity 4'],
    [{ conformity: 'none' }, undefined, 'Print a check → /conditions/4/conformity 3'],
    [{}, undefined, 'nothing 0'],
  ])('%j is %#', (states, own, words) => expect(said(facts(CMYK, states, { reading: own }))).toBe(words));
});

describe('the next move of a driver', () => {
  it.each<[Partial<Record<LinkName, Mark>>, MoveFacts['reading'], string]>([
    [{ profile: 'none' }, undefined, 'Print a chart → /conditions/4/profile 4'],
    [{ profile: 'none' }, reading('profile', null), 'Print a chart → /conditions/4/profile 4'],
    [{ profile: 'none' }, reading('profile'), 'Build the profile → /conditions/4/profile 4'],
    [
      { profile: 'stale' },
      undefined,
      'Rebuild the profile: its reading has changed → /conditions/4/profile 7',
    ],
    [{ conformity: 'none' }, undefined, 'Print a check → /conditions/4/conformity 3'],
  ])('%j is %#', (states, own, words) => expect(said(facts(RGB, states, { reading: own }))).toBe(words));
});

describe('what lies on the rack', () => {
  it('comes first: what is partly read, then what is ready, then what rests', () => {
    const at = (...sheets: MoveFacts['sheets']): string => said(facts(RGB, {}, { sheets }));
    expect(at(sheet('A', 0, NOW), sheet('B', 13, NOW))).toBe('Read 7 more strips → /read/B 6');
    expect(at(sheet('B', 19, NOW))).toBe('Read 1 more strip → /read/B 6');
    expect(at(sheet('A', 0, NOW))).toBe('Read the sheet → /read/A 5');
    expect(at(sheet('A', 0, NOW), sheet('B', 0, NOW))).toBe('Read 2 sheets → /read/A 5');
    expect(at(sheet('A', 0, NOW + 1))).toBe('One sheet rests → /conditions/4/sheets 2');
    expect(at(sheet('A', 0, NOW + 1), sheet('B', 0, NOW + 1))).toBe('2 sheets rest → /conditions/4/sheets 2');
  });

  it('hides nothing that presses while it rests', () => {
    const resting = { sheets: [sheet('A', 0, NOW + 1)] };
    expect(said(facts(RGB, { conformity: 'does-not-conform' }, resting))).toBe(
      'See why it does not conform → /conditions/4/conformity 9',
    );
    expect(said(facts(RGB, { conformity: 'stale' }, resting))).toBe(
      'One sheet rests → /conditions/4/sheets 2',
    );
    // What can be read now is read first.
    const ready = { sheets: [sheet('A', 0, NOW)] };
    expect(said(facts(RGB, { conformity: 'does-not-conform' }, ready))).toBe('Read the sheet → /read/A 5');
  });

  it('says so while a profile is built', () =>
    expect(said(facts(RGB, { profile: 'none' }, { busy: true }))).toBe(
      'The profile is being built → /conditions/4/profile 2',
    ));
});

it('looks at what has moved while a watch runs, and at nothing that an older watch saw', () => {
  const watch = { moved: true, dueMs: 2 * NOW, expiresMs: 3 * NOW } as unknown as MoveFacts['watch'];
  expect(said(facts(CMYK, { watch: 'near' }, { watch }))).toBe('See what has moved → /conditions/4/watch 7');
  expect(said(facts(CMYK, { watch: 'none' }, { watch }))).not.toContain('moved');
  const still = { ...watch, moved: false } as unknown as MoveFacts['watch'];
  expect(said(facts(CMYK, { watch: 'conforms' }, { watch: still }))).toBe('nothing 0');
});
