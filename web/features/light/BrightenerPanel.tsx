'use client';

import { useQuery } from '@tanstack/react-query';
import type { CieWhiteness } from '@melto/core/light/ultraviolet';
import { SHEET_BRIGHTENER } from '@/endpoints/light';
import { PatchRanking } from '@/features/reading/PatchRanking';
import { ask } from '@/ui/api';
import { formatSigned } from '@/ui/format';
import { Link } from '@/ui/Link';

/** Less than this in b* between M1 and M2, and no eye sees that a paper has brightener. */
const LEAST_SHIFT = 0.3;

/** What ultraviolet does to a sheet that was read with it and without; nothing where it was not. */
export function BrightenerPanel({
  readingId,
  conditionId,
  onPick,
}: {
  readingId: number;
  conditionId: number;
  onPick: (row: number) => void;
}) {
  const { data } = useQuery({
    queryKey: ['brightener', readingId],
    queryFn: () => ask(SHEET_BRIGHTENER, { params: { id: readingId } }),
  });
  if (data === undefined || data === null) return null;
  const { paper, patches, bent } = data;
  const bright = paper !== null && Math.abs(paper.b) >= LEAST_SHIFT;
  return (
    <div className="panel">
      <header>
        <h2>Brightener</h2>
        <span className="quiet">{data.withMode} against M2 of this sheet</span>
      </header>
      {paper !== null && (
        <>
          <p className="small">
            {bright
              ? 'Its white depends on the ultraviolet of the light; light tints turn with it. '
              : 'This paper has next to no brightener: its white is the same in any light.'}
            {bright && data.withMode === 'M1' && (
              <Link href={`/conditions/${conditionId}/study`}>Brightener study</Link>
            )}
            {bright &&
              data.withMode === 'M0' &&
              'How much ultraviolet the lamp of M0 has is not known: a study needs M1.'}
          </p>
          <dl className="facts">
            <dt>Paper</dt>
            <dd>
              <b>{paper.deltaE.toFixed(2)}</b>{' '}
              <span className="quiet">ΔE00, b* by {formatSigned(paper.b, 1)} with ultraviolet</span>
            </dd>
            <dt>Whiteness</dt>
            <dd>
              {words(paper.whiteness[0])}{' '}
              <span className="quiet">with, {words(paper.whiteness[1])} without; CIE, D65, 10°</span>
            </dd>
          </dl>
        </>
      )}
      <p className="small" style={{ marginTop: 8 }}>
        Patches move by <b>{patches.mean.toFixed(2)}</b> ΔE00 on average, most of all
      </p>
      <PatchRanking patches={bent.map(({ row, deltaE }) => ({ row, value: deltaE }))} onPick={onPick} />
    </div>
  );
}

const words = (white: CieWhiteness | null): string =>
  white === null ? 'no white' : `${white.whiteness.toFixed(1)}, tint ${formatSigned(white.tint, 1)}`;
