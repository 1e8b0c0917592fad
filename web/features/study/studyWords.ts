import { LEAST_TURN, MOST_LEFT_OVER, rowLetter } from '@melto/core/light/brightenerStudy';
import type { StudyEstimate } from '@melto/core/light/brightenerStudy';

/** What a study came to, in sentences; the first says whether it can be used. */
export function studySentences({ range, scatter, turn, tells, atTheEnd, leftOver }: StudyEstimate): string[] {
  if (!tells)
    return [
      `This paper has next to no brightener: its greys turn by ${turn.toFixed(1)} in b* between no ultraviolet and that of D50, and no eye tells ${LEAST_TURN}. Nothing depends on the ultraviolet of the light.`,
    ];
  const out = [
    `Nine times out of ten the share that acts lies between ${range[0].toFixed(2)} and ${range[1].toFixed(2)}.`,
  ];
  if (leftOver > MOST_LEFT_OVER)
    out.push(
      `The picks do not fit the readings: at that share the fields that were picked have a chroma of ${leftOver.toFixed(1)} on average. Look whether the page hung in this light, beside a grey card, printed as its line says.`,
    );
  if (atTheEnd.length > 0)
    out.push(
      `The pick in row ${atTheEnd.map(rowLetter).join(' and ')} lies at an end: what is neutral lies perhaps beyond it.`,
    );
  if (scatter !== null)
    out.push(
      scatter < 0.7
        ? 'The picks agree.'
        : scatter < 1.8
          ? `Picks of one row differ by ${scatter.toFixed(1)} fields, as eyes do.`
          : `Picks of one row differ by ${scatter.toFixed(1)} fields: rest your eyes and make them again, and the range gets narrower.`,
    );
  return out;
}
