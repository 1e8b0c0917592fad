'use client';

import { Swatch } from '@/ui/Swatch';
import type { ProofPoint } from '@/workers/proof.worker';

const INKS = ['C', 'M', 'Y', 'K'];

/** One line in a fixed place: what is under the pointer, from its source through the device to the print. */
export function ProofFoot({ point }: { point: ProofPoint | undefined }) {
  if (point === undefined)
    return <p className="proof-foot quiet">Point at the picture for its values; drag for the divider.</p>;
  const ink = point.device.length !== 3;
  return (
    <p className="proof-foot">
      <span>
        <span className="quiet">picture</span> <b className="mono">{valuesOf(point.source)}</b>
      </span>
      <span>
        <span className="quiet">asked</span> <b className="mono">{labOf(point.asked)}</b>
      </span>
      <span>
        <span className="quiet">device</span> <b className="mono">{valuesOf(point.device)}</b>
      </span>
      <span>
        <span className="quiet">print</span> <b className="mono">{labOf(point.printed)}</b>
      </span>
      <span>
        ΔE00 <b className="mono">{point.deltaE.toFixed(1)}</b>
      </span>
      {ink && (
        <span>
          <span className="quiet">ink</span>{' '}
          <b className="mono">{Math.round(100 * point.device.reduce((a, b) => a + b, 0))} %</b>
        </span>
      )}
      <span style={{ width: 64 }}>
        <Swatch measured={point.compared} aim={point.asked} height={26} />
      </span>
    </p>
  );
}

/** Light in 0 to 255, inks in per cent. */
function valuesOf(values: readonly number[]): string {
  return values.length === 3
    ? values.map((value) => Math.round(255 * value)).join(' ')
    : values.map((value, i) => `${values.length === 4 ? INKS[i] : ''}${Math.round(100 * value)}`).join(' ');
}

const labOf = (lab: readonly number[]): string => lab.map((value) => value.toFixed(0)).join(' ');
