'use client';

import { SHARE_REPORT } from '@/endpoints/conformity';
import { Button, Menu, MenuItem } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { May } from '@/ui/May';
import { send } from '@/ui/api';
import { PublicLinkItems } from '@/ui/PublicLinkItems';

/** The forms of a check's report, its slip, and the public link. */
export function ReportMenu({ resultId, sharedCode }: { resultId: number; sharedCode: string | null }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const router = useRouter();
  const close = (): void => setAnchor(null);
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
          <PublicLinkItems
            shared={sharedCode !== null}
            onChosen={close}
            onShare={async (shared) => {
              const answer = await send(SHARE_REPORT, { params: { id: resultId }, body: { shared } });
              router.refresh();
              return answer;
            }}
          />
        </May>
      </Menu>
    </>
  );
}
