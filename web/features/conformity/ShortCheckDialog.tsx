'use client';

import { TextField, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useState } from 'react';
import { HOUSE_PHOTO } from '@melto/core/conformity/shortCheck';
import { drivenByInks } from '@melto/core/device/process';
import { PRINT_SHORT_CHECK } from '@/endpoints/charts';
import { useChartForm } from '@/features/charts/ChartFormFields';
import { PrintDialog } from '@/features/charts/PrintDialog';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { numberOf } from '@/ui/numberOf';
import type { ConformitySurfaceProps } from './ConformitySurface';

/** Chooses the limits of a short check before it is printed and read. */
export function ShortCheckDialog({
  condition,
  points,
  conversions,
  curves,
  profileResultId,
  onClose,
}: Pick<ConformitySurfaceProps, 'condition' | 'points' | 'conversions' | 'curves'> & {
  profileResultId: number;
  onClose: () => void;
}) {
  const [by, setBy] = useState<'house' | 'own'>('house');
  const [typed, setTyped] = useState({
    mean: String(HOUSE_PHOTO.mean),
    largest: String(HOUSE_PHOTO.largest),
  });
  const [printing, setPrinting] = useState(false);
  const { form, fields } = useChartForm(condition.id);
  const limits = { mean: numberOf(typed.mean), largest: numberOf(typed.largest) };
  const right = limits.mean > 0 && limits.largest >= limits.mean && limits.largest <= 100;
  const inks = drivenByInks(condition.process);
  if (printing && form !== undefined)
    return (
      <PrintDialog
        title="Print a short check through the profile"
        told={
          inks
            ? `Colours through the profile and ${curves === null ? 'a linear front end' : curves.words}.`
            : undefined
        }
        onPrint={(chosen) =>
          send(PRINT_SHORT_CHECK, {
            params: { id: condition.id },
            body: { profileResultId, ...form, ...(by === 'own' ? { limits } : {}), ...chosen },
          })
        }
        points={points}
        conversions={conversions}
        frontEnd={inks}
        onClose={onClose}
      />
    );
  return (
    <FormDialog
      title="Short check"
      act="Go on to print"
      ready={(by === 'house' || right) && form !== undefined}
      onSubmit={() => setPrinting(true)}
      onClose={onClose}
    >
      <p className="quiet small">
        Thirty colours, one strip of a strip reader, through the profile: does the device still give what it
        is asked for? Judged relative to its paper, by colours that it can reach.
      </p>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {fields}
      </div>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={by}
        onChange={(_, value: 'house' | 'own' | null) => value !== null && setBy(value)}
        aria-label="limits"
      >
        <ToggleButton value="house">
          photo print: mean {HOUSE_PHOTO.mean}, largest {HOUSE_PHOTO.largest}
        </ToggleButton>
        <ToggleButton value="own">own limits</ToggleButton>
      </ToggleButtonGroup>
      {by === 'own' && (
        <div className="row" style={{ alignItems: 'flex-start' }}>
          {(['mean', 'largest'] as const).map((part) => (
            <TextField
              key={part}
              label={`${part} ΔE00`}
              value={typed[part]}
              error={!right}
              onChange={(event) => setTyped({ ...typed, [part]: event.target.value })}
              sx={{ width: 130 }}
            />
          ))}
          {!right && (
            <span className="error">The largest is no smaller than the mean, both over nought.</span>
          )}
        </div>
      )}
    </FormDialog>
  );
}
