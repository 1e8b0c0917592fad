import { csv } from '@/ui/Figure';
import type { Compared } from './comparison';
import type { MeasuredColour } from './useMeasured';

/** The list with what each colour is compared with, to open in a spreadsheet. */
export function measuredCsv(
  colours: readonly MeasuredColour[],
  compared: (one: MeasuredColour) => Compared,
): Blob {
  const text = csv({
    head: ['name', 'L*', 'a*', 'b*', 'from', 'compared with', 'ΔE00'],
    rows: colours.map((one) => {
      const { to, deltaE } = compared(one);
      return [one.name, ...one.lab.map((value) => value.toFixed(2)), one.from, to, deltaE?.toFixed(2) ?? ''];
    }),
  });
  return new Blob([text], { type: 'text/csv' });
}
