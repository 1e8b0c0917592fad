'use client';

import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material';
import dynamic from 'next/dynamic';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { READ_COLOURS } from '@/endpoints/lists';
import { problemWords, send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { useFileDrop } from '@/ui/useFileDrop';
import type { DrawnBody } from '@/workers/gamut.worker';
import { ProfileField } from '@/features/profiles/ProfileField';
import { fileSource, shelfSource } from '@/features/profiles/profileSource';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { WHOLE_AT } from './bodyStyle';
import type { BodyPaint, BodyStyle } from './bodyStyle';
import { HueLeaf } from './HueLeaf';
import { PointsPanel } from './PointsPanel';
import { ReachRing } from './ReachRing';
import { ShareTable } from './ShareTable';
import { useComparison } from './useComparison';
import { useGamutWorker } from './useGamutWorker';
import { coloursOfPicture, usePoints } from './usePoints';
import type { LaidList } from './usePoints';

// Three.js comes when it is needed, and has no place on the server.
const BodyView = dynamic(() => import('./BodyView').then((module) => module.BodyView), {
  ssr: false,
  loading: () => <div className="booth body-view" />,
});

/** Two gamuts beside each other: as bodies, as a ring of chroma by hue, in a sentence and in figures. */
export function GamutSurface({ shelf }: { shelf: readonly ShelfProfile[] }) {
  const router = useRouter();
  const path = usePathname();
  const query = useSearchParams();
  const [files, setFiles] = useState<readonly ProfileSource[]>([]);
  const sources = useMemo(() => [...shelf.map(shelfSource), ...files], [shelf, files]);
  const inForce = shelf.filter(({ condition }) => (condition?.inForceOn ?? 0) > 0);
  const a = query.get('a') ?? 'standard-sRGB';
  const b = query.get('b') ?? inForce[0]?.key ?? '';
  const choose = (change: { readonly a?: string; readonly b?: string }): void => {
    const next = new URLSearchParams({ a, b, ...change });
    router.replace(`${path}?${next.toString()}`, { scroll: false });
  };
  const [style, setStyle] = useState<BodyStyle>('solid');
  const [paint, setPaint] = useState<BodyPaint>('own');
  const worker = useGamutWorker();
  const find = (key: string): ProfileSource | undefined => sources.find((source) => source.key === key);
  const { data, error, isFetching } = useComparison(worker, find(a), find(b));
  const [list, setList] = useState<LaidList>();
  const [problem, setProblem] = useState<string>();
  const points = usePoints(worker, data, list);
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    setProblem(undefined);
    if (!/\.(icc|icm)$/i.test(file.name)) {
      const colours = /\.(tiff?|png|jpe?g)$/i.test(file.name)
        ? coloursOfPicture(worker, file)
        : send(READ_COLOURS, { body: file }).then((read) => read.colours);
      colours.then(
        (own) => setList({ name: file.name, colours: own }),
        (refused: unknown) => setProblem(problemWords(refused)),
      );
      return;
    }
    const source = fileSource(file);
    setFiles((before) => [...before.filter(({ key }) => key !== source.key), source]);
    choose({ b: source.key });
  };
  const { over, zone } = useFileDrop(take);
  return (
    <section className="surface gamut" data-over={over || undefined} {...zone}>
      <div className="surface-head">
        <h1>Gamut</h1>
        <p className="quiet">
          What each prints, as a body in L*, a*, b*; drop a profile, a colour list or a picture here to see
          it, too.
        </p>
        <FileButton
          label="Lay colours beside"
          accept=".cxf,.xml,.txt,.cgats,.it8,.csv,.tif,.tiff,.png,.jpg,.jpeg"
          onFile={take}
        />
        <FileButton label="Open a profile" accept=".icc,.icm" onFile={take} />
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
        <BodyToggles style={style} paint={paint} onStyle={setStyle} onPaint={setPaint} />
      </div>
      {(problem ?? error) != null && (
        <p className="error" role="alert">
          {problem ?? error?.message}
        </p>
      )}
      {find(b) === undefined && (
        <p className="quiet">
          No profile is chosen. Open one, or build one on a condition; then it stands here.
        </p>
      )}
      {data === undefined && isFetching && <p className="quiet">Making the bodies…</p>}
      {data !== undefined && worker !== undefined && (
        <div className="gamut-columns">
          <div className="gamut-body">
            <BodyView
              bodies={[
                { body: data.b, style, paint },
                { body: data.a, style: 'lines', paint: 'own' },
              ]}
              points={points}
            />
            {paint === 'beyond' && (
              <p className="quiet small">
                Grey is what {data.a.name} prints as well; a colour is whole where it is {WHOLE_AT} ΔE00
                beyond.
              </p>
            )}
            {data.sentences.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </div>
          <div className="panel">
            <ReachRing worker={worker} comparison={data} />
            <HueLeaf worker={worker} comparison={data} />
            <Volumes a={data.a} b={data.b} shared={data.shared} />
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
            <ShareTable comparison={data} />
          </div>
        </div>
      )}
    </section>
  );
}

const thousands = (volume: number): string => `${Math.round(volume / 1000).toLocaleString('en-GB')}`;

function Volumes({ a, b, shared }: { a: DrawnBody; b: DrawnBody; shared: number }) {
  return (
    <table className="table tight">
      <thead>
        <tr>
          <th>Body</th>
          <th className="num">Volume, thousand ΔE*ab³</th>
          <th className="num">Shared, %</th>
        </tr>
      </thead>
      <tbody>
        {[a, b].map((body, i) => (
          <tr key={i}>
            <td>
              {i === 0 ? '- - ' : '— '}
              {body.name}
              <span className="quiet small">
                {body.white === 'paper' ? ', with its paper' : ', to its own white'}
                {body.totalInk === undefined ? '' : `, ink to ${Math.round(100 * body.totalInk)} %`}
              </span>
            </td>
            <td className="num">{thousands(body.volume)}</td>
            <td className="num">{((100 * shared) / body.volume).toFixed(1)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How the solid body is drawn, and which of its colours. */
function BodyToggles({
  style,
  paint,
  onStyle,
  onPaint,
}: {
  style: BodyStyle;
  paint: BodyPaint;
  onStyle: (style: BodyStyle) => void;
  onPaint: (paint: BodyPaint) => void;
}) {
  return (
    <>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={style}
        aria-label="Body"
        onChange={(_, chosen: BodyStyle | null) => chosen !== null && onStyle(chosen)}
      >
        <ToggleButton value="solid">solid</ToggleButton>
        <ToggleButton value="clear">clear</ToggleButton>
        <ToggleButton value="lines">lines</ToggleButton>
      </ToggleButtonGroup>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={paint}
        aria-label="Colours of the body"
        onChange={(_, chosen: BodyPaint | null) => chosen !== null && onPaint(chosen)}
      >
        <ToggleButton value="own">all colours</ToggleButton>
        <ToggleButton value="beyond">what only it prints</ToggleButton>
      </ToggleButtonGroup>
    </>
  );
}
