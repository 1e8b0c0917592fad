import type { Lab } from '../colour/lab.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz, xyzRowsToLab } from '../colour/xyzToLab.ts';
import { inkModelXyz } from '../characterise/inkModel.ts';
import type { InkModel } from '../characterise/inkModel.ts';
import { createGamutMap } from '../gamut/gamutMap.ts';
import type { IccTag } from '../icc/iccTypes.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { inkBounds } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import { mapRows, unmappedGrid } from './buildRgbProfile.ts';
import type { BuildProgress, BuiltProfile, TableSize } from './buildRgbProfile.ts';
import { anchorForward, anchorInverse, inverseAt } from './anchorTables.ts';
import { buildForwardGrid } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import {
  GAMUT_FULL_SCALE,
  GAMUT_TOLERANCE,
  KNEE,
  REFERENCE_MEDIUM_BLACK,
  VERSION_2_BLACK,
} from './intents.ts';
import { darkestNeutral, invertInks } from './invertInks.ts';
import { COLORIMETRIC_AXES, MAPPED_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
import { settleInverse } from './settleInverse.ts';
import { setPureBlack } from './pureBlack.ts';
import { outputProfile } from './outputProfile.ts';
import type { OutputProfileOptions } from './outputProfile.ts';
import { forwardTag, inverseTag, quantiseLab } from './profileTables.ts';

export interface InkProfileOptions extends OutputProfileOptions {
  readonly tableSize: TableSize;
  readonly separation: Separation;
  /** Colours that must come out exactly, media-relative Lab, row-major × 3: a refinement's. */
  readonly anchors?: Float64Array;
}

const SIZES: Readonly<Record<TableSize, { forward: number; inverse: number }>> = {
  small: { forward: 11, inverse: 17 },
  normal: { forward: 17, inverse: 33 },
  large: { forward: 21, inverse: 49 },
};
const CHUNK = 4096;
const ANCHOR_ROUNDS = 2;
/** ΔE*ab from the nearest colour that prints, within which a wanted colour can be met. */
const IN_GAMUT = 0.5;

/** Builds a CMYK output profile with all intents from a fitted model. */
export function buildInkProfile(
  model: InkModel,
  options: InkProfileOptions,
  onProgress: BuildProgress = () => {},
): BuiltProfile {
  const { forward: forwardPoints, inverse: inversePoints } = SIZES[options.tableSize];
  const { version, separation } = options;
  onProgress(0, 'Filling the forward table');
  const plain = forwardTable(model, forwardPoints, version, (f) =>
    onProgress(0.35 * f, 'Filling the forward table'),
  );
  const targets = labGridValues(inversePoints, COLORIMETRIC_AXES);
  const words = 'Separating for the colorimetric intent';
  onProgress(0.35, words);
  const darkest = darkestNeutral(plain, separation);
  const relative = invertInks(
    plain,
    targets,
    separation,
    darkest,
    (f) => onProgress(0.35 + 0.21 * f, words),
    inversePoints,
  );
  settleInverse(plain, relative.device, inversePoints, separation);
  const forward =
    options.anchors === undefined
      ? plain
      : anchorTables(model, plain, relative.device, inversePoints, options.anchors, options);
  const gamut = relative.distance.map((distance) =>
    distance <= GAMUT_TOLERANCE ? 0 : Math.min(1, distance / GAMUT_FULL_SCALE),
  );
  const black = labToXyz([darkest, 0, 0], WHITE_ICC);
  const asked = labGridValues(inversePoints, MAPPED_AXES);
  const tables = new Map<string, IccTag>();
  (['perceptual', 'saturation'] as const).forEach((intent, i) => {
    const mapping = `Mapping the ${intent} intent`;
    const from = 0.56 + 0.22 * i;
    onProgress(from, mapping);
    const map = createGamutMap(surfaceLab(forward, separation), {
      sourceBlack: version === 4 ? REFERENCE_MEDIUM_BLACK : VERSION_2_BLACK,
      deviceBlack: black,
      knee: KNEE[intent],
    });
    const number = intent === 'perceptual' ? 0 : 2;
    const mapped = mapRows(asked, (lab) => map.toDevice(lab));
    const inverse = invertInks(
      forward,
      mapped,
      separation,
      darkest,
      (f) => onProgress(from + 0.2 * f, mapping),
      inversePoints,
    );
    if (separation.pureBlack === true && intent === 'saturation')
      setPureBlack(forward, asked, mapped, inverse.device, inkBounds(separation)[3]);
    tables.set(`A2B${number}`, forwardTag(unmappedGrid(forward, map), version));
    tables.set(`B2A${number}`, inverseTag(4, inversePoints, inverse.device, version, MAPPED_AXES));
  });
  tables.set('A2B1', forwardTag(forward, version));
  tables.set('B2A1', inverseTag(4, inversePoints, relative.device, version, COLORIMETRIC_AXES));
  tables.set('gamt', inverseTag(1, inversePoints, gamut, version, COLORIMETRIC_AXES));
  onProgress(1, 'Writing');
  return { forward, profile: outputProfile(options, 'CMYK', tables) };
}

function forwardTable(
  model: InkModel,
  points: number,
  version: 2 | 4,
  onProgress: (fraction: number) => void,
): ForwardGrid {
  const paper = new Float64Array(3);
  inkModelXyz(model, [0, 0, 0, 0], paper);
  const grid = buildForwardGrid(
    4,
    points,
    (device, out) => {
      const rows = device.length / 4;
      for (let from = 0; from < rows; from += CHUNK) {
        const to = Math.min(rows, from + CHUNK);
        inkModelXyz(model, device.subarray(4 * from, 4 * to), out.subarray(3 * from, 3 * to));
        onProgress(to / rows);
      }
    },
    [paper[0], paper[1], paper[2]],
  );
  return { ...grid, lab: quantiseLab(grid.lab, version) };
}

/**
 * Makes both tables agree with the model at the anchors: the forward one where the inverse one puts them, then the
 * inverse one to it.
 * @param inverse node × 4, changed in place.
 * @param wanted those out of gamut are left as they are.
 */
function anchorTables(
  model: InkModel,
  plain: ForwardGrid,
  inverse: Float64Array,
  points: number,
  wanted: Float64Array,
  { separation, version }: InkProfileOptions,
): ForwardGrid {
  const { distance } = invertInks(plain, wanted, separation, darkestNeutral(plain, separation));
  const anchors = wanted.filter((_, i) => distance[Math.floor(i / 3)] < IN_GAMUT);
  let forward = plain;
  for (let round = 0; round < ANCHOR_ROUNDS; round++) {
    anchorInverse(forward, inverse, points, anchors, separation);
    const device = inverseAt(inverse, points, anchors);
    const moved = anchorForward(plain, device, relativeLab(model, device));
    forward = { ...moved, lab: quantiseLab(moved.lab, version) };
  }
  anchorInverse(forward, inverse, points, anchors, separation);
  return forward;
}

/** Media-relative Lab of device rows by the model itself. */
function relativeLab(model: InkModel, device: Float64Array): Float64Array {
  const paper = new Float64Array(3);
  const lab = new Float64Array((device.length / 4) * 3);
  inkModelXyz(model, [0, 0, 0, 0], paper);
  inkModelXyz(model, device, lab);
  for (let i = 0; i < lab.length; i++) lab[i] = Math.max(0, (lab[i] / paper[i % 3]) * WHITE_ICC[i % 3]);
  xyzRowsToLab(lab, WHITE_ICC, lab);
  return lab;
}

/**
 * Lab on the surface of the gamut over the cube of additive values: its light side without black, its dark side with
 * black growing as all three go down, under the total ink limit.
 */
function surfaceLab(grid: ForwardGrid, separation: Separation): (rgb: Vector3) => Lab {
  const table = new InkTable(grid);
  const bounds = inkBounds(separation);
  return ([r, g, b]) => {
    const inks = [1 - r, 1 - g, 1 - b];
    const k = Math.min(...inks) * bounds[3];
    const chromatic = inks[0] + inks[1] + inks[2];
    const room = separation.totalInk - k;
    const factor = chromatic > room ? room / chromatic : 1;
    table.evaluate([...inks.map((ink, i) => Math.min(ink * factor, bounds[i])), k]);
    return [table.lab[0], table.lab[1], table.lab[2]];
  };
}
