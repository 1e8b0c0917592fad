'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import type { DeskState } from '@melto/services/reading/desk';
import { DESK } from '@/endpoints/reading';
import { useTellHere } from '@/features/frame/useHere';
import { ConnectBridge } from '@/features/bridge/ConnectBridge';
import { SheetFiles } from '@/features/charts/SheetFiles';
import { ask } from '@/ui/api';
import { useFileDrop } from '@/ui/useFileDrop';
import { ImportDialog } from './ImportDialog';
import { ImportedSheet } from './ImportedSheet';
import { colours, PatchDialog } from './PatchDialog';
import { MEASURED_FILES } from './measuredFiles';

/**
 * A sheet that was printed elsewhere: its file of measurements is given here, or it is read with an instrument that is
 * connected (`onRead`).
 */
export function FileDesk({ initial, onRead }: { initial: DeskState; onRead?: () => void }) {
  const { code } = initial;
  const queries = useQueryClient();
  const { data: state } = useQuery({
    queryKey: ['desk', code],
    queryFn: () => ask(DESK, { params: { code } }),
    initialData: initial,
    // A complete reading is judged in the background.
    refetchInterval: ({ state: { data } }) => (data?.judging === true ? 1500 : false),
  });
  useTellHere(state.conditionId);
  const { enqueueSnackbar } = useSnackbar();
  const [given, setGiven] = useState<File>();
  const drop = useFileDrop(setGiven);
  const [byPatch, setByPatch] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const read = state.strips.filter(({ measured }) => measured !== null).length;
  const complete = read === state.strips.length;
  return (
    <div
      {...drop.zone}
      className={`floor${drop.over ? ' drop' : ''}`}
      style={{ padding: '20px 32px', gap: 16, maxWidth: 1100 }}
    >
      {given !== undefined && (
        <ImportDialog
          code={code}
          file={given}
          onTaken={({ notes }) => {
            setGiven(undefined);
            enqueueSnackbar(notes.join(' '));
            void queries.invalidateQueries();
          }}
          onClose={() => setGiven(undefined)}
        />
      )}
      {byPatch && (
        <PatchDialog
          state={state}
          onStored={() => queries.invalidateQueries()}
          onClose={() => setByPatch(false)}
        />
      )}
      <h1>
        Sheet {code}{' '}
        <span className="quiet">
          {state.title}, {state.conditionName}
        </span>
      </h1>
      <p role="status">
        {complete
          ? 'All of it is measured.'
          : read === 0
            ? 'Print its page, then read it with an instrument that is connected, or measure it and give the file here.'
            : `${read} of ${state.strips.length} strips are measured whole; the others stay open.`}{' '}
        {complete && state.judging && 'It is being judged.'}
        {complete &&
          !state.judging &&
          state.judgeProblem !== null &&
          `It could not be judged. ${state.judgeProblem}`}
      </p>
      <div className="row">
        <Button variant="contained" onClick={() => input.current?.click()}>
          {read === 0 ? 'Give a file of measurements' : 'Give another file'}
        </Button>
        <input
          ref={input}
          type="file"
          aria-label="File of measurements"
          accept={MEASURED_FILES}
          className="visually-hidden"
          tabIndex={-1}
          onChange={(event) => {
            setGiven(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <ConnectBridge offered={onRead === undefined} />
        {onRead !== undefined && (
          <Button variant="outlined" onClick={onRead}>
            Read it here
          </Button>
        )}
        <Button onClick={() => setByPatch(true)}>Patch by patch</Button>
        <span className="small">
          its page: <SheetFiles code={code} job={state.job} sent />
        </span>
        {state.resultId !== null ? (
          <Link href={`/conditions/${state.conditionId}/conformity?version=${state.resultId}`}>
            See the verdict
          </Link>
        ) : (
          state.readingId !== null && <Link href={`/readings/${state.readingId}`}>Look at the reading</Link>
        )}
        {state.openSheets.map((other) => (
          <Link key={other} href={`/read/${other}`}>
            go on with {other}
          </Link>
        ))}
      </div>
      <p className="small quiet">
        CGATS, CxF3, CSV or a pasted table saved as text; whole pages or all of them, in any order. Nothing is
        stored before you have seen what it becomes.
      </p>
      <ImportedSheet code={code} height={520} pages={[state.strips.map(colours)]} />
    </div>
  );
}
