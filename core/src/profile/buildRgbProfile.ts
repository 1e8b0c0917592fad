import type { Lab } from '../colour/lab.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { rgbModelXyz } from '../characterise/rgbModel.ts';
import type { RgbModel } from '../characterise/rgbModel.ts';
import { cubeSurface } from '../gamut/radialBoundary.ts';
import { createGamutMap, gamutBoundary } from '../gamut/gamutMap.ts';
import type { GamutMap } from '../gamut/gamutMap.ts';
import { interpolateTetrahedral } from '../icc/interpolateClut.ts';
import type { IccProfile, IccTag } from '../icc/iccTypes.ts';
import { REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import type { Separation } from '../separate/separation.ts';
import { buildForwardGrid } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { invertRgb } from './invertRgb.ts';
import { MAPPED_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
import { forwardTag, inverseTag, quantiseLab } from './profileTables.ts';
import { GAMUT_FULL_SCALE, GAMUT_TOLERANCE, MAP_STRENGTH, VERSION_2_BLACK } from './intents.ts';
import { outputProfile } from './outputProfile.ts';
import type { OutputProfileOptions } from './outputProfile.ts';

export type TableSize = 'small' | 'normal' | 'large';

export interface RgbProfileOptions extends OutputProfileOptions {
  readonly tableSize: TableSize;
}

export interface BuiltProfile {
  readonly profile: IccProfile;
  readonly forward: ForwardGrid;
  /** What an inverse of inks was made by, with its extra inks in their places. */
  readonly separation?: Separation;
}

/** Progress of a build: the share done and what is being done. */
export type BuildProgress = (fraction: number, words: string) => void;

/** Points along an edge of a face of the device's values. */
const SURFACE_POINTS = 17;
const SIZES: Readonly<Record<TableSize, { forward: number; inverse: number }>> = {
  small: { forward: 17, inverse: 17 },
  normal: { forward: 33, inverse: 33 },
  large: { forward: 45, inverse: 49 },
};

/** Builds an output profile with all intents from a fitted model. */
export function buildRgbProfile(
  model: RgbModel,
  options: RgbProfileOptions,
  onProgress: BuildProgress = () => {},
): BuiltProfile {
  const { forward: forwardPoints, inverse: inversePoints } = SIZES[options.tableSize];
  onProgress(0, 'Filling the forward table');
  const modelPaper = new Float64Array(3);
  rgbModelXyz(model, [1, 1, 1], modelPaper);
  const modelGrid = buildForwardGrid(3, forwardPoints, (device, out) => rgbModelXyz(model, device, out), [
    modelPaper[0],
    modelPaper[1],
    modelPaper[2],
  ]);
  const forward: ForwardGrid = { ...modelGrid, lab: quantiseLab(modelGrid.lab, options.version) };
  const targets = labGridValues(inversePoints, MAPPED_AXES);
  onProgress(0.1, 'Inverting for the colorimetric intent');
  const relative = invertRgb(forward, targets, (f) =>
    onProgress(0.1 + 0.3 * f, 'Inverting for the colorimetric intent'),
  );
  const gamut = relative.distance.map((distance) =>
    distance <= GAMUT_TOLERANCE ? 0 : Math.min(1, distance / GAMUT_FULL_SCALE),
  );
  const tags = new Map<string, IccTag>();
  const version4 = options.version === 4;
  const a2b1 = forwardTag(forward, options.version);
  const b2a1 = inverseTag(3, inversePoints, relative.device, options.version, MAPPED_AXES);
  const black = deviceBlack(forward);
  const boundary = gamutBoundary(cubeSurface(SURFACE_POINTS, (device) => forwardLab(forward, device)));
  (['perceptual', 'saturation'] as const).forEach((intent, i) => {
    const words = `Mapping the ${intent} intent`;
    const from = 0.4 + 0.28 * i;
    onProgress(from, words);
    const map = createGamutMap(boundary, {
      sourceBlack: version4 ? REFERENCE_MEDIUM_BLACK : VERSION_2_BLACK,
      deviceBlack: black,
      strength: MAP_STRENGTH[intent],
    });
    const tagNumber = intent === 'perceptual' ? 0 : 2;
    const mapped = mapRows(targets, (lab) => map.toDevice(lab));
    const inverse = invertRgb(forward, mapped, (f) => onProgress(from + 0.24 * f, words));
    tags.set(`A2B${tagNumber}`, forwardTag(unmappedGrid(forward, map), options.version));
    tags.set(`B2A${tagNumber}`, inverseTag(3, inversePoints, inverse.device, options.version, MAPPED_AXES));
  });
  tags.set('A2B1', a2b1);
  tags.set('B2A1', b2a1);
  tags.set('gamt', inverseTag(1, inversePoints, gamut, options.version, MAPPED_AXES));
  onProgress(1, 'Writing');
  return { forward, profile: outputProfile(options, 'RGB ', tags) };
}

export function mapRows(rows: Float64Array, map: (lab: Lab) => Lab): Float64Array {
  const out = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i += 3) out.set(map([rows[i], rows[i + 1], rows[i + 2]]), i);
  return out;
}

/** The forward grid as a mapped intent sees it: A2B0 and A2B2 invert their B2A tables. */
export function unmappedGrid(grid: ForwardGrid, map: GamutMap): ForwardGrid {
  return { ...grid, lab: mapRows(grid.lab, (lab) => map.fromDevice(lab)) };
}

/** Media-relative Lab of one device value by the forward table. */
export function forwardLab(grid: ForwardGrid, device: readonly number[]): Lab {
  const out = new Float64Array(3);
  interpolateTetrahedral(
    grid.lab,
    [grid.points, grid.points, grid.points],
    3,
    Float64Array.from(device),
    0,
    out,
    0,
  );
  return [out[0], out[1], out[2]];
}

/** The device's darkest neutral: lightness of its darkest value, without its tint. */
function deviceBlack(grid: ForwardGrid): Xyz {
  let darkest = Infinity;
  for (let i = 0; i < grid.lab.length; i += 3) darkest = Math.min(darkest, grid.lab[i]);
  return labToXyz([darkest, 0, 0], WHITE_ICC);
}
