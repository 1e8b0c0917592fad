import { modeName } from '@melto/core/device/modeName';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { curvesToCgats } from '@melto/core/curveFiles/curvesToCgats';
import { curvesToCsv } from '@melto/core/curveFiles/curvesToCsv';
import { curvesToDeviceLink } from '@melto/core/curveFiles/curvesToDeviceLink';
import { curvesToJson } from '@melto/core/curveFiles/curvesToJson';
import type { CurveFormat } from '@melto/core/device/deviceFacts';
import { channelNames } from '@melto/core/device/process';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { findResult } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { curvesOf } from '../ledger/inForce.ts';

/** Curves of a version as a file; its name holds the version, so that none overwrites another. */
export async function exportCurves(
  context: Context,
  resultId: number,
  format: CurveFormat,
  points: number,
  channels: readonly string[],
): Promise<Download> {
  const row = await findResult(context.database, resultId);
  const all = row === undefined ? undefined : await curvesOf(context, resultId);
  if (row === undefined || all === undefined) throw notFound(`curves ${resultId}`);
  if (!Number.isInteger(points) || points < 2 || points > 1024)
    throw new Problem('bad-input', 'A file of curves has 2 to 1,024 points.', 'Ask for 21 or 256.', 'points');
  const condition = await conditionOf(context, row.conditionId);
  const inks = channelNames(condition.process);
  const wanted = channels.length === 0 ? inks : inks.filter((ink) => channels.includes(ink));
  if (wanted.length === 0 || (format === 'link' && wanted.length < inks.length))
    throw new Problem(
      'bad-input',
      format === 'link' ? 'A device link holds all curves.' : 'No such channel.',
      `Ask for ${inks.join(', ')} or some of them.`,
      'channels',
    );
  const curves = wanted.map((ink) => all[inks.indexOf(ink)]);
  const part = wanted.length === inks.length ? '' : `_${wanted.join('')}`;
  const title = `${condition.device} ${condition.stock} ${modeName(condition)} ${row.link} v${row.version}`;
  const name = `${fileName(title)}${part}`;
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
