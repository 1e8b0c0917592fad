'use client';

import { REMOVE_AIM_SET, REMOVE_TOLERANCE_SET } from '@/endpoints/conformity';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { problemWords, send } from '@/ui/api';

const UNDO_MS = 10_000;

/** Takes a set of the library off its list, with ten seconds to take it back. */
export function useRemoval(
  kind: 'aim-sets' | 'tolerance-sets',
  onDone: () => void = () => undefined,
): (id: number, name: string, removed?: boolean) => Promise<void> {
  const router = useRouter();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const remove = async (id: number, name: string, removed = true): Promise<void> => {
    try {
      await send(kind === 'aim-sets' ? REMOVE_AIM_SET : REMOVE_TOLERANCE_SET, {
        params: { id },
        body: { removed },
      });
      onDone();
      router.refresh();
      if (removed)
        enqueueSnackbar(`${name} is off the list; checks that used it keep it.`, {
          autoHideDuration: UNDO_MS,
          action: (key) => (
            <Button
              color="inherit"
              onClick={() => {
                closeSnackbar(key);
                void remove(id, name, false);
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
  return remove;
}
