import type { PatchSet, PatchSpectra } from '../cgats/patchSet.ts';
import type { Lab } from '../colour/lab.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import type { Illuminant } from '../spectral/illuminant.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import type { Observer } from '../spectral/xyzWeights.ts';
import type { Aims } from './aims.ts';
import { deviceKey } from './aims.ts';

/** Aim and measured colour of a device value under a light, relative to that light's white. */
export interface SeenPair {
  readonly device: readonly number[];
  readonly aim: Lab;
  readonly measured: Lab;
}

/**
 * Aims and reading under another illuminant or for another observer; both must be known as spectra. Aims are as given:
 * not interpolated and not corrected for the substrate. Repeats are averaged as reflectance.
 */
export function seenUnder(
  reading: PatchSet,
  aims: Aims,
  illuminant: Illuminant,
  observer: Observer,
): Result<SeenPair[]> {
  const { device, spectra } = reading;
  if (device === undefined || spectra === undefined || aims.spectra === undefined)
    return failure({
      code: 'check.spectra',
      path: spectra === undefined ? 'reading' : 'aims',
      expected: 'spectra, to see colours under another light',
      found: 'colours only',
    });
  const seen = (of: PatchSpectra): ((rows: readonly number[]) => Lab) => {
    const weights = createXyzWeights(of.grid, illuminant, observer);
    const bands = of.grid.count;
    return (rows) => {
      const mean = new Float64Array(bands);
      for (const row of rows)
        for (let band = 0; band < bands; band++) mean[band] += of.values[row * bands + band] / rows.length;
      return xyzToLab(spectrumToXyz(weights, mean), weights.white);
    };
  };
  const read = rowsByKey(device);
  const wanted = rowsByKey(aims.device);
  const [asRead, asWanted] = [seen(spectra), seen(aims.spectra)];
  return success(
    [...read].flatMap(([key, rows]) => {
      const aim = wanted.get(key);
      return aim === undefined
        ? []
        : [
            {
              device: [...device.subarray(4 * rows[0], 4 * rows[0] + 4)],
              aim: asWanted(aim),
              measured: asRead(rows),
            },
          ];
    }),
  );
}

function rowsByKey(device: Float64Array): Map<string, number[]> {
  const out = new Map<string, number[]>();
  for (let row = 0; row < device.length / 4; row++) {
    const key = deviceKey(device, row);
    out.set(key, [...(out.get(key) ?? []), row]);
  }
  return out;
}
