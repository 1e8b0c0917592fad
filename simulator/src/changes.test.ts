import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { ChangeKind } from '@melto/core/device/printPath';
import { causeSentence } from '@melto/core/watch/causeWords';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import { watchCharts } from '@melto/core/watch/watchCharts';
import { WATCH_PATCHES, watchLab } from '@melto/core/watch/watchFigures';
import { simulateWatch } from './simulateWatch.ts';

const WEEK_MS = 7 * 86_400_000;
const CHECKS = BASELINE_CHECKS + 6;
const CHANGED_FROM = BASELINE_CHECKS + 1;

function watch(kind?: ChangeKind, ink = 1): Float64Array[] {
  return simulateWatch({
    device: 'heron',
    stock: 'lantern-gloss-150',
    printMode: 'standard',
    seed: 2024,
    firstMs: 0,
    everyMs: WEEK_MS,
    checks: CHECKS,
    changes: kind === undefined ? [] : [{ kind, ink, fromMs: CHANGED_FROM * WEEK_MS }],
  });
}

const steady = watch();
const differences = (figures: readonly Float64Array[], check: number): Map<string, number> =>
  new Map(
    WATCH_PATCHES.map(({ name }, patch) => [
      name,
      deltaE2000(watchLab(steady[check], patch), watchLab(figures[check], patch)),
    ]),
  );

describe('what happens to simulated devices', () => {
  it('are parameters that were set before the code that finds them', () => {
    const text = readFileSync(join(import.meta.dirname, 'data/changes.ts'), 'utf8');
    expect(createHash('sha256').update(text).digest('hex')).toBe(
      '851fecd1c78af724ef011f763c2598f2f350489c214135fd591ae7669e43570e',
    );
  });

  it('changes nothing before its time, and the same seed gives the same figures', () => {
    const moved = watch('ink-lot');
    for (let check = 0; check < CHANGED_FROM; check++) expect(moved[check]).toEqual(steady[check]);
    expect(watch()).toEqual(steady);
    expect(watchCharts(steady).alarms).toEqual([]);
  });

  it('a new lot of an ink moves that ink alone, from its first sheet on', () => {
    const by = differences(watch('ink-lot'), CHANGED_FROM);
    expect(by.get('M 100')).toBeGreaterThan(1);
    for (const name of ['paper', 'C 100', 'Y 100', 'CY 100']) expect(by.get(name), name).toBeLessThan(0.3);
  });

  it('an ageing head moves its ink a third of a ΔE00 a week', () => {
    const figures = watch('ageing-head');
    const weeks = CHECKS - 1 - CHANGED_FROM;
    const solid = differences(figures, CHECKS - 1).get('M 100') ?? 0;
    expect(solid / weeks).toBeGreaterThan(0.25);
    expect(solid / weeks).toBeLessThan(0.45);
  });

  it('a new lot of stock moves the paper more than its solids', () => {
    const by = differences(watch('stock-lot'), CHECKS - 1);
    expect(by.get('paper')).toBeGreaterThan(1);
    for (const name of ['M 100', 'Y 100', 'MY 100']) expect(by.get(name), name).toBeLessThan(0.6);
  });

  it.each([
    ['ink-lot', 'Magenta has moved'],
    ['zone', 'right third only'],
    ['stock-lot', 'The paper has moved'],
    ['instrument', 'Everything has moved with the white'],
  ] as const)('%s is found and named', (kind, words) => {
    const { over, cause } = watchCharts(watch(kind));
    expect(over.length).toBeGreaterThan(0);
    expect(cause === undefined ? '' : causeSentence(cause)).toContain(words);
  });
});
