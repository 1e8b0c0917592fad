import { genericPressLab } from '@melto/core/charts/genericPress';
import { screenOf } from '@/ui/Swatch';

/** Device values as the chart asks for them: RGB 0..255, inks in per cent. */
export function deviceWords(device: readonly number[]): string {
  return device.length === 3
    ? `RGB ${device.map((value) => Math.round(value)).join(' ')}`
    : `${device.length === 4 ? 'CMYK' : 'inks'} ${device.map((value) => value.toFixed(1)).join(' ')}`;
}

/** Device values as a screen or a generic press would show them. */
export function deviceOnScreen(device: readonly number[]): string {
  return device.length === 3
    ? `rgb(${device.map((value) => Math.round(value)).join(' ')})`
    : screenOf(genericPressLab(device.map((value) => value / 100))).css;
}
