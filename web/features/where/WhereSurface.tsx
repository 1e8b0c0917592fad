'use client';

import { Link } from '@/ui/Link';
import { useMemo, useState } from 'react';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { COLOUR_LIST } from '@/endpoints/profile';
import { shelfSource } from '@/features/profiles/profileSource';
import { problemWords, send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { useFileDrop } from '@/ui/useFileDrop';
import { ListColours } from './ListColours';
import { placeName, PlaceTable } from './PlaceTable';
import type { Place } from './PlaceTable';
import { rankPlaces } from './rankPlaces';
import { usePlacedList } from './usePlacedList';

interface OpenedList {
  readonly name: string;
  readonly colours: readonly NamedColour[];
}

const NONE: readonly NamedColour[] = [];

/** A colour list on every condition with a profile in force: where it comes out nearest, and which colours do not. */
export function WhereSurface({ places }: { places: readonly Place[] }) {
  const [list, setList] = useState<OpenedList>();
  const [problem, setProblem] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const sources = useMemo(() => places.map(({ profile }) => shelfSource(profile)), [places]);
  const colours = list?.colours ?? NONE;
  const found = usePlacedList(colours, sources);
  const ranked = rankPlaces(
    found.flatMap((one) => {
      const place = places.find(({ profile }) => profile.key === one.key);
      return place === undefined || !('placed' in one)
        ? []
        : [{ ...place, key: one.key, placed: one.placed }];
    }),
  );
  const shown = ranked.find(({ key }) => key === chosen) ?? ranked[0];
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    setProblem(undefined);
    send(COLOUR_LIST, { body: file }).then(
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
      {shown !== undefined && (
        <div className="where-columns">
          <PlaceTable ranked={ranked} total={colours.length} chosen={shown.key} onChoose={setChosen} />
          <ListColours
            key={`${shown.key} ${list?.name ?? ''}`}
            colours={colours}
            placed={shown.placed}
            name={placeName(shown.profile)}
          />
        </div>
      )}
    </section>
  );
}
