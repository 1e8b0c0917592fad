import { statusSvg } from '../statusShape.ts';
import { logoSize } from './reportModel.ts';
import type { ReportHistogram, ReportModel, ReportSection } from './reportModel.ts';

function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

/** A report as a self-contained page. */
export function reportHtml({
  title,
  logo,
  verdict,
  facts,
  notices,
  sections,
  statement,
}: ReportModel): string {
  return `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><title>${escapeHtml(title)}: ${escapeHtml(verdict.words)}</title>
<style>
body{font:14px/1.45 "Atkinson Hyperlegible Next",system-ui,sans-serif;color:#1b1b1b;background:#fff;max-width:980px;margin:32px auto;padding:0 24px;font-variant-numeric:tabular-nums}
h1{font-size:20px;margin:0 0 4px}h2{font-size:15px;margin:28px 0 8px}h2 small{font-weight:400;color:#5c5c5c;font-size:13px;margin-left:8px}
.verdict{font-size:28px;line-height:1.2;display:flex;gap:12px;align-items:center;margin:16px 0 4px}.verdict svg{width:26px;height:26px;flex:none}
dl{display:grid;grid-template-columns:90px 1fr 90px 1fr;gap:4px 12px;margin:16px 0}dt{color:#5c5c5c}dd{margin:0}
table{border-collapse:collapse;width:100%}th{font-weight:400;color:#5c5c5c;text-align:left;vertical-align:bottom}td,th{padding:4px 8px;border-bottom:1px solid #d6d6d6}
.n{text-align:right;white-space:nowrap}.m{width:1px}.sw{display:inline-block;width:44px;height:24px;position:relative;border:1px solid #d6d6d6}.sw i{position:absolute;left:0;right:0;bottom:0;height:8px}
p{max-width:75ch}.quiet{color:#5c5c5c}
@media print{body{margin:0;max-width:none}tr{break-inside:avoid}}
</style></head><body>
${logo === undefined ? '' : logoHtml(logo)}<h1>${escapeHtml(title)}</h1>
<div class="verdict">${statusSvg(verdict.status)}<span>${escapeHtml(verdict.words)}</span></div>
<p>${escapeHtml(sentence(verdict.reason))}</p>
<dl>${facts.map(([name, value]) => `<dt>${escapeHtml(name)}</dt><dd>${escapeHtml(value)}</dd>`).join('')}</dl>
${notices.map((notice) => `<p><b>${escapeHtml(notice)}</b></p>`).join('')}
${sections.map(sectionHtml).join('\n')}
<h2>How it was judged</h2>
${statement.map((text) => `<p class="quiet">${escapeHtml(text)}</p>`).join('')}
</body></html>
`;
}

function logoHtml(logo: NonNullable<ReportModel['logo']>): string {
  const { width, height } = logoSize(logo);
  return `<img alt="" src="data:image/png;base64,${logo.png}" style="float:right;width:${width.toFixed(0)}pt;height:${height.toFixed(0)}pt">`;
}

/** Reasons begin small, since they follow a verdict on screens. */
export function sentence(text: string): string {
  return `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}${text.endsWith('.') ? '' : '.'}`;
}

function sectionHtml(section: ReportSection): string {
  const head = `<h2>${escapeHtml(section.title)}${section.kind === 'table' && section.note !== undefined ? `<small>${escapeHtml(section.note)}</small>` : ''}</h2>`;
  switch (section.kind) {
    case 'sentences':
      return head + section.sentences.map((text) => `<p>${escapeHtml(text)}</p>`).join('');
    case 'histogram':
      return head + histogramSvg(section.histogram);
    case 'table': {
      const marked = section.rows.some(({ status, swatch }) => status !== undefined || swatch !== undefined);
      const columns = section.columns
        .map(({ name, numeric }) => `<th${numeric === true ? ' class="n"' : ''}>${escapeHtml(name)}</th>`)
        .join('');
      const rows = section.rows
        .map(({ status, swatch, cells }) => {
          const mark =
            status !== undefined
              ? statusSvg(status)
              : swatch !== undefined
                ? `<span class="sw" style="background:${swatch.measured}"><i style="background:${swatch.aim}"></i></span>`
                : '';
          const own = cells
            .map(
              (cell, i) =>
                `<td${section.columns[i].numeric === true ? ' class="n"' : ''}>${escapeHtml(cell)}</td>`,
            )
            .join('');
          return `<tr>${marked ? `<td class="m">${mark}</td>` : ''}${own}</tr>`;
        })
        .join('');
      return `${head}<table><thead><tr>${marked ? '<th></th>' : ''}${columns}</tr></thead><tbody>${rows}</tbody></table>`;
    }
  }
}

/** Bars with their counts, and the marks above them. */
function histogramSvg({ counts, binWidth, unit, marks }: ReportHistogram): string {
  const { width, height, bar } = { width: 640, height: 150, bar: 640 / Math.max(8, counts.length) };
  const most = Math.max(1, ...counts);
  const x = (value: number): number => (value / binWidth) * bar;
  const bars = counts
    .map((count, i) => {
      const own = (count / most) * 90;
      return `<rect x="${(i * bar + 1).toFixed(1)}" y="${(120 - own).toFixed(1)}" width="${(bar - 2).toFixed(1)}" height="${own.toFixed(1)}" fill="#8f8f8f"/><text x="${(i * bar).toFixed(1)}" y="136" font-size="11" fill="#5c5c5c">${(i * binWidth).toFixed(1)}</text>`;
    })
    .join('');
  const lines = marks
    .map(
      ({ at, words }, i) =>
        `<line x1="${x(at).toFixed(1)}" x2="${x(at).toFixed(1)}" y1="${12 + 13 * i}" y2="120" stroke="#1b1b1b"/><text x="${(x(at) + 4).toFixed(1)}" y="${20 + 13 * i}" font-size="11" fill="#1b1b1b">${escapeHtml(words)}</text>`,
    )
    .join('');
  return `<svg viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="Counts of ${escapeHtml(unit)}">${bars}<line x1="0" x2="${width}" y1="120" y2="120" stroke="#d6d6d6"/>${lines}<text x="${width}" y="148" text-anchor="end" font-size="11" fill="#5c5c5c">${escapeHtml(unit)}</text></svg>`;
}
