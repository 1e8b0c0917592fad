import { stockFactWords } from '@melto/core/stock/stockFacts';
import { houseMoment } from '@melto/core/time/houseTime';
import { findResult } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { houseZone } from '../kernel/houseZone.ts';
import { notFound } from '../kernel/problem.ts';
import { conditionName, conditionOf, settingsRecord } from '../ledger/conditions.ts';
import { profileSummary } from '../ledger/resultKinds.ts';

/** What a profile is printed with, as a page of plain text to go with its file: it holds for these settings alone. */
export async function profileSettings(context: Context, resultId: number): Promise<Download> {
  const result = await findResult(context.database, resultId);
  if (result?.link !== 'profile') throw notFound(`profile ${resultId}`);
  const [condition, points, zone] = await Promise.all([
    conditionOf(context, result.conditionId),
    settingsRecord(context, result.conditionId),
    houseZone(context),
  ]);
  const { name } = profileSummary(result);
  const facts: (readonly [point: string, value: string])[] = [
    ['Profile', `${name}.icc, version ${result.version}, ${houseMoment(result.madeMs, zone)}`],
    ['Device', `${condition.device}, channels ${condition.process.name}`],
    ['Stock', [condition.stock, condition.finish, ...stockFactWords(condition.stockFacts)].join(', ')],
    ['Ink set', condition.inkSet],
    ['Print mode', condition.mode],
    ...(condition.label === '' ? [] : [['Name', condition.label] as const]),
  ];
  const rows = [
    ...facts,
    ...points.map(({ label, value }) => [label, value === '' ? 'not recorded' : value] as const),
  ];
  const wide = Math.max(...rows.map(([point]) => point.length)) + 2;
  const lines = [
    `Settings of ${conditionName(condition)}`,
    'The profile holds for these settings alone. Printed with any other, another profile is needed.',
    '',
    ...rows.map(([point, value]) => `${point.padEnd(wide)}${value.replace(/\s+/g, ' ')}`),
  ];
  return {
    name: `${fileName(name)}_settings.txt`,
    mediaType: 'text/plain; charset=utf-8',
    content: new TextEncoder().encode(`${lines.join('\r\n')}\r\n`),
  };
}
