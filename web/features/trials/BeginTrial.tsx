'use client';

import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { TRIAL_PATCHES, TRIAL_STOCKS } from '@melto/core/stock/trialRanges';
import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import type { ConditionChoices } from '@melto/services/house/newCondition';
import { BEGIN_TRIAL, TRIAL_POINTS } from '@/endpoints/trials';
import { ask, problemWords, send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole } from '@/ui/numberOf';

/** Chooses the device and the stocks of a trial, ticks what holds for all of them, and prints. */
export function BeginTrial({ choices, onClose }: { choices: ConditionChoices; onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [deviceId, setDeviceId] = useState(choices.devices[0]?.id ?? 0);
  const device = choices.devices.find(({ id }) => id === deviceId);
  const [mode, setMode] = useState(device?.modes[0] ?? '');
  const [stockIds, setStockIds] = useState<readonly number[]>([]);
  const [patches, setPatches] = useState('300');
  const [reader, setReader] = useState<ReaderKind>('strip');
  const [paper, setPaper] = useState<PaperName>('a4');
  const [ticks, setTicks] = useState<readonly string[]>([]);
  const asked = { deviceId, inkSet: device?.inkSet ?? '', mode };
  const { data: points = [], error } = useQuery({
    queryKey: ['trial points', deviceId, mode, stockIds.join()],
    queryFn: () => ask(TRIAL_POINTS, { query: { ...asked, stockIds: stockIds.join() } }),
    enabled: stockIds.length > 0,
    retry: false,
  });
  const toTick = points.filter(({ tickAtPrint }) => tickAtPrint);
  const missing = toTick.filter(({ label }) => !ticks.includes(label)).length;
  const right = isWhole(patches, TRIAL_PATCHES.least, TRIAL_PATCHES.most);
  const enough = stockIds.length >= TRIAL_STOCKS.least && stockIds.length <= TRIAL_STOCKS.most;
  const toggle = <T,>(list: readonly T[], item: T): readonly T[] =>
    list.includes(item) ? list.filter((own) => own !== item) : [...list, item];
  const begin = async (): Promise<void> => {
    const { id } = await send(BEGIN_TRIAL, {
      body: {
        ...{ name: name.trim(), ...asked, stockIds, patches: Number(patches), reader, paper },
        ticks: ticks.filter((label) => points.some((point) => point.label === label)),
      },
    });
    // A chart of inks is worked out first; the list has the trial once that is done.
    router.push(id === undefined ? '/library/trials' : `/library/trials?trial=${id}`);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title="New paper trial"
      act="Print it"
      ready={name.trim() !== '' && enough && right && points.length > 0 && missing === 0}
      problem={error === null ? undefined : problemWords(error)}
      beside={
        enough && missing > 0 ? (
          <span className="quiet small">
            {missing} {missing === 1 ? 'point' : 'points'} to tick
          </span>
        ) : undefined
      }
      onSubmit={begin}
      onClose={onClose}
    >
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={(event) => setName(event.target.value)}
        helperText="What is looked for: a paper for the spring catalogue"
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
      <div className="row">
        <TextField
          select
          label="Device"
          value={device === undefined ? '' : deviceId}
          onChange={(event) => {
            const next = choices.devices.find(({ id }) => id === Number(event.target.value));
            setDeviceId(next?.id ?? 0);
            setMode(next?.modes[0] ?? '');
            setStockIds([]);
          }}
          sx={{ flex: 1 }}
        >
          {choices.devices.map((each) => (
            <MenuItem key={each.id} value={each.id}>
              {each.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Mode"
          value={mode}
          onChange={(event) => setMode(event.target.value)}
          sx={{ flex: 1 }}
        >
          {(device?.modes ?? []).map((each) => (
            <MenuItem key={each} value={each}>
              {each}
            </MenuItem>
          ))}
        </TextField>
      </div>
      <fieldset className="trial-stocks">
        <legend className="quiet small">
          Stocks, {TRIAL_STOCKS.least} to {TRIAL_STOCKS.most}
        </legend>
        {(device?.stocks ?? []).map((stock) => (
          <FormControlLabel
            key={stock.id}
            control={
              <Checkbox
                checked={stockIds.includes(stock.id)}
                onChange={() => setStockIds(toggle(stockIds, stock.id))}
              />
            }
            label={
              <>
                {stock.name} <span className="quiet small">{stock.finish}</span>
              </>
            }
          />
        ))}
      </fieldset>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextField
          label="Patches"
          value={patches}
          error={!right}
          helperText={`${TRIAL_PATCHES.least} to ${TRIAL_PATCHES.most}`}
          onChange={(event) => setPatches(event.target.value)}
          sx={{ width: 110 }}
        />
        <TextField
          select
          label="Read with"
          value={reader}
          onChange={(event) => setReader(event.target.value as ReaderKind)}
          sx={{ flex: 1 }}
        >
          <MenuItem value="strip">strip reader</MenuItem>
          <MenuItem value="sheet">sheet reader</MenuItem>
          <MenuItem value="spot">spot reader</MenuItem>
        </TextField>
        <TextField
          select
          label="Page"
          value={paper}
          onChange={(event) => setPaper(event.target.value as PaperName)}
          sx={{ flex: 1 }}
        >
          <MenuItem value="a4">A4</MenuItem>
          <MenuItem value="letter">Letter</MenuItem>
          <MenuItem value="a3">A3</MenuItem>
        </TextField>
      </div>
      {enough &&
        toTick.map(({ label, value }) => (
          <FormControlLabel
            key={label}
            control={
              <Checkbox checked={ticks.includes(label)} onChange={() => setTicks(toggle(ticks, label))} />
            }
            label={
              <>
                <b>{label}</b> <span className="quiet">{value}</span>
              </>
            }
          />
        ))}
    </FormDialog>
  );
}
