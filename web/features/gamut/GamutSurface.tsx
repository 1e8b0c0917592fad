'use client';

import { Button } from '@mui/material';
import dynamic from 'next/dynamic';
import { usePathname, useSearchParams } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { BodySource } from '@melto/services/overview/bodySources';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { READ_COLOURS } from '@/endpoints/lists';
import { problemWords, send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { useFileDrop } from '@/ui/useFileDrop';
import { ProfileField } from '@/features/profiles/ProfileField';
import { isPicture } from '@/features/proof/openPicture';
import { bodySource, fileSource, shelfSource } from '@/features/profiles/profileSource';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { BESIDE, WHOLE_AT } from './bodyStyle';
import type { BodyPaint, BodyStyle } from './bodyStyle';
import { BodyToggles } from './BodyToggles';
import { HueLeaf } from './HueLeaf';
import { PointsPanel } from './PointsPanel';
import { ReachRing } from './ReachRing';
import { ShareTable } from './ShareTable';
import { useComparison } from './useComparison';
import { useGamutWorker } from './useGamutWorker';
import { coloursOfPicture, hasDeviceValues, usePoints } from './usePoints';
import type { LaidList } from './usePoints';
import { Volumes } from './Volumes';

// Three.js comes when it is needed, and has no place on the server.
const BodyView = dynamic(() => import('./BodyView').then((module) => module.BodyView), {
  ssr: false,
  loading: () => <div className="booth body-view" />,
});

/** Gamuts beside each other: as bodies, as a ring of chroma by hue, in a sentence and in figures. */
export function GamutSurface({
  shelf,
  measured,
}: {
  shelf: readonly ShelfProfile[];
  measured: readonly BodySource[];
}) {
  const path = usePathname();
  const query = useSearchParams();
  const [files, setFiles] = useState<readonly ProfileSource[]>([]);
  const sources = useMemo(
    () => [...shelf.map(shelfSource), ...measured.map(bodySource), ...files],
    [shelf, measured, files],
  );
  const inForce = shelf.filter(({ condition }) => (condition?.inForceOn ?? 0) > 0);
  const a = query.get('a') ?? 'standard-sRGB';
  const b = query.get('b') ?? inForce[0]?.key ?? '';
  const more = query.getAll('more').slice(0, BESIDE.length);
  const choose = (change: {
    readonly a?: string;
    readonly b?: string;
    readonly more?: readonly string[];
  }): void => {
    const next = new URLSearchParams({ a: change.a ?? a, b: change.b ?? b });
    for (const key of change.more ?? more) next.append('more', key);
    // Nothing of it is asked of the server.
    window.history.replaceState(null, '', `${path}?${next.toString()}`);
  };
  const [style, setStyle] = useState<BodyStyle>('solid');
  const [paint, setPaint] = useState<BodyPaint>('own');
  const worker = useGamutWorker();
  const find = (key: string): ProfileSource | undefined => sources.find((source) => source.key === key);
  const beside = more.flatMap((key) => find(key) ?? []);
  const { data, error, isFetching, reach } = useComparison(worker, find(a), find(b), beside);
  const [list, setList] = useState<LaidList>();
  const [problem, setProblem] = useState<string>();
  const points = usePoints(worker, data, list);
  const taken = async (file: File): Promise<void> => {
    if (/\.(icc|icm)$/i.test(file.name) || (await hasDeviceValues(worker, file))) {
      const source = fileSource(file);
      setFiles((before) => [...before.filter(({ key }) => key !== source.key), source]);
      choose({ b: source.key });
      return;
    }
    const own = isPicture(file)
      ? await coloursOfPicture(worker, file)
      : (await send(READ_COLOURS, { body: file })).colours;
    setList({ name: file.name, colours: own });
  };
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    setProblem(undefined);
    taken(file).catch((refused: unknown) => setProblem(problemWords(refused)));
  };
  const { over, zone } = useFileDrop(take);
  return (
    <section className="surface gamut" data-over={over || undefined} {...zone}>
      <div className="surface-head">
        <h1>Gamut</h1>
        <p className="quiet">
          What each prints, as a body in L*, a*, b*; drop a profile, a measured chart, a colour list or a
          picture here to see it, too.
        </p>
        <FileButton
          label="Lay colours beside"
          accept=".cxf,.xml,.txt,.cgats,.it8,.csv,.tif,.tiff,.png,.jpg,.jpeg"
          onFile={take}
        />
        <FileButton label="Open a profile or chart" accept=".icc,.icm,.txt,.cgats,.it8" onFile={take} />
      </div>
      <div className="row gamut-choice">
        <ProfileField
          label="Pinned, as lines"
          value={a}
          sources={sources}
          onChoose={(key) => choose({ a: key })}
        />
        <Button
          size="small"
          aria-label="Change both about"
          title="Change both about"
          onClick={() => choose({ a: b, b: a })}
        >
          ⇄
        </Button>
        <ProfileField label="Solid" value={b} sources={sources} onChoose={(key) => choose({ b: key })} />
        {BESIDE.slice(0, Math.min(BESIDE.length, more.length + 1)).map((_, i) => (
          <ProfileField
            key={i}
            label={`Beside, ${['dotted', 'dash and dot'][i]}`}
            value={more[i] ?? ''}
            sources={sources}
            none="none"
            width={220}
            onChoose={(key) => choose({ more: replaced(more, i, key) })}
          />
        ))}
        <BodyToggles style={style} paint={paint} onStyle={setStyle} onPaint={setPaint} />
      </div>
      {(problem ?? error) != null && (
        <p className="error" role="alert">
          {problem ?? error?.message}
        </p>
      )}
      {find(b) === undefined && (
        <p className="quiet">
          Nothing is chosen to be solid. Open a profile or a measured chart, or build one on a condition; then
          it stands here.
        </p>
      )}
      {data === undefined && isFetching && <p className="quiet">Making the bodies…</p>}
      {data !== undefined && worker !== undefined && (
        <div className="gamut-columns">
          <div className="gamut-body">
            <BodyView
              bodies={[
                { body: data.b, style, paint, beyond: reach?.beyond },
                { body: data.a, style: 'lines', paint: 'own' },
              ]}
              beside={data.more}
              points={points}
            />
            {paint === 'beyond' && (
              <p className="quiet small">
                Grey is what {data.a.name} prints as well; a colour is whole where it is {WHOLE_AT} ΔE00
                beyond.
              </p>
            )}
            {reach === undefined && <p className="quiet">Comparing them…</p>}
            {reach?.sentences.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </div>
          <div className="panel">
            <ReachRing worker={worker} comparison={data} />
            <HueLeaf worker={worker} comparison={data} />
            <Volumes comparison={data} />
          </div>
          {list !== undefined && points !== undefined && (
            <PointsPanel list={list} points={points} comparison={data} />
          )}
          <div className="panel gamut-shares">
            <header>
              <h2>By hue and lightness</h2>
              <span className="quiet">
                volume of {data.b.name} over that of {data.a.name}, %
              </span>
            </header>
            {reach !== undefined && <ShareTable comparison={data} shares={reach.shares} />}
          </div>
        </div>
      )}
    </section>
  );
}

/** A list of bodies with one of them changed, or left out where none is chosen. */
function replaced(keys: readonly string[], at: number, key: string): string[] {
  const all = [...keys.slice(0, at), key, ...keys.slice(at + 1)];
  return all.filter((own, i) => own !== '' && all.indexOf(own) === i);
}
