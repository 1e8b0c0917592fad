'use client';

import { Button, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useDeferredValue, useState } from 'react';
import type { SheetOfCondition } from '@melto/services/charts/rack';
import type { Page } from '@melto/services/kernel/page';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import { SET_ON_RACK, SHEETS } from '@/endpoints/charts';
import { READINGS, WITHDRAW_READING } from '@/endpoints/reading';
import { SheetFiles } from '@/features/charts/SheetFiles';
import { ask, problemWords, send } from '@/ui/api';
import { useOlder } from '@/ui/useOlder';
import { May } from '@/ui/May';
import { formatMoment, formatWhen } from '@/ui/format';

interface Lists {
  readonly sheets: Page<SheetOfCondition>;
  readonly readings: Page<ReadingOfCondition>;
}

/** Sheets and readings of a condition, the newest first; found by code, chart or mode. */
export function SheetsSurface({
  conditionId,
  nowMs,
  ...first
}: Lists & {
  conditionId: number;
  nowMs: number;
}) {
  const [typed, setTyped] = useState('');
  const find = useDeferredValue(typed.trim());
  const asked = { params: { id: conditionId }, query: { find } };
  const { data: found, error } = useQuery({
    queryKey: ['sheets', conditionId, find],
    queryFn: async (): Promise<Lists> => {
      const [sheets, readings] = await Promise.all([ask(SHEETS, asked), ask(READINGS, asked)]);
      return { sheets, readings };
    },
    enabled: find !== '',
    placeholderData: (before) => before,
  });
  const lists = find === '' ? first : (found ?? first);
  const none = first.sheets.rows.length === 0 && first.readings.rows.length === 0;
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Sheets and readings</h1>
        <p className="quiet">
          {none
            ? 'No sheet was printed on this condition yet; charts are made and printed under Profile.'
            : find !== '' && lists.sheets.rows.length + lists.readings.rows.length === 0
              ? 'None has such a code, chart or mode.'
              : ''}
        </p>
        {!none && (
          <TextField
            label="Find"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 80 } }}
            sx={{ width: 240 }}
          />
        )}
      </div>
      {error !== null && (
        <p className="error" role="alert">
          {problemWords(error)}
        </p>
      )}
      <SheetLists
        key={`${find} ${lists.sheets.rows[0]?.code ?? ''}`}
        {...{ conditionId, nowMs, find }}
        {...lists}
      />
    </section>
  );
}

function SheetLists({
  conditionId,
  nowMs,
  find,
  ...first
}: Lists & { conditionId: number; nowMs: number; find: string }) {
  const { rows: sheets, older: olderSheets } = useOlder(first.sheets, SHEETS, { id: conditionId }, find);
  const { rows: readings, older: olderReadings } = useOlder(
    first.readings,
    READINGS,
    { id: conditionId },
    find,
  );
  const queries = useQueryClient();
  const router = useRouter();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  /** @returns whether it was made. */
  const change = async (work: Promise<unknown>): Promise<boolean> => {
    try {
      await work;
      router.refresh();
      await queries.invalidateQueries({ queryKey: ['sheets', conditionId] });
      return true;
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
      return false;
    }
  };
  const onRack = (code: string, there: boolean): Promise<unknown> =>
    send(SET_ON_RACK, { params: { code }, body: { onRack: there } });
  const discard = async (code: string): Promise<void> => {
    if (!(await change(onRack(code, false)))) return;
    enqueueSnackbar(`${code} was thrown away.`, {
      autoHideDuration: 10_000,
      action: (key) => (
        <Button
          size="small"
          variant="text"
          sx={{ color: 'inherit' }}
          onClick={() => {
            closeSnackbar(key);
            void change(onRack(code, true));
          }}
        >
          Take it back
        </Button>
      ),
    });
  };
  return (
    <>
      {readings.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th>Reading</th>
              <th>Chart</th>
              <th>Mode</th>
              <th>Begun</th>
              <th>State</th>
              <th>Faults</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {readings.map((reading) => {
              const faults = JSON.parse(reading.faults ?? '[]') as { kind: string }[];
              return (
                <tr key={reading.id}>
                  <td>
                    <Link href={`/readings/${reading.id}`} className="mono">
                      {reading.code}
                    </Link>
                  </td>
                  <td>{reading.title}</td>
                  <td>{reading.mode}</td>
                  <td>{formatMoment(reading.startedMs)}</td>
                  <td>
                    {reading.withdrawnMs !== null
                      ? 'withdrawn'
                      : reading.finishedMs === null
                        ? 'in progress'
                        : 'complete'}
                  </td>
                  <td>
                    {faults.length === 0 ? (
                      <span className="quiet">none found</span>
                    ) : (
                      faults.map(({ kind }) => kind.replaceAll('-', ' ')).join(', ')
                    )}
                  </td>
                  <td className="num">
                    <May act={WITHDRAW_READING}>
                      <Button
                        size="small"
                        variant="text"
                        onClick={() =>
                          void change(
                            send(WITHDRAW_READING, {
                              params: { id: reading.id },
                              body: { withdrawn: reading.withdrawnMs === null },
                            }),
                          )
                        }
                      >
                        {reading.withdrawnMs === null ? 'Withdraw' : 'Take back'}
                      </Button>
                    </May>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {olderReadings}
      {sheets.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th>Sheet</th>
              <th>Chart</th>
              <th>Printed</th>
              <th className="num">Strips read</th>
              <th>State</th>
              <th>Files</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {sheets.map((sheet) => (
              <tr key={sheet.code}>
                <td>
                  <Link href={`/read/${sheet.code}`} className="mono">
                    {sheet.code}
                  </Link>
                </td>
                <td>{sheet.title}</td>
                <td>{formatWhen(sheet.printedMs, nowMs)}</td>
                <td className="num">
                  {sheet.stripsRead} of {sheet.strips}
                </td>
                <td>
                  {sheet.onRack ? sheet.state : sheet.stripsRead === sheet.strips ? 'read' : 'thrown away'}
                </td>
                <td>
                  <SheetFiles code={sheet.code} job={sheet.job} />
                </td>
                <td className="num">
                  {sheet.onRack && (
                    <Button size="small" variant="text" onClick={() => void discard(sheet.code)}>
                      Throw away
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {olderSheets}
    </>
  );
}
