'use client';

import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { problemWords } from '@/ui/api';
import { useUndo } from '@/ui/useUndo';

/** Does something that can be undone for ten seconds, with a word on it. */
export function usePutAway(): (
  send: (away: boolean) => Promise<unknown>,
  words: string | undefined,
) => Promise<void> {
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const offerUndo = useUndo();
  const put = async (
    send: (away: boolean) => Promise<unknown>,
    words: string | undefined,
    away = words !== undefined,
  ): Promise<void> => {
    try {
      await send(away);
      router.refresh();
      if (away) offerUndo(words, () => void put(send, words, false));
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  return put;
}
