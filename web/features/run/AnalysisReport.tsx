import { Button, Menu, MenuItem } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Phase } from '@melto/core/press/runSettings';
import type { Scope } from '@melto/core/press/scopes';
import { RUN_LINK, RUN_REPORT, SHARE_RUN } from '@/endpoints/runs';
import { addressOf, ask, send } from '@/ui/api';
import { May } from '@/ui/May';
import { PublicLinkItems } from '@/ui/PublicLinkItems';

/** The forms of an analysis, and its public link. */
export function AnalysisReport({
  runId,
  asked,
}: {
  runId: number;
  asked: { readonly scope: Scope; readonly phase?: Phase; readonly at?: number; readonly aims?: number };
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const client = useQueryClient();
  const close = (): void => setAnchor(null);
  const key = ['link', runId, asked];
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => ask(RUN_LINK, { params: { id: runId }, query: asked }),
    enabled: anchor !== null,
  });
  const link = (format: 'html' | 'pdf') =>
    addressOf(RUN_REPORT, { params: { id: runId }, query: { ...asked, format } });
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
        <MenuItem component="a" href={link('html')} target="_blank" onClick={close}>
          Report as a page
        </MenuItem>
        <MenuItem component="a" href={link('pdf')} onClick={close}>
          Report as PDF
        </MenuItem>
        <May act={SHARE_RUN}>
          <PublicLinkItems
            shared={typeof data?.code === 'string'}
            onChosen={close}
            onShare={async (shared) => {
              const answer = await send(SHARE_RUN, { params: { id: runId }, body: { shared, ...asked } });
              await client.invalidateQueries({ queryKey: key });
              return answer;
            }}
          />
        </May>
      </Menu>
    </>
  );
}
