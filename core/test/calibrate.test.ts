import { CMYK } from '../src/device/process.ts';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { balanceNeutrals } from '@melto/core/balance/balanceNeutrals';
import { judgeNeutrals } from '@melto/core/balance/judgeNeutrals';
import { neutralReading } from '@melto/core/balance/neutralScales';
import { layoutCopies } from '@melto/core/charts/layoutCopies';
import { repeatPatches } from '@melto/core/charts/namedPatches';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { makeEvennessChart } from '@melto/core/charts/evennessChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { makeNearNeutralChart } from '@melto/core/charts/nearNeutralChart';
import { makeRampChart } from '@melto/core/charts/rampChart';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { patchInkDensities } from '@melto/core/cgats/patchInkDensities';
import { curvesToDeviceLink } from '@melto/core/curveFiles/curvesToDeviceLink';
import { evennessOf } from '@melto/core/evenness/evenness';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { detectFaults } from '@melto/core/faults/detectFaults';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { proposeLimit } from '@melto/core/limits/proposeLimit';
import { inputTotalOf, proposeTotalInk } from '@melto/core/limits/totalInk';
import { createRandom } from '@melto/core/numerics/random';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import {
  applyToneCurves,
  evaluateToneCurve,
  isToneCurve,
  largestBend,
  sampleToneCurve,
  straightCurve,
} from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import type { SheetsToSimulate } from '@melto/simulator/simulateSheets';

const IDENTITY: ToneCurves = [0, 1, 2, 3].map(() => straightCurve());

function read(
  patches: NamedPatches,
  copies: number,
  changes: Partial<SheetsToSimulate> = {},
): { device: Float64Array; xyz: Float64Array; densities: Float64Array; spectra: Float64Array } {
  const { device, names } = repeatPatches(patches, copies);
  const { grid, spectra } = simulateSheets({
    device: 'heron',
    stock: 'lantern-gloss-150',
    printMode: 'standard',
    side: 'printing',
    seed: 11,
    mode: 'M1',
    noise: 'instrument',
    values: device,
    layout: layoutCopies(CMYK, patches.device, copies, 'a4', 3),
    ...changes,
  });
  const set = { ids: names, spectra: { grid, values: spectra }, conditions: {}, notes: [] };
  const xyz = patchXyz(set);
  const densities = patchInkDensities(set);
  if (xyz === undefined || densities === undefined) throw new Error('no colours');
  return { device, xyz, densities, spectra };
}

function curvesFrom(
  { device, xyz, densities }: ReturnType<typeof read>,
  present: ToneCurves,
  limits = [1, 1, 1, 1],
) {
  const paper = meanPaperXyz(CMYK, device, xyz);
  if (paper === undefined) throw new Error('no paper');
  return linearise({
    ramps: inkRamps(CMYK, device, xyz, densities),
    paper,
    present,
    limits,
    measure: 'sctv',
  });
}

describe('a press to a known state', () => {
  const ramps = makeRampChart(CMYK, { steps: 21, totalInk: true });
  const first = curvesFrom(read(ramps, 4), IDENTITY);

  it('is linear by SCTV after one round, on a fresh sheet', () => {
    expect(Math.max(...first.map(({ largest }) => largest))).toBeGreaterThan(0.06);
    const curves = first.map(({ next }) => next);
    const fresh = curvesFrom(read(ramps, 4, { seed: 77, curves }), curves);
    for (const { mean } of fresh) expect(mean).toBeLessThan(0.012);
  });

  it('keeps its curves smooth and names the patch when one is wrong', () => {
    const broken = read(ramps, 2);
    const row = broken.device.findIndex((value, i) => i % 4 === 1 && Math.abs(value - 0.502) < 0.01) >> 2;
    // Read as if it were paper.
    broken.xyz.set([82, 86, 70], 3 * row);
    const found = curvesFrom(broken, IDENTITY);
    expect(found.flatMap(({ wrong }) => wrong.map((patch) => patch.row))).toEqual([row]);
    found.forEach(({ next }, i) => {
      expect(isToneCurve(next)).toBe(true);
      expect(largestBend(next)).toBeLessThanOrEqual(40);
      for (let t = 0; t <= 1; t += 0.1)
        expect(Math.abs(evaluateToneCurve(next, t) - evaluateToneCurve(first[i].next, t))).toBeLessThan(0.02);
    });
  });

  it('has grey greys after one round of balance, aims within their densities', () => {
    const curves = first.map(({ next }) => next);
    const greys = (seed: number, through: ToneCurves) => {
      const { device, xyz } = read(makeNearNeutralChart(), 2, { seed, curves: through });
      const reading = neutralReading(device, xyz);
      if (reading === undefined) throw new Error('no scales');
      return reading;
    };
    const balance = balanceNeutrals(greys(12, curves), curves);
    expect(balance.judgement.verdict).toBe('does-not-conform');
    expect(balance.modelResidual).toBeLessThan(3);
    for (const curve of balance.next) expect(largestBend(curve)).toBeLessThanOrEqual(40);
    const { figures, verdict, extrapolated } = judgeNeutrals(greys(13, balance.next));
    expect(verdict).toBe('conforms');
    expect(extrapolated).toBe(false);
    for (const { mean, largest } of Object.values(figures)) {
      expect(mean).toBeLessThan(1);
      expect(largest).toBeLessThan(2.5);
    }
  });

  it('gets limits with reasons and a total ink that is known twice', () => {
    const { device, xyz, densities } = read(ramps, 4);
    const paper = meanPaperXyz(CMYK, device, xyz);
    if (paper === undefined) throw new Error('no paper');
    for (const ramp of inkRamps(CMYK, device, xyz, densities)) {
      const proposal = proposeLimit(ramp, paper);
      expect(proposal.limit).toBeGreaterThan(0.75);
      expect(proposal.limit === 1).toBe(proposal.reason === 'none');
      expect(proposal.dmax).toBeGreaterThanOrEqual(proposal.densityAtLimit - 1e-9);
    }
    const total = proposeTotalInk(device, xyz, paper[1]);
    expect(total?.total).toBeGreaterThan(2);
    expect(total?.total).toBeLessThan(4);
    const enough = total?.steps.find((step) => step.total === total.total);
    expect(enough?.density).toBeGreaterThanOrEqual((total?.darkest ?? 9) - (total?.tolerance ?? 0));
    // Curves that take ink away need more at their input for the same amount at the device.
    const curves = first.map(({ next }) => next);
    expect(inputTotalOf(3, curves)).toBeGreaterThan(3);
    expect(inputTotalOf(3, IDENTITY)).toBeCloseTo(3, 9);
  });

  it('is at least twice as even across its width after a correction', () => {
    const chart = makeEvennessChart('a4');
    const columns = layoutColumns(chart.layout);
    const across = Float64Array.from(columns.place, (place) => (place - 0.5) / Math.max(...columns.place));
    const run = (seed: number, zones?: readonly (readonly number[])[]) => {
      const { device, xyz, densities } = read(chart, 1, { seed, zones, layout: chart.layout });
      return evennessOf(device, xyz, densities, across, zones);
    };
    const before = run(4);
    const after = run(
      5,
      before.inks.map(({ correction }) => correction),
    );
    expect(before.mean).toBeGreaterThan(0.4);
    expect(after.mean).toBeLessThan(before.mean / 2);
  });
});

describe('faults of a ramp chart', () => {
  const chart = makeRampChart(CMYK, { steps: 11, totalInk: false });
  const kinds = (fault: SheetsToSimulate['fault']): string[] => {
    const { device, xyz, spectra } = read(chart, 1, { fault });
    const lab = new Float64Array(xyz.length);
    xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
    return detectFaults({
      process: CMYK,
      device,
      xyz,
      spectra: { grid: { startNm: 380, stepNm: 10, count: 36 }, values: spectra },
      lab,
      density: Float64Array.from({ length: xyz.length / 3 }, (_, i) => -Math.log10(xyz[3 * i + 1] / 100)),
      strips: layoutCopies(CMYK, chart.device, 1, 'a4', 3).pages.flat(),
      finish: 'gloss',
    }).map(({ kind }) => kind);
  };

  it.each([
    [undefined, []],
    [{ kind: 'front-end', does: 'factory curves' }, ['curves-on']],
    [{ kind: 'colour-management-on', conversion: 'office by RGB' }, ['colour-management-on']],
    [{ kind: 'colour-management-on', conversion: 'coated to press' }, ['colour-management-on']],
  ] as const)('%j gives %j', (fault, expected) => expect(kinds(fault)).toEqual(expected));
});

describe('device link', () => {
  it.each([2, 4] as const)('of version %i, applied by LittleCMS, equals the curves to 0.1 %%', (version) => {
    const folder = mkdtempSync(join(tmpdir(), 'melto-link-'));
    try {
      const curves = [0.75, 1, 1.4, 2].map((power) => sampleToneCurve((t) => 0.95 * t ** power));
      const path = join(folder, 'link.icc');
      writeFileSync(path, writeIcc(curvesToDeviceLink(curves, 'link', 0, version)));
      const random = createRandom(3);
      const values = Float64Array.from({ length: 4000 }, () => random.uniform());
      const lines: string[] = [];
      for (let i = 0; i < values.length; i += 4)
        lines.push([0, 1, 2, 3].map((c) => String(100 * values[i + c])).join(' '));
      const text = execFileSync('transicc', ['-v0', '-n', '-c0', `-l${path}`], {
        input: `${lines.join('\n')}\n`,
        encoding: 'utf8',
        stdio: ['pipe', 'pipe', 'ignore'],
      });
      const theirs = text.trim().split(/\s+/).slice(0, values.length).map(Number);
      const own = applyToneCurves(curves, values);
      const largest = Math.max(...theirs.map((value, i) => Math.abs(value - 100 * own[i])));
      expect(theirs).toHaveLength(values.length);
      expect(largest).toBeLessThan(0.1);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});
