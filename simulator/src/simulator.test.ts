import { RGB } from '@melto/core/device/process';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import type { PassRequest } from '@melto/core/device/instrument';
import { createRandom } from '@melto/core/numerics/random';
import { mean } from '@melto/core/numerics/statistics';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { createStripReader } from './instruments/stripReader.ts';
import { encodePrintState } from './printState.ts';
import { addReadingNoise } from './readingNoise.ts';
import { wrenInks } from './rgbDriver.ts';
import { wrenTruthSpectra, wrenTruthXyz } from './wrenTruth.ts';

const MINUTE_MS = 60_000;
const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

function labOf(spectra: Float64Array): Float64Array {
  const out = new Float64Array((spectra.length / 36) * 3);
  spectraToXyz(weights, spectra, out);
  xyzRowsToLab(out, WHITE_D50_MEASURED, out);
  return out;
}

const STRIP = Float64Array.of(1, 1, 1, 0, 0, 0, 0.9, 0.2, 0.4, 0.3, 0.8, 0.5, 0.2, 0.2, 0.9, 0.5, 0.5, 0.5);

function pass(changes: Partial<PassRequest> = {}): PassRequest {
  const printState = encodePrintState({
    device: 'wren',
    stock: 'quay-proof-200',
    mode: 'fine',
    process: RGB,
    timeMs: 0,
    sheetIndex: 1,
    seed: 5,
  });
  const timeMs = 300 * MINUTE_MS;
  return {
    printState,
    patches: { device: STRIP, page: 1, strip: 1, strips: 10 },
    mode: 'M1',
    attempt: 'a',
    timeMs,
    tileMs: timeMs - MINUTE_MS,
    ...changes,
  };
}

const reader = createStripReader('r1', 'Reader');
const spectraOf = (request: PassRequest): Float64Array => {
  const outcome = reader.readStrip(request);
  if (!outcome.ok) throw new Error(outcome.failure);
  return outcome.spectra;
};

describe('simulated devices', () => {
  it('has the parameters that figures were measured with', () => {
    const hash = createHash('sha256');
    for (const name of ['inks', 'stocks', 'wren', 'heron', 'osprey'])
      hash.update(readFileSync(new URL(`./data/${name}.ts`, import.meta.url)));
    expect(hash.digest('hex').slice(0, 16)).toBe('d0e82046029dbc1f');
  });

  it('prints nothing for white, most for black, within the ink limit of its mode', () => {
    expect(wrenInks([1, 1, 1], 'fine').every((ink) => ink < 0.001)).toBe(true);
    const total = (mode: 'fine' | 'fast'): number => wrenInks([0, 0, 0], mode).reduce((a, b) => a + b, 0);
    expect(total('fine')).toBeLessThanOrEqual(2.66);
    expect(total('fast')).toBeLessThanOrEqual(2.21);
    expect(total('fast')).toBeGreaterThan(1.5);
  });

  it('is darker on gloss than on matt and far lighter on the wrong side', () => {
    const dmax = (stock: 'lantern-gloss-150' | 'chalk-rag-310', side: 'printing' | 'wrong'): number =>
      -Math.log10(labOf(wrenTruthSpectra(stock, 'fine', [0, 0, 0], 'M1', side))[0] / 100);
    expect(dmax('lantern-gloss-150', 'printing')).toBeGreaterThan(dmax('chalk-rag-310', 'printing'));
    expect(dmax('chalk-rag-310', 'wrong')).toBeLessThan(dmax('chalk-rag-310', 'printing') - 0.1);
  });

  it('shows brightener under M1 and none under M2, only on brightened stock', () => {
    const b = (stock: 'lantern-gloss-150' | 'chalk-rag-310', mode: 'M1' | 'M2'): number =>
      labOf(wrenTruthSpectra(stock, 'fine', [1, 1, 1], mode))[2];
    expect(b('lantern-gloss-150', 'M2') - b('lantern-gloss-150', 'M1')).toBeGreaterThan(2);
    expect(b('chalk-rag-310', 'M2')).toBeCloseTo(b('chalk-rag-310', 'M1'), 9);
  });

  it('settles as it dries', () => {
    const settled = labOf(spectraOf(pass()));
    const fresh = labOf(spectraOf(pass({ timeMs: MINUTE_MS, tileMs: 0 })));
    const later = labOf(spectraOf(pass({ timeMs: 90 * MINUTE_MS, tileMs: 89 * MINUTE_MS })));
    expect(mean(deltaE2000Rows(fresh, settled))).toBeGreaterThan(0.5);
    expect(mean(deltaE2000Rows(fresh, settled))).toBeLessThan(3);
    expect(mean(deltaE2000Rows(later, settled))).toBeLessThan(0.3);
  });
});

describe('accuracy noise', () => {
  it('is 0.20 ΔE00 on average, whatever the colour', () => {
    const random = createRandom(3);
    const rgb = Float64Array.from({ length: 2400 }, () => random.uniform());
    const clean = wrenTruthXyz('quay-proof-200', 'fine', rgb);
    const spectra = wrenTruthSpectra('quay-proof-200', 'fine', rgb);
    for (let at = 0; at < spectra.length; at += 36) addReadingNoise(spectra, at, 0.2, random);
    xyzRowsToLab(clean, WHITE_D50_MEASURED, clean);
    const errors = deltaE2000Rows(clean, labOf(spectra));
    expect(mean(errors)).toBeGreaterThan(0.18);
    expect(mean(errors)).toBeLessThan(0.23);
  });
});

describe('strip reader', () => {
  it('gives the same pass for the same attempt, another for another', () => {
    expect(spectraOf(pass())).toEqual(spectraOf(pass()));
    const repeat = labOf(spectraOf(pass({ attempt: 'b' })));
    const errors = deltaE2000Rows(labOf(spectraOf(pass())), repeat);
    expect(mean(errors)).toBeGreaterThan(0.01);
    expect(mean(errors)).toBeLessThan(0.6);
  });

  it('fails as real ones do and says why', () => {
    for (const hand of ['too-fast', 'off-row', 'started-late'] as const)
      expect(reader.readStrip(pass({ hand }))).toEqual({ ok: false, failure: hand });
    expect(reader.readStrip(pass({ tileMs: undefined }))).toEqual({ ok: false, failure: 'tile-needed' });
    expect(reader.readStrip(pass({ tileMs: 0 }))).toEqual({ ok: false, failure: 'tile-needed' });
  });

  it('reads backwards and takes another strip where the hand does', () => {
    const forward = spectraOf(pass());
    const backward = spectraOf(pass({ hand: 'backwards' }));
    expect(backward.subarray(0, 36)).toEqual(forward.subarray(5 * 36));
    const other = { device: Float64Array.from(STRIP, (v) => 1 - v), page: 1, strip: 2, strips: 10 };
    expect(spectraOf(pass({ hand: 'other-strip', otherPatches: other }))).toEqual(
      spectraOf(pass({ patches: other })),
    );
  });
});
