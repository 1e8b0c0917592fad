'use client';

import { SEEN } from '@/endpoints/conformity';
import { MenuItem, TextField } from '@mui/material';
import { DataGrid } from '@mui/x-data-grid';
import type { GridColDef } from '@mui/x-data-grid';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { SeenPair } from '@melto/core/conformity/seenUnder';
import { LightField } from '@/features/light/LightField';
import { DAYLIGHT, partsOf } from '@/features/light/useLights';
import type { SeenInKey } from '@/features/light/useLights';
import { ask, problemWords } from '@/ui/api';
import { isSpot } from '@melto/core/conformity/checkDetail';
import type { CheckDetail, CheckedPatch } from '@melto/core/conformity/checkDetail';
import { deltaChroma, deltaHue, PAIR_QUANTITIES } from '@melto/core/conformity/colourDifferences';
import { formatLab } from '@/ui/format';
import { screenOf, Swatch } from '@/ui/Swatch';

const FORMULAS = ['ΔE00', 'ΔE*ab', 'ΔE94', 'ΔE CMC(1:1)'] as const;
type Formula = (typeof FORMULAS)[number];

/** All patches with their differences by a formula of choice. */
export function CheckPatches({
  resultId,
  detail,
  picked,
  onPick,
}: {
  resultId: number;
  detail: CheckDetail;
  picked?: number;
  onPick: (patch: number) => void;
}) {
  const [formula, setFormula] = useState<Formula>('ΔE00');
  const [light, setLight] = useState<SeenInKey>(DAYLIGHT);
  const { key, observer } = partsOf(light);
  const {
    data: seen,
    error,
    isFetching,
  } = useQuery({
    queryKey: ['seen', resultId, light],
    queryFn: () => ask(SEEN, { params: { id: resultId }, query: { light: key, observer } }),
    enabled: light !== DAYLIGHT,
    retry: false,
    staleTime: Infinity,
  });
  const patches = useMemo(
    () => (light === DAYLIGHT || seen === undefined ? detail.patches : seenPatches(detail, seen)),
    [detail, light, seen],
  );
  const rows = useMemo(
    () =>
      patches.map((patch) => ({
        id: detail.patches.findIndex(({ name, device }) => name === patch.name && device === patch.device),
        name: patch.name,
        inks: isSpot(patch) ? 'spot' : patch.device.map((value) => value.toFixed(0)).join(' '),
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
    [patches, detail, formula],
  );
  const patch = picked === undefined ? undefined : detail.patches[picked];
  return (
    <div className="panel">
      <header>
        <h2>All patches</h2>
        <span className="quiet grow">
          {error !== null && light !== DAYLIGHT ? (
            <span className="error">{problemWords(error)}</span>
          ) : isFetching ? (
            'one moment'
          ) : light === DAYLIGHT ? (
            'measured above, aim in the lower third; the verdict stands on the tolerances’ own formula'
          ) : (
            `${patches.length} patches in the light chosen, aims uncorrected; the verdict stands on D50, 2°`
          )}
        </span>
        <LightField label="Seen in" value={light} onChange={setLight} width={170} />
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
            <span className="quiet">
              {isSpot(patch)
                ? 'spot colour, by its own aim'
                : `C M Y K ${patch.device.map((v) => v.toFixed(0)).join(' ')}`}
            </span>
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

/** The patches with their colours under another light; those whose aims are no spectra are left out. */
function seenPatches(detail: CheckDetail, seen: readonly SeenPair[]): CheckedPatch[] {
  const keyOf = (device: readonly number[]): string => device.map((value) => Math.round(2.55 * value)).join();
  const byKey = new Map(seen.map((pair) => [keyOf(pair.device.map((value) => 100 * value)), pair]));
  return detail.patches.flatMap((patch) => {
    const pair = byKey.get(keyOf(patch.device));
    return pair === undefined
      ? []
      : [
          {
            ...patch,
            aim: pair.aim,
            measured: pair.measured,
            origin: 'given' as const,
            deltaE: deltaE2000(pair.aim, pair.measured),
          },
        ];
  });
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
