import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { formatLab } from '@/ui/format';

/** Solids and overprints around the gamut, by their device values. */
const OUTLINE = ['100 0 0 0', '100 100 0 0', '0 100 0 0', '0 100 100 0', '0 0 100 0', '100 0 100 0'];

/** What the correction for the substrate did: the shift of white, and of the outline of the aims in a*b*. */
export function PaperShift({
  detail,
  white,
}: {
  detail: CheckDetail;
  white: { readonly aim: Lab; readonly read: Lab };
}) {
  const corners = OUTLINE.map((key) =>
    detail.patches.find(({ device }) => device.map((value) => Math.round(value)).join(' ') === key),
  );
  const complete = corners.every((corner) => corner !== undefined);
  const area = (labs: readonly Lab[]): number =>
    Math.abs(
      labs.reduce((sum, [, a, b], i) => {
        const next = labs[(i + 1) % labs.length];
        return sum + (a * next[2] - next[1] * b) / 2;
      }, 0),
    );
  const before = corners.flatMap((corner) => (corner === undefined ? [] : [corner.uncorrected]));
  const after = corners.flatMap((corner) => (corner === undefined ? [] : [corner.aim]));
  const points = (labs: readonly Lab[]): string => labs.map(([, a, b]) => `${a},${-b}`).join(' ');
  return (
    <div className="panel">
      <header>
        <h2>Aims moved to this paper</h2>
        <span className="quiet">thin: as published, thick: corrected</span>
      </header>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {complete && (
          <svg
            viewBox="-95 -105 190 190"
            width="120"
            height="120"
            role="img"
            aria-label="outline of the aims"
          >
            <path d="M-95 0H95M0 -105V95" stroke="var(--rule)" strokeWidth="1" />
            <polygon
              points={points(before)}
              fill="none"
              stroke="var(--quiet)"
              strokeWidth="1"
              strokeDasharray="4 3"
            />
            <polygon points={points(after)} fill="none" stroke="var(--text)" strokeWidth="2" />
          </svg>
        )}
        <dl className="facts">
          <dt>White of the aims</dt>
          <dd>{formatLab(white.aim)}</dd>
          <dt>White read</dt>
          <dd>{formatLab(white.read)}</dd>
          <dt>Shift</dt>
          <dd>
            <b>{deltaE2000(white.aim, white.read).toFixed(2)}</b> ΔE00
          </dd>
          {complete && (
            <>
              <dt>Outline in a*b*</dt>
              <dd>{((100 * area(after)) / area(before) - 100).toFixed(1).replace('-', '−')} % of its area</dd>
            </>
          )}
        </dl>
      </div>
    </div>
  );
}
