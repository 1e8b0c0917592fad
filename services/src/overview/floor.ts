import { labToHex } from '@melto/core/colour/srgb';
import { listConditions } from '@melto/store/conditions';
import type { ConditionRow } from '@melto/store/conditions';
import { listJobs } from '@melto/store/jobs';
import { listRack } from '@melto/store/prints';
import { listHeads, listStaleHeads } from '@melto/store/results';
import type { HeadRow } from '@melto/store/results';
import { listReachedHeads } from '@melto/store/reached';
import { LINK_WORDS, linksOf } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import type { Fault } from '@melto/core/faults/fault';
import { domainNow } from '../kernel/clock.ts';
import type { Services } from '../kernel/context.ts';
import { slipOf } from '../charts/printing.ts';
import type { RackSlip } from '../charts/printing.ts';
import { checkFigures } from '../conformity/checkFigures.ts';
import { listWatchStates } from '@melto/store/watches';
import type { WatchStateRow } from '@melto/store/watches';
import { watchMark, watchWords } from './watchStanding.ts';
import type { CurvesSummary } from '../calibration/curves.ts';
import type { ProfileSummary } from '../profile/profiles.ts';

export type MarkState = 'conforms' | 'near' | 'does-not-conform' | 'stale' | 'due' | 'none' | 'current';

export interface LinkMark {
  readonly link: LinkName;
  readonly state: MarkState;
  readonly version: number | null;
  readonly madeMs: number | null;
}

export interface FloorRow {
  readonly id: number;
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly inkSet: string;
  /** What to do now, as a sentence and where it leads. */
  readonly whatNow: { readonly words: string; readonly href: string } | null;
  readonly attention: number;
  /** Screen colours of the condition's own printed ramps, one list a row. */
  readonly ramps: readonly (readonly string[])[];
  readonly links: readonly LinkMark[];
  readonly check: {
    readonly value: number;
    readonly limit: number;
    readonly verdict: string;
    readonly madeMs: number;
  } | null;
  /** Mean ΔE00 of the latest watch checks, and when the next one is due. */
  readonly watch: {
    readonly spark: readonly number[];
    readonly limit: number;
    readonly dueMs: number;
    readonly verdict: string;
  } | null;
}

export interface FloorState {
  readonly nowMs: number;
  readonly rows: readonly FloorRow[];
}

interface ReadingState {
  readonly id: number;
  readonly conditionId: number;
  readonly purpose: string;
  readonly finishedMs: number | null;
  readonly faults: string | null;
}

export async function floor(services: Services): Promise<FloorState> {
  const { database } = services;
  const nowMs = await domainNow(services);
  const [conditions, heads, stale, reached, sheets, jobs, watches, readings] = await Promise.all([
    listConditions(database),
    listHeads(database),
    listStaleHeads(database),
    listReachedHeads(database),
    listRack(database),
    listJobs(database, services.now()),
    listWatchStates(database),
    database.rows<ReadingState>(
      `SELECT r.id, p.condition_id AS conditionId, c.purpose, r.finished_ms AS finishedMs, r.faults
       FROM reading r JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id
       JOIN (SELECT MAX(r2.id) AS id FROM reading r2 JOIN print p2 ON p2.id = r2.print_id JOIN chart c2 ON c2.id = p2.chart_id
             WHERE c2.purpose IN ('profile', 'ramps', 'near-neutral') AND r2.withdrawn_ms IS NULL GROUP BY p2.condition_id) newest ON newest.id = r.id`,
    ),
  ]);
  const rows: FloorRow[] = [];
  const headsOf = grouped(heads, ({ headConditionId }) => headConditionId);
  const staleOf = grouped(stale, ({ conditionId }) => conditionId);
  const reachedOf = grouped(reached, ({ conditionId }) => conditionId);
  const sheetsOf = grouped(sheets, ({ conditionId }) => conditionId);
  const watchOf = new Map(watches.map((row) => [row.conditionId, row]));
  const readingOf = new Map(readings.map((row) => [row.conditionId, row]));
  const busy = new Set(
    jobs
      .filter(({ state }) => state === 'queued' || state === 'running')
      .map(({ conditionId }) => conditionId),
  );
  for (const condition of conditions) {
    const own = headsOf.get(condition.id) ?? [];
    const watch = watchOf.get(condition.id);
    const links = linksOf(condition.space).map((link): LinkMark => {
      const head = own.find((row) => row.link === link);
      if (head === undefined) return { link, state: 'none', version: null, madeMs: null };
      const isStale = (staleOf.get(condition.id) ?? []).some((row) => row.link === link);
      const told = (reachedOf.get(condition.id) ?? []).find((row) => row.link === link)?.verdict;
      const verdict = markOf(told ?? head.verdict);
      // Does not conform comes before stale, stale before near and current.
      const state: MarkState =
        link === 'watch'
          ? watchMark(watch, head.id, isStale, nowMs)
          : verdict === 'does-not-conform'
            ? verdict
            : isStale
              ? 'stale'
              : (verdict ?? 'current');
      return { link, state, version: head.version, madeMs: head.madeMs };
    });
    const check = own.find(({ link }) => link === 'conformity');
    const watched = own.find(({ link }) => link === 'watch');
    const slips = (sheetsOf.get(condition.id) ?? []).map((sheet) => slipOf(sheet, nowMs));
    const building = busy.has(condition.id);
    const reading = readingOf.get(condition.id);
    const kept = keepMove(condition.id, links, watch, nowMs);
    const next =
      condition.space === 'rgb'
        ? nextMove(condition, links, slips, building, reading, kept)
        : (sheetMove(condition.id, slips) ??
          (building
            ? saying('The profile is being built', `/conditions/${condition.id}/profile`, 2)
            : pressMove(condition.id, links, reading, kept)));
    rows.push({
      id: condition.id,
      device: condition.device,
      stock: condition.stock,
      mode: condition.mode,
      inkSet: condition.inkSet,
      whatNow: next.move,
      attention: next.attention,
      // Borrowed curves tell the ramps of another stock.
      ramps: rampsOf(own.filter(({ conditionId }) => conditionId === condition.id)),
      links,
      check:
        check === undefined
          ? null
          : {
              ...checkFigures(check.summary),
              verdict: check.verdict ?? 'not-judged',
              madeMs: check.madeMs,
            },
      watch:
        watch === undefined || watched === undefined || watched.id !== watch.watchId
          ? null
          : {
              spark: watch.spark,
              limit: (JSON.parse(watched.summary) as { meanLimit: number }).meanLimit,
              dueMs: watch.dueMs,
              verdict: watch.verdict,
            },
    });
  }
  rows.sort(
    (a, b) => b.attention - a.attention || a.device.localeCompare(b.device) || a.stock.localeCompare(b.stock),
  );
  return { nowMs, rows };
}

/** Rows by a key; of many conditions none is looked through twice. */
function grouped<T>(rows: readonly T[], keyOf: (row: T) => number): Map<number, T[]> {
  const out = new Map<number, T[]>();
  for (const row of rows) {
    const own = out.get(keyOf(row));
    if (own === undefined) out.set(keyOf(row), [row]);
    else own.push(row);
  }
  return out;
}

/** The condition's own printed ramps, from its profile or else from its curves. */
function rampsOf(heads: readonly HeadRow[]): string[][] {
  const head = heads.find(({ link }) => link === 'profile') ?? heads.find(({ link }) => link === 'curves');
  if (head === undefined) return [];
  const { ramps } = JSON.parse(head.summary) as Pick<ProfileSummary | CurvesSummary, 'ramps'>;
  return ramps.map((ramp) => ramp.map((lab) => labToHex([lab[0], lab[1], lab[2]])));
}

interface Move {
  readonly move: FloorRow['whatNow'];
  readonly attention: number;
}

function saying(words: string, href: string, attention: number): Move {
  return { move: { words, href }, attention };
}

/** A verdict as a mark; what was not judged has none of its own. */
export function markOf(verdict: string | null | undefined): MarkState | null {
  return verdict === undefined || verdict === null || verdict === 'not-judged'
    ? null
    : (verdict as MarkState);
}

/** What the sheets on the rack ask for. */
function sheetMove(conditionId: number, slips: readonly RackSlip[]): Move | undefined {
  const at = `/conditions/${conditionId}`;
  const partly = slips.find((slip) => slip.state === 'partly read');
  const ready = slips.filter((slip) => slip.state === 'ready');
  const resting = slips.filter((slip) => slip.state === 'resting');
  if (partly !== undefined) {
    const left = partly.strips - partly.stripsRead;
    return saying(`Read ${left} more ${left === 1 ? 'strip' : 'strips'}`, `/read/${partly.code}`, 6);
  }
  if (ready.length > 0)
    return saying(
      ready.length === 1 ? 'Read the sheet' : `Read ${ready.length} sheets`,
      `/read/${ready[0].code}`,
      5,
    );
  if (resting.length > 0)
    return saying(
      resting.length === 1 ? 'One sheet rests' : `${resting.length} sheets rest`,
      `${at}/sheets`,
      2,
    );
  return undefined;
}

/** Faults that spoil what would be built on a reading, with the words of the floor. */
const SPOILS: Readonly<Partial<Record<Fault['kind'], string>>> = {
  'wrong-side': 'wrong side',
  'colour-management-on': 'colour management was on',
  'curves-on': 'curves were loaded',
  'curves-missing': 'the curves were not loaded',
};

/** What proves a condition and keeps it: the check, then the watch. */
function keepMove(
  conditionId: number,
  links: readonly LinkMark[],
  watch: WatchStateRow | undefined,
  nowMs: number,
): Move {
  const at = `/conditions/${conditionId}`;
  const state = (link: LinkName): MarkState => links.find((mark) => mark.link === link)?.state ?? 'none';
  if (state('conformity') === 'does-not-conform')
    return saying('See why it does not conform', `${at}/conformity`, 9);
  if (watch !== undefined && state('watch') === 'does-not-conform')
    return saying('See what has moved', `${at}/watch`, 9);
  if (watch !== undefined && state('watch') === 'due')
    return saying(watchWords(watch, nowMs), `${at}/watch`, 8);
  if (watch?.moved === true && state('watch') !== 'none')
    return saying('See what has moved', `${at}/watch`, 7);
  if (state('conformity') === 'stale') return saying('Check it again', `${at}/conformity`, 4);
  if (state('watch') === 'stale') return saying('Start the watch anew', `${at}/watch`, 4);
  if (state('conformity') === 'none') return saying('Print a check', `${at}/conformity`, 3);
  return { move: null, attention: 0 };
}

/** The way on of an ink device: limits, curves until they stand, balance until the greys do. */
function pressMove(
  conditionId: number,
  links: readonly LinkMark[],
  reading: ReadingState | undefined,
  kept: Move,
): Move {
  const at = `/conditions/${conditionId}`;
  const state = (link: LinkName): MarkState => links.find((mark) => mark.link === link)?.state ?? 'none';
  const complete = reading !== undefined && reading.finishedMs !== null;
  const spoilt = complete
    ? (JSON.parse(reading.faults ?? '[]') as Fault[]).find(({ kind }) => SPOILS[kind] !== undefined)
    : undefined;
  if (spoilt !== undefined && state('balance') === 'none')
    return saying(`Print again: ${SPOILS[spoilt.kind] ?? ''}`, `/readings/${reading?.id ?? 0}`, 8);
  if (kept.attention >= 7) return kept;
  for (const link of ['curves', 'balance'] as const)
    if (state(link) === 'does-not-conform') return saying('Do another round', `${at}/${link}`, 7);
  for (const link of ['limits', 'curves', 'balance'] as const)
    if (state(link) === 'stale') return saying(`${LINK_WORDS[link]}: see why stale`, `${at}/${link}`, 7);
  if (state('curves') === 'none')
    return complete
      ? saying('Make the curves', `${at}/curves`, 4)
      : saying('Print the ramps', `${at}/curves`, 4);
  if (state('balance') === 'none')
    return reading?.purpose === 'near-neutral' && complete
      ? saying('Balance the greys', `${at}/balance`, 4)
      : saying('Print the near-neutral chart', `${at}/balance`, 3);
  if (state('profile') === 'stale') return saying('Profile: see why stale', `${at}/profile`, 7);
  if (state('profile') === 'none')
    return reading?.purpose === 'profile' && complete
      ? saying('Build the profile', `${at}/profile`, 4)
      : saying('Print a profiling chart', `${at}/profile`, 3);
  return kept;
}

/** The shortest way on, with a weight that orders the floor. */
function nextMove(
  condition: ConditionRow,
  links: readonly LinkMark[],
  slips: readonly RackSlip[],
  building: boolean,
  reading: ReadingState | undefined,
  kept: Move,
): Move {
  const at = `/conditions/${condition.id}`;
  const state = (link: LinkName): MarkState => links.find((mark) => mark.link === link)?.state ?? 'none';
  const onRack = sheetMove(condition.id, slips);
  if (onRack !== undefined) return onRack;
  const say = saying;
  if (building) return say('The profile is being built', `${at}/profile`, 2);
  const faults = (JSON.parse(reading?.faults ?? '[]') as Fault[]).filter(
    ({ kind }) => kind === 'colour-management-on' || kind === 'wrong-side',
  );
  if (reading !== undefined && faults.length > 0 && state('profile') === 'none')
    return say(
      faults[0].kind === 'wrong-side' ? 'Print again: wrong side' : 'Print again: colour management was on',
      `/readings/${reading.id}`,
      8,
    );
  if (kept.attention >= 7) return kept;
  if (state('profile') === 'stale')
    return say('Rebuild the profile: its reading has changed', `${at}/profile`, 7);
  if (state('profile') === 'none')
    return reading?.finishedMs !== null && reading !== undefined
      ? say('Build the profile', `${at}/profile`, 4)
      : say('Print a chart', `${at}/profile`, 4);
  return kept;
}
