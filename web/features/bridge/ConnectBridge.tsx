'use client';

import { Button, TextField } from '@mui/material';
import { useSnackbar } from 'notistack';
import { useEffect, useState } from 'react';
import type { BridgeView } from '@melto/bridge/bridgeClient';
import { DEFAULT_ADDRESS } from '@melto/bridge/protocol';
import { FormDialog } from '@/ui/FormDialog';
import { useBridge } from './BridgeContext';

/** A bridge runs beside the instrument: its address, as a page may reach it. */
export function isBridgeAddress(text: string): boolean {
  return /^ws:\/\/127\.0\.0\.1:\d{1,5}$/.test(text) && Number(text.split(':')[2]) <= 65_535;
}

/** Asks where the instrument bridge of this machine is, and tells what was found there. */
export function ConnectBridge({ offered = true }: { offered?: boolean }) {
  const bridge = useBridge();
  const { enqueueSnackbar } = useSnackbar();
  const [open, setOpen] = useState(false);
  const [looking, setLooking] = useState(false);
  const [address, setAddress] = useState<string>();
  const { view } = bridge;
  const shown = address ?? (bridge.address || DEFAULT_ADDRESS);
  const right = isBridgeAddress(shown);
  const found = looking && bridge.address === shown && view.phase === 'connected';
  useEffect(() => {
    if (!found) return;
    setLooking(false);
    setOpen(false);
    enqueueSnackbar(foundWords(view));
  }, [found, view, enqueueSnackbar]);
  const close = (): void => {
    setLooking(false);
    setOpen(false);
  };
  return (
    <>
      {offered && (
        <Button variant="outlined" onClick={() => setOpen(true)}>
          Connect an instrument
        </Button>
      )}
      {open && (
        <FormDialog
          title="Connect an instrument"
          act="Look there"
          ready={right}
          onClose={close}
          onSubmit={() => {
            bridge.connectTo(shown);
            setLooking(true);
          }}
        >
          <p className="small quiet">
            An instrument is reached by its bridge: a small program on this machine that speaks Melto’s
            instrument protocol. Start it, and say where it listens.
          </p>
          <TextField
            label="Address of the bridge"
            autoFocus
            value={shown}
            error={!right}
            helperText={right ? undefined : `On this machine, as ${DEFAULT_ADDRESS}`}
            onChange={(event) => setAddress(event.target.value.trim())}
          />
          {looking && (
            <p role="status" className="small">
              {view.problem ?? 'Nobody answers there yet; it is tried again and again.'}
            </p>
          )}
        </FormDialog>
      )}
    </>
  );
}

function foundWords({ bridge, instruments }: BridgeView): string {
  const names = instruments.map(({ name }) => name).join(', ');
  return `${bridge}: ${names === '' ? 'no instrument is plugged in.' : `${names}.`}`;
}
