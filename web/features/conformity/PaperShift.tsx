import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { formatFigure, formatLab } from '@/ui/format';
import { HueOutline, outlineArea } from '@/ui/HueOutline';

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
  const before = corners.flatMap((corner) => (corner === undefined ? [] : [corner.uncorrected]));
  const after = corners.flatMap((corner) => (corner === undefined ? [] : [corner.aim]));
  return (
    <div className="panel">
      <header>
        <h2>Aims moved to this paper</h2>
        <span className="quiet">thin: as published, thick: corrected</span>
      </header>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {complete && (
          <HueOutline
            size={120}
            label="outline of the aims"
            outlines={[
              { corners: before, kind: 'thin' },
              { corners: after, kind: 'thick' },
            ]}
          />
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
              <dd>{formatFigure((100 * outlineArea(after)) / outlineArea(before) - 100, 1)} % of its area</dd>
            </>
          )}
        </dl>
      </div>
    </div>
  );
}
