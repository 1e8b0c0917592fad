'use client';

import type { ProofOverlay } from '@melto/core/proof/bakedProof';
import { useMemo } from 'react';
import { Pixels } from '@/ui/Pixels';
import type { BakedPrint, DrawnProof, ProofedPicture } from '@/workers/proof.worker';
import { GpuPixels } from './gpu/GpuPixels';

const LABEL = 'The picture as it prints';

/** The print of a picture, drawn already or by the GPU. */
export function PrintPixels({
  print,
  picture,
  overlay,
  onLost,
}: {
  print: DrawnProof | BakedPrint;
  picture: ProofedPicture;
  overlay: ProofOverlay;
  /** There is no GPU to draw with. */
  onLost: () => void;
}) {
  const drawing = useMemo(() => ('baked' in print ? { ...print, overlay } : undefined), [print, overlay]);
  if ('rgba' in print) return <Pixels drawn={print} label={LABEL} />;
  return drawing === undefined ? null : (
    <GpuPixels {...{ picture, drawing, onLost }} screen={print.screen} label={LABEL} />
  );
}
