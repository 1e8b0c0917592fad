'use client';

import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MOST_REST_MINUTES } from '@melto/core/stock/restMinutes';
import type { OwnDeviceKind } from '@melto/services/house/ownDevices';
import { NEW_DEVICE, NEW_STOCK } from '@/endpoints/conditions';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole, numberOf } from '@/ui/numberOf';

export const OWN_DEVICE_WORDS: Readonly<Record<OwnDeviceKind, string>> = {
  'rgb-driver': 'Printer driver that takes RGB',
  'cmyk-front-end': 'CMYK front end',
  press: 'Offset or other press, CMYK',
};

/** Makes a device of the house's own. */
export function NewDeviceDialog({ onMade, onClose }: { onMade: (id: number) => void; onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<OwnDeviceKind>();
  const [inkSet, setInkSet] = useState('');
  const [modes, setModes] = useState('');
  const list = modes
    .split(',')
    .map((mode) => mode.trim())
    .filter((mode) => mode !== '');
  const make = async (): Promise<void> => {
    if (kind === undefined) return;
    const { id } = await send(NEW_DEVICE, { body: { name, kind, inkSet, modes: list } });
    onMade(id);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title="A device of your own"
      act="Add the device"
      ready={kind !== undefined && name.trim() !== '' && inkSet.trim() !== '' && list.length > 0}
      onSubmit={make}
      onClose={onClose}
    >
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 80 } }}
      />
      <TextField
        select
        label="Takes"
        value={kind ?? ''}
        onChange={(event) => setKind(event.target.value as OwnDeviceKind)}
      >
        {Object.entries(OWN_DEVICE_WORDS).map(([value, words]) => (
          <MenuItem key={value} value={value}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="Ink set"
        value={inkSet}
        onChange={(event) => setInkSet(event.target.value)}
        helperText="As on its cartridges or tins"
        slotProps={{ htmlInput: { maxLength: 80 } }}
      />
      <TextField
        label="Print modes"
        value={modes}
        onChange={(event) => setModes(event.target.value)}
        helperText="As its driver names them, parted by commas"
        slotProps={{ htmlInput: { maxLength: 600 } }}
      />
    </FormDialog>
  );
}

const FINISHES = ['matt', 'semi-matt', 'gloss'] as const;
/** How the surface of a stock looks. */
export type Finish = (typeof FINISHES)[number];

/** The surface of a stock; none is taken for granted. */
export function FinishField({
  finish,
  width,
  onFinish,
}: {
  finish: Finish | undefined;
  /** In px, where it stands in a row. */
  width?: number;
  onFinish: (finish: Finish) => void;
}) {
  return (
    <TextField
      select
      label="Surface"
      value={finish ?? ''}
      onChange={(event) => onFinish(event.target.value as Finish)}
      sx={{ width }}
    >
      {FINISHES.map((value) => (
        <MenuItem key={value} value={value}>
          {value}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Makes a stock of the house's own. */
export function NewStockDialog({ onMade, onClose }: { onMade: (id: number) => void; onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [finish, setFinish] = useState<Finish>();
  const [rest, setRest] = useState('60');
  const valid = isWhole(rest, 0, MOST_REST_MINUTES);
  const make = async (): Promise<void> => {
    if (finish === undefined) return;
    const { id } = await send(NEW_STOCK, { body: { name, finish, restMinutes: numberOf(rest) } });
    onMade(id);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title="A stock of your own"
      act="Add the stock"
      ready={finish !== undefined && name.trim() !== '' && valid}
      onSubmit={make}
      onClose={onClose}
    >
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={(event) => setName(event.target.value)}
        helperText="As on its label"
        slotProps={{ htmlInput: { maxLength: 80 } }}
      />
      <FinishField finish={finish} onFinish={setFinish} />
      <TextField
        label="Minutes a print rests before it is read"
        value={rest}
        error={!valid}
        helperText={
          valid ? 'Toner rests minutes, pigment ink hours' : `Whole minutes, 0 to ${MOST_REST_MINUTES}`
        }
        onChange={(event) => setRest(event.target.value)}
      />
    </FormDialog>
  );
}
