'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { FAULT_WORDS } from '@melto/core/faults/fault';
import type { Fault } from '@melto/core/faults/fault';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import { formatClock, formatDay } from '@/ui/format';
import type { Endpoint } from '@/endpoints/endpoint';
import { useMay } from '@/ui/May';
import { useSending } from '@/ui/useSending';

/** Chooses a complete reading and makes something of it. */
export function FromReading({
  readings,
  act,
  calls,
  onMake,
  first,
  children,
}: {
  readings: readonly ReadingOfCondition[];
  act: string;
  /** What is called: shown to those who may. */
  calls: Pick<Endpoint, 'who'>;
  /** Makes it of the reading that was chosen. */
  onMake: (readingId: number) => Promise<unknown>;
  /** Nothing was made yet: the act is the surface's main one. */
  first: boolean;
  children?: ReactNode;
}) {
  const router = useRouter();
  const [chosen, setChosen] = useState<number>();
  const { sending, problem, run } = useSending();
  const may = useMay(calls);
  if (readings.length === 0 || !may) return null;
  const reading = readings.find(({ id }) => id === chosen) ?? readings[0];
  const faults = (JSON.parse(reading.faults ?? '[]') as Fault[]).filter(
    ({ kind }) => kind !== 'strip-backwards' && kind !== 'outlier-patches',
  );
  const make = async (): Promise<void> => {
    await onMake(reading.id);
    router.replace(`${location.pathname}`);
    router.refresh();
  };
  return (
    <form
      className="panel"
      onSubmit={(event) => {
        event.preventDefault();
        void run(make);
      }}
    >
      <div className="row" style={{ alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <TextField
          select
          label="Reading"
          value={reading.id}
          onChange={(event) => setChosen(Number(event.target.value))}
          sx={{ width: 330 }}
        >
          {readings.slice(0, 20).map((row) => (
            <MenuItem key={row.id} value={row.id}>
              {row.code}, {formatDay(row.startedMs)} {formatClock(row.startedMs)},{' '}
              {row.curvesResultId === null ? 'no curves' : 'through curves'}
            </MenuItem>
          ))}
        </TextField>
        {children}
        <Button type="submit" variant={first ? 'contained' : 'outlined'} disabled={sending}>
          {act}
        </Button>
      </div>
      {faults.length > 0 && (
        <p className="notice bad" style={{ marginTop: 10 }}>
          {faults.map(({ kind }) => `${FAULT_WORDS[kind].says} ${FAULT_WORDS[kind].todo}`).join(' ')}
        </p>
      )}
      {problem !== undefined && <p className="error">{problem}</p>}
    </form>
  );
}
