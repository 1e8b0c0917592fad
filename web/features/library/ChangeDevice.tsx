'use client';

import { useRouter } from 'next/navigation';
import { DEVICE_BOUNDS } from '@melto/core/device/deviceFacts';
import { MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import { OWN_PAGE_MM, paperMm } from '@melto/core/charts/pageGeometry';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import type { LibraryDevice } from '@melto/services/house/library';
import { CHANGE_DEVICE } from '@/endpoints/conditions';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { ChoicesIn, TextIn } from '@/ui/form/fields';
import { listOf, toldList, toldNumber } from '@/ui/form/typed';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { numberOf } from '@/ui/numberOf';
import {
  formatLength,
  formatScreen,
  lengthText,
  lengthUnit,
  screenUnit,
  typedLength,
  typedScreen,
} from '@/ui/units';
import { CURVE_FORMAT_WORDS } from './factWords';

/** Renames a device, adds print modes, keeps what is known of it and what calibration it needs by itself. */
export function ChangeDevice({ device, onClose }: { device: LibraryDevice; onClose: () => void }) {
  const router = useRouter();
  const { facts, duty, own, inks } = device;
  const form = useBodyForm(
    CHANGE_DEVICE.body,
    {
      ...{ name: device.name, note: device.note, modes: device.modes.join(', ') },
      pages: (facts.pages ?? []).map(pageText).join(', '),
      width: facts.printedWidthMm === undefined ? '' : lengthText(facts.printedWidthMm),
      zones: textOf(facts.zones),
      screen: facts.screenPerCm === undefined ? '' : formatScreen(facts.screenPerCm),
      curveFormats: [...(facts.curveFormats ?? [])],
      duty: duty?.words ?? '',
      days: String(duty?.days ?? 7),
    },
    ({ name, note, modes, pages, width, zones, screen, curveFormats, duty: words, days }) => ({
      ...{ name: name.trim(), note },
      ...(own ? { modes: listOf(modes) } : {}),
      duty: words.trim() === '' ? null : { words: words.trim(), days: numberOf(days) },
      facts: {
        ...toldList('pages', listOf(pages).map(pageOf)),
        ...toldNumber('printedWidthMm', width, typedLength),
        ...toldNumber('zones', zones),
        ...toldNumber('screenPerCm', screen, typedScreen),
        ...toldList('curveFormats', curveFormats),
      },
    }),
    {
      fields: {
        'facts.pages': 'pages',
        'facts.printedWidthMm': 'width',
        'facts.zones': 'zones',
        'facts.screenPerCm': 'screen',
        'duty.days': 'days',
      },
      words: {
        pages: `Width x height in ${lengthUnit()}, ${range(OWN_PAGE_MM)} each, parted by commas`,
        width: range(DEVICE_BOUNDS.printedWidthMm),
        screen: `${formatScreen(DEVICE_BOUNDS.screenPerCm.least)} to ${formatScreen(DEVICE_BOUNDS.screenPerCm.most)}`,
        days: `1 to ${MOST_DUTY_DAYS}`,
      },
    },
  );
  return (
    <FormDialog
      title={`Change ${device.name}`}
      act="Keep it"
      ready={form.ready}
      onClose={onClose}
      onSubmit={async () => {
        await send(CHANGE_DEVICE, { params: { id: device.id }, body: form.body() });
        router.refresh();
        onClose();
      }}
    >
      <TextIn
        form={form}
        name="name"
        label="Name"
        help={`Its sheets keep the code ${device.code}`}
        most={80}
        first
      />
      {own && (
        <TextIn
          form={form}
          name="modes"
          label="Print modes"
          help="Parted by commas; those that conditions may use stay"
        />
      )}
      <TextIn
        form={form}
        name="pages"
        label="Pages of its own"
        help={`Width x height in ${lengthUnit()}, parted by commas, as ${pageText('610x914')}; they are offered beside A4, Letter and A3`}
      />
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextIn form={form} name="width" label={`Prints, ${lengthUnit()} wide`} sx={{ flex: 1 }} />
        {inks && <TextIn form={form} name="zones" label="Ink zones" sx={{ flex: 1 }} />}
        {inks && (
          <TextIn
            form={form}
            name="screen"
            label={`Screen, ${screenUnit()}`}
            help="Charts begin with patches that suit it"
            sx={{ flex: 1 }}
          />
        )}
      </div>
      {inks && (
        <ChoicesIn
          form={form}
          name="curveFormats"
          label="Its front end takes curves as"
          choices={CURVE_FORMAT_WORDS}
        />
      )}
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextIn
          form={form}
          name="duty"
          label="Its own calibration"
          help="What the device needs by itself, as front end calibration; none if empty. Where it is due it is ticked before anything prints."
          most={120}
          sx={{ flex: 1 }}
        />
        <TextIn
          form={form}
          name="days"
          label="every … days"
          disabled={form.values.duty.trim() === ''}
          sx={{ width: 110 }}
        />
      </div>
      <TextIn form={form} name="note" label="Note" lines={2} most={400} />
    </FormDialog>
  );
}

function textOf(value: number | undefined): string {
  return value === undefined ? '' : String(value);
}

const range = ({ least, most }: { readonly least: number; readonly most: number }): string =>
  `${formatLength(least)} to ${formatLength(most)}`;

/** A page as people type it, `610 x 914` or `610 × 914`, in the house's unit. */
function pageOf(text: string): PaperName {
  return text
    .toLowerCase()
    .split(/\s*(?:x|×|by)\s*/)
    .map((side) => String(typedLength(side)))
    .join('x') as PaperName;
}

function pageText(page: PaperName): string {
  const { width, height } = paperMm(page);
  return `${lengthText(width)} x ${lengthText(height)}`;
}
