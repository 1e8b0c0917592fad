'use client';

import { MenuItem, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { KEEP_COLOURS } from '@/endpoints/lists';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { useColourLists } from '@/ui/useColourLists';
import type { MeasuredColour } from './useMeasured';

/** Keeps the colours of this browser in the library: as a new list, or as the next version of one. */
export function KeepColours({
  colours,
  onClose,
}: {
  colours: readonly MeasuredColour[];
  onClose: () => void;
}) {
  const router = useRouter();
  const queries = useQueryClient();
  const lists = useColourLists();
  const [versionOf, setVersionOf] = useState<number>();
  const [name, setName] = useState('');
  const before = lists.find(({ id }) => id === versionOf);
  const keep = async (): Promise<void> => {
    const { id } = await send(KEEP_COLOURS, {
      body: {
        name: before?.name ?? name.trim(),
        versionOf,
        colours: colours.map((one) => ({ name: one.name, lab: one.lab, spectrum: one.spectrum })),
      },
    });
    await queries.invalidateQueries({ queryKey: ['colour lists'] });
    router.push(`/library/lists?set=${id}`);
  };
  return (
    <FormDialog
      title={`Keep ${colours.length} ${colours.length === 1 ? 'colour' : 'colours'}`}
      act="Keep them"
      ready={before !== undefined || name.trim() !== ''}
      onSubmit={keep}
      onClose={onClose}
    >
      {lists.length > 0 && (
        <TextField
          select
          label="As"
          value={versionOf ?? ''}
          onChange={(event) => setVersionOf(Number(event.target.value) || undefined)}
        >
          <MenuItem value="">a new list</MenuItem>
          {lists.map((list) => (
            <MenuItem key={list.id} value={list.id}>
              the next version of {list.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      {before === undefined && (
        <TextField
          label="Name"
          autoFocus
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
      )}
    </FormDialog>
  );
}
