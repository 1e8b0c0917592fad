import { labToHex } from '@melto/core/colour/srgb';
import { formatAgainstLimit } from '@melto/core/conformity/shortCheck';
import type { ShortCheckResult } from '@melto/core/conformity/shortCheck';
import { STATUS_WORDS, statusSvg } from './statusShape.ts';

/** What, where, who, when, with which instrument. */
export interface ReportHeader {
  readonly condition: string;
  readonly sheet: string;
  readonly profile: string;
  readonly instrument: string;
  readonly mode: string;
  readonly person: string;
  readonly madeMs: number;
  readonly printedMs: number;
  readonly early: boolean;
}

function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

const time = (ms: number): string => `${new Date(ms).toISOString().slice(0, 16).replace('T', ' ')} UTC`;
const triple = (values: readonly number[]): string => values.map((value) => value.toFixed(2)).join(' ');

/** A short check as a self-contained HTML page. */
export function shortCheckReport(header: ReportHeader, check: ShortCheckResult, version: number): string {
  const facts: [string, string][] = [
    ['Condition', header.condition],
    ['Sheet', header.sheet],
    ['Profile', header.profile],
    ['Printed', time(header.printedMs)],
    ['Judged', time(header.madeMs)],
    ['By', header.person],
    ['Instrument', `${header.instrument}, ${header.mode}, D50/2°`],
    ['Check', `version ${version}`],
  ];
  const metrics = check.metrics
    .map(
      (m) =>
        `<tr><td>${statusSvg(m.verdict)}</td><td>${escapeHtml(m.name)}</td><td class="n">${formatAgainstLimit(m.value, m.limit)}</td><td class="n">${m.limit.toFixed(2)}</td><td class="n">${m.margin.toFixed(2)}</td></tr>`,
    )
    .join('');
  const worst = [...check.patches].sort(
    (a, b) => Number(b.inGamut) - Number(a.inGamut) || b.reached - a.reached,
  );
  const rows = worst
    .map(
      (p) =>
        `<tr><td><span class="sw" style="background:${labToHex(p.measured)}"><i style="background:${labToHex(p.asked)}"></i></span></td><td>${escapeHtml(p.name)}${p.inGamut ? '' : ' <em>out of gamut, not judged</em>'}</td><td class="n">${triple(p.asked)}</td><td class="n">${triple(p.measured)}</td><td class="n">${p.reached.toFixed(2)}</td><td class="n">${p.repeats.toFixed(2)}</td></tr>`,
    )
    .join('');
  const { reached, repeats } = check;
  return `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><title>Short check ${escapeHtml(header.sheet)}</title>
<style>
body{font:14px/1.45 "Atkinson Hyperlegible Next",system-ui,sans-serif;color:#1b1b1b;background:#fff;max-width:980px;margin:32px auto;padding:0 24px;font-variant-numeric:tabular-nums}
h1{font-size:20px;margin:0 0 4px}h2{font-size:15px;margin:28px 0 8px}
.verdict{font-size:28px;display:flex;gap:12px;align-items:center;margin:16px 0 4px}.verdict svg{width:26px;height:26px}
dl{display:grid;grid-template-columns:110px 1fr 110px 1fr;gap:4px 12px;margin:16px 0}dt{color:#5c5c5c}dd{margin:0}
table{border-collapse:collapse;width:100%}th{font-weight:400;color:#5c5c5c;text-align:left}td,th{padding:4px 8px;border-bottom:1px solid #d6d6d6}
.n{text-align:right;white-space:nowrap}.sw{display:inline-block;width:44px;height:24px;position:relative;border:1px solid #d6d6d6}.sw i{position:absolute;left:0;right:0;bottom:0;height:8px}
em{color:#5c5c5c;font-style:normal}p{max-width:70ch}
@media print{body{margin:0;max-width:none}}
</style></head><body>
<h1>Short check</h1>
<div class="verdict">${statusSvg(check.verdict)}<span>${STATUS_WORDS[check.verdict]}${check.tight ? ', tight' : ''}</span></div>
<p>Judged by <b>${escapeHtml(check.limits.name)}</b>: mean ΔE00 up to ${check.limits.mean.toFixed(1)}, largest up to ${check.limits.largest.toFixed(1)}, of the colours that the device can reach (${Math.round(check.inGamutShare * 100)} % of the check).</p>
<dl>${facts.map(([name, value]) => `<dt>${name}</dt><dd>${escapeHtml(value)}</dd>`).join('')}</dl>
${header.early ? '<p><b>The sheet was read before its rest was over.</b></p>' : ''}
<h2>Metrics</h2>
<table><thead><tr><th></th><th>Metric</th><th class="n">Value</th><th class="n">Limit</th><th class="n">Margin</th></tr></thead><tbody>${metrics}</tbody></table>
<h2>Two figures, not to be confused</h2>
<table><thead><tr><th>Figure</th><th class="n">Patches</th><th class="n">Mean</th><th class="n">95 % under</th><th class="n">Largest</th></tr></thead><tbody>
<tr><td><b>reached</b>: measured against the colour asked for, scaled to this paper</td><td class="n">${reached.count}</td><td class="n">${reached.mean.toFixed(2)}</td><td class="n">${reached.p95.toFixed(2)}</td><td class="n">${reached.largest.toFixed(2)}</td></tr>
<tr><td><b>repeats</b>: measured against what the profile predicts for the same device values</td><td class="n">${repeats.count}</td><td class="n">${repeats.mean.toFixed(2)}</td><td class="n">${repeats.p95.toFixed(2)}</td><td class="n">${repeats.largest.toFixed(2)}</td></tr></tbody></table>
<h2>All colours, worst first; measured above, asked in the lower third</h2>
<table><thead><tr><th></th><th>Colour</th><th class="n">Asked L* a* b*</th><th class="n">Measured L* a* b*</th><th class="n">Reached ΔE00</th><th class="n">Repeats ΔE00</th></tr></thead><tbody>${rows}</tbody></table>
<p><em>The aims are colours of Melto's short check, defined in Lab (D50), relative to the paper. Percentiles are interpolated between order statistics. Unrounded values are judged.</em></p>
</body></html>
`;
}
