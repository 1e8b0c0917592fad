import type { RunView } from '@melto/services/press/runView';
import { Link } from '@/ui/Link';

/** What the watch of the condition says of this run, or of the condition before it; nothing while all is steady. */
export function RunWatchWords({ run: { watch, conditionId } }: { run: RunView }) {
  if (watch === null) return null;
  const { own, moved, cause, why } = watch;
  const link = <Link href={`/conditions/${conditionId}/watch`}>Watch</Link>;
  if (own?.moved === true || own?.verdict === 'does-not-conform')
    return (
      <p className="notice bad" role="status">
        <b>This run has moved from the zero reading,</b> {own.meanDeltaE.toFixed(2)} ΔE00 on the mean.{' '}
        {own.cause} {link}
      </p>
    );
  if (moved)
    return (
      <p className="notice bad" role="status">
        <b>The condition has moved.</b> {cause} {link}
      </p>
    );
  return (
    <p className="quiet small">
      {link}:{' '}
      {own === null
        ? `steady. ${why ?? 'This run is one of its checks.'}`
        : `steady, with this run ${own.meanDeltaE.toFixed(2)} ΔE00 from the zero reading on the mean.`}
    </p>
  );
}
