'use client';

import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import type { LibraryDevice, LibraryStock } from '@melto/services/house/library';
import type { OwnDeviceKind } from '@melto/services/house/ownDevices';
import { NEW_DEVICE, NEW_STOCK } from '@/endpoints/conditions';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { ChoiceIn, TextIn } from '@/ui/form/fields';
import { listOf } from '@/ui/form/typed';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { numberOf } from '@/ui/numberOf';
import { InkSetIn } from './InkSetIn';

export const OWN_DEVICE_WORDS: Readonly<Record<OwnDeviceKind, string>> = {
  'rgb-driver': 'Printer driver that takes RGB',
  'cmyk-front-end': 'CMYK front end',
  press: 'Offset or other press, CMYK',
  'ink-front-end': 'Front end of more or other inks',
};

/** Makes a device of the house's own. */
export function NewDeviceDialog({
  like,
  onMade,
  onClose,
}: {
  /** One of the house's own that it begins like. */
  like?: Pick<LibraryDevice, 'name' | 'ownKind' | 'inkNames' | 'inkSet' | 'modes' | 'facts'>;
  onMade: (id: number) => void;
  onClose: () => void;
}) {
  const router = useRouter();
  const form = useBodyForm(
    NEW_DEVICE.body,
    {
      ...{ name: '', kind: (like?.ownKind ?? '') as OwnDeviceKind | '' },
      ...{ inkSet: like?.inkSet ?? '', modes: like?.modes.join(', ') ?? '' },
      inks: like?.ownKind === 'ink-front-end' ? like.inkNames.join(', ') : '',
    },
    ({ name, kind, inks, inkSet, modes }) => ({
      name: name.trim(),
      kind: kind === '' ? undefined : kind,
      ...(kind === 'ink-front-end' ? { inks: listOf(inks) } : {}),
      inkSet: inkSet.trim(),
      modes: listOf(modes),
      ...(like === undefined ? {} : { facts: like.facts }),
    }),
  );
  const make = async (): Promise<void> => {
    const { id } = await send(NEW_DEVICE, { body: form.body() });
    onMade(id);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title={like === undefined ? 'A device of your own' : `Another like ${like.name}`}
      act="Add the device"
      ready={form.ready}
      onSubmit={make}
      onClose={onClose}
    >
      <TextIn form={form} name="name" label="Name" most={80} first />
      <ChoiceIn form={form} name="kind" label="Takes" choices={OWN_DEVICE_WORDS} />
      {form.values.kind === 'ink-front-end' && (
        <TextIn
          form={form}
          name="inks"
          label="Inks"
          help="In the order of its channels, as C, M, Y, K, O, G; the black one is K"
          most={100}
        />
      )}
      <InkSetIn form={form} name="inkSet" />
      <TextIn
        form={form}
        name="modes"
        label="Print modes"
        help="As its driver names them, parted by commas"
        most={600}
      />
    </FormDialog>
  );
}

const FINISHES = ['matt', 'semi-matt', 'gloss'] as const;
/** How the surface of a stock looks. */
export type Finish = (typeof FINISHES)[number];
const FINISH_WORDS = Object.fromEntries(FINISHES.map((value) => [value, value]));

/** The surface of a stock; none is taken for granted. */
export function FinishField({
  finish,
  width,
  onFinish,
}: {
  finish: Finish | undefined;
  /** In px, where it stands in a row. */
  width?: number;
  onFinish: (finish: Finish) => void;
}) {
  return (
    <TextField
      select
      label="Surface"
      value={finish ?? ''}
      onChange={(event) => onFinish(event.target.value as Finish)}
      sx={{ width }}
    >
      {FINISHES.map((value) => (
        <MenuItem key={value} value={value}>
          {value}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Makes a stock of the house's own. */
export function NewStockDialog({
  like,
  onMade,
  onClose,
}: {
  /** One that it begins like. */
  like?: Pick<LibraryStock, 'name' | 'finish' | 'restMinutes' | 'facts'>;
  onMade: (id: number) => void;
  onClose: () => void;
}) {
  const router = useRouter();
  const form = useBodyForm(
    NEW_STOCK.body,
    { name: '', finish: (like?.finish ?? '') as Finish | '', rest: String(like?.restMinutes ?? 60) },
    ({ name, finish, rest }) => ({
      name: name.trim(),
      finish: finish === '' ? undefined : finish,
      restMinutes: numberOf(rest),
      ...(like === undefined ? {} : { facts: like.facts }),
    }),
    { fields: { restMinutes: 'rest' } },
  );
  const make = async (): Promise<void> => {
    const { id } = await send(NEW_STOCK, { body: form.body() });
    onMade(id);
    router.refresh();
    onClose();
  };
  return (
    <FormDialog
      title={like === undefined ? 'A stock of your own' : `Another like ${like.name}`}
      act="Add the stock"
      ready={form.ready}
      onSubmit={make}
      onClose={onClose}
    >
      <TextIn form={form} name="name" label="Name" help="As on its label" most={80} first />
      <ChoiceIn form={form} name="finish" label="Surface" choices={FINISH_WORDS} />
      <TextIn
        form={form}
        name="rest"
        label="Minutes a print rests before it is read"
        help="Toner rests minutes, pigment ink hours"
        most={6}
      />
    </FormDialog>
  );
}
