'use client';

import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { screenOf } from '@/ui/Swatch';

/** Share of the patches up to which each that decides is marked. */
const MOST_MARKED = 0.4;

/** The sheet as printed, with a mark where a patch decides a metric that fails. */
export function CheckSheet({
  detail,
  picked,
  onPick,
}: {
  detail: CheckDetail;
  picked?: number;
  onPick: (patch: number) => void;
}) {
  const deciding = new Set(detail.decides.deciding.flatMap(({ rows }) => rows));
  // Where most patches decide, marks on all of them say nothing: the worst of each metric is marked then.
  const few = deciding.size <= MOST_MARKED * detail.patches.length;
  const marked = few
    ? deciding
    : new Set(
        detail.metrics.flatMap(({ verdict, worst }) =>
          verdict === 'does-not-conform' && worst !== null ? [worst] : [],
        ),
      );
  return (
    <div className="panel">
      <header>
        <h2>Sheet</h2>
        <span className="quiet">
          {detail.header.sheet}, as measured
          {marked.size === 0
            ? ''
            : few
              ? '; marked where a patch decides'
              : '; the worst of each failing metric is marked'}
        </span>
      </header>
      <div className="check-sheets">
        {detail.sheet.map((strips, page) => (
          <div key={page} className="check-sheet">
            {strips.map((strip, s) => (
              <div key={s}>
                {strip.map((patch, place) =>
                  patch < 0 ? (
                    <i key={place} className="no-aim" title="no aim" />
                  ) : (
                    <button
                      key={place}
                      type="button"
                      tabIndex={-1}
                      className={patch === picked ? 'picked' : undefined}
                      title={`${detail.patches[patch].name}: ΔE00 ${detail.patches[patch].deltaE.toFixed(2)}`}
                      aria-label={`${detail.patches[patch].name}, strip ${s + 1}, place ${place + 1}`}
                      style={{ background: screenOf(detail.patches[patch].measured).css }}
                      onClick={() => onPick(patch)}
                    >
                      {marked.has(patch) && (
                        <svg width="9" height="9" viewBox="0 0 14 14" aria-hidden>
                          <path d="M7 0 14 7 7 14 0 7z" fill="#fff" stroke="#B3361B" strokeWidth="3" />
                        </svg>
                      )}
                    </button>
                  ),
                )}
              </div>
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}
