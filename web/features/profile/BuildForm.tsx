'use client';

import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { DEFAULT_NAME_PATTERN, profileName } from '@melto/core/profile/describeProfile';
import type { ConditionRow } from '@melto/services/conditions';
import type { ReadingOfCondition } from '@melto/services/readings';
import { problemWords, sendJson } from '@/ui/api';
import { formatMoment } from '@/ui/format';

export function BuildForm({
  condition,
  readings,
  onClose,
}: {
  condition: ConditionRow;
  readings: readonly ReadingOfCondition[];
  onClose: () => void;
}) {
  const [readingId, setReadingId] = useState(readings[0].id);
  const [version, setVersion] = useState(4);
  const [tableSize, setTableSize] = useState('normal');
  const [namePattern, setNamePattern] = useState(DEFAULT_NAME_PATTERN);
  const [problem, setProblem] = useState<string>();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const reading = readings.find(({ id }) => id === readingId);
  const faults = (JSON.parse(reading?.faults ?? '[]') as { kind: string }[]).filter(
    ({ kind }) => kind !== 'strip-backwards',
  );
  const submit = async (): Promise<void> => {
    try {
      await sendJson(`/api/conditions/${condition.id}/profiles`, {
        readingId,
        version,
        tableSize,
        namePattern,
      });
      enqueueSnackbar('The profile is being built; the header shows how far it is.');
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="build-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <h1 id="build-title">Build a profile</h1>
        <TextField
          select
          label="Reading"
          value={readingId}
          onChange={(event) => setReadingId(Number(event.target.value))}
        >
          {readings.map((row) => (
            <MenuItem key={row.id} value={row.id}>
              {row.code}, {row.title}, {row.mode}, {formatMoment(row.startedMs)}
            </MenuItem>
          ))}
        </TextField>
        {faults.length > 0 && (
          <p className="notice bad">
            This reading shows a fault ({faults.map(({ kind }) => kind.replaceAll('-', ' ')).join(', ')}). A
            profile made from it will carry the mark.
          </p>
        )}
        <TextField
          select
          label="ICC version"
          value={version}
          onChange={(event) => setVersion(Number(event.target.value))}
          helperText={version === 2 ? 'For older software.' : 'For current software.'}
        >
          <MenuItem value={4}>4</MenuItem>
          <MenuItem value={2}>2</MenuItem>
        </TextField>
        <TextField
          select
          label="Tables"
          value={tableSize}
          onChange={(event) => setTableSize(event.target.value)}
          helperText={
            {
              small: '17³: a small file, coarser',
              normal: '33³ each way',
              large: '45³ and 49³: three times the time',
            }[tableSize]
          }
        >
          <MenuItem value="small">small</MenuItem>
          <MenuItem value="normal">normal</MenuItem>
          <MenuItem value="large">large</MenuItem>
        </TextField>
        <TextField
          label="Name"
          value={namePattern}
          error={namePattern.trim() === ''}
          onChange={(event) => setNamePattern(event.target.value)}
          helperText={`Filled in, for example: ${profileName(namePattern, { device: condition.device, stock: condition.stock, mode: condition.mode, date: '2026-03-14' })}.icc`}
        />
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={namePattern.trim() === ''}>
            Build
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}
