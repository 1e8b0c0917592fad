import { patchXyz } from '@melto/core/cgats/patchColours';
import { fitReport } from '@melto/core/characterise/fitReport';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { characterisationText, meanPaperXyz } from '@melto/core/profile/characterisationText';
import { oneOf, readPatchFile, report, rgbDevice, writeFile } from './files.ts';
import { UsageError } from './usageError.ts';

export interface ProfileBuildOptions {
  readonly measured: string;
  readonly out: string;
  readonly icc: string;
  readonly tables: string;
  readonly name?: string;
  readonly report?: string;
  readonly json?: boolean;
}

export function profileBuild(options: ProfileBuildOptions): void {
  const version = oneOf(options.icc, '--icc', ['2', '4']) === '2' ? 2 : 4;
  const tableSize = oneOf(options.tables, '--tables', ['small', 'normal', 'large']);
  const set = readPatchFile(options.measured);
  const device = rgbDevice(options.measured, set);
  const xyz = patchXyz(set);
  if (xyz === undefined)
    throw new UsageError(`${options.measured}: found no colours, expected spectra, XYZ or Lab`);
  const paperXyz = meanPaperXyz(device, 3, 1, xyz);
  if (paperXyz === undefined)
    throw new UsageError(
      `${options.measured}: found no bare paper, expected at least one patch of RGB 255 255 255`,
    );
  if (set.ids.length < 40)
    throw new UsageError(`${options.measured}: found ${set.ids.length} patches, expected at least 40`);
  const started = performance.now();
  const model = fitRgbModel(device, xyz);
  const { profile } = buildRgbProfile(model, {
    version,
    tableSize,
    description: options.name ?? options.out.replace(/^.*\/|\.icc$/g, ''),
    copyright: 'No rights reserved',
    createdMs: Date.now(),
    characterisation: characterisationText(set),
    paperXyz,
  });
  const bytes = writeIcc(profile);
  const seconds = (performance.now() - started) / 1000;
  writeFile(options.out, bytes);
  const fit = fitReport(model, device, xyz);
  if (options.report !== undefined) writeFile(options.report, `${JSON.stringify(fit, null, 2)}\n`);
  const { summary } = fit;
  report(
    options.json,
    { out: options.out, bytes: bytes.length, seconds, summary, repeatability: fit.repeatability },
    [
      ...set.notes,
      `cross-validated ΔE00, reading noise included: mean ${summary.mean.toFixed(2)}, 95 % under ${summary.p95.toFixed(2)}, largest ${summary.largest.toFixed(2)}`,
      fit.repeatability === undefined
        ? 'no repeated patches'
        : `repeated patches differ from their mean by ${fit.repeatability.mean.toFixed(2)} ΔE00`,
      `${options.out}: version ${version}, ${bytes.length} bytes, ${seconds.toFixed(1)} s`,
    ],
  );
}
