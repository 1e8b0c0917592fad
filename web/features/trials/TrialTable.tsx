'use client';

import { Button } from '@mui/material';
import type { PaperTrial } from '@melto/services/house/paperTrials';
import { csv } from '@/ui/Figure';
import { formatLab } from '@/ui/format';
import { Link } from '@/ui/Link';
import { save } from '@/ui/save';
import { Swatch } from '@/ui/Swatch';
import { useHouse } from '@/features/frame/useHouse';
import {
  bestIn,
  brightenerWords,
  figureWords,
  pictureSentences,
  stateWords,
  TRIAL_COLUMNS,
  trialTable,
} from './trialColumns';
import { useTrialRows } from './useTrialRows';

/** The stocks of a trial beside each other; the best of each figure is bold. */
export function TrialTable({ trial }: { trial: PaperTrial }) {
  const { rows, waiting, problem } = useTrialRows(trial);
  const { data: house } = useHouse();
  const sentences = pictureSentences(rows);
  const best = TRIAL_COLUMNS.map((column) => bestIn(column, rows));
  const pictures = rows.find(({ figures }) => figures !== undefined)?.figures?.pictures ?? [];
  return (
    <div className="panel" style={{ display: 'grid', gap: 12, gridTemplateColumns: 'minmax(0, 1fr)' }}>
      <header>
        <h2>{trial.name}</h2>
        <span className="quiet">
          {trial.device}, {trial.mode}, {trial.patches} patches, past any curves
        </span>
        <Button
          size="small"
          onClick={() => save(`${trial.name}.csv`, new Blob([csv(trialTable(rows))], { type: 'text/csv' }))}
        >
          CSV
        </Button>
      </header>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <table className="table tight">
        <thead>
          <tr>
            <th>Stock</th>
            <th>Sheet</th>
            <th>White, L* a* b*</th>
            {TRIAL_COLUMNS.map(({ name, help }) => (
              <th key={name} className="num" title={help}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => {
            const { print, figures } = row;
            return (
              <tr key={print.printId}>
                <td>
                  <Link href={`/conditions/${print.conditionId}`}>
                    <b>{print.stock}</b>
                  </Link>
                  <br />
                  <span className="quiet small">{brightenerWords(print)}</span>
                </td>
                <td>
                  {print.readingId === null ? (
                    <Link href={`/read/${print.code}-1`}>{print.code}</Link>
                  ) : (
                    <Link href={`/readings/${print.readingId}`}>{print.code}</Link>
                  )}
                  <br />
                  <span className="quiet small">{stateWords(print, house?.nowMs ?? 0)}</span>
                </td>
                <td>
                  {figures !== undefined && (
                    <>
                      <Swatch measured={figures.white} height={18} label={`white of ${print.stock}`} />
                      <span className="mono small" style={{ whiteSpace: 'nowrap' }}>
                        {formatLab(figures.white, 1)}
                      </span>
                    </>
                  )}
                </td>
                {TRIAL_COLUMNS.map(({ name, value, digits }, column) => {
                  const words = figureWords(value(row), digits);
                  return (
                    <td key={name} className="num">
                      {best[column].has(i) ? <b>{words}</b> : words}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      {waiting > 0 && (
        <p className="quiet" role="status">
          {waiting} of {rows.length} are worked out…
        </p>
      )}
      {pictures.length > 0 && (
        <div>
          <h3>Pictures</h3>
          <table className="table tight" aria-label="What pictures lose">
            <thead>
              <tr>
                <th>Lost on average, ΔE00</th>
                {rows.map(({ print }) => (
                  <th key={print.printId} className="num">
                    {print.stock}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {pictures.map(({ name }, at) => (
                <tr key={name}>
                  <td>{name}</td>
                  {rows.map(({ print, figures }) => (
                    <td key={print.printId} className="num">
                      {figures?.pictures[at].lost.toFixed(1) ?? '–'}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {sentences.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      )}
      <p className="quiet small">
        Bold is the best of a figure. Gamut and pictures are by a model of each chart; a picture’s white is
        brought to that of the stock, and how far its colours lie beyond what prints is lost. Read a sheet in
        M1 and in M2 for its brightener.
      </p>
    </div>
  );
}
