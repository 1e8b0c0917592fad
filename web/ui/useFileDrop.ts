'use client';

import { useState } from 'react';
import type { DragEvent } from 'react';

/** A place that a file can be dropped on. */
export const useFileDrop = (onFile: (file: File | undefined) => void) =>
  useFilesDrop((files) => onFile(files[0]));

/** A place that files can be dropped on. */
export function useFilesDrop(onFiles: (files: readonly File[]) => void) {
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
        onFiles([...event.dataTransfer.files]);
      },
    },
  };
}
