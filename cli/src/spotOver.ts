import type { PatchSet } from '@melto/core/cgats/patchSet';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { fitInkPhysics } from '@melto/core/characterise/inkPhysics';
import { mergeRepeats } from '@melto/core/characterise/mergeRepeats';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { measuredLabRows } from '@melto/core/colour/measuredLabRows';
import { channelNames, drivenByInks } from '@melto/core/device/process';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { gridWavelengths } from '@melto/core/spectral/spectralGrid';
import { fitSpectralMixture, mixtureSpectrum } from '@melto/core/spot/spectralMixture';
import { spotFingerprint, spotOver } from '@melto/core/spot/spotFingerprint';
import type { ReadTint, SpotFingerprint } from '@melto/core/spot/spotFingerprint';
import { deviceOf, measuredAs, readMeasuredFile, readPatchFile, report, writePatchFile } from './files.ts';
import { UsageError } from './usageError.ts';

export interface SpotOverOptions {
  readonly process: string;
  readonly tints: string;
  readonly ask: string;
  readonly measuredAs?: string;
  readonly out?: string;
  readonly json?: boolean;
}

/** The tone curves of a first look: what the spectra leave over is no matter here. */
const FREEDOM = { bends: 7, penalty: 2e-4 } as const;
const NONE = 1e-6;

/** Foretells a spot ink over mixtures of process inks from its tints on white and on black. */
export function spotOverProcess(options: SpotOverOptions): void {
  const read = spectralReading(options.process, options.measuredAs);
  const names = channelNames(read.process);
  const tints = spectralReading(options.tints, options.measuredAs);
  const { grid } = read.spectra;
  if (JSON.stringify(tints.spectra.grid) !== JSON.stringify(grid))
    throw new UsageError(
      `${options.tints}: found other wavelengths than in ${options.process}, expected the same`,
    );
  const others = channelNames(tints.process).filter((name) => !names.includes(name));
  if (others.length !== 1)
    throw new UsageError(
      `${options.tints}: found ${channelNames(tints.process).join(', ')}, expected one ink beside ${names.join(', ')}`,
    );
  const [spot] = others;
  const fingerprint = fingerprintOf(options.tints, tints, spot);
  const inks = names.length;
  const xyz = patchXyz(read.set);
  if (xyz === undefined) throw new UsageError(`${options.process}: found no colours`);
  const patches = mergeRepeats(read.device, inks, xyz);
  const physics = fitInkPhysics(patches.device, inks, patches.xyz, patches.counts, FREEDOM);
  const mixture = fitSpectralMixture(physics, read.device, read.spectra.values, gridWavelengths(grid));
  const asked = readPatchFile(options.ask);
  const { device, process } = deviceOf(options.ask, asked);
  const channels = channelNames(process);
  const places = names.map((name) => channels.indexOf(name));
  const at = channels.indexOf(spot);
  if (at < 0 || places.some((place) => place < 0) || channels.length !== inks + 1)
    throw new UsageError(
      `${options.ask}: found values of ${channels.join(', ')}, expected ${[...names, spot].join(', ')}`,
    );
  const count = device.length / channels.length;
  const values = new Float64Array(count * grid.count);
  for (let row = 0; row < count; row++) {
    const own = device.subarray(row * channels.length, (row + 1) * channels.length);
    const ground = mixtureSpectrum(
      mixture,
      places.map((place) => own[place]),
    );
    values.set(spotOver(fingerprint, own[at], ground), row * grid.count);
  }
  const foretold: PatchSet = {
    ...asked,
    xyz: undefined,
    lab: undefined,
    spectra: { grid, values },
    conditions: read.set.conditions,
    originator: 'Melto',
  };
  if (options.out !== undefined) writePatchFile(options.out, foretold);
  const [measured, own] = [patchXyz(asked), patchXyz(foretold)];
  const error =
    measured === undefined || own === undefined
      ? undefined
      : summariseErrors(deltaE2000Rows(measuredLabRows(measured), measuredLabRows(own)));
  report(options.json, { patches: count, spot, error, out: options.out }, [
    `${count} patches of ${spot} over ${names.join(', ')}${options.out === undefined ? '' : `: ${options.out}`}`,
    error === undefined
      ? 'how far they are off cannot be told: no measured colours are asked for'
      : `off from what was measured: mean ${error.mean.toFixed(2)}, 95 % under ${error.p95.toFixed(2)}, largest ${error.largest.toFixed(2)} ΔE00`,
  ]);
}

function spectralReading(path: string, as: string | undefined) {
  const set = readMeasuredFile(path, measuredAs(as));
  const { device, process } = deviceOf(path, set);
  if (!drivenByInks(process)) throw new UsageError(`${path}: found ${process.name} values, expected inks`);
  if (set.spectra === undefined)
    throw new UsageError(`${path}: found no spectra of like wavelengths, expected them`);
  return { set, device, process, spectra: set.spectra };
}

/** The spot ink taken apart, from rows on bare stock and on the darkest other ground. */
function fingerprintOf(
  path: string,
  { device, process, spectra }: ReturnType<typeof spectralReading>,
  spot: string,
): SpotFingerprint {
  const names = channelNames(process);
  const at = names.indexOf(spot);
  const bands = spectra.grid.count;
  const rows = Array.from({ length: device.length / names.length }, (_, row) => ({
    tint: device[row * names.length + at],
    ground: names.reduce((sum, _name, c) => sum + (c === at ? 0 : device[row * names.length + c]), 0),
    spectrum: spectra.values.subarray(row * bands, (row + 1) * bands),
  }));
  const darkest = Math.max(...rows.map(({ ground }) => ground));
  const meanOf = (tint: number, ground: number): Float64Array | undefined => {
    const same = rows.filter(
      (row) => Math.abs(row.tint - tint) < NONE && Math.abs(row.ground - ground) < NONE,
    );
    if (same.length === 0) return undefined;
    return Float64Array.from(
      { length: bands },
      (_, band) => same.reduce((sum, { spectrum }) => sum + spectrum[band], 0) / same.length,
    );
  };
  const [white, black] = [meanOf(0, 0), meanOf(0, darkest)];
  if (white === undefined || black === undefined || darkest < NONE)
    throw new UsageError(`${path}: found no bare stock and dark ground, expected both without ${spot}`);
  const tints = [...new Set(rows.map(({ tint }) => tint))]
    .filter((tint) => tint > NONE)
    .flatMap((tint): ReadTint[] => {
      const [onWhite, onBlack] = [meanOf(tint, 0), meanOf(tint, darkest)];
      return onWhite === undefined || onBlack === undefined ? [] : [{ tint, onWhite, onBlack }];
    });
  try {
    return spotFingerprint(tints, white, black);
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(`${path}: ${error.message}`);
    throw error;
  }
}
