import { nearCmyk } from '@melto/core/charts/expectedColours';
import { inkName } from '@melto/core/device/inkNames';
import { CMYK, drivenByLight, sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { PageTag } from './chartPage.ts';
import { PDFName } from 'pdf-lib';
import type { PDFContext, PDFRef } from 'pdf-lib';
import type { NamedInk } from './chartPage.ts';

/** What a file says of the inks of a device: those beyond what it has colours of its own for are named. */
export function processTag(process: Process): PageTag | undefined {
  return drivenByLight(process) || sameProcess(process, CMYK)
    ? undefined
    : { inks: process.channels.map(({ name }) => ({ name: inkName(name), cmyk: nearCmyk(name) })) };
}

/**
 * A DeviceN colour space (ISO 32000-1, 8.6.6.5) of inks by their names. What does not know them mixes their process inks:
 * sums of tints, at most 1, by a function of type 4.
 */
export function namedInksSpace(context: PDFContext, inks: readonly NamedInk[]): PDFRef {
  const unit = [0, 1];
  const transform = context.register(
    context.flateStream(tintProgram(inks), {
      FunctionType: 4,
      Domain: inks.flatMap(() => unit),
      Range: [0, 1, 2, 3].flatMap(() => unit),
    }),
  );
  const names = context.obj(inks.map(({ name }) => PDFName.of(name)));
  return context.register(context.obj([PDFName.of('DeviceN'), names, PDFName.of('DeviceCMYK'), transform]));
}

/** PostScript that takes a tint of each ink and leaves C, M, Y, K. */
export function tintProgram(inks: readonly NamedInk[]): string {
  const count = inks.length;
  const channels = [0, 1, 2, 3].map((channel) => {
    // On the stack: the tints, the channels that are done, and the sum on top.
    const terms = inks.map(
      ({ cmyk }, ink) => `${channel + 1 + (count - 1 - ink)} index ${cmyk[channel].toFixed(4)} mul add`,
    );
    return `0 ${terms.join(' ')} dup 1 gt {pop 1} if`;
  });
  return `{${channels.join(' ')} ${count + 4} 4 roll ${inks.map(() => 'pop').join(' ')}}`;
}
