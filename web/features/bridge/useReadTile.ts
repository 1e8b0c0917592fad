import { useSnackbar } from 'notistack';
import { problemWords } from '@/ui/api';
import { useBridge } from './BridgeContext';
import type { Connected } from './BridgeContext';

/** Reads the white tile of an instrument and says how it went; true where it was read. */
export function useReadTile(): (instrument: Connected, words?: string) => Promise<boolean> {
  const { calibrate } = useBridge();
  const { enqueueSnackbar } = useSnackbar();
  return async (instrument, words = 'White tile read.') => {
    try {
      await calibrate(instrument);
      enqueueSnackbar(words);
      return true;
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
      return false;
    }
  };
}
