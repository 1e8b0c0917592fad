import type { RunView } from '@melto/services/press/runView';
import { formatClock } from '@/ui/format';

/** Grey of a zone by how many of its patches are outside. */
const DEPTHS = [0, 0.18, 0.36, 0.55, 0.75, 0.95] as const;

/** The last sheets as a stack of thin strips, the newest on top, with the moves between them. */
export function SheetStrips({
  run: { strips, moves, okImpression, productionFrom, units },
}: {
  run: RunView;
}) {
  const rows = [...strips].reverse();
  return (
    <aside className="run-strips" aria-label="Sheets that were read">
      <h2>Sheets</h2>
      {rows.length === 0 && <p className="quiet small">None was read yet.</p>}
      <ol>
        {rows.map(({ id, impression, readMs, zonesOutside, outside, judged, openPatches }, at) => {
          const newer = at === 0 ? Infinity : rows[at - 1].impression;
          const between = moves.filter((move) => move.impression >= impression && move.impression < newer);
          const inks = [...new Set(between.map(({ unit }) => units[unit].ink))];
          return (
            <li key={id}>
              {inks.length > 0 && <p className="small run-moved">{inks.join(', ')} moved</p>}
              {productionFrom !== null &&
                productionFrom > impression &&
                productionFrom <= newer &&
                at > 0 && (
                  <p className="small run-moved">production from {productionFrom.toLocaleString('en-GB')}</p>
                )}
              <div
                className="run-strip"
                role="img"
                aria-label={`Impression ${impression}: ${outside} of ${judged} patches outside${openPatches > 0 ? `, ${openPatches} open` : ''}`}
              >
                {zonesOutside.map((count, zone) => (
                  <i key={zone} style={{ opacity: DEPTHS[Math.min(count, DEPTHS.length - 1)] }} />
                ))}
              </div>
              <p className="small">
                <b>{impression.toLocaleString('en-GB')}</b>{' '}
                <span className="quiet">
                  {formatClock(readMs)}{' '}
                  {impression === okImpression ? 'OK sheet' : outside === 0 ? '' : `${outside} outside`}
                </span>
              </p>
            </li>
          );
        })}
      </ol>
    </aside>
  );
}
