'use client';

import { Button } from '@mui/material';
import { useState } from 'react';
import { stockFactWords } from '@melto/core/stock/stockFacts';
import type { AlikeStocks } from '@melto/services/house/alikeStocks';
import type { LibraryStock } from '@melto/services/house/library';
import type { MeasuredBrightener } from '@melto/services/house/measuredBrightener';
import { CHANGE_STOCK, NEW_STOCK, PUT_STOCK_AWAY } from '@/endpoints/conditions';
import { NewStockDialog } from '@/features/condition/OwnDialogs';
import { send } from '@/ui/api';
import { May } from '@/ui/May';
import { formatFigure } from '@/ui/format';
import { ChangeStock } from './ChangeStock';
import { LibraryTable } from './LibraryTable';
import { usePutAway } from './usePutAway';

/** Stocks of the house: added, renamed, noted on, put away. */
export function StocksSurface({
  stocks,
  alike = [],
  brighteners = [],
}: {
  stocks: readonly LibraryStock[];
  alike?: readonly AlikeStocks[];
  brighteners?: readonly MeasuredBrightener[];
}) {
  const [adding, setAdding] = useState<{ readonly like?: LibraryStock }>();
  const [changing, setChanging] = useState<LibraryStock>();
  const put = usePutAway();
  const measuredWords = (stock: number): string[] =>
    brighteners
      .filter(({ stockId }) => stockId === stock)
      .map(({ by, modes }) => `ultraviolet light moves its white by b* ${formatFigure(by, 1)} (${modes})`);
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Stocks</h1>
        <p className="quiet">A new name is no new paper: conditions keep theirs.</p>
        <May act={NEW_STOCK}>
          <Button variant="contained" onClick={() => setAdding({})}>
            New stock
          </Button>
        </May>
      </div>
      {alike
        .filter(({ stocks: pair }) =>
          pair.every(({ id }) => stocks.some((own) => own.id === id && !own.away)),
        )
        .map(({ stocks: [first, second], device, mode, white, inks, common }) => (
          <p key={`${first.id} ${second.id}`} className="notice">
            <b>{first.name}</b> and <b>{second.name}</b> behave alike on {device}, {mode}: white{' '}
            {white.toFixed(2)} ΔE00 apart, {inks.toFixed(2)} on the mean of {common} colours that both
            printed, no more than two sheets of one paper. The same paper under another name?
          </p>
        ))}
      <LibraryTable
        calls={CHANGE_STOCK}
        items={stocks}
        what="stock"
        words={({ name, boxLabel, finish, note }) => [name, boxLabel, finish, note].join(' ')}
        columns={[
          { name: 'On the box', cell: ({ boxLabel }) => boxLabel },
          { name: 'Surface', cell: ({ finish }) => finish },
          {
            name: 'Known of it',
            cell: ({ id, facts }) => [...stockFactWords(facts), ...measuredWords(id)].join(', '),
          },
          { name: 'Rests, min', numeric: true, cell: ({ restMinutes }) => restMinutes },
          { name: 'Conditions', numeric: true, cell: ({ uses }) => uses },
          { name: 'Note', cell: ({ note }) => note },
        ]}
        onChange={setChanging}
        onCopy={(stock) => () => setAdding({ like: stock })}
        onAway={({ id, name, away }) =>
          void put(
            (now) => send(PUT_STOCK_AWAY, { params: { id }, body: { away: now } }),
            away ? undefined : `${name} is put away; its conditions keep it.`,
          )
        }
      />
      {adding !== undefined && (
        <NewStockDialog like={adding.like} onMade={() => {}} onClose={() => setAdding(undefined)} />
      )}
      {changing !== undefined && <ChangeStock stock={changing} onClose={() => setChanging(undefined)} />}
    </section>
  );
}
