'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import { dutyDueMs, isDutyDue, MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import type { ScreenSpace } from '@melto/core/proof/screen';
import { ProfileField } from '@/features/profiles/ProfileField';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { FileButton } from '@/ui/FileButton';
import { formatDay } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { useScreenDuty } from './screenDuty';

/** Instead of a space that the browser shows. */
const OWN = 'own';

/** What the screen is drawn for, and when it was calibrated: a proof is as good as the screen that it is seen on. */
export function ScreenChoice({
  screen,
  wide,
  monitor,
  problem,
  sources,
  onScreen,
  onMonitor,
  onFile,
}: {
  screen: ScreenSpace;
  /** This screen and this browser show Display P3. */
  wide: boolean;
  /** Key of the screen's own profile, empty until one is chosen; undefined where the browser is left to show colours. */
  monitor: string | undefined;
  /** Why the profile that is chosen is none of a screen. */
  problem: string | undefined;
  sources: readonly ProfileSource[];
  onScreen: (screen: ScreenSpace) => void;
  onMonitor: (key: string | undefined) => void;
  /** Takes a profile of the screen from a file. */
  onFile: (file: File) => void;
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
        value={monitor === undefined ? screen : OWN}
        onChange={({ target: { value } }) => {
          onMonitor(value === OWN ? '' : undefined);
          // What is of the screen itself is no longer of a space: the canvas hands values on as they are.
          onScreen(value === OWN ? 'srgb' : (value as ScreenSpace));
        }}
      >
        <MenuItem value="srgb">sRGB</MenuItem>
        <MenuItem value="display-p3" disabled={!wide}>
          Display P3{wide ? '' : ': not on this screen'}
        </MenuItem>
        <MenuItem value={OWN}>by its own profile</MenuItem>
      </TextField>
      {monitor !== undefined && (
        <>
          <ProfileField
            label="Profile of this screen"
            value={monitor}
            sources={sources}
            width="100%"
            onChoose={onMonitor}
          />
          <FileButton label="Open its profile" accept=".icc,.icm" onFile={onFile} />
          {problem !== undefined && (
            <p className="error small" role="alert">
              {problem}. The picture is drawn for sRGB.
            </p>
          )}
          <p className="quiet small">
            Its values go to the screen as they are. That is right only where neither the browser nor the
            system changes colours for this screen; where one does, choose sRGB or Display P3.
          </p>
        </>
      )}
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
