import { patchXyz } from '@melto/core/cgats/patchColours';
import { issueText } from '@melto/core/result';
import { trialFigures } from '@melto/core/stock/trialFigures';
import type { TrialFigures } from '@melto/core/stock/trialFigures';
import { deviceOf, measuredAs, readMeasuredFile, report } from './files.ts';
import { UsageError } from './usageError.ts';

export interface PapersOptions {
  readonly measuredAs?: string;
  readonly json?: boolean;
}

/** Compares papers by one chart that was measured on each of them. */
export function papers(paths: readonly string[], options: PapersOptions): void {
  const as = measuredAs(options.measuredAs);
  const told = paths.map((path) => ({ paper: path, ...figuresOf(path, as) }));
  report(
    options.json,
    { papers: told },
    told.map(({ paper, white, density, darkest, volume, greys, noise, pictures }) =>
      [
        `${paper}: white ${white.map((value) => value.toFixed(1)).join(' ')}`,
        `Dmax ${density.toFixed(2)}, darkest L* ${darkest[0].toFixed(1)}`,
        `gamut ${(volume / 1000).toFixed(0)} thousand ΔE*ab³`,
        `greys ΔCh ${greys.toFixed(1)}`,
        noise === null ? 'no repeated patches' : `noise ΔE00 ${noise.toFixed(2)}`,
        `lost ΔE00: ${pictures.map(({ name, lost }) => `${name} ${lost.toFixed(1)}`).join(', ')}`,
      ].join('; '),
    ),
  );
}

function figuresOf(path: string, as: ReturnType<typeof measuredAs>): TrialFigures {
  const set = readMeasuredFile(path, as);
  const { device, process } = deviceOf(path, set);
  const xyz = patchXyz(set);
  if (xyz === undefined) throw new UsageError(`${path}: found no colours, expected spectra, XYZ or Lab`);
  const made = trialFigures(process, device, xyz);
  if (!made.ok) throw new UsageError(`${path}: ${made.issues.map(issueText).join('; ')}`);
  return made.value;
}
