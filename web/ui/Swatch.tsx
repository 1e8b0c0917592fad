import type { Lab } from '@melto/core/colour/lab';
import { labToScreen } from '@melto/core/colour/srgb';

/** Screen colour of a Lab value and whether the screen can show it. */
export function screenOf(lab: readonly number[]): { css: string; clipped: boolean } {
  const { rgb, clipped } = labToScreen(lab as unknown as Lab);
  return { css: `rgb(${rgb.join(' ')})`, clipped };
}

/** Measured colour with its aim in the lower third, no line between; a corner mark where out of sRGB. */
export function Swatch({
  measured,
  aim,
  height = 56,
  label,
}: {
  measured: readonly number[];
  aim?: readonly number[];
  height?: number;
  label?: string;
}) {
  const top = screenOf(measured);
  const bottom = aim === undefined ? undefined : screenOf(aim);
  return (
    <div className="swatch" style={{ height, background: top.css }} role="img" aria-label={label ?? 'colour'}>
      {bottom !== undefined && <i style={{ background: bottom.css }} />}
      {(top.clipped || bottom?.clipped === true) && <b title="outside the screen's colours" />}
    </div>
  );
}
