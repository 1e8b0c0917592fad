'use client';

import { BUILD_PROFILE } from '@/endpoints/profile';
import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import { send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { AddedReadings, newestFirstReading, useAdditions } from './AddedReadings';
import { FaultNotice } from './FaultNotice';
import { DEFAULT_FILE, ProfileFileFields } from './ProfileFileFields';
import type { ProfileFile } from './ProfileFileFields';

export function BuildForm({
  condition,
  readings,
  base,
  onClose,
}: {
  condition: ConditionRow;
  readings: readonly ReadingOfCondition[];
  /** Those that are large enough to carry a model alone. */
  base: readonly ReadingOfCondition[];
  onClose: () => void;
}) {
  const [readingId, setReadingId] = useState((newestFirstReading(base) ?? base[0]).id);
  const [file, setFile] = useState<ProfileFile>(DEFAULT_FILE);
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const additions = useAdditions(readings, readingId);
  const reading = readings.find(({ id }) => id === readingId);
  const submit = async (): Promise<void> => {
    await send(BUILD_PROFILE, {
      params: { id: condition.id },
      body: {
        readingId,
        ...(additions.all.length > 1 ? { addedReadingIds: additions.all.slice(1) } : {}),
        ...file,
      },
    });
    enqueueSnackbar('The profile is being built; the header shows how far it is.');
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title="Build a profile"
      act="Build"
      ready={file.namePattern.trim() !== ''}
      onSubmit={submit}
      onClose={onClose}
    >
      <TextField
        select
        label="Reading"
        value={readingId}
        onChange={(event) => setReadingId(Number(event.target.value))}
      >
        {base.map((row) => (
          <MenuItem key={row.id} value={row.id}>
            {row.code}, {row.title}, {row.mode}, {formatMoment(row.startedMs)}
          </MenuItem>
        ))}
      </TextField>
      <FaultNotice reading={reading} />
      <AddedReadings {...additions} />
      <ProfileFileFields
        condition={condition}
        readingIds={additions.all}
        file={file}
        onChange={(changed) => setFile({ ...file, ...changed })}
      />
    </FormDialog>
  );
}
