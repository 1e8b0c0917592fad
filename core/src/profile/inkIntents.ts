import type { Lab } from '../colour/lab.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { createGamutMap } from '../gamut/gamutMap.ts';
import { REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { inkBounds } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import { mapRows, unmappedGrid } from './buildRgbProfile.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { KNEE, VERSION_2_BLACK } from './intents.ts';
import { invertInks } from './invertInks.ts';
import { COLORIMETRIC_AXES, MAPPED_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
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
}

export interface IntentTables {
  /** Inks of each node, × 4. */
  readonly device: Float64Array;
  /** ΔE*ab between what a node asks for and what its inks give. */
  readonly distance: Float64Array;
  /** Lab of the forward nodes as a mapped intent sees them, × 3; the forward table's own for the colorimetric one. */
  readonly seen: Float64Array;
}

/** Works an intent out; in a thread of its own where there are several. */
export function workIntent(
  { intent, forward, separation, darkest, version, points }: IntentTask,
  onProgress: (fraction: number) => void = () => {},
): IntentTables {
  if (intent === 'relative') {
    const targets = labGridValues(points, COLORIMETRIC_AXES);
    const { device, distance } = invertInks(forward, targets, separation, darkest, onProgress, points);
    settleInverse(forward, device, points, separation);
    return { device, distance, seen: forward.lab };
  }
  const map = createGamutMap(surfaceLab(forward, separation), {
    sourceBlack: version === 4 ? REFERENCE_MEDIUM_BLACK : VERSION_2_BLACK,
    deviceBlack: labToXyz([darkest, 0, 0], WHITE_ICC),
    knee: KNEE[intent],
  });
  const asked = labGridValues(points, MAPPED_AXES);
  const mapped = mapRows(asked, (lab) => map.toDevice(lab));
  const { device, distance } = invertInks(forward, mapped, separation, darkest, onProgress, points);
  if (separation.pureBlack === true && intent === 'saturation')
    setPureBlack(forward, asked, mapped, device, inkBounds(separation)[3]);
  return { device, distance, seen: unmappedGrid(forward, map).lab };
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
