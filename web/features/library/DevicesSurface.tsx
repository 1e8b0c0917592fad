'use client';

import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LibraryDevice } from '@melto/services/house/library';
import { CHANGE_DEVICE, PUT_DEVICE_AWAY } from '@/endpoints/conditions';
import { NewDeviceDialog } from '@/features/condition/OwnDialogs';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { LibraryTable } from './LibraryTable';
import { NameField, NoteField } from './NameAndNote';
import { usePutAway } from './usePutAway';

/** Devices of the house: added, renamed, noted on, put away. */
export function DevicesSurface({ devices }: { devices: readonly LibraryDevice[] }) {
  const [adding, setAdding] = useState(false);
  const [changing, setChanging] = useState<LibraryDevice>();
  const put = usePutAway();
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Devices</h1>
        <p className="quiet">Inks and channels stay as they are: another ink set is another device.</p>
        <Button variant="contained" onClick={() => setAdding(true)}>
          New device
        </Button>
      </div>
      <LibraryTable
        items={devices}
        what="device"
        words={({ name, code, kind, inkSet, note }) => [name, code, kind, inkSet, note].join(' ')}
        columns={[
          { name: 'Code', cell: ({ code }) => <span className="mono">{code}</span> },
          { name: 'Takes', cell: ({ kind, own }) => `${kind}${own ? '' : ', simulated'}` },
          { name: 'Inks', cell: ({ inkSet }) => inkSet },
          { name: 'Print modes', cell: ({ modes }) => modes.join(', ') },
          { name: 'Conditions', numeric: true, cell: ({ uses }) => uses },
          { name: 'Note', cell: ({ note }) => note },
        ]}
        onChange={setChanging}
        onAway={({ id, name, away }) =>
          void put(
            (now) => send(PUT_DEVICE_AWAY, { params: { id }, body: { away: now } }),
            away ? undefined : `${name} is put away; its conditions keep it.`,
          )
        }
      />
      {adding && <NewDeviceDialog onMade={() => {}} onClose={() => setAdding(false)} />}
      {changing !== undefined && <ChangeDevice device={changing} onClose={() => setChanging(undefined)} />}
    </section>
  );
}

function ChangeDevice({ device, onClose }: { device: LibraryDevice; onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState(device.name);
  const [note, setNote] = useState(device.note);
  const [modes, setModes] = useState(device.modes.join(', '));
  const list = modes
    .split(',')
    .map((mode) => mode.trim())
    .filter((mode) => mode !== '');
  return (
    <FormDialog
      title={`Change ${device.name}`}
      act="Keep it"
      ready={name.trim() !== '' && list.length > 0}
      onClose={onClose}
      onSubmit={async () => {
        await send(CHANGE_DEVICE, {
          params: { id: device.id },
          body: { name, note, ...(device.own ? { modes: list } : {}) },
        });
        router.refresh();
        onClose();
      }}
    >
      <NameField value={name} onValue={setName} help={`Its sheets keep the code ${device.code}`} />
      {device.own && (
        <TextField
          label="Print modes"
          value={modes}
          onChange={(event) => setModes(event.target.value)}
          helperText="Parted by commas; those that conditions may use stay"
        />
      )}
      <NoteField value={note} onValue={setNote} />
    </FormDialog>
  );
}
