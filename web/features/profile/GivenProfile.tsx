'use client';

import { TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { GivenProfile } from '@melto/services/profile/givenProfile';
import type { GivenProfileDetail, GivenProfileSummary } from '@melto/services/ledger/kinds/givenProfileKind';
import { PREVIEW_PROFILE, TAKE_PROFILE } from '@/endpoints/profile';
import { problemWords, send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { formatFigure } from '@/ui/format';

/** Takes a profile that a maker, a paper seller or a service has built: shown first, with where it is from. */
export function TakeProfile({ conditionId }: { conditionId: number }) {
  const router = useRouter();
  const [file, setFile] = useState<File>();
  const [found, setFound] = useState<GivenProfile>();
  const [problem, setProblem] = useState<string>();
  const [origin, setOrigin] = useState('');
  // An earlier file may be looked at for longer than the next.
  const last = useRef<File>(undefined);
  const look = async (given: File | undefined): Promise<void> => {
    last.current = given;
    setFile(given);
    setFound(undefined);
    setProblem(undefined);
    setOrigin('');
    if (given === undefined) return;
    try {
      const preview = await send(PREVIEW_PROFILE, {
        params: { id: conditionId },
        query: { name: given.name.slice(0, 200) },
        body: given,
      });
      if (last.current === given) setFound(preview);
    } catch (error) {
      if (last.current === given) setProblem(problemWords(error));
    }
  };
  return (
    <>
      <label className="plain small">
        <u>Take one from elsewhere</u>
        <input
          type="file"
          accept=".icc,.icm"
          className="visually-hidden"
          onChange={(event) => {
            void look(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </label>
      {file !== undefined && (
        <FormDialog
          title={`The profile ${file.name}`}
          act="Take it and put it in force"
          ready={found !== undefined && origin.trim() !== ''}
          problem={problem}
          onClose={() => void look(undefined)}
          onSubmit={async () => {
            await send(TAKE_PROFILE, {
              params: { id: conditionId },
              query: { name: file.name.slice(0, 200), origin: origin.trim() },
              body: file,
            });
            void look(undefined);
            router.push(`/conditions/${conditionId}/profile`);
            router.refresh();
          }}
        >
          {found === undefined ? (
            problem === undefined && <p className="quiet">Looking at it…</p>
          ) : (
            <>
              <ProfileFacts name={found.name} version={found.version} detail={found} />
              <Warnings words={found.warnings} />
            </>
          )}
          <TextField
            label="Where it is from"
            helperText="Who made it, for what paper, ink and settings"
            value={origin}
            multiline
            onChange={(event) => setOrigin(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 400 } }}
          />
        </FormDialog>
      )}
    </>
  );
}

/** A profile that somebody else has built, as it is shown among the versions. */
export function GivenProfileReport({
  summary,
  detail,
}: {
  summary: GivenProfileSummary;
  detail: GivenProfileDetail;
}) {
  const { compared } = detail;
  return (
    <>
      <Warnings words={summary.warnings} />
      <div className="panel" style={{ display: 'grid', gap: 12 }}>
        <h2>From elsewhere</h2>
        <p>{summary.origin}</p>
        <ProfileFacts name={summary.name} version={summary.version} detail={detail} />
        {compared !== undefined && (
          <p>
            At the same device values it says other colours than v{compared.version}: mean{' '}
            {compared.difference.mean.toFixed(2)} ΔE00, 95 % under {compared.difference.p95.toFixed(2)},
            largest {compared.difference.largest.toFixed(1)}.
          </p>
        )}
        <p className="quiet small">
          How well it describes this device nobody here has measured: print a check through it.
        </p>
      </div>
    </>
  );
}

function Warnings({ words }: { words: readonly string[] }) {
  return words.map((warning) => (
    <p key={warning} className="notice">
      {warning}
    </p>
  ));
}

function ProfileFacts({
  name,
  version,
  detail: { made, intents, white, black, cast, totalInk, fit },
}: {
  name: string;
  version: string;
  detail: Omit<GivenProfileDetail, 'fileName' | 'greys' | 'compared'>;
}) {
  const lab = (values: readonly number[]): string => values.map((value) => formatFigure(value, 1)).join('  ');
  const facts: readonly (readonly [string, string])[] = [
    ['Calls itself', name],
    ['ICC', version],
    ['Made', made ?? 'does not say'],
    ['Intents of its own', intents.join(', ')],
    ['Paper, L* a* b*', lab(white)],
    ['Black, L* a* b*', lab(black)],
    ['Greys off neutral', `${cast.toFixed(1)} at most, by its own table`],
    ...(totalInk === null ? [] : [['Total ink on greys', `${Math.round(100 * totalInk)} %`] as const]),
    [
      'Data it carries',
      fit === null ? 'none' : `fits them to ${fit.mean.toFixed(2)} ΔE00, largest ${fit.largest.toFixed(1)}`,
    ],
  ];
  return (
    <dl className="facts">
      {facts.map(([word, value]) => (
        <div key={word} style={{ display: 'contents' }}>
          <dt>{word}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
