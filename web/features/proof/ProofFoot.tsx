'use client';

import { deviceValues } from '@melto/core/device/deviceValues';
import { Swatch } from '@/ui/Swatch';
import type { ProofPoint } from '@/workers/proof.worker';

/** One line in a fixed place: what is under the pointer, from its source through the device to the print. */
export function ProofFoot({ point }: { point: ProofPoint | undefined }) {
  if (point === undefined) return <p className="proof-foot quiet">Point at the picture for its values.</p>;
  const ink = point.device.length !== 3;
  return (
    <div className="proof-foot">
      <span>
        <span className="quiet">picture</span> <b className="mono">{deviceValues(point.source)}</b>
      </span>
      <span>
        <span className="quiet">asked</span> <b className="mono">{labOf(point.asked)}</b>
      </span>
      <span>
        <span className="quiet">device</span> <b className="mono">{deviceValues(point.device)}</b>
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
    </div>
  );
}

const labOf = (lab: readonly number[]): string => lab.map((value) => value.toFixed(0)).join(' ');
