import { describe, expect, it } from 'vitest';
import { channelPictures, colourPicture } from './slicePictures';

describe('pictures of a slice', () => {
  it('show ink as dark and light as light, a picture for each channel', () => {
    const inks = channelPictures({ side: 1, outputs: 4, values: Float64Array.of(0, 1, 0.5, 0.2) });
    expect(inks.map(({ rgba }) => rgba[0])).toEqual([255, 0, 128, 204]);
    const lights = channelPictures({ side: 1, outputs: 3, values: Float64Array.of(0, 1, 0.2) });
    expect(lights.map(({ rgba }) => [...rgba])).toEqual([
      [0, 0, 0, 255],
      [255, 255, 255, 255],
      [51, 51, 51, 255],
    ]);
  });

  it('show colours row by row', () => {
    const values = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1, 0.2, 0.2, 0.2);
    const { rgba } = colourPicture({ side: 2, outputs: 3, values });
    expect([...rgba]).toEqual([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 51, 51, 51, 255]);
  });
});
