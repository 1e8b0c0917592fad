'use client';

import { useEffect, useRef } from 'react';
import type { ScreenSpace } from '@melto/core/proof/screen';

/** Pixels on a canvas of their own size. */
export function Pixels({
  drawn,
  label,
}: {
  drawn: {
    readonly width: number;
    readonly height: number;
    readonly rgba: Uint8ClampedArray<ArrayBuffer>;
    /** What its values are meant for; sRGB where nothing is said. */
    readonly screen?: ScreenSpace;
  };
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const colorSpace = drawn.screen ?? 'srgb';
  useEffect(() => {
    canvas.current
      ?.getContext('2d', { colorSpace })
      ?.putImageData(new ImageData(drawn.rgba, drawn.width, drawn.height, { colorSpace }), 0, 0);
  }, [drawn, colorSpace]);
  // A canvas keeps the space that it was first drawn in.
  return (
    <canvas
      key={colorSpace}
      ref={canvas}
      width={drawn.width}
      height={drawn.height}
      role="img"
      aria-label={label}
    />
  );
}
