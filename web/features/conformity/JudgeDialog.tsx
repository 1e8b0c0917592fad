'use client';

import { JUDGE } from '@/endpoints/conformity';
import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { CheckChoiceFields, choiceOf, daysAreRight, firstChoice } from './CheckChoiceFields';
import type { ConformitySurfaceProps } from './ConformitySurface';

/** Judges a reading that is there, by other aims or tolerances; the report says that they were chosen after it. */
export function JudgeDialog({
  condition,
  aims,
  tolerances,
  readings,
  result,
  profileResultId,
  onClose,
}: ConformitySurfaceProps & { onClose: () => void }) {
  const [choice, setChoice] = useState(() =>
    firstChoice(
      aims,
      tolerances,
      choiceOf(result?.detail, result?.row.validDays),
      profileResultId !== undefined,
    ),
  );
  const [readingId, setReadingId] = useState(readings[0]?.id ?? 0);
  const router = useRouter();
  const judge = async (): Promise<void> => {
    await send(JUDGE, { params: { id: condition.id }, body: { readingId, ...choice } });
    router.replace(`/conditions/${condition.id}/conformity`);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title="Judge a reading"
      act="Judge"
      ready={daysAreRight(choice)}
      onSubmit={judge}
      onClose={onClose}
    >
      <p className="quiet small">
        The choice is made before reading as a rule; this check will say that it was made after it.
      </p>
      <TextField
        select
        label="Reading"
        value={readingId}
        onChange={(event) => setReadingId(Number(event.target.value))}
      >
        {readings.map(({ id, code, title, finishedMs }) => (
          <MenuItem key={id} value={id}>
            {code}, {title}, {formatMoment(finishedMs)}
          </MenuItem>
        ))}
      </TextField>
      <CheckChoiceFields
        {...{ choice, aims, tolerances }}
        hasSpots={readings.find(({ id }) => id === readingId)?.hasSpots === true}
        onChange={setChoice}
      />
    </FormDialog>
  );
}
