'use client';

import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { densities } from '@melto/core/density/density';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import { useBridge } from '@/features/bridge/BridgeContext';
import { InstrumentField, ModeField } from '@/features/bridge/InstrumentFields';
import { useMeasureOne } from '@/features/bridge/useMeasureOne';
import type { MeasuredOne } from '@/features/bridge/useMeasureOne';
import { useHouse } from '@/features/frame/useHouse';
import { houseDensity } from '@/ui/densityStatus';
import { problemWords } from '@/ui/api';
import { isWhole, numberOf } from '@/ui/numberOf';
import type { MeasuredColour } from './useMeasured';

/** Measures one patch with an instrument that is connected; a simulated one lies on a patch of a printed sheet. */
export function InstrumentSpot({
  onMeasured,
  next,
}: {
  onMeasured: (colour: MeasuredColour, mode: MeasurementMode) => void;
  /** Name of the next colour. */
  next: string;
}) {
  const { client, instruments, chosen, choose, calibrate } = useBridge();
  const { data: house } = useHouse();
  const [wanted, setMode] = useState<MeasurementMode>('M1');
  const [sheet, setSheet] = useState('');
  const [place, setPlace] = useState({ strip: '1', patch: '1' });
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const measureOne = useMeasureOne();
  const instrument =
    instruments.find(({ info }) => info.serial === chosen) ??
    instruments.find(({ info }) => info.kind === 'spot') ??
    instruments[0];
  if (instrument === undefined || client === undefined)
    return <p className="quiet">No instrument is connected; colours can be typed, pasted or sent.</p>;
  const { info, name } = instrument;
  const simulated = info.simulated === true;
  const mode = info.modes.includes(wanted) ? wanted : info.modes[0];
  const code = sheet === '' ? (house?.slips[0]?.code ?? '') : sheet;
  const placed = isWhole(place.strip, 1, 10_000) && isWhole(place.patch, 1, 10_000) && code !== '';
  const act = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setProblem(undefined);
    try {
      await work();
    } catch (error) {
      setProblem(problemWords(error));
    } finally {
      setBusy(false);
    }
  };
  const measure = (): Promise<void> =>
    act(async () => {
      const lies = { code, strip: numberOf(place.strip), patch: numberOf(place.patch) };
      const one = await measureOne(instrument, mode, simulated ? lies : undefined);
      onMeasured({ id: one.attempt, name: next, from: `${name}, ${mode}`, ...colourOf(one) }, mode);
    });
  return (
    <div style={{ display: 'grid', gap: 8 }}>
      <div className="row" style={{ flexWrap: 'wrap' }}>
        <InstrumentField instruments={instruments} serial={info.serial} onChoose={choose} />
        <ModeField modes={info.modes} mode={mode} onChoose={setMode} />
        {simulated && (
          <>
            <TextField
              label="It lies on sheet"
              value={code}
              onChange={(event) => setSheet(event.target.value.trim())}
              sx={{ width: 150 }}
            />
            {(['strip', 'patch'] as const).map((part) => (
              <TextField
                key={part}
                label={part}
                value={place[part]}
                error={!isWhole(place[part], 1, 10_000)}
                onChange={(event) => setPlace({ ...place, [part]: event.target.value })}
                sx={{ width: 70 }}
              />
            ))}
          </>
        )}
        <Button variant="contained" disabled={busy || (simulated && !placed)} onClick={() => void measure()}>
          Measure
        </Button>
        <Button disabled={busy} onClick={() => void act(() => calibrate(instrument))}>
          White tile
        </Button>
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}

/** Colour of a spectrum: Lab for D50 and 2°, and its densities; the spectrum stays with it. */
export function colourOf({
  startNm,
  stepNm,
  spectrum,
}: Pick<MeasuredOne, 'startNm' | 'stepNm' | 'spectrum'>): Pick<
  MeasuredColour,
  'lab' | 'density' | 'spectrum'
> {
  const grid = { startNm, stepNm, count: spectrum.length };
  const status = houseDensity();
  return {
    lab: spectrumLab(grid, spectrum),
    density: { status, ...densities(grid, spectrum, status) },
    spectrum: { grid, values: [...spectrum] },
  };
}
