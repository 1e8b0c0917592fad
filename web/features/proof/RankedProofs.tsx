'use client';

import { memo } from 'react';
import type { RankedProof } from '@/workers/proof.worker';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { Pixels } from '@/ui/Pixels';

/** The same picture on each condition, the nearest to it first; drawn anew only where they are. */
export const RankedProofs = memo(function RankedProofs({
  ranked,
  sources,
  chosen,
  onChoose,
}: {
  ranked: readonly RankedProof[];
  sources: readonly ProfileSource[];
  chosen: string;
  onChoose: (key: string) => void;
}) {
  const order = [...ranked].sort((a, b) => a.predicted.mean - b.predicted.mean);
  return (
    <ol className="ranked-proofs" aria-label="Where this picture comes out nearest">
      {order.map(({ key, predicted, ...drawn }) => {
        const name = sources.find((source) => source.key === key)?.label ?? key;
        return (
          <li key={key}>
            <button
              type="button"
              className="plain"
              aria-pressed={key === chosen}
              onClick={() => onChoose(key)}
              title={`Proof it on ${name}`}
            >
              <span className="booth">
                <Pixels drawn={drawn} label={`As ${name} prints it`} />
              </span>
              <b>{name}</b>
              <span className="small">
                ΔE00 {predicted.mean.toFixed(1)} <span className="quiet">mean,</span>{' '}
                {predicted.p95.toFixed(1)}{' '}
                <span className="quiet">95 %; {Math.round(100 * predicted.over3)} % over 3</span>
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
});
