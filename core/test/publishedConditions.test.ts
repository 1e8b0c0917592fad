import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { publishedAims } from '@melto/core/conformity/aims';
import type { Aims } from '@melto/core/conformity/aims';
import { checkAgainstAims } from '@melto/core/conformity/checkAgainstAims';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';
import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { unwrap } from '@melto/core/result';

// Debian's icc-profiles-free: the full characterisations of the published conditions.
const fileOf = (name: string): string => `/usr/share/color/icc/${name}.ti3`;
const setOf = (name: string): PatchSet => unwrap(readPatchSet(readFileSync(fileOf(name), 'latin1')));
const aimsOf = (set: PatchSet): Aims => ({
  device: set.device ?? new Float64Array(0),
  xyz: patchXyz(set) ?? new Float64Array(0),
  conditions: set.conditions,
});
const ISO = TOLERANCE_SETS.filter(({ id }) => id.startsWith('iso'));
const NAMES = PUBLISHED_CONDITIONS.map(({ name }) => name);
const GREYSCALE = TOLERANCE_SETS.filter(({ id }) => id === 'g7-greyscale');

describe.skipIf(!existsSync(fileOf('FOGRA39L')))('published characterisations', () => {
  it.each(NAMES)('%s, judged by itself, conforms to every ISO set, with nothing off', (name) => {
    const set = setOf(name);
    for (const tolerances of ISO) {
      const check = unwrap(checkAgainstAims(set, aimsOf(set), tolerances, false));
      expect(`${tolerances.name}: ${check.verdict}`).toBe(`${tolerances.name}: conforms`);
      for (const { value } of check.metrics) expect(Math.abs(value)).toBeLessThan(1e-9);
      expect(check.pairs.every(({ origin }) => origin === 'given')).toBe(true);
    }
  });

  it.each(['TR003', 'TR005', 'TR006'])('%s, made by G7, is within its grey scale', (name) => {
    const set = setOf(name);
    for (const tolerances of GREYSCALE) {
      const check = unwrap(checkAgainstAims(set, aimsOf(set), tolerances, false));
      expect(check.metrics.map(({ group, quantity, verdict }) => `${group} ${quantity} ${verdict}`)).toEqual(
        check.metrics.map(({ group, quantity }) => `${group} ${quantity} conforms`),
      );
    }
  });

  it.each(NAMES)('%s by its published solids alone gets no verdict on what they do not tell', (name) => {
    const set = setOf(name);
    const published = PUBLISHED_CONDITIONS.find((each) => each.name === name) ?? PUBLISHED_CONDITIONS[0];
    for (const tolerances of ISO.filter(({ id }) => !id.startsWith('iso12647-2-production'))) {
      const check = unwrap(checkAgainstAims(set, publishedAims(published), tolerances, false));
      const verdicts = Object.fromEntries(check.metrics.map((line) => [line.group, line]));
      for (const group of ['all', 'greys']) {
        expect(verdicts[group].verdict).toBe('not-judged');
        expect(verdicts[group].estimated).toBeGreaterThan(0);
      }
      for (const group of ['substrate', 'solids']) {
        expect(verdicts[group].verdict).toBe('conforms');
        expect(verdicts[group].estimated).toBe(0);
      }
      expect(check.verdict).toBe('not-judged');
    }
  });
});
