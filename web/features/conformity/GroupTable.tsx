import type { CheckDetail } from '@melto/core/conformity/checkDetail';

/** Figures of each group of patches. */
export function GroupTable({ detail }: { detail: CheckDetail }) {
  return (
    <div style={{ overflowX: 'auto' }}>
      <table className="table tight" style={{ border: 0 }}>
        <thead>
          <tr>
            <th>Group</th>
            <th className="num">patches</th>
            <th className="num">mean ΔE00</th>
            <th className="num">largest</th>
            <th className="num">mean ΔH</th>
            <th className="num">mean ΔCh</th>
          </tr>
        </thead>
        <tbody>
          {detail.groups.map((group) => (
            <tr key={group.group}>
              <td>{group.group}</td>
              <td className="num">{group.count}</td>
              <td className="num">{group.mean.toFixed(2)}</td>
              <td className="num">{group.largest.toFixed(2)}</td>
              <td className="num">{group.meanDeltaH.toFixed(2)}</td>
              <td className="num">{group.meanDeltaCh.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
