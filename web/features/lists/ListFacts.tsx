'use client';

import { TextField } from '@mui/material';
import { useMemo, useState } from 'react';
import { listUnder } from '@melto/core/lists/listUnder';
import type { ColourListDetail } from '@melto/services/lists/colourLists';
import { COLOUR_LIST_FILE } from '@/endpoints/lists';
import { VersionList } from '@/features/library/VersionList';
import { illuminantOf } from '@/features/light/illuminantOf';
import { LightField } from '@/features/light/LightField';
import { DAYLIGHT, partsOf, useLights } from '@/features/light/useLights';
import type { SeenInKey } from '@/features/light/useLights';
import { addressOf } from '@/ui/api';
import { formatDay } from '@/ui/format';
import { LabCells, LabHeads } from '@/ui/LabCells';
import { Link } from '@/ui/Link';
import { MoreRows, ROWS_AT_ONCE } from '@/ui/MoreRows';
import { Swatch } from '@/ui/Swatch';
import { changeSentences } from './changeWords';
import { ListTolerance } from './ListTolerance';

/** A version of a colour list: its colours, found by name, and how far a light moves them. */
export function ListFacts({ list }: { list: ColourListDetail }) {
  const [find, setFind] = useState('');
  const [most, setMost] = useState(ROWS_AT_ONCE);
  const [seen, setSeen] = useState<SeenInKey>(DAYLIGHT);
  const lights = useLights();
  const moved = useMemo(() => {
    const { key, observer } = partsOf(seen);
    const light = lights.find((own) => own.key === key);
    return seen === DAYLIGHT || light === undefined
      ? undefined
      : listUnder(list.colours, { light: illuminantOf(light), observer });
  }, [list.colours, lights, seen]);
  const asked = find.trim().toLowerCase();
  const order = useMemo(() => {
    const rows = [...list.colours.keys()].filter((i) => list.colours[i].name.toLowerCase().includes(asked));
    return moved === undefined ? rows : rows.sort((a, b) => (moved[b] ?? -1) - (moved[a] ?? -1));
  }, [list.colours, asked, moved]);
  const { versions, version, spectra, count } = list;
  return (
    <div className="panel" style={{ display: 'grid', gap: 12, gridTemplateColumns: 'minmax(0, 1fr)' }}>
      <header>
        <h2>{list.name}</h2>
        <Link href={`/where?list=${list.id}`}>Where does it come out?</Link>
        <a href={addressOf(COLOUR_LIST_FILE, { params: { id: list.id } })} download>
          CGATS
        </a>
      </header>
      <p>
        {count} {count === 1 ? 'colour' : 'colours'}, {spectraWords(spectra, count)}. {list.origin},{' '}
        {formatDay(list.madeMs)}, by {list.author}. {list.note}
      </p>
      {list.removedMs !== null && <p className="quiet">It was removed from the library.</p>}
      <VersionList versions={versions} shownId={list.id} path={`/library/lists?set=${versions[0].id}`} />
      <ListTolerance list={list} />
      {list.changes !== null && <p className="quiet">{changeSentences(list.changes).join(' ')}</p>}
      <div className="row">
        <TextField
          label="Find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          sx={{ width: 240 }}
        />
        {spectra > 0 && <LightField label="Seen in" value={seen} onChange={setSeen} width={200} />}
        <span className="quiet grow">
          {order.length} of {count}
        </span>
        <span className="quiet small">version {version}, D50, 2°</span>
      </div>
      <table className="table tight">
        <thead>
          <tr>
            <th style={{ width: 72 }}>Colour</th>
            <th>Name</th>
            <LabHeads />
            <th>From</th>
            {moved !== undefined && <th className="num">moves, ΔE00</th>}
          </tr>
        </thead>
        <tbody>
          {order.slice(0, most).map((i) => {
            const { name, lab, spectrum } = list.colours[i];
            return (
              <tr key={i}>
                <td>
                  <Swatch measured={lab} height={24} label={name} />
                </td>
                <td>{name}</td>
                <LabCells lab={lab} />
                <td className="quiet">{spectrum === undefined ? 'L*a*b*' : 'spectrum'}</td>
                {moved !== undefined && <td className="num">{moved[i]?.toFixed(2) ?? '–'}</td>}
              </tr>
            );
          })}
        </tbody>
      </table>
      <MoreRows shown={most} total={order.length} onShow={setMost} />
    </div>
  );
}

function spectraWords(spectra: number, count: number): string {
  if (spectra === count) return 'with spectra';
  return spectra === 0 ? 'without spectra' : `${spectra} of them with a spectrum`;
}
