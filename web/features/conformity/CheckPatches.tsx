'use client';

import { MenuItem, TextField } from '@mui/material';
import { DataGrid } from '@mui/x-data-grid';
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo, useState } from 'react';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { deltaChroma, deltaHue, PAIR_QUANTITIES } from '@melto/core/conformity/colourDifferences';
import { formatLab } from '@/ui/format';
import { screenOf, Swatch } from '@/ui/Swatch';

const FORMULAS = ['ΔE00', 'ΔE*ab', 'ΔE94', 'ΔE CMC(1:1)'] as const;
type Formula = (typeof FORMULAS)[number];

/** All patches with their differences by a formula of choice. */
export function CheckPatches({
  detail,
  picked,
  onPick,
}: {
  detail: CheckDetail;
  picked?: number;
  onPick: (patch: number) => void;
}) {
  const [formula, setFormula] = useState<Formula>('ΔE00');
  const rows = useMemo(
    () =>
      detail.patches.map((patch, id) => ({
        id,
        name: patch.name,
        inks: patch.device.map((value) => value.toFixed(0)).join(' '),
        group: patch.groups.filter((group) => group !== 'all').join(', '),
        colour: patch,
        aim: formatLab(patch.aim),
        measured: formatLab(patch.measured),
        e: PAIR_QUANTITIES[formula](patch.aim, patch.measured),
        l: patch.measured[0] - patch.aim[0],
        c: deltaChroma(patch.aim, patch.measured),
        h: deltaHue(patch.aim, patch.measured),
        ch: PAIR_QUANTITIES.ΔCh(patch.aim, patch.measured),
        origin: patch.origin,
      })),
    [detail, formula],
  );
  const patch = picked === undefined ? undefined : detail.patches[picked];
  return (
    <div className="panel">
      <header>
        <h2>All patches</h2>
        <span className="quiet">
          measured above, aim in the lower third; the verdict stands on the tolerances’ own formula
        </span>
        <TextField
          select
          label="Difference"
          size="small"
          value={formula}
          onChange={(event) => setFormula(event.target.value as Formula)}
          sx={{ width: 150 }}
        >
          {FORMULAS.map((name) => (
            <MenuItem key={name} value={name}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      </header>
      <div className={patch === undefined ? undefined : 'check-patches'}>
        <div style={{ height: 380, minWidth: 0 }}>
          <DataGrid
            rows={rows}
            columns={columns(formula)}
            rowHeight={28}
            columnHeaderHeight={34}
            showToolbar
            hideFooterSelectedRowCount
            initialState={{ sorting: { sortModel: [{ field: 'e', sort: 'desc' }] } }}
            rowSelectionModel={{ type: 'include', ids: new Set(picked === undefined ? [] : [picked]) }}
            onRowClick={({ id }) => onPick(Number(id))}
            slotProps={{
              toolbar: {
                csvOptions: { fileName: `check-${detail.header.sheet}` },
                printOptions: { disableToolbarButton: true },
              },
            }}
            sx={{ border: 0, fontSize: 13, fontVariantNumeric: 'tabular-nums' }}
          />
        </div>
        {patch !== undefined && (
          <div>
            <b>{patch.name}</b>{' '}
            <span className="quiet">C M Y K {patch.device.map((v) => v.toFixed(0)).join(' ')}</span>
            <Swatch measured={patch.measured} aim={patch.aim} height={72} label={patch.name} />
            <dl className="facts" style={{ marginTop: 8 }}>
              <dt>Aim</dt>
              <dd>
                {formatLab(patch.aim)} <span className="quiet">{patch.origin}</span>
              </dd>
              <dt>Measured</dt>
              <dd>{formatLab(patch.measured)}</dd>
              <dt>ΔE00</dt>
              <dd>
                <b>{patch.deltaE.toFixed(2)}</b>
              </dd>
            </dl>
          </div>
        )}
      </div>
    </div>
  );
}

function columns(formula: Formula): GridColDef[] {
  const figure = (field: string, headerName: string, signed = true): GridColDef => ({
    field,
    headerName,
    type: 'number',
    width: 74,
    valueFormatter: (value: number) =>
      signed ? `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}` : value.toFixed(2),
  });
  return [
    {
      field: 'colour',
      headerName: '',
      width: 64,
      sortable: false,
      filterable: false,
      disableExport: true,
      renderCell: ({ value }) => {
        const { measured, aim } = value as { measured: readonly number[]; aim: readonly number[] };
        return (
          <span className="cell-swatch" style={{ background: screenOf(measured).css }}>
            <i style={{ background: screenOf(aim).css }} />
          </span>
        );
      },
    },
    { field: 'name', headerName: 'Patch', width: 120 },
    { field: 'inks', headerName: 'C M Y K, %', width: 130 },
    { field: 'aim', headerName: 'Aim L* a* b*', width: 148, align: 'right', headerAlign: 'right' },
    { field: 'measured', headerName: 'Measured', width: 148, align: 'right', headerAlign: 'right' },
    { ...figure('e', formula, false), width: formula === 'ΔE CMC(1:1)' ? 130 : 96 },
    figure('l', 'ΔL*'),
    figure('c', 'ΔC*'),
    figure('h', 'ΔH'),
    figure('ch', 'ΔCh', false),
    { field: 'group', headerName: 'Groups', width: 190 },
    { field: 'origin', headerName: 'Aim is', width: 100 },
  ];
}
