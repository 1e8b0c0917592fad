'use client';

import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MOST_REST_MINUTES } from '@melto/core/stock/restMinutes';
import type { OwnDeviceKind } from '@melto/services/house/ownDevices';
import { CONDITION_CHOICES } from '@/endpoints/conditions';
import { PREVIEW_MEASURED_ELSEWHERE, TAKE_MEASURED_ELSEWHERE } from '@/endpoints/reading';
import { InkSetField } from '@/features/condition/InkSetIn';
import { FinishField, OWN_DEVICE_WORDS } from '@/features/condition/OwnDialogs';
import type { Finish } from '@/features/condition/OwnDialogs';
import { MeasuredFileDialog } from '@/features/reading/ImportDialog';
import { ask, send } from '@/ui/api';
import { isWhole, numberOf } from '@/ui/numberOf';

const NEW = 'new';
/** Kinds whose channels the file's process tells; named inks are told where a device is made. */
type KindOfFile = Exclude<OwnDeviceKind, 'ink-front-end'>;
const KINDS: Readonly<Record<string, readonly KindOfFile[]>> = {
  RGB: ['rgb-driver'],
  CMYK: ['cmyk-front-end', 'press'],
};

/** A file that was measured elsewhere becomes a condition with its chart and its reading, in one dialog. */
export function FileOnFloor({ file, onClose }: { file: File; onClose: () => void }) {
  const router = useRouter();
  const [process, setProcess] = useState('');
  const [recorded, setRecorded] = useState(false);
  const { data: choices } = useQuery({ queryKey: ['choices'], queryFn: () => ask(CONDITION_CHOICES, {}) });
  // What can be chosen is shown once all of it is known: until then a list looks as empty as in a new house.
  const own = (choices?.devices ?? []).filter((device) => device.own && device.process === process);
  const [deviceId, setDeviceId] = useState<string>();
  // The file tells neither device nor stock: none is taken for granted, unless there is none to choose.
  const deviceChoice = deviceId ?? (own.length === 0 ? NEW : '');
  const device = own.find(({ id }) => String(id) === deviceChoice);
  const stocks = choices?.stocks ?? [];
  const [stockId, setStockId] = useState<string>();
  const stockChoice = stockId ?? (stocks.length === 0 ? NEW : '');
  const stock = stocks.find(({ id }) => String(id) === stockChoice);
  const [fresh, setFresh] = useState({ device: '', inkSet: '', stock: '', rest: '60', mode: '' });
  const [kind, setKind] = useState<KindOfFile>();
  const [finish, setFinish] = useState<Finish>();
  const kinds = KINDS[process] ?? [];
  const [onlyKind, anotherKind] = kinds;
  const takes = anotherKind === undefined ? onlyKind : kind;
  const mode =
    device === undefined || device.modes.includes(fresh.mode)
      ? fresh.mode.trim()
      : device.modes.length === 1
        ? device.modes[0]
        : '';
  const restRight = isWhole(fresh.rest, 0, MOST_REST_MINUTES);
  const ready =
    recorded &&
    mode !== '' &&
    (device !== undefined ||
      (deviceChoice === NEW &&
        takes !== undefined &&
        fresh.device.trim() !== '' &&
        fresh.inkSet.trim() !== '')) &&
    (stock !== undefined ||
      (stockChoice === NEW && finish !== undefined && fresh.stock.trim() !== '' && restRight));
  const field = (name: keyof typeof fresh, label: string, help?: string) => (
    <TextField
      label={label}
      value={fresh[name]}
      helperText={help}
      error={name === 'rest' && !restRight}
      onChange={(event) => setFresh({ ...fresh, [name]: event.target.value })}
      slotProps={{ htmlInput: { maxLength: 60 } }}
      sx={{ flex: 1 }}
    />
  );
  return (
    <MeasuredFileDialog
      file={file}
      ready={ready}
      preview={async (query) => {
        const found = await send(PREVIEW_MEASURED_ELSEWHERE, { query, body: file });
        setProcess(found.process);
        return found;
      }}
      onTake={async (answers) => {
        const { conditionId } = await send(TAKE_MEASURED_ELSEWHERE, {
          query: {
            ...{ ...answers, name: file.name.slice(0, 120), asRecorded: 'yes', printMode: mode },
            ...(device === undefined
              ? { device: fresh.device.trim(), kind: takes, inkSet: fresh.inkSet.trim() }
              : { deviceId: device.id }),
            ...(stock === undefined
              ? { stock: fresh.stock.trim(), finish, restMinutes: numberOf(fresh.rest) }
              : { stockId: stock.id }),
          },
          body: file,
        });
        router.push(`/conditions/${conditionId}/profile`);
      }}
      onClose={onClose}
    >
      {process !== '' && choices !== undefined && (
        <>
          <div className="row" style={{ alignItems: 'flex-start' }}>
            <TextField
              select
              label="Device"
              value={deviceChoice}
              onChange={(event) => setDeviceId(event.target.value)}
              sx={{ flex: 1 }}
            >
              {own.map(({ id, name }) => (
                <MenuItem key={id} value={String(id)}>
                  {name}
                </MenuItem>
              ))}
              <MenuItem value={NEW}>a new one, takes {process}</MenuItem>
            </TextField>
            {deviceChoice === NEW ? (
              field('mode', 'Print mode', 'as its driver names it')
            ) : (
              <TextField
                select
                label="Print mode"
                disabled={device === undefined}
                value={mode}
                onChange={(event) => setFresh({ ...fresh, mode: event.target.value })}
                sx={{ flex: 1 }}
              >
                {(device?.modes ?? []).map((name) => (
                  <MenuItem key={name} value={name}>
                    {name}
                  </MenuItem>
                ))}
              </TextField>
            )}
          </div>
          {deviceChoice === NEW && (
            <div className="row" style={{ alignItems: 'flex-start' }}>
              {field('device', 'Its name')}
              <InkSetField
                known={choices.inkSets}
                value={fresh.inkSet}
                onValue={(inkSet) => setFresh((before) => ({ ...before, inkSet }))}
              />
              {kinds.length > 1 && (
                <TextField
                  select
                  label="Kind"
                  value={takes ?? ''}
                  onChange={(event) => setKind(event.target.value as KindOfFile)}
                  sx={{ flex: 1 }}
                >
                  {kinds.map((each) => (
                    <MenuItem key={each} value={each}>
                      {OWN_DEVICE_WORDS[each]}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            </div>
          )}
          <div className="row" style={{ alignItems: 'flex-start' }}>
            <TextField
              select
              label="Stock"
              value={stockChoice}
              onChange={(event) => setStockId(event.target.value)}
              sx={{ flex: 1 }}
            >
              {stocks.map(({ id, name }) => (
                <MenuItem key={id} value={String(id)}>
                  {name}
                </MenuItem>
              ))}
              <MenuItem value={NEW}>a new one</MenuItem>
            </TextField>
            {stockChoice === NEW && (
              <>
                {field('stock', 'Its name', 'as on its label')}
                <FinishField finish={finish} width={120} onFinish={setFinish} />
                {field('rest', 'Rests, min')}
              </>
            )}
          </div>
          <FormControlLabel
            control={<Checkbox checked={recorded} onChange={(_, on) => setRecorded(on)} />}
            label="It was printed without colour management, at 100 %"
          />
        </>
      )}
    </MeasuredFileDialog>
  );
}
