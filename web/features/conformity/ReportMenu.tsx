'use client';

import { SHARE_REPORT } from '@/endpoints/conformity';
import { Button, Menu, MenuItem } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { May } from '@/ui/May';
import { problemWords, send } from '@/ui/api';

/** The forms of a check's report, its slip, and the public link. */
export function ReportMenu({ resultId, sharedCode }: { resultId: number; sharedCode: string | null }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { enqueueSnackbar } = useSnackbar();
  const router = useRouter();
  const close = (): void => setAnchor(null);
  const share = async (shared: boolean): Promise<void> => {
    close();
    try {
      const answer = await send(SHARE_REPORT, { params: { id: resultId }, body: { shared } });
      if (answer.code === undefined) {
        enqueueSnackbar('The link shows nothing any more.');
      } else {
        const url = `${location.origin}/shared/${answer.code}`;
        enqueueSnackbar(`${(await copied(url)) ? 'Copied' : 'Public link'}: ${url}`, {
          autoHideDuration: 12_000,
        });
      }
      router.refresh();
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  const open = (format: string): void => {
    close();
    window.open(`/api/results/${resultId}/report?format=${format}`, '_blank', 'noopener');
  };
  return (
    <>
      <Button
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
      >
        Report
      </Button>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={close}>
        <MenuItem onClick={() => open('html')}>Report as a page</MenuItem>
        <MenuItem onClick={() => open('pdf')}>Report as PDF</MenuItem>
        <MenuItem onClick={() => open('slip')}>Slip for the proof, 100 × 60 mm</MenuItem>
        <May act={SHARE_REPORT}>
          <MenuItem onClick={() => void share(true)}>
            {sharedCode === null ? 'Make a public link' : 'Copy the public link'}
          </MenuItem>
        </May>
        {sharedCode !== null && (
          <May act={SHARE_REPORT}>
            <MenuItem onClick={() => void share(false)}>End the public link</MenuItem>
          </May>
        )}
      </Menu>
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
