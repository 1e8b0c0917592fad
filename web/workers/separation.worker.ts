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
import type { Separation } from '@melto/core/separate/separation';

/** Colours of a picture that its ink use is worked out from: the most frequent ones. */
const PICTURE_COLOURS = 300;

let grid: ForwardGrid | undefined;
let picture = new Float64Array(0);
let shares = new Float64Array(0);

/** Fits the model once; previews then need its coarse table only. */
const api = {
  /** @returns Lab of the four solids. */
  fit(device: Float64Array, xyz: Float64Array): Float64Array {
    const model = fitInks(device, 4, xyz);
    grid = previewGrid(model);
    const solids = new Float64Array(12);
    inkModelLab(model, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1], solids);
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
    const preview = previewSeparation(grid, separation, hueDeg, scaledPicture(grid, separation), shares);
    return { ...preview, tookMs: performance.now() - started };
  },
  /** What some separations cost, for inks that vary by a share of themselves. */
  costs(separations: readonly Separation[], variation: number): SeparationCost[] {
    const own = grid;
    if (own === undefined) throw new Error('no model is fitted yet');
    return separations.map((separation) =>
      separationCost(own, separation, scaledPicture(own, separation), shares, variation),
    );
  },
};

/** The pictures' colours, their black scaled to the darkest neutral of a separation. */
function scaledPicture(own: ForwardGrid, separation: Separation): Float64Array {
  const black = labToXyz([darkestNeutral(own, separation), 0, 0], WHITE_ICC);
  const scaled = new Float64Array(picture.length);
  blackPoint([0, 0, 0], black).apply(picture, scaled);
  return scaled;
}

export type SeparationWorker = typeof api;

expose(api);
