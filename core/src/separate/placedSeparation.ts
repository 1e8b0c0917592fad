import { inkModelLab } from '../characterise/inkModel.ts';
import type { FittedInks } from '../characterise/inkModel.ts';
import { baseInks } from '../device/baseInks.ts';
import type { Process } from '../device/process.ts';
import { extraInksOf } from './extraInks.ts';
import type { ExtraInks, SameHue } from './extraInks.ts';
import type { Separation } from './separation.ts';

/** How far extra inks take the place of overprints where it is not said. */
export const USUAL_REPLACE = 0.7;

/** Patches that an ink has to share with each of its neighbours, for a separation to mix them. */
const LEAST_TOGETHER = 6;

/** Why the readings of a device do not carry a separation, in a sentence; undefined where they do. */
export function separationIssue(model: FittedInks, process: Process): string | undefined {
  if (model.inks === 4) return undefined;
  if (baseInks(process) === undefined)
    return `${process.name} has not all of C, M, Y and K, which a separation is made of`;
  const placed = extraInksOfModel(model, process, USUAL_REPLACE);
  const name = (ink: number): string => process.channels[ink].name;
  if ('as' in placed)
    return `${name(placed.ink)} has the hue of ${name(placed.as)}: join the two as light and full ink first`;
  const { device } = model.patches;
  const together = (one: number, other: number): number => {
    let count = 0;
    for (let at = 0; at < device.length; at += model.inks)
      if (device[at + one] > 0 && device[at + other] > 0) count++;
    return count;
  };
  for (const { ink, between } of placed.inks)
    for (const other of between)
      if (together(ink, other) < LEAST_TOGETHER)
        return `${name(ink)} has its place between ${between.map(name).join(' and ')} by its colour, and hardly a patch has it beside ${name(other)}: the chart is of other inks`;
  return undefined;
}

/**
 * A separation with its extra inks in their places; that of four inks as it is.
 * @throws RangeError where `separationIssue` tells why there is none.
 */
export function placedSeparation(model: FittedInks, process: Process, separation: Separation): Separation {
  if (model.inks === 4) return separation;
  const issue = separationIssue(model, process);
  const extra =
    issue === undefined ? extraInksOfModel(model, process, separation.replace ?? USUAL_REPLACE) : undefined;
  if (extra === undefined || 'as' in extra) throw new RangeError(issue);
  return { ...separation, extra };
}

/** Where the extra inks of a device take part, by its model. */
function extraInksOfModel(model: FittedInks, process: Process, replace: number): ExtraInks | SameHue {
  const roles = baseInks(process);
  if (roles === undefined) throw new RangeError(`${process.name} has not all of C, M, Y and K`);
  const labOf = (...full: number[]): readonly number[] => {
    const device = new Float64Array(model.inks);
    for (const ink of full) device[ink] = 1;
    const lab = new Float64Array(3);
    inkModelLab(model, device, lab);
    return [...lab];
  };
  const paper = labOf();
  const over = (lab: readonly number[]): number[] =>
    lab.map((value, i) => (i === 0 ? value : value - paper[i]));
  return extraInksOf(
    roles.base,
    roles.black,
    model.inks,
    { solid: (ink) => over(labOf(ink)), overprint: (one, other) => over(labOf(one, other)) },
    replace,
  );
}
