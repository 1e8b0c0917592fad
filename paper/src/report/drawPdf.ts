import { reportPdf } from './reportPdf.ts';
import type { ReportModel } from './reportModel.ts';
import { slipPdf } from './slipPdf.ts';
import type { SlipModel } from './slipPdf.ts';

/** A report or a slip to be drawn. */
export type PdfTask =
  | { readonly kind: 'report'; readonly model: ReportModel }
  | { readonly kind: 'slip'; readonly model: SlipModel };

/** Draws a report or a slip as PDF; also the entry of a thread, so that a long report does not hold up the server. */
export function drawPdf(task: PdfTask): Promise<Uint8Array> {
  return task.kind === 'report' ? reportPdf(task.model) : slipPdf(task.model);
}
