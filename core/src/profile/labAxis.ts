/** How the axes of a B2A table are bent: 0 not at all, more makes them denser in the darks and near neutral. */
export interface LabAxes {
  readonly lightnessBend: number;
  readonly chromaBend: number;
}

/** For colours as they are: inks change most from one ΔE00 to the next in the darks. */
export const COLORIMETRIC_AXES: LabAxes = { lightnessBend: 2, chromaBend: 10 };
/** For colours of a whole source space, which are mapped smoothly: no coarser where they are vivid than need be. */
export const MAPPED_AXES: LabAxes = { lightnessBend: 0, chromaBend: 6 };

/** Position 0..1 on the axis of L* in 0…100. Values outside are clipped. */
export function lightnessToAxis(lightness: number, { lightnessBend }: LabAxes): number {
  return bent(Math.min(1, Math.max(0, lightness / 100)), lightnessBend);
}

/** Inverse of `lightnessToAxis`. */
export function axisToLightness(position: number, { lightnessBend }: LabAxes): number {
  return 100 * straightened(position, lightnessBend);
}

/** Position 0..1 on the axis of a*, b* in −128…128; 0 lies at 0.5. Values outside are clipped. */
export function abToAxis(ab: number, { chromaBend }: LabAxes): number {
  const q = bent(Math.min(1, Math.abs(ab) / 128), chromaBend);
  return 0.5 + (ab < 0 ? -q : q) / 2;
}

/** Inverse of `abToAxis`. */
export function axisToAb(position: number, { chromaBend }: LabAxes): number {
  const q = 2 * position - 1;
  const p = straightened(Math.abs(q), chromaBend);
  return (q < 0 ? -p : p) * 128;
}

function bent(share: number, bend: number): number {
  return bend === 0 ? share : Math.log1p(bend * share) / Math.log1p(bend);
}

function straightened(position: number, bend: number): number {
  return bend === 0 ? position : Math.expm1(position * Math.log1p(bend)) / bend;
}
