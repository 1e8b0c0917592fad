import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { judgeColours } from '@melto/core/conformity/judgeColours';
import { CHANGE_KINDS } from '@melto/core/device/printPath';
import type { ChangeKind } from '@melto/core/device/printPath';
import { createRandom, seedFrom } from '@melto/core/numerics/random';
import { median } from '@melto/core/numerics/statistics';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import type { WatchCause } from '@melto/core/watch/watchCause';
import { watchCharts } from '@melto/core/watch/watchCharts';
import { meanFigures, WATCH_PATCHES, watchLab } from '@melto/core/watch/watchFigures';
import { simulateWatch } from '@melto/simulator/simulateWatch';
import { printTable } from './table.ts';

const WEEK_MS = 7 * 86_400_000;
const SEEDS = 100;
/** Checks after the baseline on a steady condition, and after a change. */
const STEADY_CHECKS = 50;
const CHANGED_CHECKS = 16;
const DEVICES = [
  ['heron', 'lantern-gloss-150', 'standard'],
  ['osprey', 'marsh-silk-130', '175 lpi'],
  ['heron', 'marsh-silk-130', 'standard'],
  ['osprey', 'fenland-smooth-120', '175 lpi'],
] as const;
const PROOF = TOLERANCE_SETS.find(({ id }) => id === 'iso12647-7-proof') ?? TOLERANCE_SETS[0];

/** Watches over 100 seeds: false alarms, delay, causes. `checks` are weekly. */
export function watch(): void {
  steady();
  const rows = CHANGE_KINDS.map((kind) => changed(kind));
  printTable(
    'Changes that a watch finds, 100 seeds each',
    ['change', 'found', 'before a check fails', 'median delay, checks', 'cause right', 'or called open'],
    rows,
  );
}

function watchOf(seed: number, checks: number, change?: { kind: ChangeKind; ink: number; at: number }) {
  const [device, stock, printMode] = DEVICES[seed % DEVICES.length];
  const firstMs = seed * 1000 * WEEK_MS;
  return simulateWatch({
    device,
    stock,
    printMode,
    seed,
    firstMs,
    everyMs: WEEK_MS,
    checks,
    changes:
      change === undefined
        ? []
        : [{ kind: change.kind, ink: change.ink, fromMs: firstMs + change.at * WEEK_MS - 1 }],
  });
}

function steady(): void {
  let checks = 0;
  let alarmed = 0;
  let events = 0;
  let conditionsOver = 0;
  for (let seed = 1; seed <= SEEDS; seed++) {
    const { alarms } = watchCharts(watchOf(seed, BASELINE_CHECKS + STEADY_CHECKS));
    checks += STEADY_CHECKS;
    alarmed += alarms.length;
    const own = alarms.filter((check) => !alarms.includes(check - 1)).length;
    events += own;
    if (own > 1) conditionsOver++;
  }
  printTable(
    'Steady watches',
    ['watches', 'checks', 'alarms', 'checks in alarm', 'alarms in 50 checks', 'watches with more than one'],
    [[`${SEEDS}`, `${checks}`, `${events}`, `${alarmed}`, (50 * events) / checks, `${conditionsOver}`]],
  );
}

function changed(kind: ChangeKind): (string | number)[] {
  const delays: number[] = [];
  let before = 0;
  let right = 0;
  let open = 0;
  for (let seed = 1; seed <= SEEDS; seed++) {
    const random = createRandom(seedFrom('change', kind, seed));
    const ink = random.below(4);
    const at = BASELINE_CHECKS + 2 + random.below(4);
    const figures = watchOf(seed, at + CHANGED_CHECKS, { kind, ink, at });
    const failsAt = firstFailure(figures, at);
    for (let check = at; check < figures.length; check++) {
      const { over, cause } = watchCharts(figures.slice(0, check + 1));
      if (over.length === 0) continue;
      delays.push(check - at + 1);
      if (failsAt === undefined || check <= failsAt) before++;
      if (isRight(kind, ink, cause)) right++;
      if (cause?.orElse !== null) open++;
      break;
    }
  }
  return [kind, `${delays.length}`, `${before}`, median(delays), `${right}`, `${open}`];
}

/** The first check that does not conform to the proof's tolerances against the zero reading. */
function firstFailure(figures: readonly Float64Array[], from: number): number | undefined {
  const zero = meanFigures(figures.slice(0, 3));
  for (let check = from; check < figures.length; check++) {
    const pairs = WATCH_PATCHES.map(({ device }, patch) => ({
      device,
      aim: watchLab(zero, patch),
      measured: watchLab(figures[check], patch),
    }));
    if (judgeColours(pairs, PROOF).verdict === 'does-not-conform') return check;
  }
  return undefined;
}

function isRight(kind: ChangeKind, ink: number, cause: WatchCause | undefined): boolean {
  if (cause === undefined) return false;
  switch (kind) {
    case 'ink-lot':
    case 'ageing-head':
      return cause.kind === 'ink' && cause.ink === ink;
    case 'stock-lot':
      return cause.kind === 'stock';
    case 'zone':
      return cause.kind === 'zone' && cause.ink === ink && cause.place === 2;
    case 'instrument':
      return cause.kind === 'instrument';
  }
}
