import type { ErrorSummary } from '@melto/core/numerics/statistics';

/** Mean, 95th percentile and largest of differences, in one line. */
export function ErrorFigures({ mean, p95, largest }: Pick<ErrorSummary, 'mean' | 'p95' | 'largest'>) {
  return (
    <p className="figures">
      <span>
        mean <b>{mean.toFixed(2)}</b>
      </span>
      <span>
        95 % under <b>{p95.toFixed(2)}</b>
      </span>
      <span>
        largest <b>{largest.toFixed(2)}</b>
      </span>
    </p>
  );
}
