'use client';

import { PRINT_WEDGE } from '@/endpoints/charts';
import { send } from '@/ui/api';
import { drivenByLight, takesCmyk } from '@melto/core/device/process';
import { MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { MOST_SPOT_COLOURS } from '@melto/core/conformity/spotColour';
import type { NamedColour } from '@melto/core/refine/namedColour';
import type { JudgedBy } from '@melto/services/conformity/checkChoice';
import type { WedgeInput } from '@melto/services/wedges/printWedge';
import { PrintDialog } from '@/features/charts/PrintDialog';
import { useChartForm } from '@/features/charts/ChartFormFields';
import { ColourListField } from '@/ui/ColourListField';
import { FormDialog } from '@/ui/FormDialog';
import { CheckChoiceFields, choiceOf, daysAreRight, firstChoice } from './CheckChoiceFields';
import type { ConformitySurfaceProps } from './ConformitySurface';
import { PredictedLine } from './PredictedLine';
import { parseOwnPatches } from './parseOwnPatches';

const KINDS: readonly (readonly [WedgeInput['kind'] | 'spots', string])[] = [
  ['proof', 'proof wedge, 84 patches'],
  ['near-neutral', 'near-neutral wedge, 63 patches'],
  ['spots', 'the spot colours alone'],
  ['own', 'own patches'],
];
/** What stands beside spot colours alone: their paper. */
const PAPER_ONLY = [{ name: 'paper', device: [0, 0, 0, 0] }];
const THROUGH: Readonly<Record<JudgedBy['through'], string>> = {
  'profile, absolute': 'through the profile, absolute colorimetric: the paper is shown as well',
  'profile, relative': 'through the profile, relative colorimetric: on its own paper',
  'device values': 'as device values: the press itself',
};
/** Chooses what a control wedge is judged by, before it is printed and read. */
export function WedgeDialog({
  condition,
  aims,
  tolerances,
  result,
  points,
  conversions,
  profileResultId,
  curves,
  onClose,
}: ConformitySurfaceProps & { onClose: () => void }) {
  const rgb = drivenByLight(condition.process);
  const converted = !takesCmyk(condition.process);
  const [kind, setKind] = useState<(typeof KINDS)[number][0]>('proof');
  const [choice, setChoice] = useState(() =>
    firstChoice(
      aims,
      tolerances,
      choiceOf(result?.detail, result?.row.validDays),
      profileResultId !== undefined,
    ),
  );
  const [through, setThrough] = useState<JudgedBy['through']>(
    profileResultId === undefined ? 'device values' : 'profile, absolute',
  );
  const { form, fields } = useChartForm(condition.id);
  const [text, setText] = useState('');
  const [spots, setSpots] = useState<readonly NamedColour[]>([]);
  const [problem, setProblem] = useState<string>();
  const [printing, setPrinting] = useState(false);
  const simulated = through === 'device values' ? [] : spots;
  const many = simulated.length > MOST_SPOT_COLOURS;
  const own = parseOwnPatches(text);
  const ready =
    (kind !== 'own' || own.ok) &&
    !many &&
    form !== undefined &&
    daysAreRight(choice) &&
    (kind !== 'spots' || simulated.length > 0);
  const told =
    through === 'device values'
      ? curves !== null
        ? `CMYK values as they are, through ${curves.words}.`
        : 'CMYK values as they are, with a linear front end.'
      : `CMYK aims ${THROUGH[through].split(':')[0]}${curves !== null ? ` and ${curves.words}` : ''}.`;
  if (printing && form !== undefined)
    return (
      <PrintDialog
        title="Print the control wedge"
        onPrint={(chosen) =>
          send(PRINT_WEDGE, {
            params: { id: condition.id },
            body: {
              kind: kind === 'spots' ? 'own' : kind,
              ...form,
              ...(kind === 'own' && own.ok ? { patches: own.patches } : {}),
              ...(kind === 'spots' ? { patches: PAPER_ONLY } : {}),
              ...(simulated.length > 0 ? { spots: simulated } : {}),
              judgedBy: { ...choice, through },
              told: {
                ...(rgb ? {} : { curves: curves?.id ?? null }),
                ...(through === 'device values' ? {} : { profile: profileResultId ?? null }),
              },
              ...chosen,
            },
          })
        }
        told={told}
        points={points}
        conversions={conversions}
        frontEnd={!rgb}
        onClose={onClose}
      />
    );
  return (
    <FormDialog
      title="New check"
      act="Go on to print"
      ready={ready}
      problem={many ? `${spots.length} spot colours; a wedge carries ${MOST_SPOT_COLOURS} at most.` : problem}
      onSubmit={() => setPrinting(true)}
      onClose={onClose}
    >
      <CheckChoiceFields
        {...{ choice, aims, tolerances }}
        hasSpots={simulated.length > 0}
        onChange={setChoice}
      />
      <TextField
        select
        label="Way to the device"
        value={through}
        onChange={(event) => setThrough(event.target.value as JudgedBy['through'])}
      >
        {(Object.keys(THROUGH) as JudgedBy['through'][]).map((way) => (
          <MenuItem
            key={way}
            value={way}
            disabled={way === 'device values' ? converted : profileResultId === undefined}
          >
            {THROUGH[way]}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Wedge"
        value={kind}
        onChange={(event) => setKind(event.target.value as WedgeInput['kind'])}
      >
        {KINDS.map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {fields}
      </div>
      {(kind === 'proof' || kind === 'near-neutral') && profileResultId !== undefined && (
        <PredictedLine conditionId={condition.id} kind={kind} choice={{ ...choice, through }} />
      )}
      {kind === 'own' && (
        <TextField
          label="Patches: C M Y K in per cent, then a name; one a line"
          multiline
          minRows={4}
          maxRows={10}
          value={text}
          placeholder={'0 0 0 0 paper\n100 0 0 0 cyan\n40 30 30 0 grey'}
          onChange={(event) => setText(event.target.value)}
          error={text !== '' && !own.ok}
          helperText={own.ok ? `${own.patches.length} patches` : text === '' ? ' ' : own.words}
        />
      )}
      {through !== 'device values' && (
        <ColourListField name="Spot colours" colours={spots} onColours={setSpots} onProblem={setProblem} />
      )}
    </FormDialog>
  );
}
