'use client';

import { Link } from '@/ui/Link';
import { useSearchParams } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { ProofOverlay } from '@melto/core/proof/bakedProof';
import type { SamplePicture } from '@melto/core/proof/samplePicture';
import type { ProofChoice } from '@melto/core/proof/softProof';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { fileSource } from '@/features/profiles/profileSource';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { useFileDrop } from '@/ui/useFileDrop';
import { EMBEDDED, openPicture, PREVIEW_SIDE } from './openPicture';
import type { OpenedPicture } from './openPicture';
import { CopyChoices } from './CopyChoices';
import { LostColours } from './LostColours';
import { ProofChoices } from './ProofChoices';
import { lightsFor } from './lightsFor';
import { PictureRow } from './PictureRow';
import { PrintPixels } from './PrintPixels';
import { ProofFigures } from './ProofFigures';
import { ProofFoot } from './ProofFoot';
import { ProofStage } from './ProofStage';
import { ScreenChoice } from './ScreenChoice';
import { RankedProofs } from './RankedProofs';
import { WriteProof } from './WriteProof';
import { useScreenProfile } from './screenDuty';
import { useShelfSources } from './useShelfSources';
import { useGpu } from './useGpu';
import { useProof } from './useProof';
import { useProofWorker } from './useProofWorker';
import { useWideScreen } from './useWideScreen';

const SRGB_KEY = 'standard-sRGB';
/** Channels of a device that takes light. */
const LIGHTS = 3;
/** Conditions that a picture is proofed on at once. */
const MOST_RANKED = 12;

const sampleOf = (name: SamplePicture): OpenedPicture => ({
  name,
  width: PREVIEW_SIDE,
  height: Math.round(PREVIEW_SIDE * 0.62),
});

/** A picture before and after a print: on one condition large, on all others small, in the order of how near they come. */
export function ProofSurface({ shelf }: { shelf: readonly ShelfProfile[] }) {
  const [own, setOwn] = useState<readonly ProfileSource[]>([]);
  const shelfSources = useShelfSources(shelf);
  const sources = useMemo(() => [...shelfSources, ...own], [shelfSources, own]);
  const conditions = shelf.filter(({ condition }) => (condition?.inForceOn ?? 0) > 0);
  const rankedKeys = new Set(conditions.slice(0, MOST_RANKED).map(({ key }) => key));
  const [picture, setPicture] = useState<OpenedPicture>(() => sampleOf('Seed catalogue'));
  /** Which profile its values are meant by, where the picture does not tell or its own is not taken. */
  const [meantBy, setMeantBy] = useState<string>(SRGB_KEY);
  const [device, setDevice] = useState(useSearchParams().get('device') ?? conditions[0]?.key ?? '');
  const [choice, setChoice] = useState<ProofChoice>({
    intent: 'relative',
    ...{ blackPoint: true, paperWhite: true, inkBlack: true },
  });
  const [overlay, setOverlay] = useState<ProofOverlay>('none');
  const [problem, setProblem] = useState<string>();
  const wide = useWideScreen();
  const { gpu, lose } = useGpu();
  const [monitorKey, setMonitorKey] = useScreenProfile((key) => shelf.some((own) => own.key === key));
  const worker = useProofWorker();
  const embedded = useMemo(
    (): ProfileSource | undefined =>
      picture.file?.icc === undefined
        ? undefined
        : {
            ...{ key: EMBEDDED, label: 'the profile in the picture', group: 'The picture' },
            bytes: () => Promise.resolve(picture.file?.icc ?? new Uint8Array(0)),
          },
    [picture],
  );
  const all = embedded === undefined ? sources : [embedded, ...sources];
  const printedOn = sources.find(({ key }) => key === device);
  const lights = lightsFor(shelf, device);
  const [seenIn, setSeenIn] = useState('');
  const seenBy = lights.some(({ key }) => key === seenIn)
    ? sources.find(({ key }) => key === seenIn)
    : undefined;
  const monitor = monitorKey === undefined ? undefined : sources.find(({ key }) => key === monitorKey);
  const proof = useProof(worker, {
    picture,
    source: all.find(({ key }) => key === meantBy),
    device: printedOn,
    ...{ seenBy, monitor },
    ranked: sources.filter(({ key }) => rankedKeys.has(key)),
    ...{ choice, overlay, gpu },
  });
  const takeProfile = (file: File): string => {
    const source = fileSource(file);
    setOwn((before) => [...before.filter(({ key }) => key !== source.key), source]);
    return source.key;
  };
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    if (/\.(icc|icm)$/i.test(file.name)) {
      setDevice(takeProfile(file));
      return;
    }
    openPicture(file).then(
      (opened) => {
        setProblem(undefined);
        setPicture(opened);
        // What the picture does not tell is asked, not assumed.
        setMeantBy(opened.file?.icc === undefined ? '' : EMBEDDED);
      },
      (error: unknown) => setProblem(problemWords(error)),
    );
  };
  /** What a screen may be drawn by: a file of one's own, or what takes red, green and blue. */
  const isOfLight = ({ key, file }: ProfileSource): boolean =>
    file !== undefined || shelf.some((own) => own.key === key && own.space === 'RGB');
  const { over, zone } = useFileDrop(take);
  const words = problem ?? proof.problem;
  return (
    <section className="surface proof" data-over={over || undefined} {...zone}>
      <div className="surface-head">
        <h1>Soft proof</h1>
        <p className="quiet">
          A picture before and after its print; drop one here, or a profile to print it by. A colour list goes
          to <Link href="/where">Where should this job go?</Link>
        </p>
        <FileButton label="Open a picture" accept=".tif,.tiff,.png,.jpg,.jpeg" onFile={take} />
      </div>
      <PictureRow
        {...{ picture, meantBy, device, sources, lights }}
        meanings={all}
        seenIn={seenBy?.key ?? ''}
        onSample={(name) => {
          setPicture(sampleOf(name));
          setMeantBy(SRGB_KEY);
        }}
        onMeantBy={setMeantBy}
        onDevice={setDevice}
        onSeenIn={setSeenIn}
      />
      {meantBy === '' && (
        <p className="notice">
          {picture.name} tells no profile. Say above what its values are meant by: nothing is shown before.
        </p>
      )}
      {words !== undefined && (
        <p className="error" role="alert">
          {words}
        </p>
      )}
      {device === '' && (
        <p className="quiet">No condition has a profile yet. Build one, or drop a profile here.</p>
      )}
      {proof.before !== undefined && (
        <div className="proof-columns">
          <div className="proof-main">
            <ProofStage
              before={proof.before}
              print={
                proof.after !== undefined && proof.opened !== undefined ? (
                  <PrintPixels print={proof.after} picture={proof.opened} overlay={overlay} onLost={lose} />
                ) : undefined
              }
              onPoint={proof.pointAt}
            />
            <ProofFoot point={proof.point} />
            <RankedProofs ranked={proof.ranked} sources={sources} chosen={device} onChoose={setDevice} />
          </div>
          <aside className="panel">
            <ProofChoices
              choice={choice}
              overlay={overlay}
              onChoice={setChoice}
              onOverlay={setOverlay}
              inked={proof.after?.inks !== LIGHTS}
            />
            <CopyChoices choice={choice} onChoice={setChoice} />
            {proof.after !== undefined && proof.figures !== undefined && (
              <ProofFigures figures={proof.figures} inks={proof.after.inks} />
            )}
            {worker !== undefined && proof.after !== undefined && printedOn !== undefined && (
              <WriteProof
                {...{ worker, picture, choice, seenBy, device: printedOn }}
                screen={sources.find(({ key }) => key === SRGB_KEY)}
              />
            )}
            <LostColours lost={proof.ranked.find(({ key }) => key === device)?.predicted.lost} />
            <ScreenChoice
              screen={choice.screen ?? 'srgb'}
              {...{ wide, monitor: monitorKey, problem: proof.screenProblem }}
              sources={sources.filter(isOfLight)}
              onScreen={(screen) => setChoice({ ...choice, screen })}
              onMonitor={setMonitorKey}
              onFile={(file) => setMonitorKey(takeProfile(file))}
            />
          </aside>
        </div>
      )}
    </section>
  );
}
