'use client';

import type { PointedCause } from '@melto/core/eye/pointOut';
import { EYE_CAUSE_WORDS, pointedSentences } from '@melto/core/eye/eyeSentences';

/** What notes point to, in words, with what speaks for each cause. */
export function Pointed({
  points,
  allSame,
}: {
  points: readonly PointedCause[] | undefined;
  allSame: boolean;
}) {
  if (points === undefined) return <p className="quiet">What they point to is worked out; a few seconds.</p>;
  const [first, ...rest] = pointedSentences(points, allSame);
  return (
    <div aria-live="polite" style={{ display: 'grid', gap: 6 }}>
      <p style={{ fontSize: 20, lineHeight: 1.3 }}>{first}</p>
      {rest.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      <p className="quiet small">
        What speaks for each:{' '}
        {points
          .map(
            ({ cause, share }) => `${EYE_CAUSE_WORDS[cause].name.toLowerCase()} ${Math.round(100 * share)} %`,
          )
          .join(', ')}
        .
      </p>
    </div>
  );
}
