'use client';

import { useEffect, useRef } from 'react';

/** Pixels on a canvas of their own size. */
export function Pixels({
  drawn,
  label,
}: {
  drawn: { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray<ArrayBuffer> };
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    canvas.current
      ?.getContext('2d')
      ?.putImageData(new ImageData(drawn.rgba, drawn.width, drawn.height), 0, 0);
  }, [drawn]);
  return <canvas ref={canvas} width={drawn.width} height={drawn.height} role="img" aria-label={label} />;
}
