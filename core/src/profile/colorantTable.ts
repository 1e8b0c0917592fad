import { inkName } from '../device/inkNames.ts';
import type { Process } from '../device/process.ts';
import type { IccTag } from '../icc/iccTypes.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { encodeLab } from './profileTables.ts';
import type { IccVersion } from './profileTables.ts';

/** The colorant table of a profile: the inks by their names in the order of the channels, with the Lab of their solids. */
export function colorantTable(
  { channels }: Process,
  { points, lab }: ForwardGrid,
  version: IccVersion,
): IccTag {
  return {
    type: 'clrt',
    colorants: channels.map(({ name }, channel) => {
      const node = (points - 1) * points ** (channels.length - 1 - channel);
      const [l, a, b] = encodeLab(lab.subarray(3 * node, 3 * node + 3), version);
      return { name: inkName(name), pcs: [l, a, b] };
    }),
  };
}
