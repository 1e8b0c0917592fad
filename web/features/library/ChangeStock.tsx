'use client';

import { useRouter } from 'next/navigation';
import { BACKING_WORDS, BRIGHTENER_WORDS } from '@melto/core/stock/stockFacts';
import type { Backing, Brightener } from '@melto/core/stock/stockFacts';
import type { LibraryStock } from '@melto/services/house/library';
import { CHANGE_STOCK } from '@/endpoints/conditions';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { ChoiceIn, TextIn } from '@/ui/form/fields';
import { toldNumber } from '@/ui/form/typed';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { numberOf } from '@/ui/numberOf';

const UNTOLD = { '': 'not told' };

/** Renames a stock, and keeps what is known of it. */
export function ChangeStock({ stock, onClose }: { stock: LibraryStock; onClose: () => void }) {
  const router = useRouter();
  const { name, boxLabel, note, restMinutes, facts } = stock;
  const form = useBodyForm(
    CHANGE_STOCK.body,
    {
      ...{ name, boxLabel, note, rest: String(restMinutes), side: facts.side ?? '' },
      weight: facts.weightGsm === undefined ? '' : String(facts.weightGsm),
      price: facts.pricePerM2 === undefined ? '' : String(facts.pricePerM2),
      backing: (facts.backing ?? '') as Backing | '',
      brightener: (facts.brightener ?? '') as Brightener | '',
    },
    (values) => ({
      ...{ name: values.name.trim(), boxLabel: values.boxLabel, note: values.note },
      restMinutes: numberOf(values.rest),
      facts: {
        ...toldNumber('weightGsm', values.weight),
        ...toldNumber('pricePerM2', values.price),
        ...(values.side.trim() === '' ? {} : { side: values.side.trim() }),
        ...(values.backing === '' ? {} : { backing: values.backing }),
        ...(values.brightener === '' ? {} : { brightener: values.brightener }),
      },
    }),
    {
      fields: {
        restMinutes: 'rest',
        'facts.weightGsm': 'weight',
        'facts.pricePerM2': 'price',
        'facts.side': 'side',
      },
    },
  );
  return (
    <FormDialog
      title={`Change ${name}`}
      act="Keep it"
      ready={form.ready}
      onClose={onClose}
      onSubmit={async () => {
        await send(CHANGE_STOCK, { params: { id: stock.id }, body: form.body() });
        router.refresh();
        onClose();
      }}
    >
      <TextIn form={form} name="name" label="Name" most={80} first />
      <TextIn form={form} name="boxLabel" label="What the label on the box says" most={200} />
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextIn form={form} name="weight" label="Weight, g/m²" sx={{ width: 120 }} />
        <TextIn form={form} name="price" label="Price of a m²" sx={{ width: 120 }} />
        <TextIn
          form={form}
          name="side"
          label="Side that is printed, and how it is fed"
          help="Shown at each print"
          most={80}
          sx={{ flex: 1 }}
        />
      </div>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <ChoiceIn
          form={form}
          name="brightener"
          label="Brightener, by ISO 15397"
          choices={{ ...UNTOLD, ...BRIGHTENER_WORDS }}
          sx={{ flex: 1 }}
        />
        <ChoiceIn
          form={form}
          name="backing"
          label="Measured over"
          choices={{ ...UNTOLD, ...BACKING_WORDS }}
          sx={{ flex: 1 }}
        />
      </div>
      <TextIn
        form={form}
        name="rest"
        label="Minutes a print rests before it is read"
        help="Sheets that rest now keep the time they were given"
      />
      <TextIn form={form} name="note" label="Note" lines={2} most={400} />
    </FormDialog>
  );
}
