'use client';

import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { problemWords } from '@/ui/api';

const UNDO_MS = 10_000;

/** Does something that can be undone for ten seconds, with a word on it. */
export function usePutAway(): (
  send: (away: boolean) => Promise<unknown>,
  words: string | undefined,
) => Promise<void> {
  const router = useRouter();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const put = async (
    send: (away: boolean) => Promise<unknown>,
    words: string | undefined,
    away = words !== undefined,
  ): Promise<void> => {
    try {
      await send(away);
      router.refresh();
      if (away)
        enqueueSnackbar(words, {
          autoHideDuration: UNDO_MS,
          action: (key) => (
            <Button
              color="inherit"
              onClick={() => {
                closeSnackbar(key);
                void put(send, words, false);
              }}
            >
              Undo
            </Button>
          ),
        });
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  return put;
}
