import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import type { BarReading } from './barReading.ts';
import { patchesOf } from './colourBar.ts';
import type { ColourBar } from './colourBar.ts';
import { isUsualLight, runLightWeights } from './runLight.ts';
import type { RunLight } from './runLight.ts';
import { thicknessLine } from './thicknessLine.ts';
import type { PatchLight } from './thicknessLine.ts';

/** Light of a patch: its spectrum where there is one, else X, Y, Z over white. */
export function lightOf(
  { spectra, grid, xyz, density }: BarReading,
  patch: number,
  channel: number,
): PatchLight | undefined {
  const light =
    spectra !== undefined && grid !== undefined
      ? spectra.subarray(patch * grid.count, (patch + 1) * grid.count)
      : xyz.subarray(3 * patch, 3 * patch + 3).map((value, axis) => value / WHITE_D50_MEASURED[axis]);
  return Number.isFinite(light[1]) ? { light, density: density[4 * patch + channel] } : undefined;
}

/** Lab of such light as `lightOf` tells; none where only spectra would tell it in the run's light. */
export function labOfLight(
  grid: SpectralGrid | undefined,
  seen: RunLight,
): ((light: Float64Array) => Lab) | undefined {
  if (grid === undefined) {
    if (!isUsualLight(seen)) return undefined;
    return ([x, y, z]) =>
      xyzToLab(
        [x * WHITE_D50_MEASURED[0], y * WHITE_D50_MEASURED[1], z * WHITE_D50_MEASURED[2]],
        WHITE_D50_MEASURED,
      );
  }
  const weights = runLightWeights(grid, seen);
  return (light) => xyzToLab(spectrumToXyz(weights, light), weights.white);
}

/** Learns from the sheets that tell the same kind of light as the newest. */
export function learnLine(
  bar: ColourBar,
  sheets: readonly { readonly reading: BarReading }[],
  places: readonly number[],
  channel: number,
): ReturnType<typeof thicknessLine> | undefined {
  const bands = sheets.at(-1)?.reading.grid?.count;
  const alike = sheets.filter(({ reading }) => reading.grid?.count === bands);
  const lights = (patches: readonly number[]): PatchLight[] =>
    alike.flatMap(({ reading }) => patches.flatMap((patch) => lightOf(reading, patch, channel) ?? []));
  const papers = lights(patchesOf(bar, 'paper'));
  const solids = lights(places);
  return papers.length === 0 || solids.length === 0 ? undefined : thicknessLine(papers[0], solids);
}
