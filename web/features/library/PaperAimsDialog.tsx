'use client';

import { MenuItem, TextField, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Lab } from '@melto/core/colour/lab';
import type { PaperShift } from '@melto/core/conformity/aimsOnPaper';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import { MAKE_PAPER_AIMS, PAPERS, PREVIEW_PAPER_AIMS } from '@/endpoints/conformity';
import { ModeField } from '@/features/bridge/InstrumentFields';
import { InstrumentSpot } from '@/features/measure/InstrumentSpot';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { MODES } from '@melto/core/measured/columns';
import { ask, problemWords, send } from '@/ui/api';
import { formatFigure, formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { numberOf } from '@/ui/numberOf';
import { Swatch } from '@/ui/Swatch';

/** An aim set moved to a measured white: that of a reading, or one measured by itself; shown before it is kept. */
export function PaperAimsDialog({
  aims,
  sets,
  onClose,
}: {
  aims: AimSetView;
  sets: readonly AimSetView[];
  onClose: () => void;
}) {
  const [from, setFrom] = useState<'reading' | 'white'>('reading');
  const [readingId, setReadingId] = useState<number>();
  const [typed, setTyped] = useState(['', '', '']);
  // Neither the reading nor the mode of a white that is typed is taken for granted.
  const [mode, setMode] = useState<MeasurementMode>();
  const [paper, setPaper] = useState('');
  const router = useRouter();
  const { data: readings } = useQuery({ queryKey: ['papers'], queryFn: () => ask(PAPERS, {}) });
  const lab = typed.map(numberOf) as unknown as Lab;
  const whole = lab.every((value) => Math.abs(value) <= 130) && lab[0] > 0 && lab[0] <= 110;
  const white = from === 'reading' ? { readingId } : { lab, mode };
  const chosen = from === 'reading' ? readingId !== undefined : whole && mode !== undefined;
  const params = { id: aims.id };
  const preview = useQuery({
    queryKey: ['paper-aims', aims.id, white],
    queryFn: () =>
      ask(PREVIEW_PAPER_AIMS, {
        params,
        query: from === 'reading' ? { readingId } : { L: lab[0], a: lab[1], b: lab[2], mode },
      }),
    enabled: chosen,
    retry: false,
  });
  const shift = chosen ? preview.data : undefined;
  const name = paper.trim() === '' ? '' : `House ${aims.name} on ${paper.trim()}`;
  const before = sets.find((set) => set.moved?.fromFamily === aims.family && set.name === name);
  const keep = async (): Promise<void> => {
    const made = await send(MAKE_PAPER_AIMS, {
      params,
      body: { name, ...(before === undefined ? {} : { versionOf: before.id }), ...white },
    });
    router.push(`/library/aims?set=${made.id}`);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title={`${aims.name} on a paper of yours`}
      act={before === undefined ? 'Keep these aims' : `Keep as version ${before.version + 1}`}
      ready={shift !== undefined && name !== '' && name.length <= 120}
      problem={chosen && preview.error !== null ? problemWords(preview.error) : undefined}
      onSubmit={keep}
      onClose={onClose}
    >
      <p className="quiet small">
        Each colour moves with the white by the tristimulus linear correction; the darkest one stays. The
        paper itself is no longer judged against {aims.name}.
      </p>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={from}
        onChange={(_, value: 'reading' | 'white' | null) => value !== null && setFrom(value)}
        aria-label="the white"
      >
        <ToggleButton value="reading">paper of a reading</ToggleButton>
        <ToggleButton value="white">measured by itself</ToggleButton>
      </ToggleButtonGroup>
      {from === 'reading' ? (
        <TextField
          select
          label="Reading"
          value={readingId ?? ''}
          onChange={(event) => setReadingId(Number(event.target.value))}
          helperText={readings?.length === 0 ? 'There is no complete reading yet.' : ' '}
        >
          {(readings ?? []).map((reading) => (
            <MenuItem key={reading.id} value={reading.id}>
              {reading.code}, {reading.condition}, {formatMoment(reading.finishedMs)}
            </MenuItem>
          ))}
        </TextField>
      ) : (
        <>
          <InstrumentSpot
            next="white"
            onMeasured={(colour, measuredIn) => {
              setTyped(colour.lab.map((value) => value.toFixed(2)));
              setMode(measuredIn);
            }}
          />
          <div className="row">
            {['L*', 'a*', 'b*'].map((axis, i) => (
              <TextField
                key={axis}
                label={axis}
                value={typed[i]}
                error={typed[i] !== '' && !Number.isFinite(lab[i])}
                onChange={(event) => setTyped(typed.map((old, at) => (at === i ? event.target.value : old)))}
                sx={{ width: 90 }}
              />
            ))}
            <ModeField modes={MODES} mode={mode} onChoose={setMode} />
          </div>
        </>
      )}
      <TextField
        label="Name of the paper"
        value={paper}
        onChange={(event) => setPaper(event.target.value)}
        helperText={
          name === ''
            ? 'The set is named after it.'
            : `${name}${before === undefined ? '' : ', its next version'}`
        }
        required
      />
      {shift !== undefined && <ShiftTable shift={shift} />}
    </FormDialog>
  );
}

/** Paper, solids and overprints before and after. */
function ShiftTable({ shift: { deltaE, primaries } }: { shift: PaperShift }) {
  return (
    <>
      <p>
        The white moves by <b>{deltaE.toFixed(2)}</b> ΔE00.
      </p>
      <table className="table tight">
        <thead>
          <tr>
            <th style={{ width: 72 }} />
            <th>Patch</th>
            <th className="num">L* a* b* before</th>
            <th className="num">on this paper</th>
            <th className="num">ΔE00</th>
          </tr>
        </thead>
        <tbody>
          {primaries.map((primary) => (
            <tr key={primary.name}>
              <td>
                <Swatch measured={primary.after} aim={primary.before} height={20} label={primary.name} />
              </td>
              <td>{primary.name}</td>
              {[primary.before, primary.after].map((lab, i) => (
                <td key={i} className="num">
                  {lab.map((value) => formatFigure(value, 1)).join('  ')}
                </td>
              ))}
              <td className="num">{primary.deltaE.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
