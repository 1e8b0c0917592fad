'use client';

import { Button, FormControlLabel, Switch, TextField } from '@mui/material';
import { useState } from 'react';
import type { ReactNode } from 'react';
import type { Endpoint } from '@/endpoints/endpoint';
import { useMay } from '@/ui/May';

interface Item {
  readonly id: number;
  readonly name: string;
  readonly away: boolean;
}

/** A list of the library: searched, with what was put away shown or not; a row is changed, put away or taken out. */
export function LibraryTable<T extends Item>({
  items,
  columns,
  what,
  words,
  onChange,
  onCopy,
  onAway,
  calls,
}: {
  items: readonly T[];
  columns: readonly {
    readonly name: string;
    readonly numeric?: true;
    readonly cell: (item: T) => ReactNode;
  }[];
  /** What a row is. */
  what: 'device' | 'stock' | 'ink set';
  /** What a search goes through. */
  words: (item: T) => string;
  onChange: (item: T) => void;
  /** Makes another like it; undefined for a row that cannot be copied. */
  onCopy: (item: T) => (() => void) | undefined;
  onAway: (item: T) => void;
  /** What changes a row: offered to those who may. */
  calls: Pick<Endpoint, 'who'>;
}) {
  const may = useMay(calls);
  const [find, setFind] = useState('');
  const [showAway, setShowAway] = useState(false);
  const away = items.filter((item) => item.away).length;
  const asked = find.trim().toLowerCase().split(/\s+/);
  const rows = items.filter(
    (item) => (showAway || !item.away) && asked.every((word) => words(item).toLowerCase().includes(word)),
  );
  return (
    <div className="panel" style={{ display: 'grid', gap: 12, alignContent: 'start' }}>
      <div className="row">
        <TextField
          label="Find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          sx={{ width: 280 }}
        />
        {away > 0 && (
          <FormControlLabel
            control={<Switch checked={showAway} onChange={(_, checked) => setShowAway(checked)} />}
            label={`with ${away} put away`}
          />
        )}
        <span className="quiet grow">
          {rows.length} of {items.length}
        </span>
      </div>
      <table className="table">
        <thead>
          <tr>
            <th>Name</th>
            {columns.map(({ name, numeric }) => (
              <th key={name} className={numeric && 'num'}>
                {name}
              </th>
            ))}
            {may && <th />}
          </tr>
        </thead>
        <tbody>
          {rows.map((item) => (
            <tr key={item.id} className={item.away ? 'quiet' : undefined}>
              <td>
                <b>{item.name}</b>
                {item.away && <span className="small"> put away</span>}
              </td>
              {columns.map(({ name, numeric, cell }) => (
                <td key={name} className={numeric && 'num'}>
                  {cell(item)}
                </td>
              ))}
              {may && (
                <td className="num">
                  <Button
                    size="small"
                    variant="text"
                    aria-label={`Change ${item.name}`}
                    onClick={() => onChange(item)}
                  >
                    Change
                  </Button>
                  {onCopy(item) !== undefined && (
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Copy ${item.name}`}
                      onClick={onCopy(item)}
                    >
                      Copy
                    </Button>
                  )}
                  <Button
                    size="small"
                    variant="text"
                    aria-label={`${item.away ? 'Take out' : 'Put away'} ${item.name}`}
                    onClick={() => onAway(item)}
                  >
                    {item.away ? 'Take out' : 'Put away'}
                  </Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 && (
        <p className="quiet">
          {items.length === 0 ? `The house has no ${what} yet.` : `No ${what} is called like that.`}
        </p>
      )}
    </div>
  );
}
