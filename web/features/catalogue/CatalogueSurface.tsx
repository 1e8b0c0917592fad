'use client';

import { Button, Checkbox, TextField } from '@mui/material';
import { Link } from '@/ui/Link';
import { useState } from 'react';
import type { CatalogueRow } from '@melto/services/overview/catalogue';
import { csv } from '@/ui/Figure';
import { save } from '@/ui/save';
import { CATALOGUE_COLUMNS, sortRows } from './catalogueColumns';

interface Order {
  readonly column: number;
  readonly falling: boolean;
}

/** All conditions with a profile in force beside each other, by what a paper is chosen by. */
export function CatalogueSurface({ rows }: { rows: readonly CatalogueRow[] }) {
  const [find, setFind] = useState('');
  const [order, setOrder] = useState<Order>({ column: 0, falling: false });
  const [ticked, setTicked] = useState<readonly number[]>([]);
  const asked = find.trim().toLowerCase().split(/\s+/);
  const shown = sortRows(
    rows.filter((row) => asked.every((word) => wordsOf(row).includes(word))),
    CATALOGUE_COLUMNS[order.column],
    order.falling,
  );
  const pair = ticked.flatMap((id) => rows.find(({ conditionId }) => conditionId === id) ?? []);
  const tick = (id: number, on: boolean): void =>
    // Two can be compared: a third one takes the place of the first.
    setTicked((before) => (on ? [...before, id].slice(-2) : before.filter((own) => own !== id)));
  return (
    <div className="panel catalogue">
      <div className="row">
        <TextField
          label="Find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          sx={{ width: 280 }}
        />
        <span className="quiet grow">
          {shown.length} of {rows.length}
          {pair.length === 1 && '; tick another to compare what both print'}
        </span>
        {pair.length === 2 && (
          <Button
            component={Link}
            href={`/gamut?a=${pair[0].profile.key}&b=${pair[1].profile.key}`}
            variant="outlined"
          >
            Who wins where
          </Button>
        )}
        <Button disabled={shown.length === 0} onClick={() => save('catalogue.csv', catalogueCsv(shown))}>
          CSV
        </Button>
      </div>
      <div className="catalogue-table">
        <table className="table tight">
          <thead>
            <tr>
              <th />
              {CATALOGUE_COLUMNS.map(({ name, numeric }, column) => {
                const current = column === order.column;
                return (
                  <th
                    key={name}
                    className={numeric && 'num'}
                    aria-sort={current ? (order.falling ? 'descending' : 'ascending') : 'none'}
                  >
                    <button
                      type="button"
                      className="plain"
                      onClick={() =>
                        setOrder({ column, falling: current ? !order.falling : numeric === true })
                      }
                    >
                      {name}
                      {current && (order.falling ? ' ↓' : ' ↑')}
                    </button>
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <tr key={row.conditionId} aria-selected={ticked.includes(row.conditionId)}>
                <td>
                  <Checkbox
                    size="small"
                    sx={{ padding: 0 }}
                    checked={ticked.includes(row.conditionId)}
                    onChange={(_, on) => tick(row.conditionId, on)}
                    slotProps={{
                      input: { 'aria-label': `Compare ${row.device} / ${row.stock} / ${row.mode}` },
                    }}
                  />
                </td>
                {CATALOGUE_COLUMNS.map(({ name, numeric, words }, column) => (
                  <td key={name} className={numeric && 'num'}>
                    {column === 0 ? (
                      <Link href={`/conditions/${row.conditionId}`}>
                        <b>{words(row)}</b>
                      </Link>
                    ) : (
                      words(row)
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {shown.length === 0 && (
        <p className="quiet">
          {rows.length === 0
            ? 'No condition has a profile in force yet. Build one, and it stands here with what it prints.'
            : 'No condition is called like that.'}
        </p>
      )}
      <p className="quiet small">
        By the profiles in force: gamut in thousand ΔE*ab³ with its paper, Dmax as visual density of the
        darkest neutral above paper. Best is the lowest mean ΔE00 of any conformity check.
      </p>
    </div>
  );
}

const wordsOf = ({ device, stock, mode, inkSet }: CatalogueRow): string =>
  [device, stock, mode, inkSet].join(' ').toLowerCase();

function catalogueCsv(rows: readonly CatalogueRow[]): Blob {
  const text = csv({
    head: CATALOGUE_COLUMNS.map(({ name }) => name),
    rows: rows.map((row) => CATALOGUE_COLUMNS.map(({ words }) => words(row).replace('–', ''))),
  });
  return new Blob([text], { type: 'text/csv' });
}
