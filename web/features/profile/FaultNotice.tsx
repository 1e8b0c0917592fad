'use client';

import type { ReadingOfCondition } from '@melto/services/reading/readingView';

/** What a chosen reading shows that a profile made from it will carry. */
export function FaultNotice({ reading }: { reading: ReadingOfCondition | undefined }) {
  const faults = (JSON.parse(reading?.faults ?? '[]') as { kind: string }[]).filter(
    ({ kind }) => kind !== 'strip-backwards',
  );
  if (faults.length === 0) return null;
  return (
    <p className="notice bad">
      This reading shows a fault ({faults.map(({ kind }) => kind.replaceAll('-', ' ')).join(', ')}). A profile
      made from it will carry the mark.
    </p>
  );
}
