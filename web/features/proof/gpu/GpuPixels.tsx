'use client';

import { useEffect, useRef } from 'react';
import type { ScreenSpace } from '@melto/core/proof/screen';
import { gpuProof } from './gpuProof';
import type { GpuDrawing, GpuPicture, GpuProof } from './gpuProof';

/** The proof of a picture, drawn on the GPU at the picture's size. */
export function GpuPixels({
  picture,
  drawing,
  screen,
  label,
  onLost,
}: {
  picture: GpuPicture;
  drawing: GpuDrawing;
  screen: ScreenSpace;
  label: string;
  /** The browser has no GPU to draw with, or takes it away. */
  onLost: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const gpu = useRef<GpuProof>(undefined);
  const opened = useRef<GpuPicture>(undefined);
  const lost = useRef(onLost);
  lost.current = onLost;
  useEffect(() => {
    const own = canvas.current;
    if (own === null) return undefined;
    gpu.current = gpuProof(own, screen);
    opened.current = undefined;
    if (gpu.current === undefined) lost.current();
    const gone = (): void => lost.current();
    own.addEventListener('webglcontextlost', gone);
    return () => {
      own.removeEventListener('webglcontextlost', gone);
      gpu.current?.close();
      gpu.current = undefined;
    };
  }, [screen]);
  useEffect(() => {
    if (opened.current !== picture) gpu.current?.open(picture);
    opened.current = picture;
    gpu.current?.draw(drawing);
  }, [picture, drawing, screen]);
  // A canvas keeps the space that it was first drawn in.
  return <canvas key={screen} ref={canvas} role="img" aria-label={label} data-fineness={drawing.fineness} />;
}
