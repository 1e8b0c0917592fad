import type { RunView, UnitView } from '@melto/services/press/runView';
import { screenOf } from '@/ui/Swatch';
import { changeWords, moveReason, moveWords } from './moveWords';

const HEIGHT = 56;
const MIDDLE = HEIGHT / 2;
/** Zones that have room for a whole figure each, and for a short one. */
const ROOMY = 14;
const MANY = 30;

/** One unit in large type: its ink, the word of its move, and the size of that by zone. */
export function UnitRow({
  line,
  guide,
  scale,
  contrast,
}: {
  line: UnitView;
  guide: RunView['settings']['guide'];
  /** Change of density that the height of a line stands for. */
  scale: number;
  /** Print contrast of its 75 % tints on the newest sheet, in per cent; null where it was not read. */
  contrast: number | null;
}) {
  const { ink, lab, changes, word } = line;
  const colour = lab === null ? 'var(--rule)' : screenOf(lab).css;
  const words = moveWords(line);
  return (
    <li className="run-unit" aria-label={`${ink}: ${words}`}>
      <div className="run-word">
        <i style={{ background: colour }} />
        <div>
          <b className={ink.length > 3 ? 'long' : undefined}>
            {ink} <span className={word === 'move' ? undefined : 'quiet'}>{words}</span>
          </b>
          <p className="quiet small">
            {moveReason(line, guide)}
            {contrast !== null && `, print contrast ${contrast.toFixed(0)} %`}
          </p>
        </div>
      </div>
      <div className={changes.every((change) => change === 0) ? 'run-line still' : 'run-line'}>
        <MoveLine changes={changes} scale={scale} colour={colour} />
        {shownChanges(changes).map(({ change, zone, words: figure }) => (
          <span
            key={zone}
            className={`${change > 0 ? 'up' : 'down'}${changes.length > ROOMY ? ' many' : ''}`}
            style={{ left: `${(100 * zone) / changes.length}%`, width: `${100 / changes.length}%` }}
          >
            {figure}
          </span>
        ))}
      </div>
    </li>
  );
}

/** The figures that there is room for: all, without their nought where zones are many, or the greatest two. */
export function shownChanges(
  changes: readonly number[],
): { readonly zone: number; readonly change: number; readonly words: string }[] {
  const all = changes.flatMap((change, zone) =>
    change === 0 ? [] : [{ zone, change, words: changeWords(change) }],
  );
  if (changes.length <= ROOMY) return all;
  const short = all.map((one) => ({ ...one, words: one.words.replace('0.', '.') }));
  if (changes.length <= MANY) return short;
  const most = Math.max(...changes);
  const least = Math.min(...changes);
  const first = (value: number) => short.filter(({ change }) => change === value).slice(0, 1);
  return [...(most > 0 ? first(most) : []), ...(least < 0 ? first(least) : [])];
}

/** The move as one stepped line over the zones, filled to its rest with the ink. */
function MoveLine({ changes, scale, colour }: { changes: readonly number[]; scale: number; colour: string }) {
  const y = (change: number): number => MIDDLE - (change / scale) * (MIDDLE - 3);
  const steps = changes.map((change, zone) => `L${zone} ${y(change)}L${zone + 1} ${y(change)}`).join('');
  const moved = changes.some((change) => change !== 0);
  return (
    <svg viewBox={`0 0 ${changes.length} ${HEIGHT}`} preserveAspectRatio="none" height={HEIGHT} aria-hidden>
      {moved && <path d={`M0 ${MIDDLE}${steps}L${changes.length} ${MIDDLE}Z`} fill={colour} stroke="none" />}
      <path
        d={moved ? `M0 ${MIDDLE}${steps}L${changes.length} ${MIDDLE}` : `M0 ${MIDDLE}H${changes.length}`}
        fill="none"
        stroke="var(--text)"
        strokeWidth={moved ? 2 : 1}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
