'use client';

import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import { pageCapacity } from '@melto/core/charts/pageGeometry';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { mainColours, pictureHistogram } from '@melto/core/refine/mainColours';
import type { PictureColour } from '@melto/core/refine/mainColours';
import { TIE_PATCHES } from '@melto/core/refine/refinementPatches';
import { problemWords, sendJson, sendText } from '@/ui/api';
import { Swatch } from '@/ui/Swatch';
import { pixelsOf } from './build/pixelsOf';

const PICTURE_COLOURS = 16;
const MOST_SHOWN = 24;

/** One more sheet: where the model is least sure, the colours of a list, the main colours of a picture. */
export function RefineDialog({
  conditionId,
  readingIds,
  hasProfile,
  onClose,
}: {
  conditionId: number;
  readingIds: readonly number[];
  hasProfile: boolean;
  onClose: () => void;
}) {
  const [unsure, setUnsure] = useState(hasProfile ? '60' : '400');
  const [readings, setReadings] = useState(4);
  const [colours, setColours] = useState<readonly NamedColour[]>([]);
  const [picture, setPicture] = useState<readonly PictureColour[]>([]);
  const [problem, setProblem] = useState<string>();
  const list = useRef<HTMLInputElement>(null);
  const image = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const count = Number(unsure);
  const right = Number.isInteger(count) && count >= 0 && count <= 800;
  const wanted = colours.length + picture.length;
  const patches = TIE_PATCHES + (right ? count : 0) + wanted * readings;
  const { patchesPerStrip, stripsPerPage } = pageCapacity('a4');
  const strips = Math.ceil(patches / patchesPerStrip);
  const take = (work: () => Promise<void>): void => {
    setProblem(undefined);
    work().catch((error: unknown) =>
      setProblem(
        error instanceof DOMException
          ? 'The picture cannot be read. Take PNG, JPEG or WebP.'
          : problemWords(error),
      ),
    );
  };
  const submit = async (): Promise<void> => {
    await sendJson(`/api/conditions/${conditionId}/refinements`, {
      paper: 'a4',
      readingIds,
      unsure: count,
      colours,
      picture: picture.map(({ lab }) => ({ lab })),
      readings,
    });
    enqueueSnackbar('The chart is being made; it appears under Charts.');
    router.refresh();
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="refine-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          take(submit);
        }}
      >
        <h1 id="refine-title">{hasProfile ? 'Refine the profile' : 'A second chart'}</h1>
        <p className="quiet">
          One more sheet, printed through the same curves. Its reading is added to those there are when the
          profile is built again.
        </p>
        <TextField
          label="Patches where the model is least sure"
          value={unsure}
          error={!right}
          onChange={(event) => setUnsure(event.target.value)}
          helperText={right ? 'Each is chosen for what its reading tells.' : 'A whole number from 0 to 800.'}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        {hasProfile && (
          <>
            <div className="row">
              <Button variant="outlined" onClick={() => list.current?.click()}>
                Colour list
              </Button>
              <span className="quiet grow">
                {colours.length === 0
                  ? 'CxF, CGATS, or CSV with name, L, a, b'
                  : `${colours.length} ${colours.length === 1 ? 'colour' : 'colours'}`}
              </span>
              {colours.length > 0 && (
                <Button size="small" onClick={() => setColours([])}>
                  Take out
                </Button>
              )}
              <input
                ref={list}
                type="file"
                aria-label="colour list file"
                hidden
                onChange={(event) => {
                  const [file] = event.target.files ?? [];
                  event.target.value = '';
                  if (file !== undefined)
                    take(async () => {
                      const text = await file.text();
                      setColours(
                        (await sendText<{ colours: NamedColour[] }>('/api/colour-lists', text)).colours,
                      );
                    });
                }}
              />
            </div>
            {colours.length > 0 && (
              <Swatches colours={colours.map(({ name, lab }) => ({ label: name, lab }))} />
            )}
            <div className="row">
              <Button variant="outlined" onClick={() => image.current?.click()}>
                Picture
              </Button>
              <span className="quiet grow">
                {picture.length === 0
                  ? `its ${PICTURE_COLOURS} main colours by area, with care for skin and greys`
                  : `${picture.length} main colours`}
              </span>
              {picture.length > 0 && (
                <Button size="small" onClick={() => setPicture([])}>
                  Take out
                </Button>
              )}
              <input
                ref={image}
                type="file"
                accept="image/png,image/jpeg,image/webp"
                aria-label="picture file"
                hidden
                onChange={(event) => {
                  const [file] = event.target.files ?? [];
                  event.target.value = '';
                  if (file !== undefined)
                    take(async () =>
                      setPicture(mainColours(pictureHistogram(await pixelsOf(file)), PICTURE_COLOURS)),
                    );
                }}
              />
            </div>
            {picture.length > 0 && (
              <Swatches
                colours={picture.map(({ lab, share }) => ({ label: `${(100 * share).toFixed(1)} %`, lab }))}
              />
            )}
            <TextField
              select
              label="Readings of each colour"
              value={readings}
              onChange={(event) => setReadings(Number(event.target.value))}
              helperText="Four halve the noise of reading."
            >
              {[1, 2, 4, 6].map((times) => (
                <MenuItem key={times} value={times}>
                  {times}
                </MenuItem>
              ))}
            </TextField>
          </>
        )}
        <p>
          <b>{patches}</b> patches with papers and overprints, {strips} strips on{' '}
          {Math.ceil(strips / stripsPerPage)} {strips > stripsPerPage ? 'pages' : 'page'} A4
        </p>
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={!right || count + wanted === 0}>
            Make the chart
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}

function Swatches({
  colours,
}: {
  colours: readonly { readonly label: string; readonly lab: readonly number[] }[];
}) {
  return (
    <div className="swatch-row">
      {colours.slice(0, MOST_SHOWN).map(({ label, lab }, i) => (
        <div key={i} title={label}>
          <Swatch measured={lab} height={22} label={label} />
          <span className="small quiet">{label}</span>
        </div>
      ))}
      {colours.length > MOST_SHOWN && (
        <span className="quiet small">and {colours.length - MOST_SHOWN} more</span>
      )}
    </div>
  );
}
