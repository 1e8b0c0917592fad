import { drivenByInks } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import { keywordValue, numberColumn, textColumn } from './cgatsTable.ts';
import type { CgatsTable } from './cgatsTable.ts';
import { deviceScale } from '../device/deviceScale.ts';
import { deviceFields, processOfFields, spectralFieldNm } from './fieldNames.ts';
import { patchLayoutOf } from './patchLayout.ts';
import type { MeasurementConditions, PatchSet, PatchSpectra } from './patchSet.ts';
import { readCgats } from './readCgats.ts';

/** Reads a CGATS text and takes its first table that holds device values or colours. */
export function readPatchSet(text: string): Result<PatchSet> {
  const tables = readCgats(text);
  if (!tables.ok) return tables;
  const useful = tables.value.find((table) => table.columns.some((column) => column.kind === 'number'));
  if (useful === undefined)
    return failure({
      code: 'cgats.no-values',
      expected: 'device values, Lab, XYZ or spectra',
      found: 'none of them',
    });
  return patchSetFromCgats(useful);
}

export function patchSetFromCgats(table: CgatsTable): Result<PatchSet> {
  const issues: Issue[] = [];
  const notes: string[] = [];
  const device = deviceValues(table, notes, issues);
  const spectra = spectraOf(table, notes, issues);
  const xyz = threeColumns(table, ['XYZ_X', 'XYZ_Y', 'XYZ_Z']);
  const lab = threeColumns(table, ['LAB_L', 'LAB_A', 'LAB_B']);
  if (xyz !== undefined && xyz.length > 0 && xyz.reduce((most, value) => Math.max(most, value), 0) <= 1.5) {
    for (let i = 0; i < xyz.length; i++) xyz[i] *= 100;
    notes.push('XYZ values stand on the scale 0..1 and were multiplied by 100.');
  }
  if (issues.length > 0) return failure(...issues);
  return success({
    ids:
      textColumn(table, 'SAMPLE_ID', 'SampleID') ??
      Array.from({ length: table.rowCount }, (_, i) => String(i + 1)),
    names: textColumn(table, 'SAMPLE_NAME'),
    process: device?.process,
    device: device?.values,
    xyz,
    lab,
    spectra,
    layout: patchLayoutOf(textColumn(table, 'PAGE'), textColumn(table, 'STRIP'), textColumn(table, 'PLACE')),
    conditions: conditionsOf(table),
    title: keywordValue(table, 'DESCRIPTOR') ?? keywordValue(table, 'FILE_DESCRIPTOR'),
    originator: keywordValue(table, 'ORIGINATOR'),
    created: keywordValue(table, 'CREATED'),
    notes,
  });
}

function deviceValues(
  table: CgatsTable,
  notes: string[],
  issues: Issue[],
): { process: Process; values: Float64Array } | undefined {
  const process = processOfFields(
    table.columns.flatMap(({ kind, name }) => (kind === 'number' ? [name] : [])),
  );
  if (process === undefined) return undefined;
  const fields = deviceFields(process);
  const columns = fields.map((name) => numberColumn(table, name));
  const present = columns.filter((column) => column !== undefined);
  if (present.length < fields.length) {
    issues.push({
      code: 'cgats.missing-channel',
      path: fields[columns.indexOf(undefined)],
      expected: fields.join(', '),
      found: 'only some of them',
    });
    return undefined;
  }
  if (fields[0]?.includes('CLR_')) notes.push('The file counts its inks and does not name them.');
  const top = fullValue(process, present, notes);
  const values = new Float64Array(table.rowCount * present.length);
  for (let row = 0; row < table.rowCount; row++)
    for (const [channel, column] of present.entries()) {
      const value = column[row] / top;
      if (value < -1e-6 || value > 1 + 1e-6) {
        issues.push({
          code: 'cgats.device-range',
          path: `${fields[channel]} of row ${row + 1}`,
          expected: `0 to ${top}`,
          found: String(column[row]),
        });
        return undefined;
      }
      values[row * present.length + channel] = Math.min(1, Math.max(0, value));
    }
  return { process, values };
}

function fullValue(process: Process, columns: readonly Float64Array[], notes: string[]): number {
  if (drivenByInks(process)) {
    const found =
      deviceScale(
        process,
        columns.flatMap((column) => [...column]),
      )?.clear ?? process.scale;
    if (found !== process.scale) notes.push(`${process.name} values were taken as 0 to ${found}.`);
    return found;
  }
  let most = 0;
  for (const column of columns) for (const value of column) most = Math.max(most, value);
  if (most > 100.5) return process.scale;
  if (most > 1.0001) {
    notes.push('RGB values were taken as per cent, since none is over 100.');
    return 100;
  }
  notes.push('RGB values were taken as 0..1, since none is over 1.');
  return 1;
}

function threeColumns(table: CgatsTable, names: readonly [string, string, string]): Float64Array | undefined {
  const columns = names.map((name) => numberColumn(table, name));
  if (columns.some((column) => column === undefined)) return undefined;
  const out = new Float64Array(table.rowCount * 3);
  columns.forEach((column, axis) => column?.forEach((value, row) => (out[row * 3 + axis] = value)));
  return out;
}

function spectraOf(table: CgatsTable, notes: string[], issues: Issue[]): PatchSpectra | undefined {
  const bands: { nm: number; values: Float64Array }[] = [];
  for (const column of table.columns) {
    const nm = spectralFieldNm(column.name);
    if (nm !== undefined && column.kind === 'number') bands.push({ nm, values: column.values });
  }
  if (bands.length === 0) return undefined;
  bands.sort((a, b) => a.nm - b.nm);
  const step = bands.length > 1 ? bands[1].nm - bands[0].nm : 0;
  if (bands.length < 8 || step <= 0 || bands.some((band, i) => band.nm !== bands[0].nm + i * step)) {
    issues.push({
      code: 'cgats.spectral-grid',
      path: 'spectral fields',
      expected: 'at least 8 bands at regular wavelengths',
      found:
        bands
          .slice(0, 4)
          .map((band) => `${band.nm} nm`)
          .join(', ') + (bands.length > 4 ? ' …' : ''),
    });
    return undefined;
  }
  let most = 0;
  for (const band of bands) for (const value of band.values) most = Math.max(most, value);
  const scale = most > 3 ? 0.01 : 1;
  if (scale !== 1) notes.push('Spectra stand in per cent and were divided by 100.');
  const values = new Float64Array(table.rowCount * bands.length);
  bands.forEach((band, i) =>
    band.values.forEach((value, row) => (values[row * bands.length + i] = value * scale)),
  );
  return { grid: { startNm: bands[0].nm, stepNm: step, count: bands.length }, values };
}

function conditionsOf(table: CgatsTable): MeasurementConditions {
  const condition =
    keywordValue(table, 'MEASUREMENT_MODE') ?? keywordValue(table, 'MEASUREMENT_SOURCE') ?? '';
  const mode = /\bM([0-3])\b/i.exec(condition)?.[0].toUpperCase() as MeasurementConditions['mode'];
  const defined = (value: string | undefined): string | undefined => (value === '' ? undefined : value);
  return {
    mode,
    filter: defined(keywordValue(table, 'FILTER')),
    backing: defined(keywordValue(table, 'SAMPLE_BACKING')),
    illuminant: defined(keywordValue(table, 'ILLUMINATION_NAME')),
    observer: defined(keywordValue(table, 'OBSERVER')),
    instrument: defined(keywordValue(table, 'INSTRUMENTATION')),
  };
}
