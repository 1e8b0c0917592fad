'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MOST_EYES } from '@melto/core/light/brightenerStudy';
import type { StudyEstimate, StudyPick } from '@melto/core/light/brightenerStudy';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { SIMULATED_PICKS, STUDY_DATA, TELL_ULTRAVIOLET } from '@/endpoints/light';
import { useLights } from '@/features/light/useLights';
import { ask, problemWords, send } from '@/ui/api';
import { Link } from '@/ui/Link';
import { May } from '@/ui/May';
import { useRemoteWorker } from '@/ui/useRemoteWorker';
import { useSending } from '@/ui/useSending';
import type { StudyWorker } from '@/workers/study.worker';
import { PickFields } from './PickFields';
import { ASKED, Picks } from './Picks';
import { studySentences } from './studyWords';

const startWorker = (): Worker =>
  new Worker(new URL('../../workers/study.worker.ts', import.meta.url), { type: 'module' });

/** How much ultraviolet acts in a light, told by an eye before a page of greys. */
export function StudySurface({ condition, simulated }: { condition: ConditionRow; simulated: boolean }) {
  const lights = useLights().filter(({ id }) => id !== null);
  const [key, setKey] = useState('');
  const [picks, setPicks] = useState<readonly StudyPick[]>([]);
  const light = lights.find((own) => own.key === key);
  const { data, error } = useQuery({
    queryKey: ['study', condition.id, key],
    queryFn: () => ask(STUDY_DATA, { params: { id: condition.id }, query: { light: key, observer: '2deg' } }),
    enabled: light !== undefined,
    retry: false,
    staleTime: Infinity,
  });
  const worker = useRemoteWorker<StudyWorker>(startWorker);
  /** Eyes that look one after the other. */
  const [eyes, setEyes] = useState(1);
  const done = picks.length === ASKED.length * eyes;
  const eye = Math.min(eyes - 1, Math.floor(picks.length / ASKED.length));
  const askedRow = ASKED[picks.length % ASKED.length] ?? 0;
  const restart = (): void => {
    setPicks([]);
    setEyes(1);
  };
  const { data: estimate, error: failed } = useQuery({
    queryKey: ['study-estimate', condition.id, key, JSON.stringify(picks)],
    queryFn: async () => (data === undefined ? null : ((await worker?.estimate(data, picks)) ?? null)),
    enabled: done && data !== undefined && worker !== undefined,
    retry: false,
    staleTime: Infinity,
  });
  const { sending, problem, run } = useSending();
  const simulate = (): Promise<void> =>
    run(async () => {
      const seen = await ask(SIMULATED_PICKS, {
        params: { id: condition.id },
        query: { light: key, observer: '2deg' },
      });
      setPicks([...picks.slice(0, ASKED.length * eye), ...seen.map((pick) => ({ ...pick, eye }))]);
    });
  const wrong =
    problem ??
    (error === null ? undefined : problemWords(error)) ??
    (failed === null ? undefined : problemWords(failed));
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Brightener study</h1>
        <p className="quiet">How much of the ultraviolet that M1 measures with acts where the prints hang.</p>
        <Button component={Link} href={`/conditions/${condition.id}/profile`}>
          To the profile
        </Button>
      </div>
      {wrong !== undefined && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      <div className="two" style={{ gridTemplateColumns: '330px minmax(0, 1fr)', alignItems: 'start' }}>
        <div className="panel" style={{ display: 'grid', gap: 14 }}>
          <header>
            <h2>Before you look</h2>
          </header>
          <ol className="study-steps">
            <li>
              Print <a href={`/api/conditions/${condition.id}/study-file`}>the page of greys</a> as charts are
              printed, and let it rest.
            </li>
            <li>Hang it where the prints hang, a grey card beside it; cover the white around the rows.</li>
            <li>Choose the light. It has to be measured: the library takes its spectrum.</li>
          </ol>
          <TextField
            select
            label="Light"
            value={light?.key ?? ''}
            onChange={(event) => {
              setKey(event.target.value);
              restart();
            }}
            helperText={lights.length === 0 ? 'The library has no light of the house yet' : ' '}
          >
            {lights.map((own) => (
              <MenuItem key={own.key} value={own.key}>
                {own.name}
              </MenuItem>
            ))}
          </TextField>
          <Picks picks={picks} eye={eye} onBack={() => setPicks(picks.slice(0, -1))} />
          {simulated && light !== undefined && !done && (
            <Button size="small" disabled={sending} onClick={() => void simulate()}>
              Let the simulated eye look
            </Button>
          )}
        </div>
        <div className="panel">
          {light === undefined ? (
            <p className="quiet">Choose the light that the page hangs in.</p>
          ) : !done ? (
            data === undefined ? (
              <p className="quiet">
                {error === null ? 'One moment.' : 'It cannot be told from these readings.'}
              </p>
            ) : (
              <PickFields
                row={askedRow}
                onPick={(field) => setPicks([...picks, { row: askedRow, field, eye }])}
              />
            )
          ) : estimate == null ? (
            <p className="quiet">The chart is fitted without ultraviolet and with it; a few seconds.</p>
          ) : (
            <Told
              conditionId={condition.id}
              light={{ id: light.id ?? 0, name: light.name }}
              estimate={estimate}
              onAgain={restart}
              onOther={eyes < MOST_EYES ? () => setEyes(eyes + 1) : undefined}
            />
          )}
        </div>
      </div>
    </section>
  );
}

function Told({
  conditionId,
  light,
  estimate,
  onAgain,
  onOther,
}: {
  conditionId: number;
  light: { readonly id: number; readonly name: string };
  estimate: StudyEstimate;
  onAgain: () => void;
  /** Another person looks as well; undefined where enough have. */
  onOther: (() => void) | undefined;
}) {
  const router = useRouter();
  const queries = useQueryClient();
  const { sending, problem, run } = useSending();
  const keep = (): Promise<void> =>
    run(async () => {
      const { share, range } = estimate;
      await send(TELL_ULTRAVIOLET, {
        params: { id: light.id },
        body: { share, low: range[0], high: range[1] },
      });
      await queries.invalidateQueries({ queryKey: ['lights'] });
      router.push(`/conditions/${conditionId}/profile`);
    });
  const [first, ...rest] = studySentences(estimate);
  return (
    <div style={{ display: 'grid', gap: 12 }}>
      {estimate.tells && (
        <p className="study-share">
          <b>{estimate.share.toFixed(2)}</b>{' '}
          <span className="quiet">of the ultraviolet of D50, in {light.name}</span>
        </p>
      )}
      <p>{first}</p>
      {rest.map((sentence) => (
        <p key={sentence} className="quiet">
          {sentence}
        </p>
      ))}
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <div className="row">
        {estimate.tells && (
          <May act={TELL_ULTRAVIOLET}>
            <Button variant="contained" disabled={sending} onClick={() => void keep()}>
              Keep it with the light
            </Button>
          </May>
        )}
        {estimate.tells && onOther !== undefined && (
          <Button onClick={onOther}>Let another person look as well</Button>
        )}
        <Button onClick={onAgain}>Look again</Button>
      </div>
    </div>
  );
}
