'use client';

import { hueName } from '@melto/core/gamut/gamutWords';
import type { LostColour } from '@melto/core/proof/predictPrint';
import { Swatch } from '@/ui/Swatch';

/** The colours of a picture that come out farthest from what is asked. */
export function LostColours({ lost }: { lost: readonly LostColour[] | undefined }) {
  if (lost === undefined) return null;
  if (lost.length === 0) return <p className="quiet">All of its colours come out within 1 ΔE00.</p>;
  return (
    <>
      <h2 style={{ marginTop: 12 }}>Colours that are lost</h2>
      <p className="quiet small">printed above, asked for in the lower third</p>
      <ul className="lost-colours">
        {lost.map(({ asked, printed, deltaE, share }, i) => (
          <li key={i}>
            <Swatch measured={printed} aim={asked} height={34} />
            <span className="small">
              {hueName(asked[1], asked[2])} <b>{deltaE.toFixed(1)}</b>{' '}
              <span className="quiet">ΔE00, {Math.max(1, Math.round(100 * share))} % of it</span>
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
