import type { FitReport } from '@melto/core/characterise/fitReport';
import type { ProfileDetail } from '@melto/services/ledger/kinds/profileKind';
import type { FigureTable } from '@/ui/Figure';

export function histogramTable(report: FitReport): FigureTable {
  const { binWidth, counts } = report.histogram;
  return {
    head: ['ΔE00 from', 'to', 'patches'],
    rows: counts.map((count, i) => [
      (i * binWidth).toFixed(2),
      i === counts.length - 1 ? 'and more' : ((i + 1) * binWidth).toFixed(2),
      count,
    ]),
  };
}

/** @param names of the channels. */
export function neutralTable(neutral: ProfileDetail['neutral'], names: readonly string[]): FigureTable {
  return {
    head: ['L* asked', ...names.map((name) => (names.length > 3 ? `${name} %` : name)), 'L*', 'a*', 'b*'],
    rows: neutral.map(({ asked, device, lab }) => [
      asked.toFixed(1),
      ...device.map((value) => (device.length > 3 ? (100 * value).toFixed(1) : Math.round(value * 255))),
      ...lab.map((value) => value.toFixed(2)),
    ]),
  };
}

export function toneTable(report: FitReport): FigureTable {
  const grey = [...report.neutralAxis].reverse();
  return {
    head: ['per cent off', ...report.ramps.map(({ channel }) => `L* ${channel}`), 'L* grey'],
    rows: grey.map((point, i) => [
      ((100 * i) / (grey.length - 1)).toFixed(1),
      ...report.ramps.map(({ points }) => points[i].lab[0].toFixed(2)),
      point.lab[0].toFixed(2),
    ]),
  };
}
