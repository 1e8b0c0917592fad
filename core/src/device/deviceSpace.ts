/** The channels a device is driven with. */
export type DeviceSpace = 'rgb' | 'cmyk' | 'cmykog';

export const CHANNEL_NAMES: Readonly<Record<DeviceSpace, readonly string[]>> = {
  rgb: ['R', 'G', 'B'],
  cmyk: ['C', 'M', 'Y', 'K'],
  cmykog: ['C', 'M', 'Y', 'K', 'O', 'G'],
};

export function channelCount(space: DeviceSpace): number {
  return CHANNEL_NAMES[space].length;
}

/** Device value (every channel alike) that leaves the stock bare: 1 for RGB, 0 for inks. */
export function paperValue(space: DeviceSpace): number {
  return space === 'rgb' ? 1 : 0;
}
