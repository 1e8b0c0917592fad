import type { Status } from './StatusMark';

/** Value against its limit: the mark is the limit. */
export function LimitBar({ value, limit, status }: { value: number; limit: number; status: Status }) {
  const tone =
    status === 'does-not-conform' ? 'var(--fails)' : status === 'near' ? 'var(--near)' : 'var(--conforms)';
  return (
    <span className="bar" aria-hidden>
      <i style={{ width: `${Math.min(100, (80 * value) / limit)}%`, background: tone }} />
      <b style={{ left: '80%' }} />
    </span>
  );
}
