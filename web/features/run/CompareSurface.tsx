'use client';

import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import type { Share } from '@melto/core/press/capability';
import type { Phase } from '@melto/core/press/runSettings';
import type { RunComparison } from '@melto/services/press/compareRuns';
import { formatDay } from '@/ui/format';
import { Link } from '@/ui/Link';

const percent = ({ share }: Share): string => (100 * share).toFixed(share === 1 ? 0 : 1);

/** Whether a share is less than the best of its row by more than chance: their 95 % intervals do not meet. */
function behind(share: Share, row: readonly (Share | undefined)[]): boolean {
  const best = Math.max(...row.map((other) => other?.low ?? 0));
  return share.high < best;
}

/** Runs beside each other: what was within tolerance of each ink, and how far it was on the mean. */
export function CompareSurface({
  comparison: { runs, keys, unlike },
  phase,
}: {
  comparison: RunComparison;
  phase: Phase | undefined;
}) {
  const router = useRouter();
  const ids = runs.map(({ run }) => run.id).join(',');
  const lines: readonly {
    readonly key: string;
    readonly words: string;
    readonly quantity: string;
    readonly shares: readonly (Share | undefined)[];
    readonly means: readonly (number | undefined)[];
  }[] = [
    {
      ...{ key: 'sheets', words: 'whole sheets', quantity: '' },
      shares: runs.map(({ sheetShare }) => sheetShare),
      means: runs.map(() => undefined),
    },
    {
      ...{ key: 'patches', words: 'all patches', quantity: '' },
      shares: runs.map(({ patchShare }) => patchShare),
      means: runs.map(() => undefined),
    },
    ...keys.map((key) => ({
      ...key,
      shares: runs.map(({ rows }) => rows[key.key]?.share),
      means: runs.map(({ rows }) => rows[key.key]?.mean),
    })),
  ];
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Runs compared</h1>
        <p className="quiet">
          What was within tolerance, and the mean of its figure. Darker is less than the best of its row by
          more than chance.
        </p>
        <TextField
          select
          size="small"
          label="Phase"
          value={phase ?? ''}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ width: 170 }}
          onChange={(event) => router.push(`/runs/compare?runs=${ids}&phase=${event.target.value}`)}
        >
          <MenuItem value="">both</MenuItem>
          <MenuItem value="make-ready">make-ready</MenuItem>
          <MenuItem value="production">production</MenuItem>
        </TextField>
      </div>
      {unlike.length > 0 && <p className="notice">{unlike.join(' ')}</p>}
      <table
        className="table analysis-table"
        style={{ width: 'auto', alignSelf: 'start', justifySelf: 'start' }}
      >
        <thead>
          <tr>
            <th rowSpan={2}>Patches</th>
            {runs.map(({ run, sheets }) => (
              <th key={run.id} className="num" colSpan={2}>
                <Link href={`/runs/${run.id}/analysis`}>{run.jobNumber}</Link>
                <div className="quiet small">
                  {run.title}
                  <br />
                  {formatDay(run.madeMs)}, {sheets} {sheets === 1 ? 'sheet' : 'sheets'}
                </div>
              </th>
            ))}
          </tr>
          <tr>
            {runs.flatMap(({ run }) => [
              <th key={`${run.id} within`} className="num">
                within, %
              </th>,
              <th key={`${run.id} mean`} className="num">
                mean
              </th>,
            ])}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ key, words, quantity, shares, means }) => (
            <tr key={key}>
              <th scope="row">
                {words} <span className="quiet small">{quantity}</span>
              </th>
              {shares.map((share, at) =>
                share === undefined ? (
                  <td key={runs[at].run.id} className="num quiet" colSpan={2}>
                    –
                  </td>
                ) : (
                  <ShareWithMean
                    key={runs[at].run.id}
                    share={share}
                    mean={means[at]}
                    behind={behind(share, shares)}
                  />
                ),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function ShareWithMean({
  share,
  mean,
  behind: less,
}: {
  share: Share;
  mean: number | undefined;
  behind: boolean;
}) {
  return (
    <>
      <td
        className="num"
        style={less ? { background: 'color-mix(in srgb, var(--text) 18%, var(--surface))' } : undefined}
        title={`${(100 * share.low).toFixed(1)} to ${(100 * share.high).toFixed(1)} % with 95 % certainty${less ? ', less than the best' : ''}`}
      >
        {percent(share)}
      </td>
      <td className="num quiet">{mean === undefined || Number.isNaN(mean) ? '' : mean.toFixed(2)}</td>
    </>
  );
}
