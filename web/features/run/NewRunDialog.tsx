import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { barFromText, MOST_BAR_TEXT } from '@melto/core/press/barText';
import { designBar } from '@melto/core/press/colourBar';
import { MOST_IMPRESSIONS } from '@melto/core/press/incomingSheet';
import { USUAL_LIGHT } from '@melto/core/press/runLight';
import { isProcessUnit } from '@melto/core/press/pressUnit';
import { issueText } from '@melto/core/result';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import type { ColourListRow } from '@melto/services/lists/colourLists';
import type { PressChoice } from '@melto/services/press/pressChoices';
import type { RunView } from '@melto/services/press/runView';
import { CREATE_RUN } from '@/endpoints/runs';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole, numberOf } from '@/ui/numberOf';
import { RunSettingsFields, settingsOf, typedSettings } from './RunSettingsFields';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';

const ZONES = '12';

/** Begins a run: what the job is, its inks by unit, the colour bar and what it goes by. */
export function NewRunDialog({
  presses,
  aims,
  lists,
  from,
  onClose,
}: {
  presses: readonly PressChoice[];
  aims: readonly AimSetView[];
  lists: readonly ColourListRow[];
  from: RunView | undefined;
  onClose: () => void;
}) {
  const router = useRouter();
  const [conditionId, setConditionId] = useState(from?.conditionId ?? presses[0]?.conditionId ?? 0);
  const [aimSetId, setAimSetId] = useState(from?.aimSetId ?? aims[0]?.id ?? 0);
  const [listId, setListId] = useState<number>();
  const [job, setJob] = useState({
    jobNumber: from?.jobNumber ?? '',
    title: from?.title ?? '',
    customer: from?.customer ?? '',
    side: from?.side ?? '',
    quantity: String(from?.quantity ?? ''),
    repeatMm: from?.repeatMm === null || from === undefined ? '' : String(from.repeatMm),
    inks: from?.units.map(({ ink }) => ink).join(', ') ?? 'K, C, M, Y',
    zones: String(from?.bar.zones ?? presses[0]?.zones ?? ZONES),
    zoneMm: String(from?.bar.zoneMm ?? 32),
    patchMm: String(from?.bar.patchMm ?? 5),
    bar: from?.bar.described ?? '',
  });
  const [described, setDescribed] = useState(typeof from?.bar.described === 'string');
  const [typed, setTyped] = useState(
    typedSettings({ ...(from?.settings ?? USUAL_SETTINGS), ...USUAL_LIGHT }),
  );
  const inks = job.inks
    .split(',')
    .map((ink) => ink.trim())
    .filter((ink) => ink !== '');
  const settings = settingsOf(typed, inks);
  const shape = { zones: numberOf(job.zones), zoneMm: numberOf(job.zoneMm), patchMm: numberOf(job.patchMm) };
  const units = inks.map((ink) => ({ ink, filter: 'visual' as const }));
  const bar = described ? barFromText(job.bar, units, shape) : designBar(units, shape);
  const spots = inks.filter((ink) => !isProcessUnit({ ink }));
  const quantityRight = job.quantity.trim() === '' || isWhole(job.quantity, 0, MOST_IMPRESSIONS);
  const repeatRight = job.repeatMm.trim() === '' || isWhole(job.repeatMm, 50, 3000);
  const ready =
    job.jobNumber.trim() !== '' &&
    job.title.trim() !== '' &&
    inks.length > 0 &&
    bar.ok &&
    settings !== undefined &&
    quantityRight &&
    repeatRight &&
    (spots.length === 0 || listId !== undefined);
  const begin = async (): Promise<void> => {
    if (settings === undefined) return;
    const { jobNumber, title, customer, side } = job;
    const { id } = await send(CREATE_RUN, {
      body: {
        ...{ conditionId, aimSetId, jobNumber, title, customer, side, inks: [...inks], settings, ...shape },
        ...(described && bar.ok ? { bar: job.bar, zones: bar.value.zones } : {}),
        quantity: Number(job.quantity || 0),
        ...(job.repeatMm.trim() === '' ? {} : { repeatMm: Number(job.repeatMm) }),
        ...(spots.length === 0 ? {} : { listId }),
        ...(from === undefined ? {} : { fromRunId: from.id }),
      },
    });
    router.push(`/runs/${id}`);
    onClose();
  };
  const field = (key: keyof typeof job, label: string, props: object = {}) => (
    <TextField
      label={label}
      value={job[key]}
      onChange={(event) => setJob({ ...job, [key]: event.target.value })}
      {...props}
    />
  );
  return (
    <FormDialog title="New run" act="Begin" ready={ready} onSubmit={begin} onClose={onClose}>
      <div className="row">
        {field('jobNumber', 'Job number', {
          autoFocus: true,
          sx: { width: 150 },
          slotProps: { htmlInput: { maxLength: 40 } },
        })}
        {field('title', 'Title', { slotProps: { htmlInput: { maxLength: 120 } } })}
      </div>
      <div className="row">
        {field('customer', 'Customer')}
        {field('side', 'Side', { sx: { flex: 'none', width: 90 } })}
        {field('quantity', 'Quantity', { sx: { flex: 'none', width: 100 }, error: !quantityRight })}
        {field('repeatMm', 'Repeat, mm', { sx: { flex: 'none', width: 124 }, error: !repeatRight })}
      </div>
      <div className="row">
        <TextField
          select
          label="Condition"
          value={presses.some((press) => press.conditionId === conditionId) ? conditionId : ''}
          onChange={(event) => {
            const id = Number(event.target.value);
            const zones = presses.find((press) => press.conditionId === id)?.zones;
            setConditionId(id);
            if (zones !== null && zones !== undefined) setJob({ ...job, zones: String(zones) });
          }}
        >
          {presses.map((press) => (
            <MenuItem key={press.conditionId} value={press.conditionId}>
              {press.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Aims"
          value={aims.some(({ id }) => id === aimSetId) ? aimSetId : ''}
          onChange={(event) => setAimSetId(Number(event.target.value))}
        >
          {aims.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      </div>
      <div className="row">
        {field('inks', 'Inks in the order of printing', {
          helperText: 'C, M, Y, K, or colours of a list by name',
        })}
        {spots.length > 0 && (
          <TextField
            select
            label="Colour list"
            value={listId ?? ''}
            error={listId === undefined}
            helperText={`for ${spots.join(', ')}`}
            onChange={(event) => setListId(Number(event.target.value))}
          >
            {lists.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
      </div>
      <div className="row">
        <TextField
          select
          label="Colour bar"
          sx={{ flex: 'none', width: 180 }}
          value={described ? 'described' : 'made'}
          onChange={(event) => setDescribed(event.target.value === 'described')}
        >
          <MenuItem value="made">made by Melto</MenuItem>
          <MenuItem value="described">already there</MenuItem>
        </TextField>
        {!described && field('zones', 'Ink zones')}
        {field('zoneMm', 'Zone, mm')}
        {field('patchMm', 'Patch, mm')}
      </div>
      {described &&
        field('bar', 'Patches of the bar', {
          multiline: true,
          minRows: 3,
          maxRows: 10,
          helperText:
            'One line for each ink zone: K, C, M+Y, C50, C50+M40+Y40, paper, K along, K across. 12 x before a line repeats it.',
          slotProps: { htmlInput: { maxLength: MOST_BAR_TEXT, spellCheck: false } },
        })}
      <p className={bar.ok ? 'quiet small' : 'error small'} role={bar.ok ? undefined : 'alert'}>
        {bar.ok
          ? `The colour bar has ${bar.value.patches.length} patches over ${Math.round(bar.value.zones * shape.zoneMm)} mm; ${described ? 'it is found on the sheet by its colours' : 'it is handed out as PDF'}.`
          : issueText(bar.issues[0])}
      </p>
      <RunSettingsFields typed={typed} inks={inks} onChange={setTyped} />
    </FormDialog>
  );
}
