import { writeCgats } from '@melto/core/cgats/writeCgats';
import { curvesToCgats } from '@melto/core/curveFiles/curvesToCgats';
import { curvesToCsv } from '@melto/core/curveFiles/curvesToCsv';
import { curvesToDeviceLink } from '@melto/core/curveFiles/curvesToDeviceLink';
import { curvesToJson } from '@melto/core/curveFiles/curvesToJson';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import { findResult } from '@melto/store/results';
import type { Download } from '../charts/charts.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { keptToCurves } from '../ledger/curvesInForce.ts';
import type { KeptCurves } from '../ledger/curvesInForce.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export const CURVE_FORMATS = ['csv', 'cgats', 'json', 'link'] as const;
export type CurveFormat = (typeof CURVE_FORMATS)[number];

/** Curves of a version as a file; its name holds the version, so that none overwrites another. */
export async function exportCurves(
  services: Services,
  resultId: number,
  format: CurveFormat,
  points: number,
  channels: readonly string[],
): Promise<Download> {
  const row = await findResult(services.database, resultId);
  if (row === undefined || (row.link !== 'curves' && row.link !== 'balance'))
    throw notFound(`curves ${resultId}`);
  if (!Number.isInteger(points) || points < 2 || points > 1024)
    throw new Problem('bad-input', 'A file of curves has 2 to 1,024 points.', 'Ask for 21 or 256.', 'points');
  const wanted = channels.length === 0 ? PROCESS_INKS : PROCESS_INKS.filter((ink) => channels.includes(ink));
  if (wanted.length === 0 || (format === 'link' && wanted.length < PROCESS_INKS.length))
    throw new Problem(
      'bad-input',
      format === 'link' ? 'A device link holds all four curves.' : 'No such channel.',
      'Ask for C, M, Y, K or some of them.',
      'channels',
    );
  const all = keptToCurves((JSON.parse(row.detail) as KeptCurves).curves);
  const curves = wanted.map((ink) => all[PROCESS_INKS.indexOf(ink)]);
  const condition = await conditionOf(services, row.conditionId);
  const part = wanted.length === PROCESS_INKS.length ? '' : `_${wanted.join('')}`;
  const title = `${condition.device} ${condition.stock} ${condition.mode} ${row.link} v${row.version}`;
  const name = `${title.replace(/[^A-Za-z0-9]+/g, '_')}${part}`;
  const text = (ending: string, mediaType: string, content: string): Download => ({
    name: `${name}.${ending}`,
    mediaType,
    content: new TextEncoder().encode(content),
  });
  switch (format) {
    case 'csv':
      return text('csv', 'text/csv', curvesToCsv(curves, wanted, points));
    case 'cgats':
      return text('txt', 'text/plain', writeCgats(curvesToCgats(curves, wanted, title, points)));
    case 'json':
      return text('json', 'application/json', curvesToJson(curves, wanted, title, points));
    case 'link':
      return {
        name: `${name}.icc`,
        mediaType: 'application/vnd.iccprofile',
        content: writeIcc(curvesToDeviceLink(curves, title, row.madeMs)),
      };
  }
}
