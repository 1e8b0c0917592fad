'use client';

import { Button } from '@mui/material';
import { useRef } from 'react';

/** A button that asks for a file; the same file can be given again. */
export function FileButton({
  label,
  accept,
  disabled,
  size = 'small',
  onFile,
}: {
  label: string;
  accept: string;
  disabled?: boolean;
  size?: 'small' | 'medium';
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button size={size} disabled={disabled} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        aria-label={label}
        accept={accept}
        className="visually-hidden"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file !== undefined) onFile(file);
          event.target.value = '';
        }}
      />
    </>
  );
}

/** The same as a word among words. */
export function FileLink({
  label,
  accept,
  onFile,
}: {
  label: string;
  accept: string;
  onFile: (file: File) => void;
}) {
  return (
    <label className="plain small">
      <u>{label}</u>
      <input
        type="file"
        accept={accept}
        className="visually-hidden"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file !== undefined) onFile(file);
          event.target.value = '';
        }}
      />
    </label>
  );
}

/** Pictures that can be given. */
export const PICTURE_FILES = 'image/png,image/jpeg,image/webp,image/gif,image/tiff';
