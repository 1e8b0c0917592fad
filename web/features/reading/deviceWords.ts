import { genericLab } from '@melto/core/charts/expectedColours';
import { drivenByLight } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { screenOf } from '@/ui/Swatch';

/** Device values as the chart asks for them: RGB 0..255, inks in per cent, in the order of their letters. */
export function deviceWords(process: Process, device: readonly number[]): string {
  const digits = drivenByLight(process) ? 0 : 1;
  return `${process.name} ${device.map((value) => value.toFixed(digits)).join(' ')}`;
}

/** Device values as a screen or a generic press would show them. */
export function deviceOnScreen(process: Process, device: readonly number[]): string {
  return drivenByLight(process)
    ? `rgb(${device.map((value) => Math.round(value)).join(' ')})`
    : screenOf(
        genericLab(
          process,
          device.map((value) => value / process.scale),
        ),
      ).css;
}
