'use client';

import { MenuItem, Slider, TextField } from '@mui/material';
import type { Remote } from 'comlink';
import { useMemo, useState } from 'react';
import { SLICE_AB } from '@melto/core/profile/tableSlice';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { Pixels } from '@/ui/Pixels';
import type { InspectionWorker, SliceCut } from '@/workers/inspection.worker';
import { tablesOf } from './profileTables';
import { useSlices } from './useSlices';

/** Tables of a profile cut flat: colours over two of its channels, or the device values at a lightness. */
export function TableSlices({
  worker,
  source,
  data: { tags, kind, channels: names, goal },
}: {
  worker: Remote<InspectionWorker>;
  source: ProfileSource;
  data: Pick<ProfileInspection, 'tags' | 'kind' | 'channels' | 'goal'>;
}) {
  const tables = tablesOf(tags, kind);
  const [chosen, setChosen] = useState(tables[0]?.signature ?? '');
  const table = tables.find(({ signature }) => signature === chosen) ?? tables[0];
  const [across, setAcross] = useState(0);
  const [down, setDown] = useState(1);
  const [fixed, setFixed] = useState<readonly number[]>(() => names.map(() => (names.length === 3 ? 1 : 0)));
  const [lightness, setLightness] = useState(50);
  const { intent, way } = table ?? { intent: 0, way: 'to device' as const };
  const cut = useMemo(
    (): SliceCut => (way === 'to device' ? { way, lightness } : { way, across, down, fixed }),
    [way, across, down, fixed, lightness],
  );
  const { pictures, problem } = useSlices({ worker, source, intent, cut });
  if (table === undefined || names.length < 2) return null;
  const pairs = [
    { label: 'To the right', value: across, other: down, choose: setAcross },
    { label: 'Downwards', value: down, other: across, choose: setDown },
  ];
  return (
    <div className="panel">
      <header>
        <h2>Its tables, cut</h2>
        <span className="quiet">
          {way === 'from device' && 'colours relative to the paper'}
          {way === 'to device' && `a* and b* to ±${SLICE_AB}, ${shadeWords(names)}`}
          {way === 'to another' && shadeWords(goal ?? [])}
        </span>
      </header>
      <div className="row slice-choice">
        <TextField
          select
          label="Table"
          value={table.signature}
          sx={{ width: 300 }}
          onChange={(event) => setChosen(event.target.value)}
        >
          {tables.map(({ signature, label }) => (
            <MenuItem key={signature} value={signature}>
              {label}
            </MenuItem>
          ))}
        </TextField>
        {way !== 'to device' &&
          pairs.map(({ label, value, other, choose }) => (
            <TextField
              key={label}
              select
              label={label}
              value={value}
              sx={{ width: 130 }}
              onChange={(event) => choose(Number(event.target.value))}
            >
              {names.map((name, channel) => (
                <MenuItem key={name} value={channel} disabled={channel === other}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          ))}
      </div>
      <div className="row slice-choice">
        {way !== 'to device' ? (
          names.map((name, channel) =>
            channel === across || channel === down ? null : (
              <Level
                key={name}
                label={name}
                value={Math.round(100 * fixed[channel])}
                onChange={(value) => setFixed(fixed.map((own, i) => (i === channel ? value / 100 : own)))}
              />
            ),
          )
        ) : (
          <Level label="L*" value={lightness} onChange={setLightness} />
        )}
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <div className="slices">
        {pictures.map((drawn, i) => {
          const name = way === 'from device' ? `${names[across]} → ${names[down]} ↓` : (goal ?? names)[i];
          return (
            <figure key={i} style={{ width: way === 'from device' ? 260 : undefined }}>
              <Pixels drawn={drawn} label={`Slice: ${name}`} />
              <figcaption className="small">{name}</figcaption>
            </figure>
          );
        })}
      </div>
    </div>
  );
}

/** How light and dark are meant in pictures of channels. */
const shadeWords = (channels: readonly string[]): string =>
  channels.length === 3 ? 'light is light' : 'dark is much ink';

function Level({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <label className="slice-level">
      <span className="small">
        {label} <b className="mono">{value}</b>
      </span>
      <Slider size="small" value={value} aria-label={label} onChange={(_, to) => onChange(to as number)} />
    </label>
  );
}
