'use client';

import { Autocomplete, Button, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import type { DensityStatus } from '@melto/core/density/density';
import type { PictureRow } from '@melto/services/house/pictures';
import { parseShifts } from '@melto/core/time/shifts';
import type { OwnHouse } from '@melto/services/house/ownHouse';
import { REMOVE_PICTURE, SET_LOGO } from '@/endpoints/conditions';
import { CHANGE_HOUSE } from '@/endpoints/house';
import { send } from '@/ui/api';
import { FileButton, PICTURE_FILES } from '@/ui/FileButton';
import { ChoiceIn, TextIn } from '@/ui/form/fields';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { useSending } from '@/ui/useSending';
import { usePutAway } from './usePutAway';

const DENSITY_WORDS: Readonly<Record<DensityStatus, string>> = {
  E: 'status E, graphic arts in Europe',
  T: 'status T, graphic arts in North America',
  A: 'status A, photographs',
  I: 'status I, narrow bands for process inks',
};

/** Name, person, time zone and logo of the house. */
export function HouseSurface({
  house,
  zones,
  logo,
}: {
  house: OwnHouse;
  zones: readonly string[];
  logo: PictureRow | undefined;
}) {
  const router = useRouter();
  const client = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const { sending, problem, run } = useSending();
  const form = useBodyForm(
    CHANGE_HOUSE.body,
    { ...house },
    ({ name, person, timeZone, units, densityStatus, shifts }) => ({
      ...{ name: name.trim(), person: person.trim(), timeZone, units, densityStatus },
      shifts: shifts.trim(),
    }),
    {
      also: ({ shifts }) =>
        parseShifts(shifts).ok ? {} : { shifts: 'clock times in the order of the day, as 06:00, 14:00' },
    },
  );
  const { ready } = form;
  const keep = async (): Promise<void> => {
    await send(CHANGE_HOUSE, { body: form.body() });
    await client.invalidateQueries();
    router.refresh();
    enqueueSnackbar('Kept.');
  };
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>House</h1>
        <p className="quiet">What was judged before keeps the names it was judged with.</p>
      </div>
      <form
        className="panel form"
        style={{ padding: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void run(keep);
        }}
      >
        <TextIn form={form} name="name" label="Name of the house" most={120} />
        <TextIn
          form={form}
          name="person"
          label="Who works here"
          help="On reports and slips, as who judged"
          most={120}
        />
        <Autocomplete
          options={zones}
          value={form.values.timeZone}
          disableClearable
          onChange={(_, chosen) => form.setValue('timeZone', chosen, { shouldValidate: true })}
          renderInput={(params) => (
            <TextField {...params} label="Time zone" helperText="In which all times are told, on paper too" />
          )}
        />
        <ChoiceIn
          form={form}
          name="units"
          label="Lengths and screens"
          choices={{ metric: 'mm, lines/cm', inches: 'inches, lines per inch' }}
        />
        <ChoiceIn
          form={form}
          name="densityStatus"
          label="Densities"
          help="In which patches are told; curves and limits are computed in status E"
          choices={DENSITY_WORDS}
        />
        <TextIn
          form={form}
          name="shifts"
          label="Shifts begin at"
          help="Runs on the press are told by shift too"
          most={60}
        />
        <div className="row">
          <Button type="submit" variant="contained" disabled={!ready || sending}>
            Keep it
          </Button>
          {problem !== undefined && (
            <span className="error" role="alert">
              {problem}
            </span>
          )}
        </div>
      </form>
      <Logo logo={logo} />
    </section>
  );
}

/** The picture in the head of the house's reports. */
function Logo({ logo }: { logo: PictureRow | undefined }) {
  const router = useRouter();
  const put = usePutAway();
  const { sending, problem, run } = useSending();
  return (
    <div className="panel" style={{ display: 'grid', gap: 12, justifyItems: 'start', maxWidth: 720 }}>
      <header>
        <h2>Logo</h2>
        <span className="quiet">in the head of reports</span>
      </header>
      {logo !== undefined && (
        <img
          src={`/api/pictures/${logo.id}/file`}
          alt={`Logo, ${logo.name}`}
          style={{ maxWidth: 300, maxHeight: 90 }}
        />
      )}
      <div className="row">
        <FileButton
          label={logo === undefined ? 'Choose a picture' : 'Choose another'}
          accept={PICTURE_FILES}
          disabled={sending}
          onFile={(file) =>
            void run(async () => {
              await send(SET_LOGO, { query: { name: file.name.slice(0, 200) }, body: file });
              router.refresh();
            })
          }
        />
        {logo !== undefined && (
          <Button
            size="small"
            onClick={() =>
              void put(
                (removed) => send(REMOVE_PICTURE, { params: { id: logo.id }, body: { removed } }),
                'Reports have no logo any more.',
              )
            }
          >
            Remove
          </Button>
        )}
        {problem !== undefined && (
          <span className="error" role="alert">
            {problem}
          </span>
        )}
      </div>
    </div>
  );
}
