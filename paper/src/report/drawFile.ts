import { chartPdf, drawnPdf } from '../chartPdf.ts';
import { chartRaster } from '../chartRaster.ts';
import type { ChartPage, PageDrawing, PageTag } from '../chartPage.ts';
import { colourListReport } from './colourListReport.ts';
import type { ColourListTask } from './colourListReport.ts';
import { reportPdf } from './reportPdf.ts';
import type { ReportModel } from './reportModel.ts';
import { slipPdf } from './slipPdf.ts';
import type { SlipModel } from './slipPdf.ts';

/** A report, a slip, or pages of a chart, to be drawn; the report of a colour list is worked out there, too. */
export type FileTask =
  | { readonly kind: 'report'; readonly model: ReportModel }
  | { readonly kind: 'slip'; readonly model: SlipModel }
  | ({ readonly kind: 'colour list' } & ColourListTask)
  | { readonly kind: 'chart'; readonly pages: readonly ChartPage[]; readonly madeMs: number }
  | { readonly kind: 'raster'; readonly page: ChartPage; readonly format: 'tiff' | 'png' }
  | {
      readonly kind: 'drawn';
      readonly drawings: readonly PageDrawing[];
      readonly title: string;
      /** What the values are of, where they are not of a device. */
      readonly tag?: PageTag;
      readonly madeMs: number;
    };

/** Draws a file; also the entry of a thread, so that a long report or a large chart does not hold up the server. */
export function drawFile(task: FileTask): Promise<Uint8Array> {
  switch (task.kind) {
    case 'report':
      return reportPdf(task.model);
    case 'slip':
      return slipPdf(task.model);
    case 'colour list':
      return colourListReport(task);
    case 'chart':
      return chartPdf(task.pages, task.madeMs);
    case 'raster':
      return chartRaster(task.page, task.format);
    case 'drawn':
      return drawnPdf(task.drawings, task, task.madeMs);
  }
}
