'use client';

import { PRINT_CHART } from '@/endpoints/charts';
import { NEW_CHART } from '@/endpoints/charts';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { chartPatches } from '@melto/core/charts/chartPatches';
import type { Process } from '@melto/core/device/process';
import type { ChartState } from '@melto/services/charts/chartStates';
import type { PressForProfile } from '@melto/services/calibration/pressView';
import type { SettingsPoint } from '@melto/services/ledger/conditions';
import { send } from '@/ui/api';
import { useSending } from '@/ui/useSending';
import { ChartTable } from './ChartTable';
import { useChartForm } from './ChartFormFields';
import { effortOf } from './effort';
import { MeasuredChart } from './MeasuredChart';
import { PrintDialog } from './PrintDialog';

/** Makes a profiling chart, offers its files and prints it. */
export function ChartMaker({
  conditionId,
  charts,
  points,
  conversions,
  nowMs,
  process,
  press,
}: {
  conditionId: number;
  charts: readonly ChartState[];
  points: readonly SettingsPoint[];
  conversions: readonly string[];
  nowMs: number;
  process: Process;
  /** Devices with inks: the curves that charts are printed through. */
  press: PressForProfile | null;
}) {
  const router = useRouter();
  const { least, most, usual } = chartPatches(process);
  const [patches, setPatches] = useState(String(usual));
  const { form, fields } = useChartForm(conditionId);
  const { sending, problem, run } = useSending();
  const [printing, setPrinting] = useState<ChartState>();
  const count = Number(patches);
  const valid = Number.isInteger(count) && count >= least && count <= most;
  const make = async (): Promise<void> => {
    if (form === undefined) return;
    await send(NEW_CHART, { params: { id: conditionId }, body: { patches: count, ...form } });
    router.refresh();
  };
  return (
    <div className="panel">
      <header>
        <h2>Charts</h2>
        <span className="quiet">
          {press === null
            ? 'raw RGB values'
            : `${process.name} values, ${press.curves === null ? 'with a linear front end: make curves first' : `through ${press.curves.words}`}, total ink ${Math.round(100 * press.totalInk)} % at the input`}
        </span>
      </header>
      <form
        className="row"
        style={{ alignItems: 'flex-start', marginBottom: charts.length > 0 ? 12 : 0 }}
        onSubmit={(event) => {
          event.preventDefault();
          void run(make);
        }}
      >
        <TextField
          label="Patches"
          value={patches}
          onChange={(event) => setPatches(event.target.value)}
          error={!valid}
          helperText={
            valid
              ? form === undefined
                ? ' '
                : effortOf(count, form)
              : `A whole number from ${least} to 3,000.`
          }
          sx={{ width: 230 }}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        {fields}
        <Button type="submit" disabled={!valid || form === undefined || sending} sx={{ mt: '3px' }}>
          Make the chart
        </Button>
        {conversions.length === 0 && <MeasuredChart conditionId={conditionId} />}
        {problem !== undefined && <p className="error">{problem}</p>}
      </form>
      {charts.length > 0 && (
        <ChartTable
          charts={charts}
          nowMs={nowMs}
          pixels={press === null ? ['tiff', 'png'] : ['tiff']}
          onPrint={setPrinting}
        />
      )}
      {printing !== undefined && (
        <PrintDialog
          title={`Print ${printing.title}`}
          onPrint={(chosen) =>
            send(PRINT_CHART, {
              params: { id: printing.id },
              body: {
                ...(press === null
                  ? {}
                  : {
                      curves: press.curves === null ? 'none' : 'in force',
                      told: { curves: press.curves?.id ?? null },
                    }),
                ...chosen,
              },
            })
          }
          points={points}
          conversions={conversions}
          told={
            press === null
              ? undefined
              : press.curves === null
                ? 'The front end is linear: no curves, no conversion.'
                : `The front end applies ${press.curves.words}; nothing else.`
          }
          frontEnd={press !== null}
          onClose={() => setPrinting(undefined)}
        />
      )}
    </div>
  );
}
