/** Mean XYZ of the patches that leave the stock bare; undefined where there are none. */
export function meanPaperXyz(
  device: Float64Array,
  channels: number,
  bare: number,
  xyz: Float64Array,
): [number, number, number] | undefined {
  const sum: [number, number, number] = [0, 0, 0];
  let count = 0;
  for (let row = 0; row * channels < device.length; row++) {
    let isBare = true;
    for (let c = 0; c < channels; c++) if (Math.abs(device[row * channels + c] - bare) > 1e-6) isBare = false;
    if (!isBare) continue;
    count++;
    for (let axis = 0; axis < 3; axis++) sum[axis] += xyz[row * 3 + axis];
  }
  return count === 0 ? undefined : [sum[0] / count, sum[1] / count, sum[2] / count];
}
