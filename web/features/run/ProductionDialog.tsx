import { TextField } from '@mui/material';
import { useState } from 'react';
import { MOST_IMPRESSIONS } from '@melto/core/press/incomingSheet';
import type { RunView } from '@melto/services/press/runView';
import { SET_PHASE } from '@/endpoints/runs';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole } from '@/ui/numberOf';

/** From which stand of the counter sheets count as production. */
export function ProductionDialog({ run, onClose }: { run: RunView; onClose: () => void }) {
  const [from, setFrom] = useState(String((run.lastImpression ?? 0) + 1));
  const right = isWhole(from, 0, MOST_IMPRESSIONS);
  return (
    <FormDialog
      title="Begin production"
      act="Begin"
      ready={right}
      onSubmit={async () => {
        await send(SET_PHASE, { params: { id: run.id }, body: { phase: 'production', from: Number(from) } });
        onClose();
      }}
      onClose={onClose}
    >
      <TextField
        label="From impression"
        autoFocus
        value={from}
        error={!right}
        helperText="Sheets from there on are production, those before are make-ready"
        onChange={(event) => setFrom(event.target.value)}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
      {run.okImpression === null && (
        <p className="quiet small">No OK sheet was marked: how the run varies from it cannot be told.</p>
      )}
    </FormDialog>
  );
}
