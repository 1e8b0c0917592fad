'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import { dutyDueMs, isDutyDue, MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import type { ScreenSpace } from '@melto/core/proof/screen';
import { formatDay } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { useScreenDuty } from './screenDuty';

/** What the screen is drawn for, and when it was calibrated: a proof is as good as the screen that it is seen on. */
export function ScreenChoice({
  screen,
  wide,
  onScreen,
}: {
  screen: ScreenSpace;
  /** This screen and this browser show Display P3. */
  wide: boolean;
  onScreen: (screen: ScreenSpace) => void;
}) {
  const { duty, change } = useScreenDuty();
  const [nowMs, setNowMs] = useState<number>();
  useEffect(() => setNowMs(Date.now()), [duty]);
  const dueMs = dutyDueMs(duty);
  const due = nowMs === undefined ? undefined : isDutyDue(duty, nowMs);
  return (
    <div className="proof-choices" style={{ marginTop: 16 }}>
      <TextField
        select
        label="Screen"
        value={screen}
        onChange={(event) => onScreen(event.target.value as ScreenSpace)}
      >
        <MenuItem value="srgb">sRGB</MenuItem>
        <MenuItem value="display-p3" disabled={!wide}>
          Display P3{wide ? '' : ': not on this screen'}
        </MenuItem>
      </TextField>
      <p className="small row" style={{ marginBottom: 8 }}>
        {due !== undefined && <StatusShape status={due ? 'due' : 'current'} />}
        <span>
          {duty.doneMs === null
            ? 'When this screen was calibrated is not told.'
            : `Calibrated ${formatDay(duty.doneMs)}, ${due === true ? 'due since' : 'due'} ${formatDay(dueMs ?? 0)}.`}
        </span>
      </p>
      <div className="row">
        <TextField
          label="Due after, days"
          type="number"
          value={duty.days}
          sx={{ width: 130 }}
          slotProps={{ htmlInput: { min: 1, max: MOST_DUTY_DAYS } }}
          onChange={(event) => change({ days: Number(event.target.value) })}
        />
        <Button size="small" onClick={() => change({ doneMs: Date.now() })}>
          Calibrated now
        </Button>
      </div>
    </div>
  );
}
