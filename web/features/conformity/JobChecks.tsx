import { Link } from '@/ui/Link';
import { chainSentence, CHAIN_REMEDIES } from '@melto/core/chain/chainWords';
import type { JobCheckView } from '@melto/services/conformity/jobCheck';
import { SheetFiles } from '@/features/charts/SheetFiles';
import { formatWhen } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';

/** What the newest picture of a job tells, and those that wait to be read. */
export function JobChecks({
  check,
  waiting,
  nowMs,
}: {
  check: JobCheckView | undefined;
  waiting: readonly { readonly code: string; readonly job: string }[];
  nowMs: number;
}) {
  if (check === undefined && waiting.length === 0) return null;
  return (
    <div className="panel">
      <header>
        <h2>Job check</h2>
        {check !== undefined && (
          <span className="quiet">
            <Link href={`/readings/${check.readingId}`} className="mono">
              {check.code}
            </Link>
            , {formatWhen(check.finishedMs, nowMs)}; jobs: {check.source}, {check.intent}
          </span>
        )}
      </header>
      {check !== undefined && (
        <div style={{ display: 'flex', gap: 12, padding: '4px 16px 12px' }}>
          <span style={{ paddingTop: 2 }}>
            <StatusShape
              status={check.finding.cause === 'right' ? 'conforms' : 'does-not-conform'}
              size={16}
            />
          </span>
          <div>
            <p style={{ margin: 0 }}>{chainSentence(check.finding)}</p>
            {check.finding.cause !== 'right' && (
              <p className="quiet">{CHAIN_REMEDIES[check.finding.cause]}</p>
            )}
            <details>
              <summary>What was tried</summary>
              <table className="table tight" style={{ border: 0, width: 'auto' }}>
                <thead>
                  <tr>
                    <th>as if …</th>
                    <th className="num">mean ΔE00</th>
                  </tr>
                </thead>
                <tbody>
                  {check.finding.tried.slice(0, SHOWN).map(({ says, mean }) => (
                    <tr key={says}>
                      <td>{says}</td>
                      <td className="num">{mean.toFixed(1)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </details>
          </div>
        </div>
      )}
      {waiting.length > 0 && (
        <p style={{ padding: '0 16px 8px', margin: 0 }}>
          On the rack:{' '}
          {waiting.map(({ code, job }) => (
            <span key={code} style={{ marginRight: 20 }}>
              <Link href={`/read/${code}`} className="mono">
                {code}
              </Link>{' '}
              <span className="quiet small">
                to place in a document: <SheetFiles code={code} job={job} />
              </span>
            </span>
          ))}
        </p>
      )}
    </div>
  );
}

/** Ways that are listed; those farther off tell nothing more. */
const SHOWN = 5;
