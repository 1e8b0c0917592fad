'use client';

import { BORROW } from '@/endpoints/conditions';
import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { PressLink, PressView } from '@melto/services/calibration/pressView';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';

/** Takes over limits, curves and balance of a condition whose stock behaves alike. */
export function BorrowDialog({ view, onClose }: { view: PressView<PressLink>; onClose: () => void }) {
  const router = useRouter();
  const [lender, setLender] = useState(view.lenders[0].conditionId);
  const chosen = view.lenders.find(({ conditionId }) => conditionId === lender);
  const borrow = async (): Promise<void> => {
    await send(BORROW, { params: { id: view.condition.id }, body: { conditionId: lender } });
    router.refresh();
    onClose();
  };
  return (
    <FormDialog title="Borrow a calibration" act="Borrow" onSubmit={borrow} onClose={onClose}>
      <p className="quiet small">
        Stocks that behave alike can share one calibration. When the other condition gets newer limits, curves
        or balance, this one becomes stale and says so.
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
    </FormDialog>
  );
}
