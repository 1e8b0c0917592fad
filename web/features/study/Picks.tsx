import { rowLetter, STUDY_LIGHTNESSES, STUDY_ROUNDS } from '@melto/core/light/brightenerStudy';
import type { StudyPick } from '@melto/core/light/brightenerStudy';

/** Rows in the order in which they are asked for: another one first in each round. */
export const ASKED = Array.from({ length: STUDY_ROUNDS }, (_, round) =>
  STUDY_LIGHTNESSES.map((_, i) => (i + round) % STUDY_LIGHTNESSES.length),
).flat();

/** What was picked so far, by row. */
export function Picks({
  picks: all,
  eye,
  onBack,
}: {
  picks: readonly StudyPick[];
  /** Whose turn it is, from 0. */
  eye: number;
  onBack: () => void;
}) {
  const picks = all.slice(ASKED.length * eye);
  return (
    <div>
      <p className="row small" style={{ justifyContent: 'space-between' }}>
        <span>
          {picks.length} of {ASKED.length} picks{eye > 0 ? `, person ${eye + 1}` : ''}
        </span>
        {picks.length > 0 && (
          <button type="button" className="plain" onClick={onBack}>
            <u>take the last one back</u>
          </button>
        )}
      </p>
      <dl className="facts">
        {STUDY_LIGHTNESSES.map((_, row) => (
          <div key={row} style={{ display: 'contents' }}>
            <dt>Row {rowLetter(row)}</dt>
            <dd className="mono">
              {picks
                .filter((pick) => pick.row === row)
                .map(({ field }) => field + 1)
                .join(', ') || '–'}
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
