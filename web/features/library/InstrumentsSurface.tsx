'use client';

import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Agreement } from '@melto/services/reading/agreement';
import type { InstrumentRow } from '@melto/services/reading/instruments';
import { CHANGE_INSTRUMENT } from '@/endpoints/instruments';
import { useBridge } from '@/features/bridge/BridgeContext';
import { useReadTile } from '@/features/bridge/useReadTile';
import { ConnectBridge } from '@/features/bridge/ConnectBridge';
import { useDomainNow } from '@/features/frame/useHouse';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { TextIn } from '@/ui/form/fields';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { formatLength, lengthUnit } from '@/ui/units';
import { formatSpan, formatSigned } from '@/ui/format';

const KIND_WORDS = {
  strip: 'drawn along a strip',
  spot: 'set on single patches',
  sheet: 'moves over the page by itself',
} as const;

/** Instruments that the house has met: connected or not, their white tile, and how far they agree with each other. */
export function InstrumentsSurface({
  instruments,
  agreements,
}: {
  instruments: readonly InstrumentRow[];
  agreements: readonly Agreement[];
}) {
  const { view, address } = useBridge();
  const [changing, setChanging] = useState<InstrumentRow>();
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Instruments</h1>
        <p className="quiet">
          {address === ''
            ? 'No bridge is looked for. An instrument is known from when it was first connected.'
            : view.phase === 'connected'
              ? `${view.bridge} at ${address}.`
              : (view.problem ?? `Nobody answers at ${address}.`)}
        </p>
        <ConnectBridge />
      </div>
      <div className="panel" style={{ display: 'grid', gap: 12, alignContent: 'start' }}>
        <table className="table">
          <thead>
            <tr>
              <th>Name</th>
              <th>Serial number</th>
              <th>Reads</th>
              <th>Modes</th>
              <th>Optics</th>
              <th>White tile</th>
              <th>Note</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {instruments.map((one) => (
              <InstrumentLine key={one.id} instrument={one} onChange={() => setChanging(one)} />
            ))}
          </tbody>
        </table>
        {instruments.length === 0 && (
          <p className="quiet">The house has met no instrument yet: connect one by its bridge.</p>
        )}
      </div>
      {instruments.length > 1 && (
        <div className="panel">
          <h2>How far they agree</h2>
          {agreements.length === 0 ? (
            <p className="quiet">
              Read one sheet with two of them, in one mode: how far they differ, patch by patch, then stands
              here.
            </p>
          ) : (
            <table className="table">
              <thead>
                <tr>
                  <th>Instruments</th>
                  <th>Mode</th>
                  <th>Print</th>
                  <th className="num">Patches</th>
                  <th className="num">Mean ΔE00</th>
                  <th className="num">95 %</th>
                  <th className="num">Largest</th>
                  <th className="num">Mean shift, L* a* b*</th>
                </tr>
              </thead>
              <tbody>
                {agreements.map((one) => (
                  <tr key={`${one.ids.join()} ${one.mode}`}>
                    <td>
                      {one.instruments[0]} <span className="quiet">and</span> {one.instruments[1]}
                    </td>
                    <td>{one.mode}</td>
                    <td className="mono">{one.code}</td>
                    <td className="num">{one.patches}</td>
                    <td className="num">{one.mean.toFixed(2)}</td>
                    <td className="num">{one.p95.toFixed(2)}</td>
                    <td className="num">{one.largest.toFixed(2)}</td>
                    <td className="num">{one.shift.map((value) => formatSigned(value, 2)).join('  ')}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
      )}
      {changing !== undefined && (
        <ChangeInstrument instrument={changing} onClose={() => setChanging(undefined)} />
      )}
    </section>
  );
}

function InstrumentLine({ instrument, onChange }: { instrument: InstrumentRow; onChange: () => void }) {
  const bridge = useBridge();
  const router = useRouter();
  const now = useDomainNow();
  const read = useReadTile();
  const [reading, setReading] = useState(false);
  const { name, serial, kind, modes, apertureMm, filter, backing, simulated, note } = instrument;
  const connected = bridge.instruments.find(({ info }) => info.serial === serial);
  const tileMs = connected?.tileMs ?? instrument.tileMs;
  const optics = [
    apertureMm === null ? '' : `${formatLength(apertureMm)} ${lengthUnit()}`,
    filter,
    backing === '' ? '' : `${backing} backing`,
  ];
  const due = tileMs === null || (now !== undefined && now - tileMs > instrument.tileLifeMs);
  const readTile = async (): Promise<void> => {
    if (connected === undefined) return;
    setReading(true);
    if (await read(connected, `White tile of ${name} read.`)) router.refresh();
    setReading(false);
  };
  return (
    <tr className={connected === undefined ? 'quiet' : undefined}>
      <td style={{ whiteSpace: 'nowrap' }}>
        <b>{name}</b>
        <div className="small">{connected === undefined ? 'not connected' : 'connected'}</div>
      </td>
      <td className="mono" style={{ whiteSpace: 'nowrap' }}>
        {serial}
      </td>
      <td>
        {KIND_WORDS[kind]}
        {simulated && ', simulated'}
      </td>
      <td style={{ whiteSpace: 'nowrap' }}>{modes.join(' ')}</td>
      <td>{optics.filter((word) => word !== '').join(', ')}</td>
      <td>
        {tileMs === null
          ? 'not read here'
          : now === undefined
            ? ''
            : `${due ? 'due, ' : ''}${formatSpan(now - tileMs)} ago`}
      </td>
      <td>{note}</td>
      <td className="num" style={{ whiteSpace: 'nowrap' }}>
        {connected !== undefined && (
          <Button
            size="small"
            variant="text"
            disabled={reading}
            onClick={() => void readTile()}
            aria-label={`Read the tile of ${name}`}
          >
            Read the tile
          </Button>
        )}
        <Button size="small" variant="text" aria-label={`Change ${name}`} onClick={onChange}>
          Change
        </Button>
      </td>
    </tr>
  );
}

function ChangeInstrument({ instrument, onClose }: { instrument: InstrumentRow; onClose: () => void }) {
  const router = useRouter();
  const form = useBodyForm(
    CHANGE_INSTRUMENT.body,
    { name: instrument.name, note: instrument.note },
    ({ name, note }) => ({ name: name.trim(), note }),
  );
  return (
    <FormDialog
      title={`Change ${instrument.name}`}
      act="Keep it"
      ready={form.ready}
      onClose={onClose}
      onSubmit={async () => {
        await send(CHANGE_INSTRUMENT, { params: { id: instrument.id }, body: form.body() });
        router.refresh();
        onClose();
      }}
    >
      <TextIn form={form} name="name" label="Name" most={80} first />
      <TextIn
        form={form}
        name="note"
        label="Note"
        help="When it was certified last, where it stands, what it is used for"
        lines={2}
        most={400}
      />
    </FormDialog>
  );
}
