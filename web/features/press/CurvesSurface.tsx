'use client';

import { ask, send } from '@/ui/api';
import { IMPORT_CURVES, MAKE_CURVES } from '@/endpoints/calibration';
import { AIM_SETS } from '@/endpoints/conformity';
import { Button, ListSubheader, MenuItem, TextField } from '@mui/material';
import type { Static } from '@sinclair/typebox';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { channelNames } from '@melto/core/device/process';
import { measuresFor } from '@melto/core/tone/toneMeasure';
import type { TonePoint, TviLetter } from '@melto/core/tone/tviAim';
import type { ToneMeasure } from '@melto/core/tone/toneMeasure';
import type { PressView } from '@melto/services/calibration/pressView';
import type { CurvesSummary } from '@melto/services/ledger/kinds/curvesKind';
import { StatusMark } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';
import { percent } from './inkLine';
import { CurveFiles } from './CurveFiles';
import { useMay } from '@/ui/May';
import { FromReading } from './FromReading';
import { PressFrame } from './PressFrame';
import { ToneFigures } from './ToneFigures';

export const MEASURES: readonly (readonly [ToneMeasure, string])[] = [
  ['tvi', 'a TVI aim'],
  ['density', 'density, even'],
  ['delta-e', 'ΔE*ab from paper, even'],
  ['sctv', 'SCTV (ISO 20654), even'],
];
const LETTERS: readonly TviLetter[] = ['A', 'B', 'C', 'D', 'E'];

export function CurvesSurface({ view }: { view: PressView<'curves'> }) {
  const mayImport = useMay(IMPORT_CURVES);
  const { result, reached, condition, shown } = view;
  const possible = measuresFor(channelNames(condition.process));
  const [measure, setMeasure] = useState<ToneMeasure>(
    result?.summary.measure ?? (possible.includes('tvi') ? 'tvi' : 'sctv'),
  );
  const [chosen, setChosen] = useState<TviLetter | 'own' | number>('A');
  const [points, setPoints] = useState('25 12, 50 16, 75 12');
  const [files, setFiles] = useState(false);
  const own = parsePoints(points);
  const { data: aims } = useQuery({
    queryKey: ['aim-sets'],
    queryFn: () => ask(AIM_SETS, {}),
    enabled: measure === 'tvi',
  });
  const tvi = measure === 'tvi' ? tviAsked(chosen, own) : undefined;
  return (
    <PressFrame
      view={view}
      title="Curves"
      sentence={<Sentence view={view} />}
      about={
        result === null
          ? undefined
          : result.summary.imported !== null
            ? `from the file ${result.summary.imported}`
            : `round ${result.summary.round}, ${measureWords(result.summary)}, from sheet ${result.summary.code}`
      }
      print={{ kind: 'ramps', title: 'Ramps', through: 'in force', choice: true }}
      actions={<Button onClick={() => setFiles(true)}>Files</Button>}
    >
      <FromReading
        calls={MAKE_CURVES}
        readings={view.readings}
        onMake={(readingId) =>
          send(MAKE_CURVES, { params: { id: condition.id }, body: { readingId, measure, tvi } })
        }
        act={result === null ? 'Make the curves' : 'Make another round'}
        first={result === null || reached?.verdict === 'does-not-conform'}
      >
        <TextField
          select
          label="Aim"
          value={measure}
          onChange={(event) => setMeasure(event.target.value as ToneMeasure)}
          helperText={measure === 'sctv' ? 'made for inks of any colour' : undefined}
          sx={{ width: 230 }}
        >
          {MEASURES.filter(([value]) => possible.includes(value)).map(([value, name]) => (
            <MenuItem key={value} value={value}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        {measure === 'tvi' && (
          <TextField
            select
            label="TVI"
            value={chosen}
            helperText="Areas from XYZ: C by X − 0.55 Z, M and K by Y, Y by Z"
            onChange={(event) => setChosen(event.target.value as typeof chosen)}
            sx={{ width: 230 }}
          >
            {LETTERS.map((name) => (
              <MenuItem key={name} value={name}>
                curve {name}
              </MenuItem>
            ))}
            <MenuItem value="own">own points</MenuItem>
            <ListSubheader>as an aim set asks of each ink</ListSubheader>
            {(aims ?? []).map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {measure === 'tvi' && chosen === 'own' && (
          <TextField
            label="Tone and increase, %"
            value={points}
            error={own === undefined}
            helperText={own === undefined ? 'Pairs, as 25 12, 50 16, 75 12' : undefined}
            onChange={(event) => setPoints(event.target.value)}
            sx={{ width: 210 }}
          />
        )}
      </FromReading>
      {result !== null && result.detail.inks.length > 0 && <ToneFigures view={view} result={result} />}
      {result !== null && result.detail.inks.length === 0 && (
        <p className="notice">
          These curves came from a file. Print ramps through them to see what they reach.
        </p>
      )}
      {files && (
        <CurveFiles
          conditionId={condition.id}
          resultId={shown?.id}
          taken={condition.deviceFacts.curveFormats}
          onClose={() => setFiles(false)}
          take={mayImport}
        />
      )}
    </PressFrame>
  );
}

function parsePoints(text: string): TonePoint[] | undefined {
  const pairs = text.split(',').map((pair) => pair.trim().split(/\s+/).map(Number));
  const right = pairs.every(
    (pair) => pair.length === 2 && pair[0] > 0 && pair[0] < 100 && pair[1] >= -20 && pair[1] <= 50,
  );
  return right
    ? pairs.map(([tone, increase]) => ({ tone: tone / 100, increase: increase / 100 }))
    : undefined;
}

function tviAsked(
  chosen: TviLetter | 'own' | number,
  own: readonly TonePoint[] | undefined,
): Static<typeof MAKE_CURVES.body>['tvi'] {
  if (typeof chosen === 'number') return { aimSetId: chosen };
  return chosen === 'own' ? { points: [...(own ?? [])] } : { letter: chosen };
}

function measureWords({ measure, tvi }: CurvesSummary): string {
  if (measure === 'tvi' && tvi !== null && 'aims' in tvi)
    return `TVI of ${tvi.aims.name}${tvi.aims.version > 1 ? `, version ${tvi.aims.version}` : ''}`;
  if (measure === 'tvi' && tvi !== null)
    return 'letter' in tvi ? `TVI ${tvi.letter}, approximate away from 50 %` : 'TVI by own points';
  return MEASURES.find(([value]) => value === measure)?.[1] ?? measure;
}

function Sentence({ view: { result, reached, readings, shown } }: { view: PressView<'curves'> }) {
  if (result === null)
    return readings.length > 0
      ? 'A reading of ramps is ready: make the curves.'
      : 'Print ramps with a linear front end, let them rest, and read them.';
  if (reached !== null)
    return (
      <span className="row" style={{ gap: 8 }}>
        <StatusMark status={reached.verdict as Status} word="reached" />
        <span>
          steps within {percent(reached.summary.largest, 2)} % of the aim, {percent(reached.summary.mean, 2)}{' '}
          % on average; limit {percent(reached.summary.limit)} %
        </span>
      </span>
    );
  if (shown !== null && shown.borrowedFrom !== null)
    return 'Print ramps of this stock through the borrowed curves to see whether they fit.';
  return `The sheet before stood up to ${percent(result.summary.largest)} % off its aim. Print ramps through the curves to see what they reach.`;
}
