import { CMYK } from '@melto/core/device/process';
import { existsSync, readFileSync } from 'node:fs';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { fitSpline } from '@melto/core/characterise/fitSpline';
import { fitSpaceToXyz, xyzToFitSpace } from '@melto/core/characterise/fitSpace';
import { mergeRepeats } from '@melto/core/characterise/mergeRepeats';
import { evaluateSpline } from '@melto/core/characterise/radialSpline';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { measuredLabRows } from '@melto/core/colour/measuredLabRows';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzToLab } from '@melto/core/colour/xyzToLab';
import type { Random } from '@melto/core/numerics/random';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import { applyToneCurves, straightCurve } from '@melto/core/tone/toneCurve';
import { deviceTruthXyz } from '@melto/simulator/deviceTruth';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import { simulatedDevice } from '@melto/simulator/devices';
import { WREN_PRINTER } from '@melto/simulator/inkPrinter';
import { noisyLab } from '@melto/simulator/readingNoise';
import { meanInkState, SpectralPrinter } from '@melto/simulator/spectralPrinter';

/** A device whose truth is known: XYZ of CMYK rows on the mean, settled sheet. */
export interface CmykCondition {
  readonly name: string;
  readonly truth: (cmyk: ArrayLike<number>) => Float64Array;
}

export const PUBLISHED_FOLDER = '/usr/share/color/icc';
export const PUBLISHED = [
  'FOGRA28L',
  'FOGRA29L',
  'FOGRA30L',
  'FOGRA39L',
  'FOGRA40L',
  'TR002',
  'TR003',
  'TR005',
  'TR006',
];

const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

/**
 * Offset-like, difficult (pigment inks with bumps and bleeding on gloss; through its curves and raw), and a table that
 * is no mixture model.
 */
export function cmykConditions(): CmykCondition[] {
  const osprey = simulatedDevice('osprey');
  const inkjet = new SpectralPrinter(
    WREN_PRINTER,
    SIMULATED_STOCKS['lantern-gloss-150'],
    'M1',
    'printing',
    meanInkState(WREN_PRINTER),
  );
  const pigment: CmykCondition = {
    name: 'difficult',
    truth: (cmyk) => {
      const spectra = new Float64Array((cmyk.length / 4) * 36);
      for (let i = 0; i * 4 < cmyk.length; i++)
        inkjet.print([cmyk[4 * i], cmyk[4 * i + 1], cmyk[4 * i + 2], cmyk[4 * i + 3]], spectra, 36 * i);
      const xyz = new Float64Array((cmyk.length / 4) * 3);
      spectraToXyz(weights, spectra, xyz);
      return xyz;
    },
  };
  return [
    linearised({
      name: 'offset-like',
      truth: (cmyk) => deviceTruthXyz(osprey, 'lantern-gloss-150', '175 lpi', cmyk),
    }),
    linearised(pigment),
    { ...pigment, name: 'difficult, raw' },
    ...tableCondition(),
  ];
}

/** The device as its charts are printed: through curves that make each ink even by SCTV. */
function linearised({ name, truth }: CmykCondition): CmykCondition {
  const steps = 41;
  const values = new Float64Array(4 * steps * 4);
  for (let ink = 0; ink < 4; ink++)
    for (let step = 0; step < steps; step++) values[(ink * steps + step) * 4 + ink] = step / (steps - 1);
  const xyz = truth(values);
  const curves = linearise({
    ramps: inkRamps(CMYK, values, xyz),
    paper: xyz.slice(0, 3),
    present: [0, 1, 2, 3].map(() => straightCurve()),
    limits: [1, 1, 1, 1],
    measure: 'sctv',
  }).map(({ next }) => next);
  return { name, truth: (cmyk) => truth(applyToneCurves(curves, cmyk)) };
}

/** A smooth interpolated table: the published characterisation with the most patches, joined by a spline. */
function tableCondition(): CmykCondition[] {
  const found = publishedSet('FOGRA39L');
  if (found === undefined) return [];
  const merged = mergeRepeats(found.device, 4, found.xyz);
  const targets = new Float64Array(merged.xyz.length);
  xyzToFitSpace(merged.xyz, targets);
  const spline = fitSpline(
    { inputs: 4, outputs: 3, centres: merged.device, targets, counts: merged.counts },
    1e-3,
  );
  return [
    {
      name: 'published table',
      truth: (cmyk) => {
        const out = new Float64Array((cmyk.length / 4) * 3);
        evaluateSpline(spline, cmyk, out);
        fitSpaceToXyz(out, out);
        return out;
      },
    },
  ];
}

export function publishedSet(name: string): { device: Float64Array; xyz: Float64Array } | undefined {
  const path = `${PUBLISHED_FOLDER}/${name}.ti3`;
  if (!existsSync(path)) return undefined;
  const set = readPatchSet(readFileSync(path, 'utf8'));
  if (!set.ok) throw new Error(`${name}: ${set.issues.map((issue) => issue.found).join('; ')}`);
  const xyz = patchXyz(set.value);
  if (set.value.device === undefined || xyz === undefined) throw new Error(`${name} has no colours`);
  return { device: set.value.device, xyz };
}

/** Adds noise so that a reading differs from the truth by `meanDeltaE` ΔE00 on average. */
export function noisyXyz(xyz: Float64Array, meanDeltaE: number, random: Random): Float64Array {
  const out = new Float64Array(xyz.length);
  for (let i = 0; i < xyz.length; i += 3) {
    const lab = xyzToLab([xyz[i], xyz[i + 1], xyz[i + 2]], WHITE_D50_MEASURED);
    out.set(labToXyz(noisyLab(lab, meanDeltaE, random), WHITE_D50_MEASURED), i);
  }
  return out;
}

/** Lab (D50/2°) of XYZ rows. */
export const labOf = measuredLabRows;

/** Random device values within a total ink limit. */
export function unprinted(count: number, totalInk: number, random: Random): Float64Array {
  const out = new Float64Array(count * 4);
  for (let i = 0; i < count;) {
    const values = [random.uniform(), random.uniform(), random.uniform(), random.uniform()];
    if (values.reduce((a, b) => a + b, 0) > totalInk) continue;
    out.set(values, 4 * i++);
  }
  return out;
}
