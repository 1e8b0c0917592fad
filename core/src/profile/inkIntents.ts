import type { ModelOfInks } from '../characterise/inkModel.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { deviceSurface } from '../gamut/deviceSurface.ts';
import { createGamutMap, gamutBoundary } from '../gamut/gamutMap.ts';
import { REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import type { RadialBoundary } from '../gamut/radialBoundary.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import { blackOf, inkBounds } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import { inverseAt } from './anchorTables.ts';
import { mapRows, unmappedGrid } from './buildRgbProfile.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { deviceTable } from './manyInkTable.ts';
import { MAP_STRENGTH, VERSION_2_BLACK } from './intents.ts';
import { invertInks } from './invertInks.ts';
import { COLORIMETRIC_AXES, MAPPED_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
import { meetModel, relativeModelLab } from './meetModel.ts';
import { setPureBlack } from './pureBlack.ts';
import { settleInverse } from './settleInverse.ts';

/** The tables from Lab to inks of one intent: all that it takes, so that it can be worked out anywhere. */
export interface IntentTask {
  readonly intent: 'relative' | 'perceptual' | 'saturation';
  readonly forward: ForwardGrid;
  readonly separation: Separation;
  /** L* of the darkest neutral, see `darkestNeutral`. */
  readonly darkest: number;
  readonly version: 2 | 4;
  /** Nodes along an axis of the table. */
  readonly points: number;
  /** A forward table with fewer nodes, for what mapped intents see: of more than four inks. */
  readonly coarse?: ForwardGrid;
  /** The model itself, where the table is too coarse to stand for it: of more than four inks. */
  readonly model?: ModelOfInks;
  /** Inks of the colorimetric table, node × ink: of many mixtures of a colour a mapped intent takes the same. */
  readonly colorimetric?: Float64Array;
  /** How far what prints reaches, where it is known already: of a mapped intent, see `inkBoundary`. */
  readonly boundary?: RadialBoundary;
}

export interface IntentTables {
  /** Inks of each node, × ink. */
  readonly device: Float64Array;
  /** ΔE*ab between what a node asks for and what its inks give. */
  readonly distance: Float64Array;
  /** Lab of the forward nodes as a mapped intent sees them, × 3; the forward table's own for the colorimetric one. */
  readonly seen: Float64Array;
}

/** Works an intent out; in a thread of its own where there are several. */
export function workIntent(
  task: IntentTask,
  onProgress: (fraction: number) => void = () => {},
): IntentTables {
  const { intent, forward, separation, darkest, version, points, colorimetric, coarse, model, boundary } =
    task;
  if (intent === 'relative') {
    const targets = labGridValues(points, COLORIMETRIC_AXES);
    const { device, distance } = invertInks(forward, targets, separation, darkest, onProgress, points);
    const exact = model === undefined ? undefined : relativeModelLab(model);
    if (exact !== undefined) meetModel(forward, exact, targets, device, distance, separation, darkest);
    settleInverse(forward, device, points, separation, exact);
    return { device, distance, seen: forward.lab };
  }
  const black = blackOf(separation);
  const map = createGamutMap(boundary ?? inkBoundary(forward, separation), {
    sourceBlack: version === 4 ? REFERENCE_MEDIUM_BLACK : VERSION_2_BLACK,
    deviceBlack: labToXyz([darkest, 0, 0], WHITE_ICC),
    strength: MAP_STRENGTH[intent],
  });
  const asked = labGridValues(points, MAPPED_AXES);
  const mapped = mapRows(asked, (lab) => map.toDevice(lab));
  const near = colorimetric === undefined ? undefined : inverseAt(colorimetric, points, mapped);
  const { device, distance } = invertInks(forward, mapped, separation, darkest, onProgress, points, near);
  if (separation.pureBlack === true && intent === 'saturation')
    setPureBlack(forward, asked, mapped, device, inkBounds(separation)[black], black);
  return { device, distance, seen: unmappedGrid(coarse ?? forward, map).lab };
}

/** How far reaches what prints within the limits of a separation, for both mapped intents. */
export function inkBoundary(forward: ForwardGrid, separation: Separation): RadialBoundary {
  return gamutBoundary(inkSurface(forward, separation));
}

/** The surface of what prints within the limits of a separation, media-relative Lab. */
function inkSurface(grid: ForwardGrid, separation: Separation): Vector3[][] {
  const table = deviceTable(grid);
  const { extra } = separation;
  const bounds = inkBounds(separation);
  const families = extra === undefined ? [[...bounds.keys()]] : inkFamilies(extra);
  return families.flatMap((family) => {
    const inks = new Float64Array(grid.channels);
    return deviceSurface(
      {
        inputs: family.length,
        outputs: 3,
        apply: (rows, out) => {
          for (let i = 0; family.length * i < rows.length; i++) {
            family.forEach((ink, place) => (inks[ink] = rows[family.length * i + place]));
            table.evaluate(inks);
            out.set(table.lab, 3 * i);
          }
        },
      },
      separation.totalInk,
      family.map((ink) => bounds[ink]),
    );
  });
}
