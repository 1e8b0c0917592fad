'use client';

import { useRouter } from 'next/navigation';
import { addressOf } from '@/ui/api';
import { Link } from '@/ui/Link';
import { ListField } from '@/ui/ListField';
import { useMemo, useState } from 'react';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { COLOUR_LIST_REPORT, READ_COLOURS } from '@/endpoints/lists';
import { shelfSource } from '@/features/profiles/profileSource';
import { problemWords, send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { useFileDrop } from '@/ui/useFileDrop';
import { ListColours } from './ListColours';
import { placeName, PlaceTable } from './PlaceTable';
import type { Place } from './PlaceTable';
import { rankPlaces } from './rankPlaces';
import { RecipesPanel } from './RecipesPanel';
import { useListWorker, useNearest, usePlacedList } from './usePlacedList';

interface OpenedList {
  readonly name: string;
  readonly colours: readonly ListedColour[];
  /** Of the library. */
  readonly id?: number;
}

const NONE: readonly ListedColour[] = [];

/** A colour list on every condition with a profile in force: where it comes out nearest, and which colours do not. */
export function WhereSurface({
  places,
  kept,
}: {
  places: readonly Place[];
  /** A list of the library, which the address names. */
  kept: OpenedList | undefined;
}) {
  const router = useRouter();
  const [dropped, setList] = useState<OpenedList>();
  const list = dropped ?? kept;
  const [problem, setProblem] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const sources = useMemo(() => places.map(({ profile }) => shelfSource(profile)), [places]);
  const colours = list?.colours ?? NONE;
  const worker = useListWorker();
  const found = usePlacedList(worker, colours, sources);
  const ranked = rankPlaces(
    found.flatMap((one) => {
      const place = places.find(({ profile }) => profile.key === one.key);
      return place === undefined || !('placed' in one)
        ? []
        : [{ ...place, key: one.key, placed: one.placed }];
    }),
  );
  const shown = ranked.length === 0 ? undefined : (ranked.find(({ key }) => key === chosen) ?? ranked[0]);
  // Looked for once all conditions are ranked: it takes as long as all of them.
  const source = found.length < sources.length ? undefined : sources.find(({ key }) => key === shown?.key);
  const nearest = useNearest(worker, colours, source);
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    setProblem(undefined);
    send(READ_COLOURS, { body: file }).then(
      ({ colours: read }) => setList({ name: file.name, colours: read }),
      (error: unknown) => setProblem(problemWords(error)),
    );
  };
  const { over, zone } = useFileDrop(take);
  return (
    <section className="surface gamut" data-over={over || undefined} {...zone}>
      <div className="surface-head">
        <h1>Where should this job go?</h1>
        <p className="quiet">
          {list === undefined ? (
            <>
              Drop a colour list: CxF, CGATS, or CSV with name, L, a, b. Pictures are ranked in the{' '}
              <Link href="/proof">soft proof</Link>.
            </>
          ) : (
            `${list.name}, ${colours.length} ${colours.length === 1 ? 'colour' : 'colours'}`
          )}
        </p>
        <ListField
          value={dropped === undefined ? kept?.id : undefined}
          onChoose={(id) => {
            setList(undefined);
            router.replace(`/where?list=${id}`);
          }}
        />
        <FileButton label="Open a colour list" accept=".cxf,.xml,.txt,.cgats,.it8,.csv" onFile={take} />
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      {found.map((one) =>
        'problem' in one ? (
          <p key={one.key} className="error" role="alert">
            {one.problem}
          </p>
        ) : null,
      )}
      {places.length === 0 && (
        <p className="quiet">No condition has a profile in force yet. Build one, and it is ranked here.</p>
      )}
      {list !== undefined && found.length < sources.length && (
        <p className="quiet" role="status">
          {found.length} of {sources.length} conditions are worked out…
        </p>
      )}
      {shown?.profile.condition !== undefined &&
        shown.profile.condition !== null &&
        list?.id !== undefined && (
          <p className="row">
            <span className="quiet">
              Report of {list.name} on {placeName(shown.profile)}
            </span>
            {(['html', 'pdf'] as const).map((format) => (
              <a
                key={format}
                href={addressOf(COLOUR_LIST_REPORT, {
                  params: { id: list.id },
                  query: { conditionId: shown.profile.condition?.id, format },
                })}
              >
                {format === 'pdf' ? 'PDF' : 'page'}
              </a>
            ))}
          </p>
        )}
      {shown !== undefined && (
        <div className="where-columns">
          <PlaceTable ranked={ranked} total={colours.length} chosen={shown.key} onChoose={setChosen} />
          <ListColours
            key={`${shown.key} ${list?.name ?? ''}`}
            colours={colours}
            placed={shown.placed}
            nearest={nearest}
            name={placeName(shown.profile)}
            inDepth={(colour) =>
              source === undefined ? null : (
                <RecipesPanel
                  worker={worker}
                  colour={colour}
                  source={source}
                  conditionId={shown.profile.condition?.id}
                />
              )
            }
          />
        </div>
      )}
    </section>
  );
}
