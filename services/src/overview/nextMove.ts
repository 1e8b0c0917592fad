import type { Mark } from '@melto/core/judgement/mark';
import { FAULT_WORDS, spoilingFault } from '@melto/core/faults/fault';
import { drivenByInks } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { RackPlace } from '@melto/store/prints';
import type { ReadingState } from '@melto/store/readings';
import type { WatchStateRow } from '@melto/store/watches';
import { sheetState } from '../charts/rack.ts';
import { linkWord } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import { keptFaults } from '../reading/readingFaults.ts';
import type { LinkMark } from './marks.ts';
import { watchWords } from './watchWords.ts';

/** What to do now: a sentence and where it leads, with a weight that orders the floor. */
export interface Move {
  readonly move: { readonly words: string; readonly href: string } | null;
  readonly attention: number;
}

/** What the next move of a condition follows from. */
export interface MoveFacts {
  readonly conditionId: number;
  readonly process: Process;
  readonly links: readonly LinkMark[];
  /** Its sheets on the rack. */
  readonly sheets: readonly RackPlace[];
  /** A job works for it. */
  readonly busy: boolean;
  readonly reading: ReadingState | undefined;
  readonly watch: WatchStateRow | undefined;
  readonly nowMs: number;
}

/** Attention from which a move comes before the way on. */
const PRESSING = 7;
/** Attention from which a sheet can be read now. */
const TO_BE_READ = 5;

/** The shortest way on. */
export function nextMove(facts: MoveFacts): Move {
  const at = `/conditions/${facts.conditionId}`;
  const sheet = sheetMove(facts, at);
  if (sheet !== undefined && sheet.attention >= TO_BE_READ) return sheet;
  const way = facts.busy
    ? saying('The profile is being built', `${at}/profile`, 2)
    : drivenByInks(facts.process)
      ? inkMove(facts, at)
      : driverMove(facts, at);
  // A sheet that rests hides nothing that presses.
  return sheet === undefined || way.attention >= PRESSING ? way : sheet;
}

function saying(words: string, href: string, attention: number): Move {
  return { move: { words, href }, attention };
}

const stateOf = ({ links }: MoveFacts, link: LinkName): Mark =>
  links.find((mark) => mark.link === link)?.state ?? 'none';

const has = ({ links }: MoveFacts, link: LinkName): boolean => links.some((mark) => mark.link === link);

/** What the sheets on the rack ask for. */
function sheetMove({ sheets, nowMs }: MoveFacts, at: string): Move | undefined {
  const partly = sheets.find(({ stripsRead }) => stripsRead > 0);
  const ready = sheets.filter((sheet) => sheetState(sheet, nowMs) === 'ready');
  const [first] = ready;
  if (partly !== undefined) {
    const left = partly.strips - partly.stripsRead;
    return saying(`Read ${left} more ${left === 1 ? 'strip' : 'strips'}`, `/read/${partly.code}`, 6);
  }
  if (first !== undefined)
    return saying(
      ready.length === 1 ? 'Read the sheet' : `Read ${ready.length} sheets`,
      `/read/${first.code}`,
      5,
    );
  if (sheets.length > 0)
    return saying(
      sheets.length === 1 ? 'One sheet rests' : `${sheets.length} sheets rest`,
      `${at}/sheets`,
      2,
    );
  return undefined;
}

/** A reading that shows that its print has to be made again. */
function spoiltMove({ reading }: MoveFacts): Move | undefined {
  const fault = reading === undefined ? undefined : spoilingFault(keptFaults(reading.faults));
  return fault === undefined || reading === undefined
    ? undefined
    : saying(`Print again: ${FAULT_WORDS[fault.kind].spoils ?? ''}`, `/readings/${reading.id}`, 8);
}

/** What proves a condition and keeps it: the check, then the watch. */
function keepMove(facts: MoveFacts, at: string): Move {
  const { watch, nowMs } = facts;
  const check = stateOf(facts, 'conformity');
  const watched = watch === undefined ? 'none' : stateOf(facts, 'watch');
  if (check === 'does-not-conform') return saying('See why it does not conform', `${at}/conformity`, 9);
  if (watched === 'does-not-conform') return saying('See what has moved', `${at}/watch`, 9);
  if (watch !== undefined && watched === 'due') return saying(watchWords(watch, nowMs), `${at}/watch`, 8);
  if (watch?.moved === true && watched !== 'none') return saying('See what has moved', `${at}/watch`, 7);
  if (check === 'due') return saying('Check it again: the last is past its days', `${at}/conformity`, 7);
  if (check === 'not-judged') return saying('See why it was not judged', `${at}/conformity`, 5);
  if (check === 'stale') return saying('Check it again', `${at}/conformity`, 4);
  if (stateOf(facts, 'watch') === 'stale') return saying('Start the watch anew', `${at}/watch`, 4);
  if (check === 'none' && has(facts, 'conformity')) return saying('Print a check', `${at}/conformity`, 3);
  return { move: null, attention: 0 };
}

/** The way on of a device with inks: limits, curves until they stand, balance until the greys do, the profile. */
function inkMove(facts: MoveFacts, at: string): Move {
  const { reading } = facts;
  const state = (link: LinkName): Mark => stateOf(facts, link);
  const complete = reading !== undefined && reading.finishedMs !== null;
  const spoilt = spoiltMove(facts);
  if (spoilt !== undefined && complete && state('balance') === 'none') return spoilt;
  const kept = keepMove(facts, at);
  if (kept.attention >= PRESSING) return kept;
  for (const link of ['curves', 'balance'] as const)
    if (state(link) === 'does-not-conform') return saying('Do another round', `${at}/${link}`, 7);
  for (const link of ['limits', 'curves', 'balance'] as const)
    if (state(link) === 'stale') return saying(`${linkWord(link)}: see why stale`, `${at}/${link}`, 7);
  // A condition that was profiled as it is needs neither curves nor balance.
  const asItIs = state('curves') === 'none' && state('profile') !== 'none';
  if (state('curves') === 'none' && !asItIs)
    return reading?.purpose === 'ramps' && complete
      ? saying('Make the curves', `${at}/curves`, 4)
      : saying('Print the ramps', `${at}/curves`, 4);
  if (has(facts, 'balance') && state('balance') === 'none' && !asItIs)
    return reading?.purpose === 'near-neutral' && complete
      ? saying('Balance the greys', `${at}/balance`, 4)
      : saying('Print the near-neutral chart', `${at}/balance`, 3);
  if (state('profile') === 'stale') return saying('Profile: see why stale', `${at}/profile`, 7);
  if (has(facts, 'profile') && state('profile') === 'none')
    return reading?.purpose === 'profile' && complete
      ? saying('Build the profile', `${at}/profile`, 4)
      : saying('Print a profiling chart', `${at}/profile`, 3);
  return kept;
}

/** The way on of a device whose own driver makes its inks. */
function driverMove(facts: MoveFacts, at: string): Move {
  const { reading } = facts;
  const profile = stateOf(facts, 'profile');
  const spoilt = spoiltMove(facts);
  if (spoilt !== undefined && profile === 'none') return spoilt;
  const kept = keepMove(facts, at);
  if (kept.attention >= PRESSING) return kept;
  if (profile === 'stale') return saying('Rebuild the profile: its reading has changed', `${at}/profile`, 7);
  if (profile === 'none')
    return saying(
      reading !== undefined && reading.finishedMs !== null ? 'Build the profile' : 'Print a chart',
      `${at}/profile`,
      4,
    );
  return kept;
}
