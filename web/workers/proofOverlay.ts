import type { ProofOverlay } from '@melto/core/proof/bakedProof';

/** Colours are whole from this ΔE00 on; below 1 they are the surround's grey. */
export const OVERLAY_WHOLE_AT = 6;
const GREY = 0x77;

/** Draws over a pixel: what comes out as asked turns grey, or ink by its sum from white to black. */
export function overlayDraw(
  overlay: ProofOverlay,
  inks: number,
): ((rgba: Uint8ClampedArray, at: number, deltaE: number, ink: number) => void) | undefined {
  if (overlay === 'out of gamut')
    return (rgba, at, deltaE) => {
      const whole = Math.min(1, Math.max(0, (deltaE - 1) / (OVERLAY_WHOLE_AT - 1)));
      for (let c = 0; c < 3; c++) rgba[at + c] = whole * rgba[at + c] + (1 - whole) * GREY;
    };
  if (overlay === 'ink')
    return (rgba, at, _, ink) => {
      const grey = 255 * (1 - Math.min(1, ink / inks));
      for (let c = 0; c < 3; c++) rgba[at + c] = grey;
    };
  return undefined;
}
