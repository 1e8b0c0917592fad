'use client';

import { Button } from '@mui/material';
import { useRef } from 'react';

interface FileButtonFacts {
  label: string;
  accept: string;
  disabled?: boolean;
  size?: 'small' | 'medium';
}

/** A button that asks for a file; the same file can be given again. */
export const FileButton = ({ onFile, ...facts }: FileButtonFacts & { onFile: (file: File) => void }) => (
  <FilesButton {...facts} multiple={false} onFiles={([file]) => onFile(file)} />
);

/** A button that asks for files, one at least. */
export function FilesButton({
  label,
  accept,
  disabled,
  size = 'small',
  multiple = true,
  onFiles,
}: FileButtonFacts & { multiple?: boolean; onFiles: (files: readonly File[]) => void }) {
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
        multiple={multiple}
        className="visually-hidden"
        tabIndex={-1}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          if (files.length > 0) onFiles(files);
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
