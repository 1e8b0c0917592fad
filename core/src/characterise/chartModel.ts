import { fitInks, inkModelXyz } from './inkModel.ts';
import { fitRgbModel, rgbModelXyz } from './rgbModel.ts';

/** XYZ of device rows, row-major × 3, by a model of a chart. */
export type ChartModel = (fields: ArrayLike<number>) => Float64Array;

/**
 * A model of a chart, of light or of inks, without figures of its errors.
 * @param channels of the device: 3 for light, more for inks.
 * @param device row-major patch × channel, 0..1.
 * @param xyz row-major patch × 3, Y = 100 for a perfect reflector.
 */
export function chartModel(channels: number, device: Float64Array, xyz: Float64Array): ChartModel {
  const rowsOf = (fields: ArrayLike<number>): Float64Array =>
    new Float64Array((fields.length / channels) * 3);
  if (channels === 3) {
    const model = fitRgbModel(device, xyz);
    return (fields) => {
      const out = rowsOf(fields);
      rgbModelXyz(model, fields, out);
      return out;
    };
  }
  const model = fitInks(device, channels, xyz);
  return (fields) => {
    const out = rowsOf(fields);
    inkModelXyz(model, fields, out);
    return out;
  };
}
