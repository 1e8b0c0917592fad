import type { ProofFigures as Figures } from '@/workers/proof.worker';

/** Channels of a device that takes light. */
const LIGHTS = 3;

/** How far the picture comes out from what it is, over all pixels. */
export function ProofFigures({
  figures,
  inks,
}: {
  figures: Figures;
  /** Channels of the device. */
  inks: number;
}) {
  const percent = (share: number): string => `${(100 * share).toFixed(0)} %`;
  return (
    <dl className="facts">
      <dt>ΔE00, mean and 95 %</dt>
      <dd>
        {figures.mean.toFixed(1)}, {figures.p95.toFixed(1)}
      </dd>
      <dt>Over 1, 3, 6 ΔE00</dt>
      <dd>{figures.beyond.map(percent).join(', ')}</dd>
      {inks !== LIGHTS && (
        <>
          <dt>Ink, mean and most</dt>
          <dd>
            {percent(figures.meanInk)}, {percent(figures.mostInk)}
          </dd>
        </>
      )}
    </dl>
  );
}
