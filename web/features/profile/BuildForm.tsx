'use client';

import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { ConditionRow } from '@melto/services/conditions';
import type { ReadingOfCondition } from '@melto/services/readings';
import { problemWords, sendJson } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FaultNotice } from './FaultNotice';
import { DEFAULT_FILE, ProfileFileFields } from './ProfileFileFields';
import type { ProfileFile } from './ProfileFileFields';

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
  const [file, setFile] = useState<ProfileFile>(DEFAULT_FILE);
  const [problem, setProblem] = useState<string>();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const reading = readings.find(({ id }) => id === readingId);
  const submit = async (): Promise<void> => {
    try {
      await sendJson(`/api/conditions/${condition.id}/profiles`, {
        readingId,
        ...file,
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
        <FaultNotice reading={reading} />
        <ProfileFileFields
          condition={condition}
          file={file}
          onChange={(changed) => setFile({ ...file, ...changed })}
        />
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={file.namePattern.trim() === ''}>
            Build
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}
