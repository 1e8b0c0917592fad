import { readIcc } from '@melto/core/icc/readIcc';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { unwrap } from '@melto/core/result';
import { colourListModel } from './colourListModel.ts';
import type { ColourListHeader } from './colourListModel.ts';
import { reportHtml } from './reportHtml.ts';
import type { ReportModel } from './reportModel.ts';
import { reportPdf } from './reportPdf.ts';

/** A colour list on a condition, to be worked out and drawn. */
export interface ColourListTask {
  readonly header: ColourListHeader;
  readonly colours: readonly NamedColour[];
  /** The profile in force: an ICC file that led from Lab to its device and back before. */
  readonly profile: Uint8Array;
  readonly logo?: ReportModel['logo'];
  readonly house?: string;
  readonly format: 'html' | 'pdf';
}

/** The report of a colour list as a self-contained page or as PDF. */
export async function colourListReport(task: ColourListTask): Promise<Uint8Array> {
  const { header, colours, profile, logo, house, format } = task;
  const made = unwrap(colourListModel(header, colours, unwrap(readIcc(profile))));
  const model: ReportModel = {
    ...made,
    logo,
    facts: [...(house === undefined ? [] : [['House', house] as const]), ...made.facts],
  };
  return format === 'pdf' ? reportPdf(model) : new TextEncoder().encode(reportHtml(model));
}
