import type { EyeNote } from '@melto/core/eye/eyeWords';
import { EYE_OPPOSITES } from '@melto/core/eye/eyeWords';
import type { PointedCause } from '@melto/core/eye/pointOut';
import { insertEyesCheck, listEyesChecks } from '@melto/store/eyesChecks';
import type { EyesCheckRow } from '@melto/store/eyesChecks';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import { storedResult } from '../ledger/storedResult.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { eyePage } from './eyePage.ts';

const SHOWN = 12;

/** What was said at a look, and what that pointed to. */
export interface EyesCheckDetail {
  readonly names: readonly string[];
  readonly notes: readonly EyeNote[];
  readonly points: readonly PointedCause[];
}

export interface EyesCheck extends Omit<EyesCheckRow, 'detail'>, EyesCheckDetail {}

/** The newest looks of a condition. */
export async function eyesChecks(context: Context, conditionId: number): Promise<EyesCheck[]> {
  await conditionOf(context, conditionId);
  const rows = await listEyesChecks(context.database, conditionId, SHOWN);
  return rows.map(({ detail, ...row }) => ({ ...row, ...(JSON.parse(detail) as EyesCheckDetail) }));
}

export interface NewEyesCheck {
  /** The profile that the page was made with. */
  readonly resultId: number;
  readonly listId?: number;
  readonly light: string;
  readonly notes: readonly EyeNote[];
  readonly points: readonly PointedCause[];
}

/** Keeps what an eye said; refused where the page that it looked at is another than the one of now. */
export async function keepEyesCheck(
  context: Context,
  conditionId: number,
  { resultId, listId, light, notes, points }: NewEyesCheck,
): Promise<{ readonly id: number }> {
  const page = await eyePage(context, conditionId, listId);
  const { row } = await storedResult(context, resultId, PROFILE);
  if (row.conditionId !== conditionId || page.resultId !== resultId)
    throw new Problem(
      'conflict',
      'Another profile has come in force since the page was made.',
      'Print the page anew, and look again.',
    );
  refuseWrongNotes(notes, page.colours.length);
  await viewingLight(context, light);
  const madeMs = await domainNow(context);
  const detail: EyesCheckDetail = { names: page.colours.map(({ name }) => name), notes, points };
  return unitOfWork(context, async ({ database }) => ({
    id: await insertEyesCheck(database, {
      ...{ conditionId, resultId, light, detail, madeMs },
      listId: listId ?? null,
      listName: page.listName.slice(0, 140),
    }),
  }));
}

function refuseWrongNotes(notes: readonly EyeNote[], count: number): void {
  const seen = new Set<number>();
  for (const { colour, words } of notes) {
    if (colour >= count || seen.has(colour))
      throw new Problem(
        'bad-input',
        `Colour ${colour + 1} is noted twice, or is not on the page.`,
        'Note each colour once.',
        'notes',
      );
    seen.add(colour);
    const both = words.find((word) => words.includes(EYE_OPPOSITES[word]));
    if (both !== undefined)
      throw new Problem(
        'bad-input',
        `Colour ${colour + 1} is said to be ${both} and ${EYE_OPPOSITES[both]}.`,
        'Say one of the two.',
        'notes',
      );
  }
}
