import { inkModelLab } from '../characterise/inkModel.ts';
import type { FittedInks } from '../characterise/inkModel.ts';
import type { Process } from '../device/process.ts';
import { placeInksByModel } from './placedInks.ts';
import type { PlacedInks } from './placedInks.ts';
import type { Separation } from './separation.ts';

/** How far extra inks take the place of overprints where it is not said. */
export const USUAL_REPLACE = 0.7;

/** Patches that an ink has to share with each of its neighbours, for a separation to mix them. */
const LEAST_TOGETHER = 6;

/** Where the extra inks take part by a model, if its readings carry a separation. */
function placedByModel(model: FittedInks, process: Process, replace: number): PlacedInks {
  const { inks } = model;
  const placed = placeInksByModel(process, (device, out) => inkModelLab(model, device, out), replace);
  if ('issue' in placed) return placed;
  const name = (ink: number): string => process.channels[ink].name;
  const { device } = model.patches;
  const together = (one: number, other: number): number => {
    let count = 0;
    for (let at = 0; at < device.length; at += inks)
      if (device[at + one] > 0 && device[at + other] > 0) count++;
    return count;
  };
  for (const { ink, between } of placed.extra.inks)
    for (const other of between)
      if (together(ink, other) < LEAST_TOGETHER)
        return {
          issue: `${name(ink)} has its place between ${between.map(name).join(' and ')} by its colour, and hardly a patch has it beside ${name(other)}: the chart is of other inks`,
        };
  return placed;
}

/** Why the readings of a device do not carry a separation, in a sentence; undefined where they do. */
export function separationIssue(model: FittedInks, process: Process): string | undefined {
  if (model.inks === 4) return undefined;
  const placed = placedByModel(model, process, USUAL_REPLACE);
  return 'issue' in placed ? placed.issue : undefined;
}

/**
 * A separation with its extra inks in their places; that of four inks as it is.
 * @throws RangeError where `separationIssue` tells why there is none.
 */
export function placedSeparation(model: FittedInks, process: Process, separation: Separation): Separation {
  if (model.inks === 4) return separation;
  const placed = placedByModel(model, process, separation.replace ?? USUAL_REPLACE);
  if ('issue' in placed) throw new RangeError(placed.issue);
  return { ...separation, extra: placed.extra };
}
