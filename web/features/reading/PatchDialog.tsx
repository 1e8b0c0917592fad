'use client';

import { Button, Dialog, TextField } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import type { DeskState } from '@melto/services/reading/desk';
import { InstrumentField, ModeField } from '@/features/bridge/InstrumentFields';
import { isWhole, numberOf } from '@/ui/numberOf';
import { ImportedSheet } from './ImportedSheet';
import { usePatches } from './usePatches';

/** A sheet patch by patch: those that are missing, or one again; by an instrument, typed, or sent as by a keyboard. */
export function PatchDialog({
  state,
  onStored,
  onClose,
}: {
  state: DeskState;
  onStored: () => Promise<unknown>;
  onClose: () => void;
}) {
  const patches = usePatches(state, onStored);
  const { instrument, readable, mode, modes, place, row, missing, text, last, held, sending, problem } =
    patches;
  const act = useRef<HTMLButtonElement>(null);
  useEffect(() => act.current?.focus(), []);
  const expected = row.expected[place.patch - 1];
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="patch-by-patch">
      <div className="dialog-form">
        <h1 id="patch-by-patch">Sheet {state.code}, patch by patch</h1>
        <div className="two" style={{ gridTemplateColumns: 'minmax(0, 1fr) 320px', gap: 24 }}>
          <div>
            <ImportedSheet
              code={state.code}
              height={420}
              pages={[state.strips.map(colours)]}
              chosen={{ strip: place.strip - 1, place: place.patch - 1 }}
              onChoose={(strip, at) => patches.go({ strip: strip + 1, patch: at + 1 })}
            />
            <p className="quiet small">
              {missing === 0 ? 'No patch is missing.' : `${missing} patches are missing.`} Choose one to
              measure it again.
            </p>
          </div>
          <div style={{ display: 'grid', gap: 12, alignContent: 'start' }}>
            <p className="desk-now" role="status">
              Strip {place.strip}, patch {place.patch}
            </p>
            <div className="row">
              <span
                role="img"
                aria-label="how it should look"
                title="how it should look"
                style={{ background: expected, flex: 1, height: 40, display: 'inline-block' }}
              />
              <PlaceField
                label="strip"
                value={place.strip}
                most={state.strips.length}
                onChange={(strip) =>
                  patches.go({ strip, patch: Math.min(place.patch, state.strips[strip - 1].expected.length) })
                }
              />
              <PlaceField
                label="patch"
                value={place.patch}
                most={row.expected.length}
                onChange={(patch) => patches.go({ ...place, patch })}
              />
            </div>
            {instrument !== undefined && (
              <div className="row">
                <InstrumentField
                  instruments={readable}
                  serial={instrument.info.serial}
                  onChoose={patches.choose}
                />
                <Button
                  ref={act}
                  variant="contained"
                  disabled={sending}
                  onClick={() => void patches.measure()}
                >
                  Measure
                </Button>
              </div>
            )}
            {state.readBy !== null &&
              instrument !== undefined &&
              instrument.info.serial !== state.readBy.serial && (
                <p className="notice small">
                  {state.readBy.name} has read this sheet: what {instrument.name} measures is a reading of its
                  own.
                </p>
              )}
            <ModeField modes={modes} mode={mode} onChoose={patches.setMode} />
            <form
              onSubmit={(event) => {
                event.preventDefault();
                void patches.type();
              }}
            >
              <TextField
                fullWidth
                label="L* a* b*, typed or sent by an instrument"
                value={text}
                onChange={(event) => patches.setText(event.target.value)}
                helperText={
                  state.readBy === null
                    ? 'D50, 2°. Enter keeps it and goes on to the next.'
                    : `D50, 2°. ${state.readBy.name} has read this sheet: what is typed is a reading of its own.`
                }
              />
            </form>
            {held?.words !== undefined && (
              <div role="alert" className="notice bad">
                <p>{held.words}</p>
                <Button size="small" disabled={sending} onClick={() => void patches.again(true)}>
                  Keep it as it is
                </Button>
              </div>
            )}
            {problem !== undefined && (
              <div role="alert">
                <p className="error">{problem}</p>
                {held !== undefined && (
                  <Button size="small" disabled={sending} onClick={() => void patches.again(false)}>
                    Send it again
                  </Button>
                )}
              </div>
            )}
            {last !== undefined && held === undefined && (
              <p className="row small">
                <span style={{ background: last.measured, width: 40, height: 20, display: 'inline-block' }} />
                Strip {last.place.strip}, patch {last.place.patch} is kept, {last.off.toFixed(1)} ΔE00 from
                what it should give.
              </p>
            )}
          </div>
        </div>
        <div className="row">
          <Button onClick={onClose}>Done</Button>
        </div>
      </div>
    </Dialog>
  );
}

/** A number that is taken as soon as it is one of the sheet. */
function PlaceField({
  label,
  value,
  most,
  onChange,
}: {
  label: string;
  value: number;
  most: number;
  onChange: (value: number) => void;
}) {
  const [text, setText] = useState<string>();
  return (
    <TextField
      label={label}
      value={text ?? value}
      error={text !== undefined && !isWhole(text, 1, most)}
      slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      onChange={(event) => {
        setText(event.target.value);
        if (isWhole(event.target.value, 1, most)) onChange(numberOf(event.target.value));
      }}
      onBlur={() => setText(undefined)}
      sx={{ width: 76 }}
    />
  );
}

/** Colours of a strip as far as they were measured. */
export function colours({ measured, partly, expected }: DeskState['strips'][number]): (string | null)[] {
  return [...(measured ?? partly ?? expected.map(() => null))];
}
