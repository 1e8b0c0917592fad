'use client';

import type { FitReport } from '@melto/core/characterise/fitReport';
import type { ProfileDetail } from '@melto/services/ledger/kinds/profileKind';
import { Link } from '@/ui/Link';
import { Swatch } from '@/ui/Swatch';

const SHOWN = 3;

/** The patches the model predicts least well: measured above, model in the lower third. */
export function WorstPatches({
  report,
  suspicious = [],
}: {
  report: FitReport;
  suspicious?: ProfileDetail['suspicious'];
}) {
  return (
    <div className="panel">
      <header>
        <h2>Patches farthest from the model</h2>
        <span className="quiet">measured above, model in the lower third; device values and ΔE00 below</span>
        <span className="small">
          {report.outliers.length === 0 ? (
            <span className="quiet">none is over five medians</span>
          ) : (
            <>
              {report.outliers.length} over five medians, worth another reading:{' '}
              {suspicious.slice(0, SHOWN).map(({ readingId, code, row }, i) => (
                <span key={`${readingId} ${row}`}>
                  {i > 0 && ', '}
                  <Link href={`/readings/${readingId}?patch=${row}`}>
                    {code} patch {row + 1}
                  </Link>
                </span>
              ))}
              {suspicious.length > SHOWN && ' …'}
            </>
          )}
        </span>
      </header>
      <div className="tiles">
        {report.worst.slice(0, 6).map((patch) => (
          <div key={patch.row}>
            <Swatch measured={patch.measured} aim={patch.predicted} label={`patch ${patch.row + 1}`} />
            <p className="row small" style={{ justifyContent: 'space-between', marginTop: 4 }}>
              <span className="quiet">
                {patch.device
                  .map((value) => Math.round(value * (patch.device.length > 3 ? 100 : 255)))
                  .join(' ')}
              </span>
              <b>{patch.deltaE.toFixed(2)}</b>
            </p>
          </div>
        ))}
      </div>
    </div>
  );
}
