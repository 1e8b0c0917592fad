'use client';

import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { DEFAULT_NAME_PATTERN, profileName } from '@melto/core/profile/describeProfile';
import { blackFor, separationOf } from '@melto/core/separate/separation';
import type { BlackAmount } from '@melto/core/separate/separation';
import type { ConditionRow } from '@melto/services/conditions';
import type { PressForProfile } from '@melto/services/pressView';
import type { ReadingOfCondition } from '@melto/services/readings';
import { problemWords, sendJson } from '@/ui/api';
import { formatMoment } from '@/ui/format';

export function BuildForm({
  condition,
  readings,
  press,
  onClose,
}: {
  condition: ConditionRow;
  readings: readonly ReadingOfCondition[];
  press: PressForProfile | null;
  onClose: () => void;
}) {
  const [black, setBlack] = useState<BlackAmount>('medium');
  const [totalInk, setTotalInk] = useState(String(Math.round(100 * (press?.totalInk ?? 3))));
  const total = Number(totalInk);
  const totalRight = press === null || (total >= 120 && total <= 400);
  const [readingId, setReadingId] = useState(readings[0].id);
  const [version, setVersion] = useState(4);
  const [tableSize, setTableSize] = useState('normal');
  const [namePattern, setNamePattern] = useState(DEFAULT_NAME_PATTERN);
  const [problem, setProblem] = useState<string>();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const reading = readings.find(({ id }) => id === readingId);
  const faults = (JSON.parse(reading?.faults ?? '[]') as { kind: string }[]).filter(
    ({ kind }) => kind !== 'strip-backwards',
  );
  const submit = async (): Promise<void> => {
    try {
      await sendJson(`/api/conditions/${condition.id}/profiles`, {
        readingId,
        version,
        tableSize,
        namePattern,
        separation: press === null ? undefined : { black, totalInk: total / 100 },
      });
      enqueueSnackbar('The profile is being built; the header shows how far it is.');
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="build-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <h1 id="build-title">Build a profile</h1>
        <TextField
          select
          label="Reading"
          value={readingId}
          onChange={(event) => setReadingId(Number(event.target.value))}
        >
          {readings.map((row) => (
            <MenuItem key={row.id} value={row.id}>
              {row.code}, {row.title}, {row.mode}, {formatMoment(row.startedMs)}
            </MenuItem>
          ))}
        </TextField>
        {faults.length > 0 && (
          <p className="notice bad">
            This reading shows a fault ({faults.map(({ kind }) => kind.replaceAll('-', ' ')).join(', ')}). A
            profile made from it will carry the mark.
          </p>
        )}
        <TextField
          select
          label="ICC version"
          value={version}
          onChange={(event) => setVersion(Number(event.target.value))}
          helperText={version === 2 ? 'For older software.' : 'For current software.'}
        >
          <MenuItem value={4}>4</MenuItem>
          <MenuItem value={2}>2</MenuItem>
        </TextField>
        {press !== null && (
          <>
            <div className="row" style={{ alignItems: 'flex-start' }}>
              <TextField
                select
                label="Black"
                value={black}
                onChange={(event) => setBlack(event.target.value as BlackAmount)}
                sx={{ flex: 1 }}
                helperText={BLACK_WORDS[black]}
              >
                {(Object.keys(BLACK_WORDS) as BlackAmount[]).map((name) => (
                  <MenuItem key={name} value={name}>
                    {name}
                  </MenuItem>
                ))}
              </TextField>
              <TextField
                label="Total ink, %"
                value={totalInk}
                error={!totalRight}
                onChange={(event) => setTotalInk(event.target.value)}
                helperText={totalRight ? 'at the input of the curves' : '120 to 400'}
                sx={{ width: 190 }}
              />
            </div>
            <BlackPreview black={black} totalInk={totalRight ? total / 100 : 3} />
          </>
        )}
        <TextField
          select
          label="Tables"
          value={tableSize}
          onChange={(event) => setTableSize(event.target.value)}
          helperText={
            {
              small: press === null ? '17³: a small file, coarser' : '11⁴ and 17³: a small file, coarser',
              normal: press === null ? '33³ each way' : '17⁴ and 33³',
              large:
                press === null ? '45³ and 49³: three times the time' : '21⁴ and 49³: three times the time',
            }[tableSize]
          }
        >
          <MenuItem value="small">small</MenuItem>
          <MenuItem value="normal">normal</MenuItem>
          <MenuItem value="large">large</MenuItem>
        </TextField>
        <TextField
          label="Name"
          value={namePattern}
          error={namePattern.trim() === ''}
          onChange={(event) => setNamePattern(event.target.value)}
          helperText={`Filled in, for example: ${profileName(namePattern, { device: condition.device, stock: condition.stock, mode: condition.mode, date: '2026-03-14' })}.icc`}
        />
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={namePattern.trim() === '' || !totalRight}>
            Build
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}

const BLACK_WORDS: Readonly<Record<BlackAmount, string>> = {
  light: 'Black for the depths only: soft greys of three inks.',
  medium: 'Black from the three-quarter tones on.',
  heavy: 'Black from the lights on: steady greys, less ink.',
  max: 'As much black as can be: steadiest greys, least ink.',
};

/** Lightness of a typical darkest neutral, for the preview before the model is fitted. */
const TYPICAL_BLACK = 12;

/** Black along the greys for the choice made, drawn at once. */
function BlackPreview({ black, totalInk }: { black: BlackAmount; totalInk: number }) {
  const separation = separationOf(black, totalInk);
  const points = Array.from({ length: 61 }, (_, i) => {
    const lightness = (100 * i) / 60;
    const k = blackFor(separation, TYPICAL_BLACK, lightness, 0);
    return `${(40 + 5 * i).toFixed(1)},${(76 - 70 * k).toFixed(1)}`;
  });
  return (
    <svg viewBox="0 0 350 100" width="100%" role="img" aria-label={`black generation ${black}`}>
      <path d="M40 6H340M40 41H340M40 76H340" stroke="var(--rule)" />
      {[100, 50, 0].map((value, i) => (
        <text key={value} x="34" y={10 + 35 * i} fontSize="11" textAnchor="end" fill="var(--quiet)">
          {value}
        </text>
      ))}
      <polyline points={points.join(' ')} fill="none" stroke="var(--text)" strokeWidth="2" />
      <text x="190" y="95" fontSize="11" textAnchor="middle" fill="var(--quiet)">
        black, %, along greys from L* 0 to 100
      </text>
    </svg>
  );
}
