import { RGB } from '@melto/core/device/process';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { fitRgbModel, rgbModelLab } from '@melto/core/characterise/rgbModel';
import { deltaE2000Of, deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { evaluatePolynomial, fitPolynomial } from './polynomial.ts';
import { printTable } from './table.ts';

const UNPRINTED = 10_000;
const CLOSED_LOOP = 4_000;
const STOCKS = ['quay-proof-200', 'chalk-rag-310'] as const;
type Stock = (typeof STOCKS)[number];
/** A target this near (ΔE00) to the true surface is reported apart. */
const NEAR_SURFACE = 1;

function truthLab(stock: Stock, rgb: Float64Array): Float64Array {
  const lab = wrenTruthXyz(stock, 'fine', rgb);
  xyzRowsToLab(lab, WHITE_D50_MEASURED, lab);
  return lab;
}

/** Terms as the design's page on simulation defines them: truth is the noise-free M1 spectrum of the mean sheet. */
export async function accuracy(): Promise<void> {
  const forward: (string | number)[][] = [];
  const loop: (string | number)[][] = [];
  const folder = mkdtempSync(join(tmpdir(), 'melto-bench-'));
  for (const patches of [400, 900, 1500])
    for (const stock of STOCKS) {
      const surface = surfaceColours(stock);
      for (const seed of [1, 2, 3]) {
        for (const noise of patches === 900
          ? (['accuracy', 'instrument'] as const)
          : (['accuracy'] as const)) {
          const { device } = makeRgbChart(patches, seed);
          const layout = layoutChart(RGB, device, 'a4', seed);
          const { grid, spectra } = simulateSheets({
            device: 'wren',
            stock,
            printMode: 'fine',
            side: 'printing',
            seed,
            mode: 'M1',
            noise,
            values: device,
            layout,
          });
          const xyz = patchXyz({
            ids: new Array<string>(patches).fill(''),
            spectra: { grid, values: spectra },
            conditions: {},
            notes: [],
          });
          if (xyz === undefined) throw new Error('no colours');
          const started = performance.now();
          const model = fitRgbModel(device, xyz);
          const paperXyz = meanPaperXyz(RGB, device, xyz);
          if (paperXyz === undefined) throw new Error('no paper');
          const built = buildRgbProfile(model, {
            version: 4,
            tableSize: 'normal',
            description: 'bench',
            copyright: 'none',
            createdMs: 0,
            paperXyz,
          });
          const bytes = writeIcc(built.profile);
          const seconds = (performance.now() - started) / 1000;
          const random = createRandom(1000 + seed);
          const probe = Float64Array.from({ length: UNPRINTED * 3 }, () => random.uniform());
          const truth = truthLab(stock, probe);
          const predicted = new Float64Array(truth.length);
          rgbModelLab(model, probe, predicted);
          const errors = deltaE2000Rows(truth, predicted);
          const dark = errors.filter(
            (_, i) => truth[3 * i] < 30 && Math.hypot(truth[3 * i + 1], truth[3 * i + 2]) < 8,
          );
          const summary = summariseErrors(errors);
          const lab = new Float64Array(xyz.length);
          xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
          const clean = truthLab(stock, device);
          evaluatePolynomial(fitPolynomial(device, lab), probe, predicted);
          const polynomial = summariseErrors(deltaE2000Rows(truth, predicted));
          forward.push([
            `${patches} ${stock} seed ${seed}`,
            noise,
            summary.mean,
            summary.p95,
            summary.largest,
            summariseErrors(dark).mean,
            model.crossValidation.summary.mean,
            polynomial.mean,
            polynomial.p95,
            summariseErrors(deltaE2000Rows(clean, lab)).mean,
            seconds,
            process.memoryUsage().rss / 1e6,
          ]);
          if (patches !== 900) continue;
          const path = join(folder, 'p.icc');
          writeFileSync(path, bytes);
          loop.push([`${stock} seed ${seed}`, noise, ...closedLoop(stock, path, random.uniform, surface)]);
        }
      }
    }
  rmSync(folder, { recursive: true });
  printTable(
    `Forward, ${UNPRINTED} unprinted values, ΔE00 against the truth (limits at 900 patches: mean 0.25, 95 % 0.60, dark neutrals 0.45)`,
    [
      'patches, stock',
      'noise',
      'mean',
      '95 %',
      'largest',
      'dark',
      'cross-val.',
      'polynomial',
      '95 %',
      'noise floor',
      'seconds',
      'MB',
    ],
    forward,
  );
  printTable(
    `Closed loop through LittleCMS, absolute intent, 900 patches (limits in gamut: mean 0.35, 95 % 0.90)`,
    [
      'stock',
      'noise',
      'mean',
      '95 %',
      'largest',
      'share apart %',
      'apart: mean',
      '95 %',
      'all: mean',
      '95 %',
    ],
    loop,
  );
}

/** Colours of the faces of the device cube, dense enough to measure distances of 1 ΔE00 to them. */
function surfaceColours(stock: Stock): Float64Array {
  const steps = 48;
  const rows: number[] = [];
  for (let axis = 0; axis < 3; axis++)
    for (const side of [0, 1])
      for (let i = 0; i <= steps; i++)
        for (let j = 0; j <= steps; j++) {
          const device = [0, 0, 0];
          device[axis] = side;
          device[(axis + 1) % 3] = i / steps;
          device[(axis + 2) % 3] = j / steps;
          rows.push(...device);
        }
  return truthLab(stock, Float64Array.from(rows));
}

function closedLoop(stock: Stock, path: string, uniform: () => number, surface: Float64Array): number[] {
  const wanted = truthLab(stock, Float64Array.from({ length: CLOSED_LOOP * 3 }, uniform));
  const lines: string[] = [];
  for (let i = 0; i < wanted.length; i += 3) lines.push(`${wanted[i]} ${wanted[i + 1]} ${wanted[i + 2]}`);
  const text = execFileSync('transicc', ['-v0', '-n', '-t3', '-c0', '-i*Lab4', `-o${path}`], {
    input: `${lines.join('\n')}\n`,
    encoding: 'utf8',
    stdio: ['pipe', 'pipe', 'ignore'],
    maxBuffer: 1e8,
  });
  const device = Float64Array.from(text.trim().split(/\s+/).slice(0, wanted.length), (word) =>
    Math.min(1, Math.max(0, Number(word) / 255)),
  );
  const errors = deltaE2000Rows(wanted, truthLab(stock, device));
  const near = Array.from(errors, (_, i) => nearSurface(wanted, i, surface));
  const inside = summariseErrors(errors.filter((_, i) => !near[i]));
  const apart = summariseErrors(errors.filter((_, i) => near[i]));
  const all = summariseErrors(errors);
  return [
    inside.mean,
    inside.p95,
    inside.largest,
    (100 * apart.count) / CLOSED_LOOP,
    apart.mean,
    apart.p95,
    all.mean,
    all.p95,
  ];
}

function nearSurface(lab: Float64Array, i: number, surface: Float64Array): boolean {
  const [l, a, b] = [lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]];
  for (let k = 0; k < surface.length; k += 3) {
    // ΔE00 is at least a third of ΔE*ab at high chroma: a cheap test first.
    if (Math.abs(l - surface[k]) > 2 || Math.abs(a - surface[k + 1]) > 5 || Math.abs(b - surface[k + 2]) > 5)
      continue;
    if (deltaE2000Of(l, a, b, surface[k], surface[k + 1], surface[k + 2]) < NEAR_SURFACE) return true;
  }
  return false;
}
