'use client';

import { Autocomplete, Button, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { OwnHouse } from '@melto/services/house/ownHouse';
import { CHANGE_HOUSE } from '@/endpoints/house';
import { send } from '@/ui/api';
import { useSending } from '@/ui/useSending';

/** Name, person and time zone of the house. */
export function HouseSurface({ house, zones }: { house: OwnHouse; zones: readonly string[] }) {
  const router = useRouter();
  const client = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const { sending, problem, run } = useSending();
  const [name, setName] = useState(house.name);
  const [person, setPerson] = useState(house.person);
  const [timeZone, setTimeZone] = useState(house.timeZone);
  const ready = name.trim() !== '' && person.trim() !== '' && timeZone !== '';
  const keep = async (): Promise<void> => {
    await send(CHANGE_HOUSE, { body: { name, person, timeZone } });
    await client.invalidateQueries();
    router.refresh();
    enqueueSnackbar('Kept.');
  };
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>House</h1>
        <p className="quiet">What was judged before keeps the names it was judged with.</p>
      </div>
      <form
        className="panel form"
        style={{ padding: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void run(keep);
        }}
      >
        <TextField
          label="Name of the house"
          value={name}
          error={name.trim() === ''}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
        <TextField
          label="Who works here"
          value={person}
          error={person.trim() === ''}
          helperText="On reports and slips, as who judged"
          onChange={(event) => setPerson(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
        <Autocomplete
          options={zones}
          value={timeZone}
          disableClearable
          onChange={(_, chosen) => setTimeZone(chosen)}
          renderInput={(params) => (
            <TextField {...params} label="Time zone" helperText="In which all times are told, on paper too" />
          )}
        />
        <div className="row">
          <Button type="submit" variant="contained" disabled={!ready || sending}>
            Keep it
          </Button>
          {problem !== undefined && (
            <span className="error" role="alert">
              {problem}
            </span>
          )}
        </div>
      </form>
    </section>
  );
}
