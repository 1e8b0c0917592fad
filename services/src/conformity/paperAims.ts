import { CMYK, RGB } from '@melto/core/device/process';
import type { MeasurementConditions } from '@melto/core/cgats/patchSet';
import type { Lab } from '@melto/core/colour/lab';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import type { Xyz } from '@melto/core/colour/xyz';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { aimsOnPaper, paperMove, paperShift } from '@melto/core/conformity/aimsOnPaper';
import type { PaperShift } from '@melto/core/conformity/aimsOnPaper';
import type { Aims } from '@melto/core/conformity/aims';
import { conditionsApart } from '@melto/core/conformity/conditionsApart';
import type { PaperMove } from '@melto/core/conformity/substrateCorrected';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { issueText } from '@melto/core/result';
import { listReadingsOfProcess } from '@melto/store/readings';
import type { ReadingOfHouse } from '@melto/store/readings';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { loadReading, requireStanding } from '../reading/loadReading.ts';
import { aimPatches, loadAims, referenceOf } from './aimSets.ts';
import type { AimSetView, MovedAims } from './aimSets.ts';
import { keepAimSet } from './newAimSet.ts';
import type { NewAimSet } from './newAimSet.ts';

/** The white that aims are moved to: that of a reading, or one that was measured by itself. */
export type White =
  | { readonly readingId: number }
  | {
      readonly lab: Lab;
      readonly mode: NonNullable<MeasurementConditions['mode']>;
      readonly backing?: string;
    };

/** A white as it was asked for: of a reading, or its colour with the mode that it was measured in. */
export function askedWhite({
  readingId,
  lab,
  mode,
  backing,
}: {
  readonly readingId?: number;
  readonly lab?: Lab;
  readonly mode?: NonNullable<MeasurementConditions['mode']>;
  readonly backing?: string;
}): White {
  if (readingId !== undefined) return { readingId };
  if (lab === undefined)
    throw new Problem('bad-input', 'There is no white.', 'Choose a reading, or give L*, a* and b*.', 'lab');
  if (mode === undefined)
    throw new Problem(
      'bad-input',
      'The mode of the white is not told.',
      'Say whether it was measured in M0, M1, M2 or M3.',
      'mode',
    );
  return { lab, mode, backing };
}

const MOST = 60;

/** Complete readings whose bare paper may be the white, the newest first. */
export async function papersToMoveTo({ database }: Context): Promise<ReadingOfHouse[]> {
  const lists = await Promise.all(
    [CMYK, RGB].map(({ name }) => listReadingsOfProcess(database, name, MOST, { unconverted: true })),
  );
  return lists
    .flat()
    .sort((a, b) => b.id - a.id)
    .slice(0, MOST);
}

interface MeasuredWhite {
  readonly xyz: Xyz;
  readonly conditions: MeasurementConditions;
  readonly words: string;
}

async function measuredWhite(context: Context, white: White): Promise<MeasuredWhite> {
  if ('lab' in white) {
    const { lab, mode, backing } = white;
    return {
      xyz: labToXyz(lab, WHITE_D50_MEASURED),
      conditions: { mode, backing, illuminant: 'D50', observer: '2' },
      words: 'a white that was measured by itself',
    };
  }
  const loaded = await loadReading(context, white.readingId);
  requireStanding(loaded);
  const { set, xyz, print, condition } = loaded;
  const paper = set.device === undefined ? undefined : meanPaperXyz(condition.process, set.device, xyz);
  if (paper === undefined)
    throw new Problem(
      'bad-input',
      `Sheet ${print.code} has no patch of bare paper.`,
      'Choose another reading, or measure the white by itself.',
      'readingId',
    );
  return { xyz: paper, conditions: set.conditions, words: `the paper of sheet ${print.code}` };
}

interface Moved {
  readonly view: AimSetView;
  readonly aims: Aims;
  readonly white: MeasuredWhite;
  readonly move: PaperMove;
}

async function moveOf(context: Context, aimSetId: number, given: White): Promise<Moved> {
  const [{ view, aims }, white] = await Promise.all([
    loadAims(context, aimSetId),
    measuredWhite(context, given),
  ]);
  if (view.moved !== null)
    throw new Problem(
      'conflict',
      `${view.name} is on a paper already.`,
      `Move ${view.moved.fromName}, which it was made of.`,
    );
  if (view.conditions.mode === undefined)
    throw new Problem(
      'not-ready',
      `${view.name} does not tell its measurement mode, so that no white can be laid beside its own.`,
      'Say its mode in the library first.',
    );
  // Another backing is what the correction is for; another mode or light is another colour.
  const aimConditions = { ...view.conditions, backing: undefined };
  const apart = conditionsApart(white.conditions, aimConditions);
  if (apart.length > 0)
    throw new Problem(
      'bad-input',
      `This white is not for these aims: ${apart.join('; ')}.`,
      `Measure it in ${view.conditions.mode}.`,
    );
  const move = paperMove(aims, white.xyz);
  if (!move.ok)
    throw new Problem(
      'bad-input',
      `The aims cannot be moved: ${move.issues.map(issueText).join('; ')}.`,
      'Choose another white.',
    );
  return { view, aims, white, move: move.value };
}

/** How far paper and primaries of an aim set would go; nothing is stored. */
export async function previewPaperAims(
  context: Context,
  aimSetId: number,
  white: White,
): Promise<PaperShift> {
  const { aims, move } = await moveOf(context, aimSetId, white);
  return paperShift(aims, move);
}

/** Keeps an aim set moved to a measured white, with what it was made of and how far it went. */
export async function makePaperAims(
  context: Context,
  input: NewAimSet,
  aimSetId: number,
  given: White,
): Promise<{ readonly id: number }> {
  const { view, aims, white, move } = await moveOf(context, aimSetId, given);
  const on = aimsOnPaper(aims, move);
  const { deltaE } = paperShift(aims, move);
  const moved: MovedAims = {
    ...{ fromId: view.id, fromFamily: view.family, fromName: view.name, fromVersion: view.version },
    ...{ move, paper: white.words, completed: view.completed },
  };
  const conditions = { ...view.conditions, backing: white.conditions.backing };
  const id = await keepAimSet(context, input, {
    source: 'on paper',
    origin: `${view.name}${view.version > 1 ? `, version ${view.version}` : ''}, moved to ${white.words}: ${deltaE.toFixed(2)} ΔE00 from its own. ${view.origin}`,
    ...{ conditions, moved },
    patches: view.patches,
    reference: view.completed ? null : referenceOf(aimPatches({ ...on, conditions })),
  });
  return { id };
}
