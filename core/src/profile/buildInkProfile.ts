import { inkModelXyz } from '../characterise/inkModel.ts';
import type { InkModel } from '../characterise/inkModel.ts';
import { channelCount, CMYK } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import type { IccTag } from '../icc/iccTypes.ts';
import type { Separation } from '../separate/separation.ts';
import type { BuildProgress, BuiltProfile, TableSize } from './buildRgbProfile.ts';
import { anchorForward, anchorInverse, inverseAt } from './anchorTables.ts';
import { buildForwardGrid } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { inkBoundary, workIntent } from './inkIntents.ts';
import type { IntentTables, IntentTask } from './inkIntents.ts';
import { GAMUT_FULL_SCALE, GAMUT_TOLERANCE } from './intents.ts';
import { darkestNeutral, invertInks } from './invertInks.ts';
import { COLORIMETRIC_AXES, MAPPED_AXES } from './labAxis.ts';
import { placedSeparation } from '../separate/placedSeparation.ts';
import { manyInkGrid, manyInkPoints, seenPoints } from './manyInkGrid.ts';
import { colorantTable } from './colorantTable.ts';
import { relativeModelLab } from './meetModel.ts';
import { outputProfile } from './outputProfile.ts';
import type { OutputProfileOptions } from './outputProfile.ts';
import { forwardTag, inverseTag, quantiseLab } from './profileTables.ts';

export interface InkProfileOptions extends OutputProfileOptions {
  readonly tableSize: TableSize;
  readonly separation: Separation;
  /** The channels of the device; CMYK where it is not said. */
  readonly process?: Process;
  /** Colours that must come out exactly, media-relative Lab, row-major × 3: a refinement's. */
  readonly anchors?: Float64Array;
}

const SIZES: Readonly<Record<TableSize, { forward: number; inverse: number }>> = {
  small: { forward: 11, inverse: 17 },
  normal: { forward: 17, inverse: 33 },
  large: { forward: 21, inverse: 49 },
};
const CHUNK = 4096;
const ANCHOR_ROUNDS = 2;
/** ΔE*ab from the nearest colour that prints, within which a wanted colour can be met. */
const IN_GAMUT = 0.5;

/** Builds an output profile of inks with all intents from a fitted model. */
export function buildInkProfile(
  model: InkModel,
  options: InkProfileOptions,
  onProgress: BuildProgress = () => {},
): BuiltProfile {
  const task = begin(model, options, onProgress);
  const worked = (
    intent: Intent,
    forward: ForwardGrid,
    from: number,
    shared: Pick<IntentTask, 'colorimetric' | 'boundary'> = {},
  ): IntentTables => {
    onProgress(from, WORDS[intent]);
    return workIntent({ ...task, forward, intent, ...shared, ...exactly(model, intent) }, (f) =>
      onProgress(from + 0.2 * f, WORDS[intent]),
    );
  };
  const relative = worked('relative', task.forward, 0.35);
  const forward = anchored(model, options, task, relative);
  const shared = {
    colorimetric: model.inks > 4 ? relative.device : undefined,
    boundary: inkBoundary(forward, task.separation),
  };
  const perceptual = worked('perceptual', forward, 0.56, shared);
  const saturation = worked('saturation', forward, 0.78, shared);
  onProgress(1, 'Writing');
  return finish(options, task, forward, { relative, perceptual, saturation });
}

/** Works one intent out somewhere else. */
export type WorkElsewhere = (task: IntentTask) => Promise<IntentTables>;

/** The same profile, its intents worked out side by side. */
export async function buildInkProfileOn(
  work: WorkElsewhere,
  model: InkModel,
  options: InkProfileOptions,
  onProgress: BuildProgress = () => {},
): Promise<BuiltProfile> {
  const task = begin(model, options, onProgress);
  let done = 0.35;
  onProgress(done, WORDS.relative);
  const worked = async (
    intent: Intent,
    forward: ForwardGrid,
    shared: Pick<IntentTask, 'colorimetric' | 'boundary'> = {},
  ): Promise<IntentTables> => {
    const tables = await work({ ...task, forward, intent, ...shared, ...exactly(model, intent) });
    done += 0.2;
    onProgress(done, WORDS[intent]);
    return tables;
  };
  const mapped = (
    forward: ForwardGrid,
    shared?: Pick<IntentTask, 'colorimetric' | 'boundary'>,
  ): Promise<readonly IntentTables[]> =>
    Promise.all([worked('perceptual', forward, shared), worked('saturation', forward, shared)]);
  const first = worked('relative', task.forward);
  // Anchors change the forward table once it is known where the colorimetric one puts them; of more than four inks the
  // mapped intents take the mixtures that it found.
  const several = model.inks > 4;
  const together = options.anchors === undefined && !several ? mapped(task.forward) : undefined;
  // A failure of either is told once, by the one that is waited for.
  together?.catch(() => {});
  // Of many inks it takes seconds, which this thread has while it waits.
  const ahead =
    several && options.anchors === undefined ? inkBoundary(task.forward, task.separation) : undefined;
  const relative = await first;
  const forward = anchored(model, options, task, relative);
  const shared = several ? { colorimetric: relative.device, boundary: ahead } : {};
  const [perceptual, saturation] = await (together ?? mapped(forward, shared));
  onProgress(1, 'Writing');
  return finish(options, task, forward, { relative, perceptual, saturation });
}

/** The model, for a task that needs more than the table of it. */
function exactly({ inks, physics, residual }: InkModel, intent: Intent): Pick<IntentTask, 'model'> {
  return inks > 4 && intent === 'relative' ? { model: { inks, physics, residual } } : {};
}

type Intent = IntentTask['intent'];
type Begun = Omit<IntentTask, 'intent'>;

const WORDS: Readonly<Record<Intent, string>> = {
  relative: 'Separating for the colorimetric intent',
  perceptual: 'Mapping the perceptual intent',
  saturation: 'Mapping the saturation intent',
};

/** The forward table, and what all intents take. */
function begin(
  model: InkModel,
  { tableSize, version, separation: asked, process = CMYK }: InkProfileOptions,
  onProgress: BuildProgress,
): Begun {
  const { forward: forwardPoints, inverse: points } = SIZES[tableSize];
  const words = 'Filling the forward table';
  const filling = (fraction: number): void => onProgress(0.35 * fraction, words);
  filling(0);
  if (channelCount(process) !== model.inks)
    throw new RangeError(`a model of ${model.inks} inks for ${process.name}`);
  if (asked.inkLimits.length !== model.inks)
    throw new RangeError(`limits of ${asked.inkLimits.length} inks for a table of ${model.inks}`);
  if (model.inks === 4) {
    const forward = forwardTable(model, forwardPoints, version, filling);
    return { forward, separation: asked, version, points, darkest: darkestNeutral(forward, asked) };
  }
  const separation = placedSeparation(model, process, asked);
  const grid = manyInkGrid(model, manyInkPoints(model.inks, tableSize), separation.extra, filling);
  const forward = { ...grid, lab: quantiseLab(grid.lab, version) };
  const coarse = manyInkGrid(model, seenPoints(model.inks), separation.extra);
  return { forward, coarse, separation, version, points, darkest: darkestNeutral(forward, separation) };
}

function anchored(
  model: InkModel,
  options: InkProfileOptions,
  { forward, points }: Begun,
  { device }: IntentTables,
): ForwardGrid {
  return options.anchors === undefined
    ? forward
    : anchorTables(model, forward, device, points, options.anchors, options);
}

function finish(
  options: InkProfileOptions,
  { version, points, separation, coarse }: Begun,
  forward: ForwardGrid,
  { relative, ...mapped }: Readonly<Record<Intent, IntentTables>>,
): BuiltProfile {
  const gamut = relative.distance.map((distance) =>
    distance <= GAMUT_TOLERANCE ? 0 : Math.min(1, distance / GAMUT_FULL_SCALE),
  );
  const inks = forward.channels;
  const tables = new Map<string, IccTag>();
  for (const [number, { seen, device }] of [
    [0, mapped.perceptual],
    [2, mapped.saturation],
  ] as const) {
    tables.set(`A2B${number}`, forwardTag({ ...(coarse ?? forward), lab: seen }, version));
    tables.set(`B2A${number}`, inverseTag(inks, points, device, version, MAPPED_AXES));
  }
  tables.set('A2B1', forwardTag(forward, version));
  tables.set('B2A1', inverseTag(inks, points, relative.device, version, COLORIMETRIC_AXES));
  tables.set('gamt', inverseTag(1, points, gamut, version, COLORIMETRIC_AXES));
  if (inks === 4) return { forward, separation, profile: outputProfile(options, 'CMYK', tables) };
  tables.set('clrt', colorantTable(options.process ?? CMYK, forward, version));
  return {
    forward,
    separation,
    profile: outputProfile(options, `${inks.toString(16).toUpperCase()}CLR`, tables),
  };
}

function forwardTable(
  model: InkModel,
  points: number,
  version: 2 | 4,
  onProgress: (fraction: number) => void,
): ForwardGrid {
  const paper = new Float64Array(3);
  inkModelXyz(model, [0, 0, 0, 0], paper);
  const grid = buildForwardGrid(
    4,
    points,
    (device, out) => {
      const rows = device.length / 4;
      for (let from = 0; from < rows; from += CHUNK) {
        const to = Math.min(rows, from + CHUNK);
        inkModelXyz(model, device.subarray(4 * from, 4 * to), out.subarray(3 * from, 3 * to));
        onProgress(to / rows);
      }
    },
    [paper[0], paper[1], paper[2]],
  );
  return { ...grid, lab: quantiseLab(grid.lab, version) };
}

/**
 * Makes both tables agree with the model at the anchors: the forward one where the inverse one puts them, then the
 * inverse one to it.
 * @param inverse node × 4, changed in place.
 * @param wanted those out of gamut are left as they are.
 */
function anchorTables(
  model: InkModel,
  plain: ForwardGrid,
  inverse: Float64Array,
  points: number,
  wanted: Float64Array,
  { separation, version }: InkProfileOptions,
): ForwardGrid {
  const { distance } = invertInks(plain, wanted, separation, darkestNeutral(plain, separation));
  const anchors = wanted.filter((_, i) => distance[Math.floor(i / 3)] < IN_GAMUT);
  let forward = plain;
  for (let round = 0; round < ANCHOR_ROUNDS; round++) {
    anchorInverse(forward, inverse, points, anchors, separation);
    const device = inverseAt(inverse, points, anchors);
    const lab = new Float64Array((device.length / model.inks) * 3);
    relativeModelLab(model)(device, lab);
    const moved = anchorForward(plain, device, lab);
    forward = { ...moved, lab: quantiseLab(moved.lab, version) };
  }
  anchorInverse(forward, inverse, points, anchors, separation);
  return forward;
}
