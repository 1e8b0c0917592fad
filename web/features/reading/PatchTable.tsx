'use client';

import { channelNames } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { DataGrid } from '@mui/x-data-grid';
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo } from 'react';
import { labToLch } from '@melto/core/colour/labToLch';
import type { Lab } from '@melto/core/colour/lab';
import { visualDensity } from '@melto/core/density/density';
import type { PatchView, ReadingView } from '@melto/services/reading/readingView';
import { screenOf } from '@/ui/Swatch';

/** All patches of a reading: sorted, filtered, with columns to hide, saved as CSV. */
export function PatchTable({
  view,
  differences,
  picked,
  onPick,
}: {
  view: ReadingView;
  differences?: ReadonlyMap<number, number>;
  picked?: number;
  onPick: (row: number) => void;
}) {
  const places = useMemo(() => placesOf(view), [view]);
  const rows = useMemo(
    () =>
      view.patches.map((patch) =>
        rowOf(patch, view.grid, places.get(patch.row), differences?.get(patch.row)),
      ),
    [view, places, differences],
  );
  return (
    <div style={{ height: '62vh' }}>
      <DataGrid
        rows={rows}
        columns={columns(view.process, view.grid !== null, differences !== undefined)}
        rowHeight={28}
        columnHeaderHeight={34}
        showToolbar
        hideFooterSelectedRowCount
        rowSelectionModel={{ type: 'include', ids: new Set(picked === undefined ? [] : [picked]) }}
        onRowClick={({ id }) => onPick(Number(id))}
        slotProps={{
          toolbar: { csvOptions: { fileName: view.code }, printOptions: { disableToolbarButton: true } },
        }}
        sx={{ border: 0, fontSize: 13, fontVariantNumeric: 'tabular-nums' }}
      />
    </div>
  );
}

type Row = Readonly<Record<string, string | number | undefined>> & { readonly id: number };

/** Page, strip and place of each chart row, from 1. */
function placesOf(view: ReadingView): Map<number, string> {
  const places = new Map<number, string>();
  view.pages.forEach((strips, p) =>
    strips.forEach((rows, s) => rows.forEach((row, i) => places.set(row, `${p + 1}-${s + 1}-${i + 1}`))),
  );
  return places;
}

function rowOf(patch: PatchView, grid: ReadingView['grid'], place?: string, difference?: number): Row {
  const lch = labToLch(patch.lab as unknown as Lab);
  const [l, a, bb] = patch.lab;
  return {
    id: patch.row,
    name: patch.id,
    place,
    role: patch.role,
    colour: screenOf(patch.lab).css,
    ...Object.fromEntries(patch.device.map((value, i) => [`d${i}`, value])),
    l,
    a,
    bb,
    c: lch[1],
    h: lch[2],
    y: patch.xyz[1],
    dv: grid === null || patch.spectrum === null ? undefined : visualDensity(grid, patch.spectrum),
    difference,
  };
}

function number(field: string, headerName: string, decimals: number, width = 66): GridColDef<Row> {
  return {
    field,
    headerName,
    width,
    type: 'number',
    valueFormatter: (value?: number) => (value === undefined ? '' : value.toFixed(decimals)),
  };
}

function columns(process: Process, spectra: boolean, compared: boolean): GridColDef<Row>[] {
  return [
    { field: 'name', headerName: 'Patch', width: 66 },
    {
      field: 'colour',
      headerName: '',
      width: 34,
      sortable: false,
      filterable: false,
      disableExport: true,
      disableColumnMenu: true,
      renderCell: ({ value }) => (
        <i style={{ display: 'block', height: '100%', background: String(value) }} />
      ),
    },
    { field: 'place', headerName: 'Place', width: 74, description: 'page, strip, place along the strip' },
    { field: 'role', headerName: 'Role', width: 78 },
    ...channelNames(process).map((name, i) => number(`d${i}`, name, process.scale === 255 ? 0 : 1, 54)),
    number('l', 'L*', 2),
    number('a', 'a*', 2),
    number('bb', 'b*', 2),
    number('c', 'C*', 2),
    number('h', 'h °', 1),
    number('y', 'Y', 2),
    ...(spectra ? [number('dv', 'D vis', 2)] : []),
    ...(compared ? [number('difference', 'ΔE00', 2)] : []),
  ];
}
