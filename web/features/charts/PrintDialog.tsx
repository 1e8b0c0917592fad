'use client';

import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { SettingsPoint } from '@melto/services/ledger/conditions';
import type { Printed } from '@melto/services/charts/printChart';
import { formatClock } from '@/ui/format';
import { SheetFiles } from './SheetFiles';
import { FormDialog } from '@/ui/FormDialog';

/** What is chosen at each print, whatever is printed. */
export interface PrintChoices {
  readonly ticks: string[];
  readonly conversion?: string;
  readonly side?: 'printing' | 'wrong';
  readonly frontEnd?: 'factory curves' | 'no curves';
}

/** The fault of a simulated device by its name in the list. */
function faultOf(fault: string): Omit<PrintChoices, 'ticks'> {
  if (fault === 'none') return {};
  if (fault === 'wrong side') return { side: 'wrong' };
  return fault === 'factory curves' || fault === 'no curves' ? { frontEnd: fault } : { conversion: fault };
}

/** Asks for the points of the settings record, then prints on the device. */
export function PrintDialog({
  title,
  onPrint,
  told,
  files,
  points,
  conversions,
  frontEnd = false,
  onClose,
}: {
  title: string;
  /** Prints with the ticks and, on a simulated device, the fault that were chosen. */
  onPrint: (chosen: PrintChoices) => Promise<Printed>;
  /** What the front end is told, in words. */
  told?: string;
  /** Chart whose files are offered, to print it elsewhere. */
  files?: number;
  points: readonly SettingsPoint[];
  conversions: readonly string[];
  /** The device has a front end that may have curves of its own. */
  frontEnd?: boolean;
  onClose: () => void;
}) {
  const toTick = points.filter(({ tickAtPrint }) => tickAtPrint);
  const [ticks, setTicks] = useState<readonly string[]>([]);
  const [fault, setFault] = useState('none');
  const queries = useQueryClient();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const missing = toTick.length - ticks.length;
  // A device that nothing can be told is the house's own: its pages are printed elsewhere.
  const own = conversions.length === 0;
  const [made, setMade] = useState<Printed>();
  const print = async (): Promise<void> => {
    const printed = await onPrint({ ticks: [...ticks], ...faultOf(fault) });
    enqueueSnackbar(
      `${printed.sheets.join(', ')} on the rack, ready at ${formatClock(printed.restUntilMs)}.`,
    );
    await queries.invalidateQueries();
    router.refresh();
    if (own) setMade(printed);
    else onClose();
  };
  if (made !== undefined) return <PagesMade made={made} onClose={onClose} />;
  return (
    <FormDialog
      title={title}
      act={own ? 'Make the pages' : 'Print'}
      ready={missing === 0}
      beside={
        <>
          {files !== undefined && (
            <span className="small">
              chart as <a href={`/api/charts/${files}/file?format=pdf`}>PDF</a>,{' '}
              <a href={`/api/charts/${files}/file?format=tiff&page=1`}>TIFF</a>,{' '}
              <a href={`/api/charts/${files}/file?format=txt`}>CGATS</a>
            </span>
          )}
          {missing > 0 && (
            <span className="quiet small">
              {missing} {missing === 1 ? 'point' : 'points'} to tick
            </span>
          )}
        </>
      }
      onSubmit={print}
      onClose={onClose}
    >
      <p className="quiet small">
        Look at the driver before you tick. A conversion left on spoils everything that is built on the sheet.
      </p>
      {told !== undefined && <p>{told}</p>}
      {points.map((point) =>
        point.tickAtPrint ? (
          <FormControlLabel
            key={point.label}
            control={
              <Checkbox
                checked={ticks.includes(point.label)}
                onChange={(_, checked) =>
                  setTicks(checked ? [...ticks, point.label] : ticks.filter((label) => label !== point.label))
                }
              />
            }
            label={
              <>
                <b>{point.label}</b> <span className="quiet">{point.value}</span>
              </>
            }
          />
        ) : (
          <p key={point.label} style={{ paddingLeft: 32 }}>
            {point.label}: {point.value === '' ? <span className="quiet">not recorded</span> : point.value}
          </p>
        ),
      )}
      {!own && (
        <TextField
          select
          label="Simulated device"
          value={fault}
          onChange={(event) => setFault(event.target.value)}
          helperText={
            fault === 'none'
              ? 'Prints as the settings say.'
              : 'Prints with this mistake, to see what reading makes of it.'
          }
        >
          <MenuItem value="none">no mistake</MenuItem>
          <MenuItem value="wrong side">wrong side of the paper</MenuItem>
          {frontEnd && <MenuItem value="factory curves">the front end&apos;s own curves left on</MenuItem>}
          {frontEnd && <MenuItem value="no curves">no curves loaded, whatever was asked for</MenuItem>}
          {conversions.map((name) => (
            <MenuItem key={name} value={name}>
              colour management left on: {name}
            </MenuItem>
          ))}
        </TextField>
      )}
    </FormDialog>
  );
}

/** The coded pages of a device of the house's own, to be printed as its other jobs are, without colour management. */
function PagesMade({ made, onClose }: { made: Printed; onClose: () => void }) {
  return (
    <FormDialog title={`Print ${made.code}`} act="Done" out={null} onSubmit={onClose} onClose={onClose}>
      <p>
        Print these pages at 100 % with the settings of the record. Each carries its code; when it is
        measured, give the file at its sheet on the rack. The CGATS file tells a measuring program what was
        sent.
      </p>
      <ul>
        {made.sheets.map((code) => (
          <li key={code}>
            <b>{code}</b> <SheetFiles code={code} sent />
          </li>
        ))}
      </ul>
    </FormDialog>
  );
}
