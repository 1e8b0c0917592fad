'use client';

import { REFINEMENT } from '@/endpoints/charts';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import { useChartForm } from '@/features/charts/ChartFormFields';
import { effortOf } from '@/features/charts/effort';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { mainColours, pictureHistogram } from '@melto/core/refine/mainColours';
import type { PictureColour } from '@melto/core/refine/mainColours';
import { tiePatches } from '@melto/core/refine/refinementPatches';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { problemWords, send } from '@/ui/api';
import { ColourListField, SwatchRow } from '@/ui/ColourListField';
import { FormDialog } from '@/ui/FormDialog';
import { pixelsOf } from './build/pixelsOf';

const PICTURE_COLOURS = 16;

/** One more sheet: where the model is least sure, the colours of a list, the main colours of a picture. */
export function RefineDialog({
  condition,
  readingIds,
  hasProfile,
  onClose,
}: {
  condition: ConditionRow;
  readingIds: readonly number[];
  hasProfile: boolean;
  onClose: () => void;
}) {
  const [unsure, setUnsure] = useState(hasProfile ? '60' : '400');
  const [readings, setReadings] = useState(4);
  const [colours, setColours] = useState<readonly NamedColour[]>([]);
  const [picture, setPicture] = useState<readonly PictureColour[]>([]);
  const [problem, setProblem] = useState<string>();
  const image = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  // Colours that come out exactly are of RGB and CMYK so far.
  const exact = hasProfile && channelCount(condition.process) <= 4;
  const count = Number(unsure);
  const right = Number.isInteger(count) && count >= 0 && count <= 800;
  const wanted = colours.length + picture.length;
  const patches = tiePatches(condition.process) + (right ? count : 0) + wanted * readings;
  const { form, fields } = useChartForm(condition.id);
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
    if (form === undefined) return;
    await send(REFINEMENT, {
      params: { id: condition.id },
      body: {
        ...form,
        readingIds,
        unsure: count,
        colours,
        picture: picture.map(({ lab }) => ({ lab })),
        readings,
      },
    });
    enqueueSnackbar('The chart is being made; it appears under Charts.');
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title={hasProfile ? 'Refine the profile' : 'A second chart'}
      act="Make the chart"
      ready={right && count + wanted > 0 && form !== undefined}
      problem={problem}
      onSubmit={submit}
      onClose={onClose}
    >
      <p className="quiet">
        One more sheet, printed{' '}
        {drivenByInks(condition.process) ? 'through the same curves' : 'as the first one was'}. Its reading is
        added to those there are when the profile is built again.
      </p>
      <TextField
        label="Patches where the model is least sure"
        value={unsure}
        error={!right}
        onChange={(event) => setUnsure(event.target.value)}
        helperText={right ? 'Each is chosen for what its reading tells.' : 'A whole number from 0 to 800.'}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
      {exact && (
        <>
          <ColourListField
            name="Colour list"
            colours={colours}
            onColours={setColours}
            onProblem={setProblem}
          />
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
            <SwatchRow
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
        <b>{patches}</b> patches with papers and {drivenByInks(condition.process) ? 'overprints' : 'corners'},{' '}
        {form === undefined ? '' : effortOf(patches, form)}
      </p>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {fields}
      </div>
    </FormDialog>
  );
}
