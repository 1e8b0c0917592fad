'use client';

import { IMPORT_CURVES } from '@/endpoints/calibration';
import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { CURVE_FORMATS } from '@melto/core/device/deviceFacts';
import type { CurveFormat } from '@melto/core/device/deviceFacts';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import { CURVE_FORMAT_WORDS } from '@/features/library/factWords';
import { problemWords, send } from '@/ui/api';

/** Curves out as files, and in from CSV. */
export function CurveFiles({
  conditionId,
  resultId,
  taken = CURVE_FORMATS,
  take = false,
  onClose,
}: {
  conditionId: number;
  resultId?: number;
  /** What the front end takes, as far as the house has told. */
  taken?: readonly CurveFormat[];
  /** Files may be taken in as well. */
  take?: boolean;
  onClose: () => void;
}) {
  const router = useRouter();
  const [format, setFormat] = useState<CurveFormat>(taken[0] ?? 'link');
  const [points, setPoints] = useState('256');
  const [channels, setChannels] = useState<string>('all');
  const [problem, setProblem] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  const right = Number.isInteger(Number(points)) && Number(points) >= 2 && Number(points) <= 1024;
  const whole = format === 'link';
  const href = `/api/results/${resultId ?? 0}/curves?format=${format}&points=${points}${
    whole || channels === 'all' ? '' : `&channels=${channels}`
  }`;
  const load = async (file: File | undefined): Promise<void> => {
    if (file === undefined) return;
    try {
      await send(IMPORT_CURVES, {
        params: { id: conditionId },
        query: { name: file.name.slice(0, 200) },
        body: file,
      });
      // Not the version that the address may name: what is in force now.
      router.push(`/conditions/${conditionId}/curves`);
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="files-title">
      <div style={{ padding: 20, display: 'grid', gap: 16 }}>
        <h1 id="files-title">Files of the curves</h1>
        {resultId !== undefined && (
          <>
            <div className="row" style={{ alignItems: 'flex-start' }}>
              <TextField
                select
                label="Format"
                value={format}
                onChange={(event) => setFormat(event.target.value as CurveFormat)}
                helperText={taken.includes(format) ? ' ' : 'The front end is not known to take this'}
                sx={{ flex: 1 }}
              >
                {CURVE_FORMATS.map((value) => (
                  <MenuItem key={value} value={value}>
                    {CURVE_FORMAT_WORDS[value]}
                  </MenuItem>
                ))}
              </TextField>
              {!whole && (
                <TextField
                  label="Points"
                  value={points}
                  error={!right}
                  helperText={right ? ' ' : '2 to 1,024'}
                  onChange={(event) => setPoints(event.target.value)}
                  sx={{ width: 90 }}
                />
              )}
              {!whole && (
                <TextField
                  select
                  label="Inks"
                  value={channels}
                  onChange={(event) => setChannels(event.target.value)}
                  sx={{ width: 90 }}
                >
                  <MenuItem value="all">all</MenuItem>
                  {PROCESS_INKS.map((ink) => (
                    <MenuItem key={ink} value={ink}>
                      {ink}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            </div>
            <p className="quiet small">
              The file&apos;s name holds the version; no file overwrites an older one.
            </p>
          </>
        )}
        {take && (
          <p className="quiet small">
            A CSV file may come in: a head line as input,C,M,Y,K, then rows of per cent. It becomes a new
            version; inks it lacks stay as they are.
          </p>
        )}
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          {resultId !== undefined && (
            <Button
              variant="contained"
              component="a"
              href={right || whole ? href : undefined}
              download
              disabled={!right && !whole}
            >
              Download
            </Button>
          )}
          {take && <Button onClick={() => input.current?.click()}>Take a CSV file in</Button>}
          <Button onClick={onClose}>Close</Button>
          <input
            ref={input}
            type="file"
            accept=".csv,text/csv"
            hidden
            aria-label="CSV file of curves"
            onChange={(event) => {
              void load(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </div>
      </div>
    </Dialog>
  );
}
