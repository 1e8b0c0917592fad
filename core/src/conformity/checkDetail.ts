import type { PredictedCheck } from './predictConformity.ts';
import type { MeasurementConditions } from '../cgats/patchSet.ts';
import type { Lab } from '../colour/lab.ts';
import { largest, mean, percentile, standardDeviation } from '../numerics/statistics.ts';
import { PAIR_QUANTITIES } from './colourDifferences.ts';
import type { AimOrigin } from './aims.ts';
import type { AimCheck } from './checkAgainstAims.ts';
import type { ErrorBudget } from './errorBudget.ts';
import type { JudgedMetric } from './judgeColours.ts';
import { groupsOf } from './judgeColours.ts';
import { PATCH_GROUPS } from './patchGroups.ts';
import type { PatchGroup } from './patchGroups.ts';
import type { Verdict } from '../judgement/verdict.ts';
import type { Quantity, Statistic } from './toleranceSet.ts';
import type { WhatDecides } from './whatDecides.ts';

/** What was judged, by whom, when, with what. Times are milliseconds. */
export interface CheckHeader {
  readonly condition: string;
  readonly sheet: string;
  readonly chart: string;
  readonly instrument: string;
  readonly person: string;
  readonly madeMs: number;
  readonly printedMs: number;
  readonly readMs: number;
  /** Read before its rest was over. */
  readonly early: boolean;
  readonly measured: MeasurementConditions;
  readonly aims: {
    readonly id: number;
    readonly name: string;
    readonly version: number;
    readonly origin: string;
    /** Name of the set that they were moved from, where they are aims on a paper. */
    readonly movedFrom?: string;
    readonly conditions: MeasurementConditions;
  };
  readonly tolerances: {
    readonly id: number;
    readonly name: string;
    readonly version: number;
    readonly source: string;
    /** Written by the house, not as a standard has it. */
    readonly own?: boolean;
    readonly notJudged: readonly string[];
    /** Limits that are not known to be the standard's; checks before there was such a word do not hold it. */
    readonly doubts?: readonly string[];
  };
  /** How the wedge went to the device: `through the profile, absolute colorimetric, and curves v3`. */
  readonly through: string;
  /** Aims, tolerances and correction were chosen before the reading, or changed after it. */
  readonly chosen: 'before the reading' | 'after the reading';
  /** What was predicted when the wedge was printed. */
  readonly predicted?: PredictedCheck;
}

export interface CheckedPatch {
  readonly name: string;
  /** C, M, Y, K, per cent; none of a spot colour. */
  readonly device: readonly number[];
  readonly aim: Lab;
  readonly uncorrected: Lab;
  readonly measured: Lab;
  readonly origin: AimOrigin;
  readonly groups: readonly PatchGroup[];
  readonly deltaE: number;
}

/** A metric as it is stored: what could not be judged has no value. */
export interface StoredMetric {
  readonly group: PatchGroup;
  readonly statistic: Statistic;
  readonly quantity: Quantity;
  readonly limit: number;
  readonly value: number | null;
  readonly margin: number | null;
  readonly verdict: Verdict;
  readonly count: number;
  readonly worst: number | null;
  /** Patches whose aims are estimates; such a metric has no verdict. Not told by checks of before. */
  readonly estimated?: number;
}

export interface Distribution {
  readonly count: number;
  readonly mean: number;
  readonly median: number;
  /** Null where there is one patch. */
  readonly standardDeviation: number | null;
  readonly p90: number;
  readonly p95: number;
  /** Mean of those beyond the 95th percentile. */
  readonly tail: number;
  readonly largest: number;
}

export interface GroupFigures {
  readonly group: PatchGroup;
  readonly count: number;
  readonly mean: number;
  readonly largest: number;
  readonly meanDeltaH: number;
  readonly meanDeltaCh: number;
}

/** A conformity check with all that its report shows; plain data. */
export interface CheckDetail {
  readonly kind: 'aims';
  readonly header: CheckHeader;
  readonly verdict: Verdict;
  readonly substrateCorrected: boolean;
  /** Not told by checks of before it could be chosen: theirs moved with the paper. */
  readonly spotsMoved?: boolean;
  readonly otherwise: readonly string[];
  readonly withoutAim: number;
  readonly metrics: readonly StoredMetric[];
  readonly patches: readonly CheckedPatch[];
  readonly distribution: Distribution;
  readonly groups: readonly GroupFigures[];
  readonly white: { readonly aim: Lab; readonly read: Lab } | null;
  readonly decides: Omit<WhatDecides, 'deciding'> & {
    /** Metric by its place, and the patches that it hangs on. */
    readonly deciding: readonly { readonly metric: number; readonly rows: readonly number[] }[];
    /** Patches whose aims the device cannot reach, by its profile. */
    readonly outOfReach: readonly number[];
    /** An earlier check whose colours would pass. */
    readonly drift: { readonly version: number; readonly madeMs: number; readonly mean: number } | null;
  };
  readonly budget: ErrorBudget | null;
  /** Patch of each place on the sheet: page, strip, place. −1 where it has no aim. */
  readonly sheet: readonly (readonly (readonly number[])[])[];
}

export function checkedPatches(check: AimCheck, nameOf: (row: number) => string): CheckedPatch[] {
  const groups = groupsOf(check.pairs);
  return check.pairs.map(({ device, spot, aim, uncorrected, measured, origin }, row) => ({
    name: spot ?? nameOf(row),
    device: spot === undefined ? Array.from(device, (value) => Math.round(value * 10_000) / 100) : [],
    aim,
    uncorrected,
    measured,
    origin,
    groups: [...groups[row]],
    deltaE: check.deltaE[row],
  }));
}

export function storedMetric(line: JudgedMetric): StoredMetric {
  const judged = Number.isFinite(line.value);
  return {
    ...line,
    value: judged ? line.value : null,
    margin: judged ? line.margin : null,
    worst: line.worst ?? null,
  };
}

/** A spot colour is stored without inks: they are a means. */
export function isSpot({ device }: Pick<CheckedPatch, 'device'>): boolean {
  return device.length === 0;
}

/** Patches of the process inks: all but spot colours. */
export function processPatches(patches: readonly CheckedPatch[]): CheckedPatch[] {
  return patches.filter(({ groups }) => groups.includes('all'));
}

/** Of the ΔE00 of all patches but spot colours. */
export function distributionOf(patches: readonly CheckedPatch[]): Distribution {
  const values = processPatches(patches).map(({ deltaE }) => deltaE);
  const p95 = percentile(values, 95);
  return {
    count: values.length,
    mean: mean(values),
    median: percentile(values, 50),
    standardDeviation: values.length > 1 ? standardDeviation(values) : null,
    p90: percentile(values, 90),
    p95,
    tail: mean(values.filter((value) => value >= p95)),
    largest: largest(values),
  };
}

/** Figures of each group that has patches. */
export function groupFigures(patches: readonly CheckedPatch[]): GroupFigures[] {
  return PATCH_GROUPS.flatMap((group) => {
    const own = patches.filter(({ groups }) => groups.includes(group));
    if (own.length === 0) return [];
    const meanOf = (quantity: 'ΔH' | 'ΔCh'): number =>
      mean(own.map(({ aim, measured }) => Math.abs(PAIR_QUANTITIES[quantity](aim, measured))));
    return [
      {
        group,
        count: own.length,
        mean: mean(own.map(({ deltaE }) => deltaE)),
        largest: largest(own.map(({ deltaE }) => deltaE)),
        meanDeltaH: meanOf('ΔH'),
        meanDeltaCh: meanOf('ΔCh'),
      },
    ];
  });
}
