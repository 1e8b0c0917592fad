import { execFileSync } from 'node:child_process';
import { CMYK } from '@melto/core/device/process';
import { describe, expect, it } from 'vitest';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import {
  checkedPatches,
  distributionOf,
  groupFigures,
  storedMetric,
} from '@melto/core/conformity/checkDetail';
import { checkAgainstAims } from '@melto/core/conformity/checkAgainstAims';
import { controlWedge } from '@melto/core/charts/controlWedge';
import { genericPressLab } from '@melto/core/charts/genericPress';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { unwrap } from '@melto/core/result';
import { checkReportModel } from './checkReportModel.ts';
import { reportHtml } from './reportHtml.ts';
import { histogramOf, logoSize } from './reportModel.ts';
import type { ReportModel } from './reportModel.ts';
import { reportPdf } from './reportPdf.ts';
import { slipPdf } from './slipPdf.ts';

const { device, names } = controlWedge('proof');
const xyz = Float64Array.from(
  names.flatMap((_, row) => [...labToXyz(genericPressLab(device, 4 * row), WHITE_D50_MEASURED)]),
);

function detailOf(): CheckDetail {
  const set = {
    ids: names.map((_, i) => String(i)),
    process: CMYK,
    device,
    xyz: xyz.map((v) => 0.97 * v),
  };
  const check = unwrap(
    checkAgainstAims(
      { ...set, conditions: { mode: 'M1' }, notes: [] },
      { conditions: { mode: 'M1' }, device, xyz },
      TOLERANCE_SETS[0],
      false,
    ),
  );
  const patches = checkedPatches(check, (row) => (row === 0 ? '<b>paper</b> & more' : `patch ${row}`));
  return {
    kind: 'aims',
    header: {
      condition: 'Heron / Lantern Gloss 150 / standard',
      sheet: 'HRN-0001',
      chart: 'Proof wedge',
      instrument: 'Strip reader 2',
      person: 'Ines Marlow',
      madeMs: 0,
      printedMs: 0,
      readMs: 0,
      early: true,
      measured: { mode: 'M1', illuminant: 'D50', observer: '2' },
      aims: { id: 1, name: 'House', version: 2, origin: 'Reading of HRN-0000', conditions: { mode: 'M1' } },
      tolerances: {
        id: 1,
        name: 'Proof',
        version: 1,
        source: 'house limits',
        notJudged: ['Not judged here.'],
      },
      through: 'device values',
      chosen: 'before the reading',
    },
    verdict: check.verdict,
    substrateCorrected: false,
    otherwise: [],
    withoutAim: 0,
    metrics: check.metrics.map(storedMetric),
    patches,
    distribution: distributionOf(patches),
    groups: groupFigures(patches),
    white: null,
    decides: { deciding: [], remedies: [], share: 0.5, outOfReach: [], drift: null },
    budget: { total: 1, parts: [{ source: 'rest', size: 1, from: 'what the others leave' }] },
    sheet: [],
  };
}

describe('a report', () => {
  const model = checkReportModel(detailOf(), 3, 'Europe/London');

  it('shows every figure of its content model, escaped, in the page', () => {
    const html = reportHtml(model);
    const plain = html.replaceAll('&#60;', '<').replaceAll('&#62;', '>').replaceAll('&#38;', '&');
    for (const [name, value] of model.facts) expect(plain).toContain(`<dt>${name}</dt><dd>${value}</dd>`);
    for (const section of model.sections)
      if (section.kind === 'table')
        for (const { cells } of section.rows)
          for (const cell of cells) expect(plain).toContain(`>${cell}</td>`);
    expect(html).not.toContain('<b>paper</b>');
    expect(html).toContain('read before its rest was over');
    expect(html).toContain('Not judged here.');
  });

  it('is a PDF of A4 pages that holds all patches', async () => {
    const pdf = await PDFDocument.load(await reportPdf(model));
    expect(pdf.getPageCount()).toBeGreaterThanOrEqual(3);
    const { width, height } = pdf.getPage(0).getSize();
    expect(width).toBeCloseTo(595.28, 0);
    expect(height).toBeCloseTo(841.89, 0);
    expect(pdf.getTitle()).toContain(model.verdict.words);
  });

  it('has a slip of one page, 100 × 60 mm', async () => {
    const figures = detailOf().metrics.map((line) => ({
      name: `${line.group} ${line.statistic}`,
      value: '1.00',
      limit: '2.0',
      status: line.verdict,
    }));
    const facts = [
      ['Proof', 'HRN-0001'],
      ['Condition', 'a condition with a long name that takes two lines / fine'],
      ['Judged', '2026-01-01'],
      ['Valid until', '2026-02-01'],
      ['Aims', 'House v2'],
      ['Measured', 'M1, D50/2°'],
    ] as const;
    const words = 'does not conform to a tolerance set with a rather long name (substrate-corrected)';
    const pdf = await PDFDocument.load(
      await slipPdf({ status: 'near', words, figures: [...figures, ...figures], facts, code: 'MC-1234567' }),
    );
    expect(pdf.getPageCount()).toBe(1);
    const { width, height } = pdf.getPage(0).getSize();
    expect((width * 25.4) / 72).toBeCloseTo(100, 1);
    expect((height * 25.4) / 72).toBeCloseTo(60, 1);
  });

  it('holds signs and letters of other languages as they are, bold and regular', async () => {
    const words = 'ΔE00 ≤ 2.5 → √ Żółw Цвет Giấy';
    const pdf = await slipPdf({
      ...{ status: 'near', words, figures: [{ name: words, value: '≥ 1', limit: '≤ 2', status: 'near' }] },
      ...{ facts: [['Aims', 'Żółw']], code: 'MC-1' },
    });
    // What a reader copies out of it; a sign without a glyph would be another letter there, or nothing.
    const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8' });
    const closed = (part: string): string => part.normalize('NFC').replace(/\s+/g, '');
    // The verdict in bold and the figure; the fact is broken by another column.
    expect(closed(text).split(closed(words))).toHaveLength(3);
    for (const sign of ['≥1', '≤2', 'Żółw', 'Цвет', 'Giấy']) expect(closed(text)).toContain(sign);
  });

  it('carries the logo of the house, no larger than its head has room for', async () => {
    const dot = sharp({ create: { width: 600, height: 100, channels: 3, background: '#336699' } });
    const png = (await dot.png().toBuffer()).toString('base64');
    const logo = { png, width: 600, height: 100 };
    expect(logoSize(logo)).toEqual({ width: 150, height: 25 });
    expect(logoSize({ width: 40, height: 88 })).toEqual({ width: 20, height: 44 });
    expect(logoSize({ width: 30, height: 20 })).toEqual({ width: 30, height: 20 });
    const model = { ...checkReportModel(detailOf(), 1, 'UTC'), sections: [] };
    expect(reportHtml(model)).not.toContain('<img');
    expect(reportHtml({ ...model, logo })).toContain(`<img alt="" src="data:image/png;base64,${png}"`);
    const images = async (own: ReportModel): Promise<number> => {
      const pdf = Buffer.from(await reportPdf(own)).toString('latin1');
      return pdf.match(/\/Subtype \/Image/g)?.length ?? 0;
    };
    expect(await images(model)).toBe(0);
    expect(await images({ ...model, logo })).toBeGreaterThan(0);
  });

  it('counts its histogram as it is', () => {
    expect(histogramOf([0, 0.49, 0.5, 2.1], 0.5, 'ΔE00', []).counts).toEqual([2, 1, 0, 0, 1]);
    expect(histogramOf([], 0.5, 'ΔE00', []).counts).toEqual([0]);
  });
});
