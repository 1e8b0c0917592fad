'use client';

import { NEW_CONDITION } from '@/endpoints/conditions';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ConditionChoices } from '@melto/services/house/newCondition';
import type { ConditionRow, SettingsPoint } from '@melto/services/ledger/conditions';
import { ApiProblem, problemWords, send } from '@/ui/api';
import { InkSetField } from './InkSetIn';
import { NewDeviceDialog, NewStockDialog } from './OwnDialogs';
import { OwnPoint } from './OwnPoint';

export function NewCondition({
  choices,
  copied,
}: {
  choices: ConditionChoices;
  /** Another condition that it begins with. */
  copied?: { readonly condition: ConditionRow; readonly points: readonly SettingsPoint[] };
}) {
  const router = useRouter();
  const known = choices.devices.some(({ id }) => id === copied?.condition.deviceId);
  const first = known ? copied?.condition : undefined;
  const [deviceId, setDeviceId] = useState(first?.deviceId ?? choices.devices[0]?.id ?? 0);
  const device = choices.devices.find(({ id }) => id === deviceId);
  const [stockId, setStockId] = useState(first?.stockId ?? device?.stocks[0]?.id ?? 0);
  const [mode, setMode] = useState(first?.mode ?? device?.modes[0] ?? '');
  const [inkSet, setInkSet] = useState(first?.inkSet ?? device?.inkSet ?? '');
  const [label, setLabel] = useState('');
  const [points, setPoints] = useState(copied?.points ?? device?.points ?? choices.points);
  const [problem, setProblem] = useState<ApiProblem>();
  const [sending, setSending] = useState(false);
  const choose = (id: number): void => {
    const next = choices.devices.find((other) => other.id === id);
    setDeviceId(id);
    setStockId(next?.stocks[0]?.id ?? 0);
    setMode(next?.modes[0] ?? '');
    setInkSet(next?.inkSet ?? '');
    // A copy keeps the points that it was made of.
    if (copied === undefined) setPoints(next?.points ?? choices.points);
  };
  const [adding, setAdding] = useState<'device' | 'stock'>();
  // What was made just now is chosen once the list has it.
  const [wanted, setWanted] = useState<number>();
  const dialogs = (
    <>
      {adding === 'device' && <NewDeviceDialog onMade={setWanted} onClose={() => setAdding(undefined)} />}
      {adding === 'stock' && <NewStockDialog onMade={setStockId} onClose={() => setAdding(undefined)} />}
    </>
  );
  if (wanted !== undefined && choices.devices.some(({ id }) => id === wanted)) {
    setWanted(undefined);
    choose(wanted);
  }
  if (device === undefined)
    return (
      <div className="floor" style={{ padding: 32, gap: 16 }}>
        <h1>New condition</h1>
        <p>A condition is a device, a stock and a print mode. The house has no device yet.</p>
        <div className="row">
          <Button variant="contained" onClick={() => setAdding('device')}>
            Add a device
          </Button>
        </div>
        {dialogs}
      </div>
    );
  const stock = device.stocks.find(({ id }) => id === stockId);
  const shownAtField = ['stockId', 'mode', 'label', 'inkSet'];
  const fieldProblem = (field: string): string | undefined =>
    problem?.field === field ? `${problem.title} ${problem.detail}` : undefined;
  const submit = async (): Promise<void> => {
    setSending(true);
    setProblem(undefined);
    try {
      const { id } = await send(NEW_CONDITION, {
        body: {
          deviceId,
          stockId,
          inkSet,
          mode,
          ...(label.trim() === '' ? {} : { label: label.trim() }),
          points,
        },
      });
      router.push(`/conditions/${id}`);
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error : new ApiProblem(0, problemWords(error), ''));
      setSending(false);
    }
  };
  return (
    <>
      {/* Outside of the form: what is sent in a dialog must not send the form as well. */}
      {dialogs}
      <form
        className="floor"
        style={{ padding: '20px 32px', gap: 20 }}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <h1>New condition</h1>
        <div className="two" style={{ maxWidth: 1100, gap: 32 }}>
          <div className="form">
            <TextField
              select
              label="Device"
              value={deviceId}
              onChange={(event) => choose(Number(event.target.value))}
              helperText={device.kind}
            >
              {choices.devices.map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            <button type="button" className="plain small" onClick={() => setAdding('device')}>
              <u>A device of your own</u>
            </button>
            <TextField
              select
              label="Stock"
              value={stock === undefined ? '' : stockId}
              onChange={(event) => setStockId(Number(event.target.value))}
              error={fieldProblem('stockId') !== undefined}
              helperText={
                fieldProblem('stockId') ??
                (stock === undefined ? '' : `${stock.finish}, rests ${stock.restMinutes} min before reading`)
              }
            >
              {device.stocks.map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            {device.own && (
              <button type="button" className="plain small" onClick={() => setAdding('stock')}>
                <u>A stock of your own</u>
              </button>
            )}
            <TextField
              select
              label="Print mode"
              value={mode}
              onChange={(event) => setMode(event.target.value)}
              error={fieldProblem('mode') !== undefined}
              helperText={fieldProblem('mode')}
            >
              {device.modes.map((name) => (
                <MenuItem key={name} value={name}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            <InkSetField
              known={choices.inkSets}
              value={inkSet}
              onValue={setInkSet}
              problem={
                fieldProblem('inkSet') ??
                (inkSet.trim() === '' ? 'Name the inks, as on their cartridges.' : undefined)
              }
            />
            <TextField
              label="Own name"
              value={label}
              onChange={(event) => setLabel(event.target.value)}
              error={fieldProblem('label') !== undefined}
              helperText={
                fieldProblem('label') ??
                'Only where device, stock and mode do not tell it from another with other settings'
              }
              slotProps={{ htmlInput: { maxLength: 80 } }}
            />
          </div>
          <div
            className="panel"
            role="group"
            aria-labelledby="record-title"
            style={{ display: 'grid', gap: 12, alignContent: 'start', padding: 16 }}
          >
            <h2 id="record-title">Settings record</h2>
            <p className="small quiet">
              Everybody prints with these settings. The marked points are ticked at each print; a change of
              any of them is a new condition.
            </p>
            {points.map((point, i) => (
              <div
                key={point.label}
                style={{ display: 'grid', gridTemplateColumns: '190px 1fr', gap: 12, alignItems: 'center' }}
              >
                <span>
                  {point.label}
                  {point.tickAtPrint && <span className="small quiet"> ticked</span>}
                </span>
                <TextField
                  slotProps={{ htmlInput: { 'aria-label': point.label } }}
                  value={point.value}
                  placeholder="as in the driver"
                  onChange={(event) =>
                    setPoints(
                      points.map((other, k) => (k === i ? { ...other, value: event.target.value } : other)),
                    )
                  }
                />
              </div>
            ))}
            <OwnPoint
              taken={points.map((point) => point.label)}
              onPoint={(point) => setPoints([...points, point])}
            />
          </div>
        </div>
        {problem !== undefined && !shownAtField.includes(problem.field ?? '') && (
          <p className="error">{`${problem.title} ${problem.detail}`}</p>
        )}
        <div className="row">
          <Button
            type="submit"
            variant="contained"
            disabled={sending || inkSet.trim() === '' || stock === undefined}
          >
            Make the condition
          </Button>
          <span className="quiet small">
            {device.name} / {stock?.name} / {mode}
          </span>
        </div>
      </form>
    </>
  );
}
