'use client';

import { BUILD_PROFILE } from '@/endpoints/profile';
import { Button, MenuItem, TextField } from '@mui/material';
import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useEffect, useRef, useState } from 'react';
import { separationFrom, separationOf } from '@melto/core/separate/separation';
import type { BlackAmount, Separation, SeparationChoice } from '@melto/core/separate/separation';
import { channelNames } from '@melto/core/device/process';
import { leastPatches } from '@melto/core/characterise/leastPatches';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import type { PressForProfile } from '@melto/services/calibration/pressView';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import { problemWords, send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { AddedReadings, newestFirstReading, useAdditions } from '../AddedReadings';
import { FaultNotice } from '../FaultNotice';
import { DEFAULT_FILE, ProfileFileFields } from '../ProfileFileFields';
import type { ProfileFile } from '../ProfileFileFields';
import { pixelsOf, pixelsOfAddress } from './pixelsOf';
import { SeparationCosts, withBlack } from './SeparationCosts';
import { GreysFigure, LeafFigure, PictureFigure } from './PreviewFigures';
import { SeparationControls } from './SeparationControls';
import { useSeparationPreview } from './useSeparationPreview';

/** Pictures that ink is worked out over at once. */
const MOST_PICTURES = 24;
const SAMPLE_PICTURE = '/pictures/seed-packet.svg';

/** Builds a profile of inks: readings, separation with its effect beside it, file. */
export function BuildPage({
  condition,
  readings,
  chosen,
  separation: before,
  press,
}: {
  condition: ConditionRow;
  readings: readonly ReadingOfCondition[];
  /** The readings of the profile in force, where it is to be built again. */
  chosen: readonly number[];
  /** The separation of the profile in force. */
  separation: SeparationChoice | null;
  press: PressForProfile;
}) {
  const names = channelNames(condition.process);
  const base = readings.filter(({ patches }) => patches >= leastPatches(condition.process));
  const [readingId, setReadingId] = useState(chosen[0] ?? (newestFirstReading(base) ?? base[0]).id);
  const first = readings.find(({ id }) => id === readingId);
  const additions = useAdditions(readings, readingId);
  const { all } = additions;
  const [black, setBlack] = useState<BlackAmount>(before?.black ?? 'medium');
  const [separation, setSeparation] = useState<Separation>(() =>
    before === null
      ? separationOf('medium', press.totalInk, names.length)
      : separationFrom({
          inkLimits: names.map(() => 1),
          ...before,
          totalInk: Math.min(before.totalInk, press.totalInk),
        }),
  );
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [hueDeg, setHueDeg] = useState(30);
  const [profileFile, setProfileFile] = useState<ProfileFile>(DEFAULT_FILE);
  const [note, setNote] = useState('');
  const [pictureName, setPictureName] = useState('the seed packet');
  const [problem, setProblem] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const {
    preview,
    solids,
    problem: previewProblem,
    ...pictures
  } = useSeparationPreview(condition.process, all, separation, hueDeg);
  const fitted = solids !== undefined;
  useEffect(() => {
    if (fitted)
      pixelsOfAddress(SAMPLE_PICTURE).then(
        (pixels) => pictures.takePictures([pixels]),
        () => setPictureName('no picture'),
      );
    // oxlint-disable-next-line react/exhaustive-deps -- the picture is taken once a fit, not with every change
  }, [fitted]);
  const chooseBlack = (next: BlackAmount): void => {
    setBlack(next);
    setSeparation(withBlack(next, separation));
  };
  const profilePath = `/conditions/${condition.id}/profile`;
  const submit = async (): Promise<void> => {
    try {
      await send(BUILD_PROFILE, {
        params: { id: condition.id },
        body: {
          readingId,
          ...(all.length > 1 ? { addedReadingIds: all.slice(1) } : {}),
          ...profileFile,
          ...(note.trim() === '' ? {} : { note: note.trim() }),
          separation: { black, ...separation },
        },
      });
      enqueueSnackbar('The profile is being built; the header shows how far it is.');
      router.push(profilePath);
      router.refresh();
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  const choosePictures = async (files: readonly File[]): Promise<void> => {
    const read = await Promise.allSettled(files.map(pixelsOf));
    const bad = files.filter((_, i) => read[i].status === 'rejected').map(({ name }) => name);
    if (bad.length > 0)
      enqueueSnackbar(`${bad.join(', ')} cannot be shown here. Take PNG, JPEG or WebP.`, {
        variant: 'error',
      });
    const pixels = read.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
    if (pixels.length === 0) return;
    pictures.takePictures(pixels);
    setPictureName(pixels.length === 1 && files.length === 1 ? files[0].name : `${pixels.length} pictures`);
  };
  return (
    <section className="surface">
      <form
        className="build"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <div className="surface-head">
          <h1>Build a profile</h1>
          <p>
            {fitted
              ? 'The pictures follow the sliders.'
              : (previewProblem ?? 'Fitting the readings for the preview …')}
          </p>
          <Button component={Link} href={profilePath}>
            Not now
          </Button>
          <Button
            type="submit"
            variant="contained"
            disabled={profileFile.namePattern.trim() === '' || wrong.length > 0}
          >
            Build
          </Button>
        </div>
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="build-columns">
          <div className="panel build-form">
            <TextField
              select
              label="Reading"
              value={readingId}
              onChange={(event) => setReadingId(Number(event.target.value))}
            >
              {base.map((row) => (
                <MenuItem key={row.id} value={row.id}>
                  {row.code}, {row.title}, {row.mode}, {formatMoment(row.startedMs)}
                </MenuItem>
              ))}
            </TextField>
            <FaultNotice reading={first} />
            <AddedReadings {...additions} />
            <SeparationControls
              names={names}
              black={black}
              separation={separation}
              onBlack={chooseBlack}
              onChange={(changed) => setSeparation({ ...separation, ...changed })}
              onRight={(ink, right) =>
                setWrong(right ? wrong.filter((other) => other !== ink) : [...new Set([...wrong, ink])])
              }
            />
            {wrong.length > 0 && (
              <p className="error" role="alert">
                Most {wrong.join(', ')} is no per cent that can be kept.
              </p>
            )}
          </div>
          <div className="build-preview">
            {preview === undefined || solids === undefined ? (
              <div className="panel build-waiting">
                <p className="quiet">{previewProblem ?? 'The model is being fitted; a few seconds.'}</p>
              </div>
            ) : (
              <>
                <GreysFigure names={names} preview={preview} solids={solids} />
                <LeafFigure names={names} preview={preview} hueDeg={hueDeg} onHue={setHueDeg} />
                <div className="panel row build-wide" style={{ justifyContent: 'space-between' }}>
                  <PictureFigure names={names} preview={preview} name={pictureName} />
                  <Button size="small" onClick={() => file.current?.click()}>
                    Other pictures
                  </Button>
                  <input
                    ref={file}
                    type="file"
                    accept="image/png,image/jpeg,image/webp"
                    aria-label="picture for the ink use"
                    hidden
                    multiple
                    onChange={(event) => {
                      const own = [...(event.target.files ?? [])].slice(0, MOST_PICTURES);
                      event.target.value = '';
                      if (own.length > 0) void choosePictures(own);
                    }}
                  />
                </div>
                <SeparationCosts
                  names={names}
                  {...pictures}
                  separation={separation}
                  black={black}
                  onBlack={chooseBlack}
                />
              </>
            )}
            <div className="panel build-form build-wide">
              <div className="build-file">
                <ProfileFileFields
                  condition={condition}
                  readingIds={all}
                  file={profileFile}
                  onChange={(changed) => setProfileFile({ ...profileFile, ...changed })}
                />
              </div>
              <TextField
                label="Note"
                value={note}
                onChange={(event) => setNote(event.target.value)}
                multiline
                minRows={1}
                helperText="Kept with the profile: what whoever takes it should know."
                slotProps={{ htmlInput: { maxLength: 2000 } }}
              />
            </div>
          </div>
        </div>
      </form>
    </section>
  );
}
