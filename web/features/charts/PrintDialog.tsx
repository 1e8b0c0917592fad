'use client';

import { Button, Checkbox, Dialog, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { SettingsPoint } from '@melto/services/conditions';
import type { Printed } from '@melto/services/printing';
import { problemWords, sendJson } from '@/ui/api';
import { formatClock } from '@/ui/format';

/** Asks for the points of the settings record, then prints on the device. */
export function PrintDialog({
  title,
  path,
  body,
  points,
  conversions,
  onClose,
}: {
  title: string;
  path: string;
  body?: Readonly<Record<string, unknown>>;
  points: readonly SettingsPoint[];
  conversions: readonly string[];
  onClose: () => void;
}) {
  const toTick = points.filter(({ tickAtPrint }) => tickAtPrint);
  const [ticks, setTicks] = useState<readonly string[]>([]);
  const [fault, setFault] = useState('none');
  const [problem, setProblem] = useState<string>();
  const [sending, setSending] = useState(false);
  const queries = useQueryClient();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const missing = toTick.length - ticks.length;
  const print = async (): Promise<void> => {
    setSending(true);
    try {
      const faults =
        fault === 'none' ? {} : fault === 'wrong side' ? { side: 'wrong' } : { conversion: fault };
      const printed = await sendJson<Printed>(path, { ...body, ticks, ...faults });
      enqueueSnackbar(
        `${printed.sheets.join(', ')} on the rack, ready at ${formatClock(printed.restUntilMs)}.`,
      );
      await queries.invalidateQueries();
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
      setSending(false);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="print-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 14 }}
        onSubmit={(event) => {
          event.preventDefault();
          void print();
        }}
      >
        <h1 id="print-title">{title}</h1>
        <p className="quiet small">
          Look at the driver before you tick. A conversion left on spoils everything that is built on the
          sheet.
        </p>
        {points.map((point) =>
          point.tickAtPrint ? (
            <FormControlLabel
              key={point.label}
              control={
                <Checkbox
                  checked={ticks.includes(point.label)}
                  onChange={(_, checked) =>
                    setTicks(
                      checked ? [...ticks, point.label] : ticks.filter((label) => label !== point.label),
                    )
                  }
                />
              }
              label={
                <>
                  <b>{point.label}</b> <span className="quiet">{point.value}</span>
                </>
              }
            />
          ) : (
            <p key={point.label} style={{ paddingLeft: 32 }}>
              {point.label}: {point.value === '' ? <span className="quiet">not recorded</span> : point.value}
            </p>
          ),
        )}
        <TextField
          select
          label="Simulated device"
          value={fault}
          onChange={(event) => setFault(event.target.value)}
          helperText={
            fault === 'none'
              ? 'Prints as the settings say.'
              : 'Prints with this mistake, to see what reading makes of it.'
          }
        >
          <MenuItem value="none">no mistake</MenuItem>
          <MenuItem value="wrong side">wrong side of the paper</MenuItem>
          {conversions.map((name) => (
            <MenuItem key={name} value={name}>
              colour management left on: {name}
            </MenuItem>
          ))}
        </TextField>
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={missing > 0 || sending}>
            Print
          </Button>
          <Button onClick={onClose}>Not now</Button>
          {missing > 0 && (
            <span className="quiet small">
              {missing} {missing === 1 ? 'point' : 'points'} to tick
            </span>
          )}
        </div>
      </form>
    </Dialog>
  );
}
