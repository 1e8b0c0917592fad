import { MenuItem } from '@mui/material';
import { useSnackbar } from 'notistack';
import { problemWords } from '@/ui/api';

/** Makes a report public, copies its link, and ends it. */
export function PublicLinkItems({
  shared,
  onShare,
  onChosen,
}: {
  /** Whether there is a link that is open. */
  shared: boolean;
  onShare: (shared: boolean) => Promise<{ readonly code?: string }>;
  onChosen: () => void;
}) {
  const { enqueueSnackbar } = useSnackbar();
  const share = async (asked: boolean): Promise<void> => {
    onChosen();
    try {
      const { code } = await onShare(asked);
      if (code === undefined) enqueueSnackbar('The link shows nothing any more.');
      else {
        const url = `${location.origin}/shared/${code}`;
        enqueueSnackbar(`${(await copied(url)) ? 'Copied' : 'Public link'}: ${url}`, {
          autoHideDuration: 12_000,
        });
      }
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  return (
    <>
      <MenuItem onClick={() => void share(true)}>
        {shared ? 'Copy the public link' : 'Make a public link'}
      </MenuItem>
      {shared && <MenuItem onClick={() => void share(false)}>End the public link</MenuItem>}
    </>
  );
}

/** Puts a text on the clipboard; false where the browser does not let us. */
async function copied(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    return false;
  }
}
