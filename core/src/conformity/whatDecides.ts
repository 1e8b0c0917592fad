import { inkEffects } from './inkEffects.ts';
import { groupsOf, judgeColours, metricValues, STATISTIC_OF } from './judgeColours.ts';
import type { ColourPair, JudgedMetric, Judgement } from './judgeColours.ts';
import type { ToleranceSet } from './toleranceSet.ts';

/** The least number of patches that decide a failing metric: were they on their aims, it would pass. */
export interface DecidingPatches {
  readonly metric: JudgedMetric;
  readonly rows: readonly number[];
}

/** One change that was tried, and what it would come to. */
export interface Remedy {
  readonly kind: 'density' | 'gain' | 'substrate';
  /** 0 C … 3 K; −1 for the paper. */
  readonly ink: number;
  /** Share of density, or gain at the midtone 0..1; 0 for the paper. */
  readonly change: number;
  /** Verdict and largest share of a limit after it. */
  readonly verdict: Judgement['verdict'];
  readonly share: number;
}

export interface WhatDecides {
  readonly deciding: readonly DecidingPatches[];
  /** Largest share of a limit as measured. */
  readonly share: number;
  /** Changes that would help, the best first; those that would make it conform are told by their verdict. */
  readonly remedies: readonly Remedy[];
}

const DENSITY_STEPS = [-0.12, -0.09, -0.06, -0.04, -0.02, 0.02, 0.04, 0.06, 0.09, 0.12];
const GAIN_STEPS = [-0.06, -0.04, -0.03, -0.02, -0.01, 0.01, 0.02, 0.03, 0.04, 0.06];
/** A change that takes less than this share of a limit away is not worth naming. */
const WORTH = 0.05;
const MOST_REMEDIES = 3;

/**
 * What a failing verdict hangs on, computed: the patches, and single changes that are tried on the measured colours.
 * @param corrected the same patches against substrate-corrected aims, where that can be done.
 */
export function whatDecides(
  pairs: readonly ColourPair[],
  judgement: Judgement,
  tolerances: ToleranceSet,
  corrected?: Judgement,
): WhatDecides {
  const failing = judgement.metrics.filter(({ verdict }) => verdict === 'does-not-conform');
  const share = shareOf(judgement);
  if (failing.length === 0) return { deciding: [], share, remedies: [] };
  const remedies: Remedy[] = [];
  if (corrected !== undefined)
    remedies.push({
      kind: 'substrate',
      ink: -1,
      change: 0,
      verdict: corrected.verdict,
      share: shareOf(corrected),
    });
  const groups = groupsOf(pairs);
  const effects = inkEffects(pairs);
  if (effects !== undefined)
    for (let ink = 0; ink < 4; ink++) {
      remedies.push(
        bestOf('density', ink, DENSITY_STEPS, effects.withDensity, pairs, tolerances, groups),
        bestOf('gain', ink, GAIN_STEPS, effects.withGain, pairs, tolerances, groups),
      );
    }
  return {
    deciding: failing.map((metric) => ({ metric, rows: decidingRows(pairs, metric) })),
    share,
    remedies: remedies
      .filter((remedy) => share - remedy.share >= WORTH)
      .sort((a, b) => a.share - b.share)
      .slice(0, MOST_REMEDIES),
  };
}

function bestOf(
  kind: Remedy['kind'],
  ink: number,
  steps: readonly number[],
  effect: (pair: ColourPair, ink: number, change: number) => ColourPair['measured'],
  pairs: readonly ColourPair[],
  tolerances: ToleranceSet,
  groups: ReturnType<typeof groupsOf>,
): Remedy {
  const tried = steps.map((change): Remedy => {
    const moved = pairs.map((pair) => ({ ...pair, measured: effect(pair, ink, change) }));
    const judged = judgeColours(moved, tolerances, groups);
    return { kind, ink, change, verdict: judged.verdict, share: shareOf(judged) };
  });
  return tried.reduce((best, each) => (each.share < best.share ? each : best));
}

/** Largest share of a limit over all metrics that could be judged. */
export function shareOf({ metrics }: Pick<Judgement, 'metrics'>): number {
  return Math.max(
    0,
    ...metrics.filter(({ verdict }) => verdict !== 'not-judged').map((m) => m.value / m.limit),
  );
}

/** Worst patches first, as many as have to be on their aims for the metric to pass. */
function decidingRows(pairs: readonly ColourPair[], metric: JudgedMetric): number[] {
  const { rows, values } = metricValues(pairs)(metric.group, metric.quantity);
  const order = rows
    .map((row, i) => ({ row, size: Math.abs(values[i]) }))
    .sort((a, b) => b.size - a.size)
    .map(({ row }) => row);
  // Weighted and tone differences do not follow from the pair's own aim: those over the limit are named.
  if (metric.quantity === 'ΔTV' || metric.quantity === 'wΔL' || metric.quantity === 'wΔCh')
    return order.slice(0, Math.max(1, values.filter((value) => Math.abs(value) > metric.limit).length));
  // A patch on its aim has no difference; the fewest are found by halves, since each one more only helps.
  const passes = (count: number): boolean => {
    const mended = new Set(order.slice(0, count));
    const left = values.map((value, i) => (mended.has(rows[i]) ? 0 : value));
    return !(STATISTIC_OF[metric.statistic](left) > metric.limit);
  };
  let low = 1;
  let high = order.length;
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (passes(middle)) high = middle;
    else low = middle + 1;
  }
  return order.slice(0, high);
}
