import type { CgatsColumn, CgatsKeyword, CgatsTable } from './cgatsTable.ts';
import { deviceFields } from './fieldNames.ts';
import type { PatchSet } from './patchSet.ts';

/** A patch set as one CGATS table: ids, layout, device values (RGB 0..255, inks per cent), XYZ, Lab, spectra. */
export function patchSetToCgats(set: PatchSet): CgatsTable {
  const columns: CgatsColumn[] = [{ name: 'SAMPLE_ID', kind: 'text', values: set.ids }];
  if (set.names !== undefined) columns.push({ name: 'SAMPLE_NAME', kind: 'text', values: set.names });
  if (set.layout !== undefined) {
    columns.push({ name: 'PAGE', kind: 'text', values: Array.from(set.layout.page, String) });
    columns.push({ name: 'STRIP', kind: 'text', values: Array.from(set.layout.strip, String) });
    columns.push({ name: 'PLACE', kind: 'text', values: Array.from(set.layout.place, String) });
  }
  const rows = set.ids.length;
  const push = (names: readonly string[], values: Float64Array, scale = 1): void => {
    names.forEach((name, i) =>
      columns.push({
        name,
        kind: 'number',
        values: Float64Array.from({ length: rows }, (_, row) => values[row * names.length + i] * scale),
      }),
    );
  };
  if (set.process !== undefined && set.device !== undefined)
    push(deviceFields(set.process), set.device, set.process.scale);
  if (set.xyz !== undefined) push(['XYZ_X', 'XYZ_Y', 'XYZ_Z'], set.xyz);
  if (set.lab !== undefined) push(['LAB_L', 'LAB_A', 'LAB_B'], set.lab);
  if (set.spectra !== undefined) {
    const { startNm, stepNm, count } = set.spectra.grid;
    push(
      Array.from({ length: count }, (_, i) => `SPECTRAL_NM${startNm + i * stepNm}`),
      set.spectra.values,
    );
  }
  return { identifier: 'CGATS.17', keywords: keywordsOf(set), columns, rowCount: rows };
}

function keywordsOf(set: PatchSet): CgatsKeyword[] {
  const { conditions } = set;
  const pairs: [string, string | undefined][] = [
    ['ORIGINATOR', set.originator],
    ['DESCRIPTOR', set.title],
    ['CREATED', set.created],
    ['INSTRUMENTATION', conditions.instrument],
    ['MEASUREMENT_MODE', conditions.mode],
    ['FILTER', conditions.filter],
    ['SAMPLE_BACKING', conditions.backing],
    ['ILLUMINATION_NAME', conditions.illuminant],
    ['OBSERVER', conditions.observer],
  ];
  return pairs.flatMap(([name, value]) => (value === undefined ? [] : [{ name, value }]));
}
