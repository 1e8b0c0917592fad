'use client';

import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { PressLink, PressView } from '@melto/services/pressView';
import { problemWords, sendJson } from '@/ui/api';

/** Takes over limits, curves and balance of a condition whose stock behaves alike. */
export function BorrowDialog({ view, onClose }: { view: PressView<PressLink>; onClose: () => void }) {
  const router = useRouter();
  const [lender, setLender] = useState(view.lenders[0].conditionId);
  const [problem, setProblem] = useState<string>();
  const chosen = view.lenders.find(({ conditionId }) => conditionId === lender);
  const borrow = async (): Promise<void> => {
    try {
      await sendJson(`/api/conditions/${view.condition.id}/borrowed`, { conditionId: lender }, 'PUT');
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="borrow-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 14 }}
        onSubmit={(event) => {
          event.preventDefault();
          void borrow();
        }}
      >
        <h1 id="borrow-title">Borrow a calibration</h1>
        <p className="quiet small">
          Stocks that behave alike can share one calibration. When the other condition gets newer limits,
          curves or balance, this one becomes stale and says so.
        </p>
        <TextField
          select
          label="From"
          value={lender}
          onChange={(event) => setLender(Number(event.target.value))}
          helperText={chosen?.links.map(({ link, version }) => `${link} v${version}`).join(', ')}
        >
          {view.lenders.map(({ conditionId, name }) => (
            <MenuItem key={conditionId} value={conditionId}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained">
            Borrow
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}
