import { Link } from '@/ui/Link';
import type { WatchView } from '@melto/services/watch/watchView';
import { formatWhen } from '@/ui/format';
import { StatusMark } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';

const SHOWN = 60;

/** The checks of a watch, the latest first. */
export function WatchChecks({ checks, nowMs }: { checks: WatchView['checks']; nowMs: number }) {
  return (
    <div className="panel">
      <header>
        <h2>Checks</h2>
        <span className="quiet">
          {checks.length}
          {checks.length > SHOWN ? `, the latest ${SHOWN} below` : ''}
        </span>
      </header>
      <table className="table tight" style={{ border: 0 }}>
        <thead>
          <tr>
            <th>Read</th>
            <th>To the zero reading</th>
            <th className="num">Mean ΔE00</th>
            <th className="num">Largest</th>
            <th>What moved</th>
          </tr>
        </thead>
        <tbody>
          {[...checks]
            .reverse()
            .slice(0, SHOWN)
            .map((check) => (
              <tr key={check.id}>
                <td>
                  <Link
                    href={
                      check.runId === null ? `/readings/${check.readingId}` : `/runs/${check.runId}/analysis`
                    }
                  >
                    {formatWhen(check.madeMs, nowMs)}
                  </Link>
                  {check.runId !== null && <span className="quiet"> a run</span>}
                </td>
                <td>
                  <StatusMark status={check.verdict as Status} />
                </td>
                <td className="num">{check.meanDeltaE.toFixed(2)}</td>
                <td className="num">{check.largestDeltaE.toFixed(2)}</td>
                <td>{check.moved ? check.cause : ''}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}
