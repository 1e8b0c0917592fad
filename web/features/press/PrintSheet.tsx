'use client';

import { PRINT_CHART } from '@/endpoints/charts';
import { NEW_PRESS_CHART } from '@/endpoints/charts';
import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { NewPressChart, PressChartKind } from '@melto/services/calibration/pressCharts';
import type { PressLink, PressView } from '@melto/services/calibration/pressView';
import { PrintDialog } from '@/features/charts/PrintDialog';
import { useChartForm } from '@/features/charts/ChartFormFields';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole, numberOf } from '@/ui/numberOf';

/** What a surface prints unless the person says otherwise. */
export interface SheetDefaults {
  readonly kind: PressChartKind;
  readonly title: string;
  readonly through: 'in force' | 'none';
  /** The choice between the two makes sense. */
  readonly choice: boolean;
}

/** Chooses a chart, makes it, and goes on to the settings that are ticked at each print. */
export function PrintSheet({
  view,
  defaults,
  made,
  onClose,
}: {
  view: PressView<PressLink>;
  defaults: SheetDefaults;
  /** A chart that is there already. */
  made?: number;
  onClose: () => void;
}) {
  const router = useRouter();
  const { kind } = defaults;
  const { form, reader, fields } = useChartForm(view.condition.id);
  const [steps, setSteps] = useState('21');
  const [copies, setCopies] = useState(kind === 'ramps' ? '4' : '2');
  const [order, setOrder] = useState<NewPressChart['order']>('scrambled');
  const [through, setThrough] = useState(view.inForce === null ? 'none' : defaults.through);
  const [chart, setChart] = useState(defaults.choice ? undefined : made);
  const stepsRight = isWhole(steps, 5, 64);
  const copiesRight = isWhole(copies, 1, 8);
  const make = async (): Promise<void> => {
    if (made !== undefined) return setChart(made);
    if (form === undefined) return;
    const { id } = await send(NEW_PRESS_CHART, {
      params: { id: view.condition.id },
      body: {
        kind,
        ...form,
        steps: kind === 'ramps' ? numberOf(steps) : 21,
        copies: numberOf(copies),
        order,
      },
    });
    setChart(id);
  };
  if (chart !== undefined)
    return (
      <PrintDialog
        title={`Print ${defaults.title}`}
        onPrint={(chosen) =>
          send(PRINT_CHART, {
            params: { id: chart },
            body: {
              curves: through,
              // A front end that is to be linear stays so, whatever came into force.
              ...(through === 'in force' ? { told: { curves: view.inForce?.id ?? null } } : {}),
              ...chosen,
            },
          })
        }
        told={
          through === 'in force'
            ? `The front end applies ${view.inForce?.words ?? 'the curves in force'}; nothing else.`
            : 'The front end is linear: no curves, no conversion.'
        }
        files={chart}
        points={view.points}
        conversions={view.conversions}
        frontEnd
        onClose={() => {
          router.refresh();
          onClose();
        }}
      />
    );
  return (
    <FormDialog
      title={defaults.title}
      act={made === undefined ? 'Make the chart' : 'Go on to print'}
      ready={made !== undefined || (stepsRight && copiesRight && form !== undefined)}
      onSubmit={make}
      onClose={onClose}
    >
      {defaults.choice && (
        <TextField
          select
          label="Front end"
          value={through}
          onChange={(event) => setThrough(event.target.value as typeof through)}
          helperText={
            through === 'none'
              ? 'Raw device values, for limits and a first round.'
              : 'To see what the curves reach, and for another round.'
          }
        >
          <MenuItem value="none">linear, no curves</MenuItem>
          <MenuItem value="in force" disabled={view.inForce === null}>
            through {view.inForce?.words ?? 'the curves in force'}
          </MenuItem>
        </TextField>
      )}
      {!defaults.choice && (
        <p className="quiet small">
          {defaults.through === 'none' || view.inForce === null
            ? 'Printed with a linear front end.'
            : `Printed through ${view.inForce.words}.`}
        </p>
      )}
      {made === undefined && (
        <div className="row" style={{ alignItems: 'flex-start' }}>
          {fields}
          {kind !== 'evenness' && (
            <TextField
              label="Copies"
              value={copies}
              error={!copiesRight}
              helperText={copiesRight ? ' ' : '1 to 8'}
              onChange={(event) => setCopies(event.target.value)}
              sx={{ width: 90 }}
            />
          )}
          {kind === 'ramps' && (
            <TextField
              label="Steps"
              value={steps}
              error={!stepsRight}
              helperText={stepsRight ? ' ' : '5 to 64'}
              onChange={(event) => setSteps(event.target.value)}
              sx={{ width: 90 }}
            />
          )}
        </div>
      )}
      {made === undefined && kind !== 'evenness' && reader !== 'strip' && (
        <TextField
          select
          label="Order"
          value={order}
          onChange={(event) => setOrder(event.target.value as NewPressChart['order'])}
          helperText="Scrambled copies cancel what is uneven across the width."
        >
          <MenuItem value="scrambled">scrambled</MenuItem>
          <MenuItem value="in order">in order</MenuItem>
        </TextField>
      )}
    </FormDialog>
  );
}
