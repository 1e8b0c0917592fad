'use client';

import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LibraryInkSet } from '@melto/services/house/inkSets';
import { CHANGE_INK_SET, NEW_INK_SET, PUT_INK_SET_AWAY } from '@/endpoints/conditions';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { ChoiceIn, TextIn } from '@/ui/form/fields';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { May } from '@/ui/May';
import { numberOf } from '@/ui/numberOf';
import { INK_KIND_WORDS } from './factWords';
import { LibraryTable } from './LibraryTable';
import { usePutAway } from './usePutAway';

/** Ink sets of the house: added, renamed where they are used, put away. */
export function InkSetsSurface({ inkSets }: { inkSets: readonly LibraryInkSet[] }) {
  const [changing, setChanging] = useState<Pick<InkSetDialogProps, 'inkSet' | 'like'>>();
  const put = usePutAway();
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Ink sets</h1>
        <p className="quiet">A new name is no new ink: devices and conditions follow it.</p>
        <May act={NEW_INK_SET}>
          <Button variant="contained" onClick={() => setChanging({})}>
            New ink set
          </Button>
        </May>
      </div>
      <LibraryTable
        calls={CHANGE_INK_SET}
        items={inkSets}
        what="ink set"
        words={({ name, kind, note }) => [name, kind === '' ? '' : INK_KIND_WORDS[kind], note].join(' ')}
        columns={[
          { name: 'Made of', cell: ({ kind }) => (kind === '' ? '' : INK_KIND_WORDS[kind]) },
          { name: 'Rests, min', numeric: true, cell: ({ restMinutes }) => restMinutes },
          {
            name: 'Price a litre',
            cell: ({ costs }) => costs.map(({ pricePerLitre }) => pricePerLitre).join(' '),
          },
          { name: 'Conditions', numeric: true, cell: ({ uses }) => uses },
          { name: 'Note', cell: ({ note }) => note },
        ]}
        onChange={(inkSet) => setChanging({ inkSet })}
        onCopy={(like) => () => setChanging({ like })}
        onAway={({ id, name, away }) =>
          void put(
            (now) => send(PUT_INK_SET_AWAY, { params: { id }, body: { away: now } }),
            away ? undefined : `${name} is put away; its conditions keep it.`,
          )
        }
      />
      {changing !== undefined && <InkSetDialog {...changing} onClose={() => setChanging(undefined)} />}
    </section>
  );
}

interface InkSetDialogProps {
  /** Undefined for a new one, which may begin like another. */
  readonly inkSet?: LibraryInkSet;
  readonly like?: LibraryInkSet;
  readonly onClose: () => void;
}

function InkSetDialog({ inkSet, like = inkSet, onClose }: InkSetDialogProps) {
  const router = useRouter();
  const form = useBodyForm(
    NEW_INK_SET.body,
    {
      ...{ name: inkSet?.name ?? '', kind: like?.kind ?? '', note: like?.note ?? '' },
      rest: like?.restMinutes == null ? '' : String(like.restMinutes),
      prices: (like?.costs ?? []).map(({ pricePerLitre }) => pricePerLitre).join(' '),
      laydowns: (like?.costs ?? []).map(({ millilitresPerM2 }) => millilitresPerM2).join(' '),
    },
    ({ name, kind, rest, note, prices, laydowns }) => ({
      ...{ name: name.trim(), kind, note },
      restMinutes: rest.trim() === '' ? null : numberOf(rest),
      costs: costsFrom(prices, laydowns),
    }),
    {
      fields: { restMinutes: 'rest', costs: 'prices' },
      words: { prices: 'Numbers from 0 to 10,000, and from 0 to 100 below' },
      also: ({ prices, laydowns }) => {
        const [a, b] = [numbersOf(prices).length, numbersOf(laydowns).length];
        return { laydowns: a === b ? undefined : `As many as prices: ${a}` };
      },
    },
  );
  return (
    <FormDialog
      title={inkSet === undefined ? 'An ink set' : `Change ${inkSet.name}`}
      act={inkSet === undefined ? 'Add the ink set' : 'Keep it'}
      ready={form.ready}
      onClose={onClose}
      onSubmit={async () => {
        const body = form.body();
        if (inkSet === undefined) await send(NEW_INK_SET, { body });
        else await send(CHANGE_INK_SET, { params: { id: inkSet.id }, body });
        router.refresh();
        onClose();
      }}
    >
      <TextIn form={form} name="name" label="Name" help="As on its cartridges or tins" most={80} first />
      <ChoiceIn form={form} name="kind" label="Made of" choices={{ '': 'not told', ...INK_KIND_WORDS }} />
      <TextIn
        form={form}
        name="rest"
        label="Minutes these inks dry on any stock"
        help="A print rests as long as its inks or its stock say, whichever is longer; empty where the stock alone says"
      />
      <TextIn
        form={form}
        name="prices"
        label="Price of a litre of each ink"
        help="In the order of the channels, with blanks between: C M Y K"
        most={120}
      />
      <TextIn
        form={form}
        name="laydowns"
        label="Millilitres of each on a square metre in full"
        help="Empty where nobody has weighed it; then no cost is told"
        most={120}
      />
      <TextIn form={form} name="note" label="Note" lines={2} most={400} />
    </FormDialog>
  );
}

/** Numbers with blanks or semicolons between them. */
const numbersOf = (text: string): number[] =>
  text
    .split(/[\s;]+/)
    .filter((word) => word !== '')
    .map(numberOf);

function costsFrom(prices: string, laydowns: string): LibraryInkSet['costs'] {
  const amounts = numbersOf(laydowns);
  return numbersOf(prices).map((pricePerLitre, i) => ({ pricePerLitre, millilitresPerM2: amounts[i] ?? 0 }));
}
