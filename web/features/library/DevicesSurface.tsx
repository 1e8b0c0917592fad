'use client';

import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LibraryDevice } from '@melto/services/house/library';
import { dutyDueMs, MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import { CHANGE_DEVICE, DUTY_DONE, PUT_DEVICE_AWAY } from '@/endpoints/conditions';
import { NewDeviceDialog } from '@/features/condition/OwnDialogs';
import { send } from '@/ui/api';
import { formatDay } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole, numberOf } from '@/ui/numberOf';
import { StatusShape } from '@/ui/StatusMark';
import { useSending } from '@/ui/useSending';
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
          { name: 'Own calibration', cell: (device) => <Duty device={device} /> },
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

/** The calibration that a device needs by itself, when it is due, and a way to say that it was done. */
function Duty({ device: { id, name, duty } }: { device: LibraryDevice }) {
  const router = useRouter();
  const { sending, problem, run } = useSending();
  if (duty === null) return null;
  const dueMs = dutyDueMs(duty);
  return (
    <>
      {duty.due && <StatusShape status="due" title="due" />} {duty.words},{' '}
      {dueMs === null ? 'never done yet' : `${duty.due ? 'due since' : 'due on'} ${formatDay(dueMs)}`}{' '}
      <Button
        size="small"
        disabled={sending}
        aria-label={`${duty.words} done today at ${name}`}
        onClick={() =>
          void run(async () => {
            await send(DUTY_DONE, { params: { id } });
            router.refresh();
          })
        }
      >
        Done today
      </Button>
      {problem !== undefined && <span className="error">{problem}</span>}
    </>
  );
}

function ChangeDevice({ device, onClose }: { device: LibraryDevice; onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState(device.name);
  const [note, setNote] = useState(device.note);
  const [modes, setModes] = useState(device.modes.join(', '));
  const [duty, setDuty] = useState(device.duty?.words ?? '');
  const [days, setDays] = useState(String(device.duty?.days ?? 7));
  const rightDays = duty.trim() === '' || isWhole(days, 1, MOST_DUTY_DAYS);
  const list = modes
    .split(',')
    .map((mode) => mode.trim())
    .filter((mode) => mode !== '');
  return (
    <FormDialog
      title={`Change ${device.name}`}
      act="Keep it"
      ready={name.trim() !== '' && list.length > 0 && rightDays}
      onClose={onClose}
      onSubmit={async () => {
        await send(CHANGE_DEVICE, {
          params: { id: device.id },
          body: {
            ...{ name, note, ...(device.own ? { modes: list } : {}) },
            duty: duty.trim() === '' ? null : { words: duty.trim(), days: numberOf(days) },
          },
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
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextField
          label="Its own calibration"
          value={duty}
          onChange={(event) => setDuty(event.target.value)}
          helperText="What the device needs by itself, as front end calibration; none if empty. Where it is due it is ticked before anything prints."
          slotProps={{ htmlInput: { maxLength: 120 } }}
          sx={{ flex: 1 }}
        />
        <TextField
          label="every … days"
          value={days}
          disabled={duty.trim() === ''}
          error={!rightDays}
          helperText={rightDays ? ' ' : `1 to ${MOST_DUTY_DAYS}`}
          onChange={(event) => setDays(event.target.value)}
          sx={{ width: 110 }}
        />
      </div>
      <NoteField value={note} onValue={setNote} />
    </FormDialog>
  );
}
