'use client';

import { useRouter } from 'next/navigation';
import { addressOf } from '@/ui/api';
import { Link } from '@/ui/Link';
import { ListField } from '@/ui/ListField';
import { useMemo, useState } from 'react';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { COLOUR_LIST_REPORT, READ_COLOURS } from '@/endpoints/lists';
import { isPicture } from '@/features/proof/openPicture';
import { shelfSource } from '@/features/profiles/profileSource';
import { problemWords, send } from '@/ui/api';
import { FileButton, FilesButton } from '@/ui/FileButton';
import { useFilesDrop } from '@/ui/useFileDrop';
import { ListColours } from './ListColours';
import { openPage } from './openPage';
import type { PagePicture } from './openPage';
import { areaWords, PagePictures } from './PagePictures';
import { placeName, PlaceTable } from './PlaceTable';
import type { Place } from './PlaceTable';
import { rankPlaces } from './rankPlaces';
import { RecipesPanel } from './RecipesPanel';
import { useListWorker, useNearest, usePlacedList, usePlacedPage } from './usePlacedList';
import type { PlacedOn } from './usePlacedList';

interface OpenedList {
  readonly name: string;
  readonly colours: readonly ListedColour[];
  /** Of the library. */
  readonly id?: number;
}

const NONE: readonly ListedColour[] = [];

const NO_PAGE: readonly PagePicture[] = [];

/** A colour list or a page of pictures on every condition with a profile in force: where it comes out nearest, and what does not. */
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
  const [page, setPage] = useState(NO_PAGE);
  const list = page.length > 0 ? undefined : (dropped ?? kept);
  const [problem, setProblem] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const sources = useMemo(() => places.map(({ profile }) => shelfSource(profile)), [places]);
  const colours = list?.colours ?? NONE;
  const worker = useListWorker();
  const ofList = usePlacedList(worker, colours, sources);
  const ofPage = usePlacedPage(worker, page, sources);
  const found = page.length > 0 ? ofPage : ofList;
  const ranked = rankedOn(places, ofList);
  const shown = ranked.find(({ key }) => key === chosen) ?? ranked[0];
  const pages = rankedOn(places, ofPage);
  const shownPage = pages.find(({ key }) => key === chosen) ?? pages[0];
  // Looked for once all conditions are ranked: it takes as long as all of them.
  const source = found.length < sources.length ? undefined : sources.find(({ key }) => key === shown?.key);
  const nearest = useNearest(worker, colours, source);
  const takeAll = async (files: readonly File[]): Promise<void> => {
    const pictures = files.filter(isPicture);
    if (pictures.length > 0 && worker !== undefined) {
      setPage(await openPage(worker, pictures));
      return;
    }
    for (const file of files.slice(0, 1)) {
      const { colours: read } = await send(READ_COLOURS, { body: file });
      setList({ name: file.name, colours: read });
      setPage(NO_PAGE);
    }
  };
  const take = (files: readonly File[]): void => {
    setProblem(undefined);
    takeAll(files).catch((error: unknown) => setProblem(problemWords(error)));
  };
  const { over, zone } = useFilesDrop(take);
  return (
    <section className="surface gamut" data-over={over || undefined} {...zone}>
      <div className="surface-head">
        <h1>Where should this job go?</h1>
        <p className="quiet">
          {page.length > 0 ? (
            `${page.length === 1 ? page[0]?.name : `${page.length} pictures`}, by what each pixel comes to`
          ) : list === undefined ? (
            <>
              Drop a colour list (CxF, CGATS, or CSV with name, L, a, b) or the pictures of a page. How one
              picture looks is in the <Link href="/proof">soft proof</Link>.
            </>
          ) : (
            `${list.name}, ${colours.length} ${colours.length === 1 ? 'colour' : 'colours'}`
          )}
        </p>
        <ListField
          value={dropped === undefined ? kept?.id : undefined}
          onChoose={(id) => {
            setList(undefined);
            setPage(NO_PAGE);
            router.replace(`/where?list=${id}`);
          }}
        />
        <FilesButton label="Open pictures" accept=".tif,.tiff,.png,.jpg,.jpeg" onFiles={take} />
        <FileButton
          label="Open a colour list"
          accept=".cxf,.xml,.txt,.cgats,.it8,.csv"
          onFile={(file) => take([file])}
        />
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
      {(list !== undefined || page.length > 0) && found.length < sources.length && (
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
          <PlaceTable
            ranked={ranked}
            over3={({ over3 }) => `${over3} of ${colours.length}`}
            how="absolute"
            chosen={shown.key}
            onChoose={setChosen}
          />
          <ListColours
            key={`${shown.key} ${list?.name ?? ''}`}
            colours={colours}
            placed={shown.placed}
            nearest={nearest}
            name={placeName(shown.profile)}
            space={shown.profile.space}
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
      {shownPage !== undefined && (
        <div className="where-columns">
          <PlaceTable
            ranked={pages}
            over3={({ over3 }) => areaWords(over3)}
            how="relative to the whites"
            chosen={shownPage.key}
            onChoose={setChosen}
          />
          <PagePictures placed={shownPage.placed} name={placeName(shownPage.profile)} />
        </div>
      )}
    </section>
  );
}

/** The conditions that are worked out, in the order in which a job should go to them. */
function rankedOn<Placed extends { readonly mean: number }>(
  places: readonly Place[],
  found: readonly PlacedOn<Placed>[],
) {
  return rankPlaces(
    found.flatMap((one) => {
      const place = places.find(({ profile }) => profile.key === one.key);
      return place === undefined || !('placed' in one)
        ? []
        : [{ ...place, key: one.key, placed: one.placed }];
    }),
  );
}
