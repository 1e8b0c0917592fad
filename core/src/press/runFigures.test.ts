import { describe, expect, it } from 'vitest';
import { unwrap } from '../result.ts';
import { WATCH_PATCHES } from '../watch/watchFigures.ts';
import { designBar } from './colourBar.ts';
import { processUnit } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';
import { runFigures } from './runFigures.ts';

const KCMY = (['K', 'C', 'M', 'Y'] as const).map(processUnit);
const bar = unwrap(designBar(KCMY, { zones: 12, zoneMm: 32, patchMm: 5 }));
/** XYZ that tells patch and sheet. */
const sheet = (add: number) => ({
  xyz: Float64Array.from({ length: 3 * bar.patches.length }, (_, i) => Math.floor(i / 3) + add),
});
const place = (name: string): number => WATCH_PATCHES.findIndex((patch) => patch.name === name);

describe('figures of a run', () => {
  it('are the mean over its sheets, of each patch in each third of the width', () => {
    const figures = unwrap(runFigures(bar, KCMY, [sheet(1), sheet(4)]));
    const solids = bar.patches.flatMap(({ kind, tones }, at) =>
      kind === 'solid' && tones[1] > 0 ? [at] : [],
    );
    for (let third = 0; third < 3; third++) {
      const own = solids.slice(4 * third, 4 * third + 4);
      const mean = own.reduce((sum, at) => sum + at, 0) / 4 + 2.5;
      for (let axis = 0; axis < 3; axis++)
        expect(figures[3 * (3 * place('C 100') + third) + axis]).toBeCloseTo(mean, 9);
    }
  });

  it('are told only where the bar has the patch, to the step of a plate', () => {
    const figures = unwrap(runFigures(bar, KCMY, [sheet(0)]));
    for (const [name, tones] of [
      ['grey 50', [0, 0.5, 0.4, 0.4]],
      ['K 50', [0.5, 0, 0, 0]],
      ['MY 100', [0, 0, 1, 1]],
    ] as const) {
      const thirds = [0, 1, 2].map((third) => Number.isFinite(figures[3 * (3 * place(name) + third)]));
      const wanted = [0, 1, 2].map((third) =>
        bar.patches.some(
          (patch) =>
            !patch.kind.startsWith('slur') &&
            Math.floor(patch.zone / 4) === third &&
            patch.tones.every((tone, unit) => tone === tones[unit]),
        ),
      );
      expect(thirds, name).toEqual(wanted);
      expect(thirds, name).toContain(true);
    }
  });

  it('leave out what was not read, and are refused where a patch is nowhere', () => {
    const open = sheet(1);
    const [paper] = bar.patches.flatMap(({ kind }, at) => (kind === 'paper' ? [at] : []));
    bar.patches.forEach(({ kind }, at) => {
      if (kind === 'paper') open.xyz.fill(NaN, 3 * at, 3 * at + 3);
    });
    expect(runFigures(bar, KCMY, [open])).toMatchObject({
      ok: false,
      issues: [{ code: 'run.patch', found: 'none of paper' }],
    });
    open.xyz.fill(5, 3 * paper, 3 * paper + 3);
    expect(runFigures(bar, KCMY, [open]).ok).toBe(true);
    expect(runFigures(bar, KCMY, []).ok).toBe(false);
  });

  it('take no patch that another ink is printed on, and none of a press without the process inks', () => {
    const spot: PressUnit = { ink: 'Marsh Green', filter: 'red' };
    const five = unwrap(designBar([...KCMY, spot], { zones: 12, zoneMm: 40, patchMm: 5 }));
    const values = { xyz: new Float64Array(3 * five.patches.length).fill(20) };
    const own = five.patches.findIndex(({ kind, tones }) => kind === 'solid' && tones[4] > 0);
    values.xyz.fill(90, 3 * own, 3 * own + 3);
    const figures = unwrap(runFigures(five, [...KCMY, spot], [values]));
    expect(figures.every((value) => Number.isNaN(value) || Math.abs(value - 20) < 1e-9)).toBe(true);
    const two = [processUnit('K'), spot];
    const narrow = unwrap(designBar(two, { zones: 12, zoneMm: 32, patchMm: 5 }));
    expect(runFigures(narrow, two, [{ xyz: new Float64Array(3 * narrow.patches.length).fill(20) }]).ok).toBe(
      false,
    );
  });
});
