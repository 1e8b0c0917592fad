'use client';

import { useState } from 'react';
import type { DragEvent } from 'react';

/** A place that a file can be dropped on. */
export function useFileDrop(onFile: (file: File | undefined) => void) {
  const [over, setOver] = useState(false);
  return {
    over,
    zone: {
      onDragOver: (event: DragEvent) => {
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        event.preventDefault();
        setOver(false);
        onFile(event.dataTransfer.files[0]);
      },
    },
  };
}
