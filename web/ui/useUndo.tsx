'use client';

import { Button } from '@mui/material';
import { useSnackbar } from 'notistack';

const UNDO_MS = 10_000;

/** Says what was done, and offers for ten seconds to undo it. */
export function useUndo(): (words: string | undefined, undo: () => void) => void {
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  return (words, undo) => {
    enqueueSnackbar(words, {
      autoHideDuration: UNDO_MS,
      action: (key) => (
        <Button
          color="inherit"
          onClick={() => {
            closeSnackbar(key);
            undo();
          }}
        >
          Undo
        </Button>
      ),
    });
  };
}
