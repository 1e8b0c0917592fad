'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { GREY_CHROMA } from '@melto/core/eye/eyeWords';
import type { EyeNote, EyeWord } from '@melto/core/eye/eyeWords';
import { pointOut } from '@melto/core/eye/pointOut';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { EYE_FILE, EYE_GROUND, KEEP_EYES_CHECK, SIMULATED_NOTES } from '@/endpoints/eye';
import { RESULT_FILE } from '@/endpoints/profile';
import { illuminantOf } from '@/features/light/illuminantOf';
import { useLights } from '@/features/light/useLights';
import { addressOf, ask, problemWords, send } from '@/ui/api';
import { Link } from '@/ui/Link';
import { May } from '@/ui/May';
import { useColourLists } from '@/ui/useColourLists';
import { useRemoteWorker } from '@/ui/useRemoteWorker';
import { useSending } from '@/ui/useSending';
import type { EyeWorker } from '@/workers/eye.worker';
import { EarlierLooks } from './EarlierLooks';
import { NoteWords } from './NoteWords';
import { Pointed } from './Pointed';

const startWorker = (): Worker =>
  new Worker(new URL('../../workers/eye.worker.ts', import.meta.url), { type: 'module' });

const WRONG = {
  nothing: 'printed as it should be',
  profile: 'printed past the profile',
  ink: 'too little ink',
};
/** Notes from which on it is said what they point to. */
const ENOUGH = 6;

/** A page of colours laid edge to edge against their references: what an eye says of each, and what that points to. */
export function EyeSurface({ condition, simulated }: { condition: ConditionRow; simulated: boolean }) {
  const { id } = condition;
  const lists = useColourLists();
  const lights = useLights();
  const queries = useQueryClient();
  const [listId, setListId] = useState<number>();
  const [key, setKey] = useState('D50');
  const [notes, setNotes] = useState<ReadonlyMap<number, readonly EyeWord[]>>(new Map());
  const [at, setAt] = useState(0);
  const [words, setWords] = useState<readonly EyeWord[]>([]);
  const { sending, problem, run } = useSending();
  const begin = (): void => {
    setNotes(new Map());
    setAt(0);
    setWords([]);
  };
  const { data: ground, error } = useQuery({
    queryKey: ['eye ground', id, listId],
    queryFn: () => ask(EYE_GROUND, { params: { id }, query: { listId } }),
    retry: false,
    staleTime: 60_000,
  });
  const light = lights.find((own) => own.key === key);
  const worker = useRemoteWorker<EyeWorker>(startWorker);
  const said: readonly EyeNote[] = [...notes].map(([colour, own]) => ({ colour, words: own }));
  // Worked out once for a page and a light, while the first colours are noted.
  const { data: hypotheses, error: failed } = useQuery({
    queryKey: ['eye hypotheses', ground?.resultId, listId, key],
    queryFn: async () => {
      if (ground === undefined || light === undefined || worker === undefined) return null;
      const file = await fetch(addressOf(RESULT_FILE, { params: { id: ground.resultId } }));
      if (!file.ok) throw new Error('The profile cannot be had.');
      const { chart, dark } = ground;
      const answer = await worker.hypotheses(
        {
          ...{ colours: ground.colours, device: ground.device },
          chart: chart ?? undefined,
          dark: dark ?? undefined,
          seen: { light: illuminantOf(light), observer: '2deg' },
        },
        new Uint8Array(await file.arrayBuffer()),
      );
      if (typeof answer === 'string') throw new Error(answer);
      return answer;
    },
    enabled: ground !== undefined && light !== undefined && worker !== undefined,
    retry: false,
    staleTime: Infinity,
  });
  const points =
    ground === undefined || hypotheses == null || said.length < ENOUGH
      ? undefined
      : pointOut(
          ground.colours.map(({ lab }) => lab),
          said,
          hypotheses,
        );
  const next = (own: readonly EyeWord[]): void => {
    const after = new Map(notes).set(at, own);
    setNotes(after);
    const count = ground?.colours.length ?? 0;
    const open = Array.from({ length: count }, (_, i) => (at + 1 + i) % count).find((i) => !after.has(i));
    setWords([]);
    setAt(open ?? count);
  };
  const keep = (): Promise<void> =>
    run(async () => {
      if (ground === undefined || points === undefined) return;
      await send(KEEP_EYES_CHECK, {
        params: { id },
        body: { resultId: ground.resultId, listId, light: key, notes: said, points },
      });
      await queries.invalidateQueries({ queryKey: ['eyes checks', id] });
      begin();
    });
  const simulate = (wrong: keyof typeof WRONG): Promise<void> =>
    run(async () => {
      const found = await ask(SIMULATED_NOTES, { params: { id }, query: { listId, light: key, wrong } });
      setNotes(new Map(found.map((note) => [note.colour, note.words])));
      setAt(found.length);
    });
  const wrongWords =
    problem ??
    (error === null ? undefined : problemWords(error)) ??
    (failed === null ? undefined : problemWords(failed));
  const colour = ground?.colours[at];
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Eye’s check</h1>
        <p className="quiet">
          A printed page, edge to edge with what it should look like, in the light that counts.
        </p>
        <Button component={Link} href={`/conditions/${id}/conformity`}>
          To the checks
        </Button>
      </div>
      {wrongWords !== undefined && (
        <p className="error" role="alert">
          {wrongWords}
        </p>
      )}
      <div className="two" style={{ gridTemplateColumns: '330px minmax(0, 1fr)', alignItems: 'start' }}>
        <div className="panel" style={{ display: 'grid', gap: 14 }}>
          <TextField
            select
            label="Colours"
            value={lists.some((list) => list.id === listId) ? listId : 0}
            onChange={(event) => {
              setListId(Number(event.target.value) || undefined);
              begin();
            }}
          >
            <MenuItem value={0}>Reference colours: skin, sky, leaf, greys, solids</MenuItem>
            {lists.map((list) => (
              <MenuItem key={list.id} value={list.id}>
                {list.name}, {list.count}
              </MenuItem>
            ))}
          </TextField>
          <ol className="study-steps">
            <li>
              Print <a href={addressOf(EYE_FILE, { params: { id }, query: { listId } })}>the page</a> as
              charts are printed, and let it rest. Cut it along its lines.
            </li>
            <li>Lay each field edge to edge against what it should look like.</li>
            <li>
              Say how the print is beside it. What has a lozenge cannot be reached; note it all the same.
            </li>
          </ol>
          <TextField
            select
            label="Looked at in"
            value={light === undefined ? '' : key}
            onChange={(event) => setKey(event.target.value)}
            helperText="A light of the house tells more than a standard one"
          >
            {lights.map((own) => (
              <MenuItem key={own.key} value={own.key}>
                {own.name}
              </MenuItem>
            ))}
          </TextField>
          {ground !== undefined && (
            <p className="small quiet">
              {ground.beyond.length === 0
                ? 'All of its colours can be reached here.'
                : `Not reached: ${ground.beyond.map((one) => `${ground.colours[one.colour].name} by ${one.deltaE.toFixed(1)}`).join(', ')}.`}{' '}
              {ground.dark === null &&
                'Brightener can be told where the chart of the profile was read in M1 and in M2.'}
            </p>
          )}
          {simulated && ground !== undefined && (
            <TextField
              select
              label="Let the simulated eye look"
              value=""
              disabled={sending}
              onChange={(event) => void simulate(event.target.value as keyof typeof WRONG)}
            >
              {(Object.keys(WRONG) as (keyof typeof WRONG)[]).map((wrong) => (
                <MenuItem key={wrong} value={wrong}>
                  {WRONG[wrong]}
                </MenuItem>
              ))}
            </TextField>
          )}
        </div>
        <div style={{ display: 'grid', gap: 12, gridTemplateColumns: 'minmax(0, 1fr)' }}>
          {ground !== undefined && (
            <div className="panel" style={{ display: 'grid', gap: 12 }}>
              {colour !== undefined ? (
                <NoteWords
                  number={at + 1}
                  name={colour.name}
                  words={words}
                  grey={Math.hypot(colour.lab[1], colour.lab[2]) < GREY_CHROMA}
                  onWords={setWords}
                  onNext={next}
                />
              ) : (
                <p className="study-ask">All {ground.colours.length} colours are noted.</p>
              )}
              {said.length >= ENOUGH && (
                <Pointed points={points} allSame={said.every((note) => note.words.length === 0)} />
              )}
              <div className="row">
                <span className="quiet grow">
                  {said.length} of {ground.colours.length} noted
                  {said.length < ENOUGH ? `; from ${ENOUGH} on it is said what they point to` : ''}
                </span>
                {said.length >= ENOUGH && points !== undefined && (
                  <May act={KEEP_EYES_CHECK}>
                    <Button variant="contained" disabled={sending} onClick={() => void keep()}>
                      Keep this look
                    </Button>
                  </May>
                )}
                {said.length > 0 && <Button onClick={begin}>Begin anew</Button>}
              </div>
              <Noted
                colours={ground.colours}
                beyond={new Set(ground.beyond.map((one) => one.colour))}
                notes={notes}
                at={at}
                onChoose={(i) => {
                  setAt(i);
                  setWords(notes.get(i) ?? []);
                }}
              />
            </div>
          )}
          <EarlierLooks conditionId={id} />
        </div>
      </div>
    </section>
  );
}

/** All colours by their names, with what was said; the screen shows no colour that the eye is to judge on paper. */
function Noted({
  colours,
  beyond,
  notes,
  at,
  onChoose,
}: {
  colours: readonly { readonly name: string }[];
  beyond: ReadonlySet<number>;
  notes: ReadonlyMap<number, readonly EyeWord[]>;
  at: number;
  onChoose: (colour: number) => void;
}) {
  return (
    <ul className="eye-noted" aria-label="Colours">
      {colours.map(({ name }, i) => {
        const own = notes.get(i);
        return (
          <li key={i} aria-current={i === at ? 'true' : undefined}>
            <button type="button" className="plain" onClick={() => onChoose(i)}>
              {i + 1} {name}
            </button>
            {beyond.has(i) && <span className="quiet small"> ◇ not reached</span>}
            <span className={own === undefined ? 'quiet' : undefined}>
              {own === undefined ? '–' : own.length === 0 ? 'the same' : own.join(', ')}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
