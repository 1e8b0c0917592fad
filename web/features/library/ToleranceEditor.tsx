'use client';

import { SAVE_TOLERANCE_SET } from '@/endpoints/conformity';
import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { PATCH_GROUPS } from '@melto/core/conformity/patchGroups';
import { QUANTITIES, STATISTICS } from '@melto/core/conformity/toleranceSet';
import type { ToleranceMetric } from '@melto/core/conformity/toleranceSet';
import type { ToleranceSetView } from '@melto/services/conformity/toleranceSets';
import { problemWords, send } from '@/ui/api';
import { numberOf } from '@/ui/numberOf';
import { ToleranceTrial } from './ToleranceTrial';

type Draft = Omit<ToleranceMetric, 'limit'> & { readonly limit: string; readonly key: number };

/** Rows low enough that the trial is seen beside them. */
const COMPACT = { '& .MuiInputBase-root': { height: 30, fontSize: 14 } };

/** Writes a tolerance set, with what it would make of past checks shown beside it at once. */
export function ToleranceEditor({
  from,
  next,
  onDone,
}: {
  from: ToleranceSetView;
  /** Number of the version that it becomes. */
  next: number;
  onDone: (id: number | undefined) => void;
}) {
  const [name, setName] = useState(from.shipped ? `House, from ${from.set.name}` : from.set.name);
  const [source, setSource] = useState(from.shipped ? 'house limits' : from.set.source);
  const [uncorrected, setUncorrected] = useState(from.set.substrateUncorrected);
  const [lines, setLines] = useState<readonly Draft[]>(
    from.set.metrics.map((metric, key) => ({ ...metric, limit: String(metric.limit), key })),
  );
  const [problem, setProblem] = useState<string>();
  const right = (text: string): boolean => numberOf(text) > 0 && numberOf(text) <= 100;
  const metrics = lines.map(({ group, statistic, quantity, limit }): ToleranceMetric => ({
    group,
    statistic,
    quantity,
    limit: numberOf(limit),
  }));
  const ready = name.trim() !== '' && lines.length > 0 && lines.every(({ limit }) => right(limit));
  const change = (key: number, part: Partial<Draft>): void =>
    setLines(lines.map((line) => (line.key === key ? { ...line, ...part } : line)));
  const save = async (): Promise<void> => {
    try {
      const { id } = await send(SAVE_TOLERANCE_SET, {
        body: {
          name: name.trim(),
          source,
          substrateUncorrected: uncorrected,
          metrics,
          ...(from.shipped ? {} : { versionOf: from.id }),
        },
      });
      onDone(id);
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  const choice = <T extends string>(
    label: string,
    value: T,
    values: readonly T[],
    set: (value: T) => void,
  ) => (
    <TextField
      select
      size="small"
      value={value}
      onChange={(event) => set(event.target.value as T)}
      slotProps={{ htmlInput: { 'aria-label': label } }}
      fullWidth
      sx={COMPACT}
    >
      {values.map((each) => (
        <MenuItem key={each} value={each}>
          {each}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <div style={{ display: 'grid', gap: 12, minWidth: 0 }}>
      <form
        className="panel"
        style={{ display: 'grid', gap: 12 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void save();
        }}
      >
        <div className="row">
          <TextField
            label="Name"
            value={name}
            error={name.trim() === ''}
            onChange={(event) => setName(event.target.value)}
            sx={{ flex: 1 }}
          />
          <TextField
            label="Where it comes from"
            value={source}
            onChange={(event) => setSource(event.target.value)}
            sx={{ flex: 1 }}
          />
        </div>
        <table className="table tight">
          <thead>
            <tr>
              <th>Group</th>
              <th>Statistic</th>
              <th>Quantity</th>
              <th style={{ width: 90 }}>Limit</th>
              <th style={{ width: 64 }} />
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.key}>
                <td>{choice('group', line.group, PATCH_GROUPS, (group) => change(line.key, { group }))}</td>
                <td>
                  {choice('statistic', line.statistic, STATISTICS, (statistic) =>
                    change(line.key, { statistic }),
                  )}
                </td>
                <td>
                  {choice('quantity', line.quantity, QUANTITIES, (quantity) =>
                    change(line.key, { quantity }),
                  )}
                </td>
                <td>
                  <TextField
                    size="small"
                    value={line.limit}
                    error={!right(line.limit)}
                    onChange={(event) => change(line.key, { limit: event.target.value })}
                    sx={COMPACT}
                    slotProps={{
                      htmlInput: {
                        inputMode: 'decimal',
                        'aria-label': 'limit',
                        style: { textAlign: 'right' },
                      },
                    }}
                  />
                </td>
                <td>
                  <button
                    type="button"
                    className="plain"
                    aria-label={`remove ${line.group} ${line.statistic}`}
                    onClick={() => setLines(lines.filter(({ key }) => key !== line.key))}
                  >
                    remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="row">
          <Button
            size="small"
            onClick={() =>
              setLines([
                ...lines,
                {
                  group: 'all',
                  statistic: 'mean',
                  quantity: 'ΔE00',
                  limit: '2',
                  key: Math.max(0, ...lines.map(({ key }) => key)) + 1,
                },
              ])
            }
          >
            Add a metric
          </Button>
          <FormControlLabel
            control={<Checkbox checked={uncorrected} onChange={(_, checked) => setUncorrected(checked)} />}
            label="the substrate is always judged against the uncorrected aim"
          />
        </div>
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={!ready}>
            {from.shipped ? 'Save as an own set' : `Save as version ${next}`}
          </Button>
          <Button onClick={() => onDone(undefined)}>Not now</Button>
          {!ready && <span className="quiet small">A set has a name, and limits over 0 up to 100.</span>}
        </div>
      </form>
      {ready && <ToleranceTrial metrics={metrics} />}
    </div>
  );
}
