import { expose } from 'comlink';
import { fitInks, inkModelLab } from '@melto/core/characterise/inkModel';
import { blackPoint } from '@melto/core/transform/links';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import type { ForwardGrid } from '@melto/core/profile/forwardGrid';
import { darkestNeutral } from '@melto/core/profile/invertInks';
import { pictureHistogram } from '@melto/core/refine/mainColours';
import { separationCost } from '@melto/core/separate/separationCost';
import type { SeparationCost } from '@melto/core/separate/separationCost';
import { previewGrid, previewSeparation } from '@melto/core/separate/separationPreview';
import type { SeparationPreview } from '@melto/core/separate/separationPreview';
import { placedSeparation, USUAL_REPLACE } from '@melto/core/separate/placedSeparation';
import { separationOf } from '@melto/core/separate/separation';
import type { Separation } from '@melto/core/separate/separation';
import type { Process } from '@melto/core/device/process';

/** Colours of a picture that its ink use is worked out from: the most frequent ones. */
const PICTURE_COLOURS = 300;

let grid: ForwardGrid | undefined;
let places: Separation['extra'];
let picture = new Float64Array(0);
let shares = new Float64Array(0);

/** Fits the model once; previews then need its coarse table only. */
const api = {
  /** @returns Lab of the solids. */
  fit(process: Process, device: Float64Array, xyz: Float64Array): Float64Array {
    const inks = process.channels.length;
    const model = fitInks(device, inks, xyz);
    places = placedSeparation(model, process, separationOf('medium', inks, inks)).extra;
    grid = previewGrid(model, places);
    const solids = new Float64Array(3 * inks);
    const full = Float64Array.from({ length: inks * inks }, (_, i) => (i % (inks + 1) === 0 ? 1 : 0));
    inkModelLab(model, full, solids);
    return solids;
  },
  /** The colours of some pictures, each counted alike. */
  takePictures(pixels: readonly Uint8ClampedArray[]): void {
    const colours = pixels.flatMap((rgba) => {
      const own = pictureHistogram(rgba, Math.ceil(PICTURE_COLOURS / pixels.length));
      const covered = own.reduce((sum, { share }) => sum + share, 0);
      return own.map(({ lab, share }) => ({ lab, share: share / covered / pixels.length }));
    });
    picture = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
    shares = Float64Array.from(colours, ({ share }) => share);
  },
  preview(separation: Separation, hueDeg: number): SeparationPreview & { readonly tookMs: number } {
    if (grid === undefined) throw new Error('no model is fitted yet');
    const started = performance.now();
    const own = placed(separation);
    const preview = previewSeparation(grid, own, hueDeg, scaledPicture(grid, own), shares);
    return { ...preview, tookMs: performance.now() - started };
  },
  /** What some separations cost, for inks that vary by a share of themselves. */
  costs(separations: readonly Separation[], variation: number): SeparationCost[] {
    const own = grid;
    if (own === undefined) throw new Error('no model is fitted yet');
    return separations
      .map(placed)
      .map((separation) =>
        separationCost(own, separation, scaledPicture(own, separation), shares, variation),
      );
  },
};

/** A separation with the extra inks in their places. */
function placed(separation: Separation): Separation {
  return places === undefined
    ? separation
    : { ...separation, extra: { ...places, replace: separation.replace ?? USUAL_REPLACE } };
}

/** The pictures' colours, their black scaled to the darkest neutral of a separation. */
function scaledPicture(own: ForwardGrid, separation: Separation): Float64Array {
  const black = labToXyz([darkestNeutral(own, separation), 0, 0], WHITE_ICC);
  const scaled = new Float64Array(picture.length);
  blackPoint([0, 0, 0], black).apply(picture, scaled);
  return scaled;
}

export type SeparationWorker = typeof api;

expose(api);
