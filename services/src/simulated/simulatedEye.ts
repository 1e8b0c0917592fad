import { studyFields, STUDY_ROUNDS } from '@melto/core/light/brightenerStudy';
import type { StudyPick } from '@melto/core/light/brightenerStudy';
import { coloursUnder } from '@melto/core/light/colourUnder';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { createRandom, shuffle } from '@melto/core/numerics/random';
import type { Random } from '@melto/core/numerics/random';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import { ROOM_LIGHTS } from '@melto/simulator/roomLights';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { studyGround } from '../profile/study.ts';
import { printInRoom } from './roomPrint.ts';

/** What such an eye scatters by from one look to the next, in a* and in b*. */
const SCATTER = 0.4;

/** The picks of a simulated eye before a print of a study's page, in a light of the sample house. */
export async function simulatedPicks(
  context: Context,
  conditionId: number,
  { key, observer }: { readonly key: string; readonly observer: Observer },
): Promise<readonly StudyPick[]> {
  const light = await viewingLight(context, key);
  const share = ROOM_LIGHTS.find(({ name }) => name === light.name)?.ultraviolet;
  const { condition, fields } = await studyGround(context, conditionId);
  if (share === undefined)
    throw new Problem(
      'bad-input',
      'The simulated eye looks at prints of simulated devices, in lights of the sample house.',
      'Look with your own.',
    );
  const spectra = await printInRoom(context, condition, fields, share);
  const xyz = coloursUnder({ grid: GRID_380_730_10, values: spectra }, { light, observer });
  const seen = studyFields().map(({ row, field }, i) => {
    const [, a, b] = xyzToLab([xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]], WHITE_D50_MEASURED);
    return { row, field, a, b };
  });
  const random = createRandom(context.seed());
  return Array.from({ length: STUDY_ROUNDS }, () => roundOf(seen, random)).flat();
}

/** One look at each row, in any order. */
function roundOf(
  seen: readonly (StudyPick & { readonly a: number; readonly b: number })[],
  random: Random,
): StudyPick[] {
  const rows = shuffle([...new Set(seen.map(({ row }) => row))], random);
  return rows.map((row) => {
    const [a, b] = [SCATTER * random.normal(), SCATTER * random.normal()];
    const away = (field: (typeof seen)[number]): number => Math.hypot(field.a - a, field.b - b);
    const { field } = seen
      .filter((own) => own.row === row)
      .reduce((best, own) => (away(own) < away(best) ? own : best));
    return { row, field };
  });
}
