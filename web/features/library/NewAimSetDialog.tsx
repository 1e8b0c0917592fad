'use client';

import { AIM_SET_FROM_FILE, NEW_AIM_SET, READINGS_TO_AIM } from '@/endpoints/conformity';
import { Button, MenuItem, TextField, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import { MODES } from '@melto/core/measured/columns';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import { ask, send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { parseAimRows } from './parseAimRows';

type From = 'file' | 'reading' | 'hand';

/** An aim set from a characterisation or a profile, from a reading, or by hand. */
export function NewAimSetDialog({ versionOf, onClose }: { versionOf?: AimSetView; onClose: () => void }) {
  const [name, setName] = useState(versionOf?.name ?? '');
  const [from, setFrom] = useState<From>('file');
  const [file, setFile] = useState<File>();
  const [readingId, setReadingId] = useState(0);
  const [text, setText] = useState('');
  const [mode, setMode] = useState<(typeof MODES)[number]>('M1');
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const { data: readings } = useQuery({
    queryKey: ['readings-to-aim'],
    queryFn: () => ask(READINGS_TO_AIM, {}),
    enabled: from === 'reading',
  });
  const rows = parseAimRows(text);
  const ready =
    name.trim() !== '' &&
    (from === 'file' ? file !== undefined : from === 'reading' ? readingId > 0 : rows.ok);
  const make = async (): Promise<void> => {
    const common = { name: name.trim(), ...(versionOf === undefined ? {} : { versionOf: versionOf.id }) };
    if (from === 'file' && file !== undefined) {
      const query = { ...common, file: file.name.slice(0, 200) };
      const { notes } = await send(AIM_SET_FROM_FILE, { query, body: file });
      for (const note of notes.slice(0, 3)) enqueueSnackbar(note);
    } else if (from === 'reading') await send(NEW_AIM_SET, { body: { ...common, readingId } });
    else if (rows.ok)
      await send(NEW_AIM_SET, {
        body: {
          ...common,
          rows: rows.rows,
          conditions: { mode, illuminant: 'D50', observer: '2' },
        },
      });
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title={versionOf === undefined ? 'New aim set' : `New version of ${versionOf.name}`}
      act={versionOf === undefined ? 'Make the aim set' : 'Make the version'}
      ready={ready}
      onSubmit={make}
      onClose={onClose}
    >
      <TextField label="Name" value={name} onChange={(event) => setName(event.target.value)} required />
      <ToggleButtonGroup
        exclusive
        size="small"
        value={from}
        onChange={(_, value: From | null) => value !== null && setFrom(value)}
        aria-label="made from"
      >
        <ToggleButton value="file">from a file</ToggleButton>
        <ToggleButton value="reading">from a reading</ToggleButton>
        <ToggleButton value="hand">by hand</ToggleButton>
      </ToggleButtonGroup>
      {from === 'file' && (
        <div className="row">
          <Button variant="outlined" onClick={() => input.current?.click()}>
            Choose a file
          </Button>
          <span className="quiet">
            {file?.name ?? 'characterisation data (CGATS) or a CMYK profile (ICC)'}
          </span>
          <input
            ref={input}
            type="file"
            hidden
            aria-label="aim file"
            onChange={(event) => setFile(event.target.files?.[0])}
          />
        </div>
      )}
      {from === 'reading' && (
        <TextField
          select
          label="Reading"
          value={readingId === 0 ? '' : readingId}
          onChange={(event) => setReadingId(Number(event.target.value))}
          helperText={
            readings?.length === 0
              ? 'No complete reading of a CMYK chart or control wedge yet.'
              : 'Its colours become the house standard, with its measurement mode.'
          }
        >
          {(readings ?? []).map((reading) => (
            <MenuItem key={reading.id} value={reading.id}>
              {reading.code}, {reading.condition}, {reading.title}, {formatMoment(reading.finishedMs)}
            </MenuItem>
          ))}
        </TextField>
      )}
      {from === 'hand' && (
        <>
          <TextField
            label="C M Y K in per cent, then L* a* b*; one a line"
            multiline
            minRows={5}
            maxRows={10}
            value={text}
            placeholder={'0 0 0 0  95 0 -2\n100 0 0 0  55 -37 -50'}
            onChange={(event) => setText(event.target.value)}
            error={text !== '' && !rows.ok}
            helperText={rows.ok ? `${rows.rows.length} aims` : text === '' ? ' ' : rows.words}
          />
          <TextField
            select
            label="Measured in"
            value={mode}
            onChange={(event) => setMode(MODES.find((each) => each === event.target.value) ?? 'M1')}
            sx={{ width: 160 }}
          >
            {['M0', 'M1', 'M2', 'M3'].map((each) => (
              <MenuItem key={each} value={each}>
                {each}
              </MenuItem>
            ))}
          </TextField>
        </>
      )}
    </FormDialog>
  );
}
