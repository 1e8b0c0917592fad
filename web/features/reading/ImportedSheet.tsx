import type { ImportedMode } from '@melto/services/reading/importReading';

const CELL = 10;
const GAP = 2;

/** The patches of a file where they stand on paper, page by page; empty where one is missing. */
export function ImportedSheet({
  pages,
  code,
  height = 240,
  chosen,
  onChoose,
}: {
  pages: ImportedMode['pages'];
  code: string;
  /** Of a page, at most. */
  height?: number;
  /** A patch that is pointed out, on the first page; counted from 0. */
  chosen?: { readonly strip: number; readonly place: number };
  onChoose?: (strip: number, place: number) => void;
}) {
  const widest = Math.max(1, ...pages.flat().map((strip) => strip.length));
  return (
    <div
      className="row"
      style={{ maxHeight: height + 20, overflow: 'auto', alignItems: 'flex-start', gap: 12 }}
    >
      {pages.map((strips, page) => (
        <svg
          key={page}
          role="img"
          aria-label={`Colours of ${code}, page ${page + 1}: ${strips.flat().filter((patch) => patch !== null).length} of ${strips.flat().length} patches`}
          viewBox={`0 0 ${widest * CELL} ${strips.length * (CELL + GAP)}`}
          style={{ width: pages.length > 1 ? '46%' : '100%', maxHeight: height }}
          preserveAspectRatio="xMinYMin meet"
        >
          {strips.map((strip, s) =>
            strip.map((colour, place) => (
              <rect
                key={`${s} ${place}`}
                x={place * CELL}
                y={s * (CELL + GAP)}
                width={CELL}
                height={CELL}
                fill={colour ?? 'none'}
                stroke={colour === null ? 'var(--rule)' : 'none'}
                shapeRendering="crispEdges"
                pointerEvents={onChoose === undefined ? undefined : 'all'}
                style={onChoose === undefined ? undefined : { cursor: 'pointer' }}
                onClick={onChoose === undefined ? undefined : () => onChoose(s, place)}
              />
            )),
          )}
          {chosen !== undefined && page === 0 && (
            <rect
              x={chosen.place * CELL}
              y={chosen.strip * (CELL + GAP)}
              width={CELL}
              height={CELL}
              fill="none"
              stroke="var(--text)"
              strokeWidth={2}
              pointerEvents="none"
            />
          )}
        </svg>
      ))}
    </div>
  );
}
