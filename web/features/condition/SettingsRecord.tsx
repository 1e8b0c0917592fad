import type { ConditionRow, SettingsPoint } from '@melto/services/ledger/conditions';
import { formatMoment } from '@/ui/format';

export function SettingsRecord({
  condition,
  points,
}: {
  condition: ConditionRow;
  points: readonly SettingsPoint[];
}) {
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Settings record</h1>
        <p className="quiet">A change of any of these is a new condition.</p>
      </div>
      <table className="table">
        <thead>
          <tr>
            <th>Point</th>
            <th>Value</th>
            <th>At each print</th>
          </tr>
        </thead>
        <tbody>
          {points.map((point) => (
            <tr key={point.label}>
              <td>{point.label}</td>
              <td>{point.value === '' ? <span className="quiet">not recorded</span> : point.value}</td>
              <td>{point.tickAtPrint ? 'ticked' : 'shown'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="panel">
        <dl className="facts">
          <dt>Device</dt>
          <dd>
            {condition.device}, channels {condition.process.name}
          </dd>
          <dt>Stock</dt>
          <dd>
            {condition.stock}, {condition.finish}, rests {condition.restMinutes} min
          </dd>
          <dt>Ink set</dt>
          <dd>{condition.inkSet}</dd>
          <dt>Print mode</dt>
          <dd>{condition.mode}</dd>
          <dt>Made</dt>
          <dd>{formatMoment(condition.madeMs)}</dd>
        </dl>
      </div>
    </section>
  );
}
