'use client';

import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { ConditionRow, SettingsPoint } from '@melto/services/ledger/conditions';
import { stockFactWords } from '@melto/core/stock/stockFacts';
import { MOST_REST_MINUTES } from '@melto/core/stock/restMinutes';
import {
  ARCHIVE_CONDITION,
  DELETE_CONDITION,
  FILL_POINT,
  KEEP_TEMPLATE,
  RENAME_CONDITION,
  SET_REST,
  NEW_CONDITION,
} from '@/endpoints/conditions';
import type { PictureRow } from '@melto/services/house/pictures';
import { usePutAway } from '@/features/library/usePutAway';
import { ApiProblem, problemWords, send } from '@/ui/api';
import { formatDay, formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole, numberOf } from '@/ui/numberOf';
import { May, useMay } from '@/ui/May';
import { useUndo } from '@/ui/useUndo';
import { SettingsPictures } from './SettingsPictures';

/** What everybody prints this condition with; its name, and a way to archive or copy it. */
export function SettingsRecord({
  condition,
  points,
  deletable,
  pictures,
}: {
  condition: ConditionRow;
  points: readonly SettingsPoint[];
  /** Nothing was printed or made for it. */
  deletable: boolean;
  pictures: readonly PictureRow[];
}) {
  const router = useRouter();
  const put = usePutAway();
  const offerUndo = useUndo();
  const mayArchive = useMay(ARCHIVE_CONDITION);
  const { enqueueSnackbar } = useSnackbar();
  const [renaming, setRenaming] = useState(false);
  const [resting, setResting] = useState(false);
  const [filling, setFilling] = useState<string>();
  const { id, archivedMs } = condition;
  const say = (error: unknown): unknown => enqueueSnackbar(problemWords(error), { variant: 'error' });
  const keepTemplate = async (): Promise<void> => {
    try {
      const { before } = await send(KEEP_TEMPLATE, { params: { id }, body: { keep: true } });
      const back = before === null ? { keep: false } : { keep: true, points: before.slice() };
      offerUndo(`New conditions of ${condition.device} begin with these points.`, () => {
        send(KEEP_TEMPLATE, { params: { id }, body: back }).catch(say);
      });
    } catch (error) {
      say(error);
    }
  };
  const archive = (archived: boolean): Promise<unknown> =>
    send(ARCHIVE_CONDITION, { params: { id }, body: { archived } });
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Settings record</h1>
        <p className="quiet">
          A change of any of these is a new condition; what was left empty can be filled in.
        </p>
        <May act={RENAME_CONDITION}>
          <Button onClick={() => setRenaming(true)}>Rename</Button>
        </May>
        <May act={NEW_CONDITION}>
          <Button onClick={() => router.push(`/conditions/new?from=${id}`)}>Copy</Button>
        </May>
        <May act={KEEP_TEMPLATE}>
          <Button onClick={() => void keepTemplate()}>Keep as template</Button>
        </May>
        {deletable && mayArchive && (
          <Button
            onClick={() =>
              void put(async (deleted) => {
                await send(DELETE_CONDITION, { params: { id }, body: { deleted } });
                router.push(deleted ? '/' : `/conditions/${id}/settings`);
              }, 'The condition is deleted.')
            }
          >
            Delete
          </Button>
        )}
        {!mayArchive ? null : archivedMs === null ? (
          <Button onClick={() => void put(archive, 'The condition is archived; the library has it.')}>
            Archive
          </Button>
        ) : (
          <Button variant="contained" onClick={() => void put(archive, undefined)}>
            Take back
          </Button>
        )}
      </div>
      {archivedMs !== null && (
        <p className="notice">
          Archived on {formatDay(archivedMs)}: it is on no list, and all it holds is kept.
        </p>
      )}
      <table className="table">
        <thead>
          <tr>
            <th>Point</th>
            <th>Value</th>
            <th>At each print</th>
          </tr>
        </thead>
        <tbody>
          {points.map((point) => (
            <tr key={point.label}>
              <td>{point.label}</td>
              <td>
                {point.value === '' ? (
                  <>
                    <span className="quiet">not recorded</span>{' '}
                    <May act={FILL_POINT}>
                      <Button
                        size="small"
                        aria-label={`Fill in ${point.label}`}
                        onClick={() => setFilling(point.label)}
                      >
                        Fill in
                      </Button>
                    </May>
                  </>
                ) : (
                  point.value
                )}
              </td>
              <td>{point.tickAtPrint ? 'ticked' : 'shown'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="panel">
        <dl className="facts">
          <dt>Device</dt>
          <dd>
            {condition.device}, channels {condition.process.name}
          </dd>
          <dt>Stock</dt>
          <dd>{[condition.stock, condition.finish, ...stockFactWords(condition.stockFacts)].join(', ')}</dd>
          <dt>Rest</dt>
          <dd>
            {condition.restMinutes} min
            {condition.restMinutes === condition.usualRestMinutes
              ? ', as the stock and the inks say'
              : `; the stock and the inks say ${condition.usualRestMinutes} min`}{' '}
            <May act={SET_REST}>
              <Button size="small" aria-label="Change the rest" onClick={() => setResting(true)}>
                Change
              </Button>
            </May>
          </dd>
          <dt>Ink set</dt>
          <dd>{condition.inkSet}</dd>
          <dt>Print mode</dt>
          <dd>{condition.mode}</dd>
          <dt>Name</dt>
          <dd>{condition.label === '' ? 'none besides device, stock and mode' : condition.label}</dd>
          <dt>Made</dt>
          <dd>{formatMoment(condition.madeMs)}</dd>
        </dl>
      </div>
      <SettingsPictures conditionId={id} pictures={pictures} />
      {renaming && (
        <OneField
          title="Name this condition"
          label="What tells it from others of this device, stock and mode"
          first={condition.label}
          most={80}
          mayBeEmpty
          onKeep={(label) => send(RENAME_CONDITION, { params: { id }, body: { label } })}
          onClose={() => setRenaming(false)}
        />
      )}
      {resting && (
        <OneField
          title="Rest of this condition"
          label="Minutes a print rests before it is read; empty for that of the stock and the inks"
          first={String(condition.restMinutes)}
          most={6}
          mayBeEmpty
          onKeep={(text) => {
            if (text !== '' && !isWhole(text, 0, MOST_REST_MINUTES))
              throw new ApiProblem(0, `A print rests 0 to ${MOST_REST_MINUTES} whole minutes.`, '');
            const restMinutes = text === '' ? null : numberOf(text);
            return send(SET_REST, { params: { id }, body: { restMinutes } });
          }}
          onClose={() => setResting(false)}
        />
      )}
      {filling !== undefined && (
        <OneField
          title={filling}
          label="As the driver shows it"
          first=""
          most={200}
          onKeep={(value) => send(FILL_POINT, { params: { id }, body: { label: filling, value } })}
          onClose={() => setFilling(undefined)}
        />
      )}
    </section>
  );
}

function OneField({
  title,
  label,
  first,
  most,
  mayBeEmpty = false,
  onKeep,
  onClose,
}: {
  title: string;
  label: string;
  first: string;
  most: number;
  mayBeEmpty?: boolean;
  onKeep: (value: string) => Promise<unknown>;
  onClose: () => void;
}) {
  const router = useRouter();
  const [value, setValue] = useState(first);
  return (
    <FormDialog
      title={title}
      act="Keep it"
      ready={mayBeEmpty || value.trim() !== ''}
      onClose={onClose}
      onSubmit={async () => {
        await onKeep(value.trim());
        router.refresh();
        onClose();
      }}
    >
      <TextField
        label={label}
        autoFocus
        value={value}
        onChange={(event) => setValue(event.target.value)}
        slotProps={{ htmlInput: { maxLength: most } }}
      />
    </FormDialog>
  );
}
