import type { TableSlice } from '@melto/core/profile/tableSlice';

/** A slice of a table as a picture, RGBA. */
export interface SlicePicture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** A slice whose outputs are the signal of a screen. */
export function colourPicture({ side, values }: TableSlice): SlicePicture {
  const rgba = new Uint8ClampedArray(4 * side * side);
  for (let i = 0; i < side * side; i++)
    rgba.set([255 * values[3 * i], 255 * values[3 * i + 1], 255 * values[3 * i + 2], 255], 4 * i);
  return { width: side, height: side, rgba };
}

/** One picture for each channel: no ink is white and all of it black; light is shown as light. */
export function channelPictures({ side, values, outputs }: TableSlice): readonly SlicePicture[] {
  return Array.from({ length: outputs }, (_, channel) => {
    const rgba = new Uint8ClampedArray(4 * side * side);
    for (let i = 0; i < side * side; i++) {
      const value = values[outputs * i + channel];
      const grey = 255 * (outputs === 3 ? value : 1 - value);
      rgba.set([grey, grey, grey, 255], 4 * i);
    }
    return { width: side, height: side, rgba };
  });
}
