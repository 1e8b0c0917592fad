'use client';

import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LibraryDevice } from '@melto/services/house/library';
import { dutyDueMs } from '@melto/core/device/calibrationDuty';
import { CHANGE_DEVICE, DUTY_DONE, NEW_DEVICE, PUT_DEVICE_AWAY } from '@/endpoints/conditions';
import { NewDeviceDialog } from '@/features/condition/OwnDialogs';
import { send } from '@/ui/api';
import { formatDay } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { May } from '@/ui/May';
import { useSending } from '@/ui/useSending';
import { ChangeDevice } from './ChangeDevice';
import { LibraryTable } from './LibraryTable';
import { deviceFactWords } from './factWords';
import { usePutAway } from './usePutAway';

/** Devices of the house: added, renamed, noted on, put away. */
export function DevicesSurface({ devices }: { devices: readonly LibraryDevice[] }) {
  const [adding, setAdding] = useState<{ readonly like?: LibraryDevice }>();
  const [changing, setChanging] = useState<LibraryDevice>();
  const put = usePutAway();
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Devices</h1>
        <p className="quiet">Inks and channels stay as they are: another ink set is another device.</p>
        <May act={NEW_DEVICE}>
          <Button variant="contained" onClick={() => setAdding({})}>
            New device
          </Button>
        </May>
      </div>
      <LibraryTable
        calls={CHANGE_DEVICE}
        items={devices}
        what="device"
        words={({ name, code, kind, inkSet, note }) => [name, code, kind, inkSet, note].join(' ')}
        columns={[
          { name: 'Code', cell: ({ code }) => <span className="mono">{code}</span> },
          { name: 'Takes', cell: ({ kind, own }) => `${kind}${own ? '' : ', simulated'}` },
          { name: 'Inks', cell: ({ inkSet }) => inkSet },
          { name: 'Print modes', cell: ({ modes }) => modes.join(', ') },
          { name: 'Known of it', cell: ({ facts }) => deviceFactWords(facts).join(', ') },
          { name: 'Own calibration', cell: (device) => <Duty device={device} /> },
          { name: 'Conditions', numeric: true, cell: ({ uses }) => uses },
          { name: 'Note', cell: ({ note }) => note },
        ]}
        onChange={setChanging}
        onCopy={(device) => (device.own ? () => setAdding({ like: device }) : undefined)}
        onAway={({ id, name, away }) =>
          void put(
            (now) => send(PUT_DEVICE_AWAY, { params: { id }, body: { away: now } }),
            away ? undefined : `${name} is put away; its conditions keep it.`,
          )
        }
      />
      {adding !== undefined && (
        <NewDeviceDialog like={adding.like} onMade={() => {}} onClose={() => setAdding(undefined)} />
      )}
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
      <May act={DUTY_DONE}>
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
      </May>
      {problem !== undefined && <span className="error">{problem}</span>}
    </>
  );
}
