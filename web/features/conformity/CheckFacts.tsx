import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { formatMoment } from '@/ui/format';
import { predictedWords } from './predictedWords';

/** What was printed, read and judged, with what. */
export function CheckFacts({ detail: { header, patches } }: { detail: CheckDetail }) {
  const { measured, aims, tolerances } = header;
  const completed = patches.filter(({ origin }) => origin === 'completed').length;
  return (
    <div className="panel">
      <dl className="facts" style={{ gridTemplateColumns: 'max-content 1fr max-content 1fr' }}>
        <dt>Sheet</dt>
        <dd>
          <span className="mono">{header.sheet}</span>, {header.chart}
        </dd>
        <dt>Aims</dt>
        <dd>
          {aims.name}, version {aims.version}. {aims.origin}
        </dd>
        <dt>Printed</dt>
        <dd>
          {formatMoment(header.printedMs)}, {header.through}
        </dd>
        <dt>Tolerances</dt>
        <dd>
          {tolerances.name}, version {tolerances.version}. {tolerances.source}
        </dd>
        <dt>Read</dt>
        <dd>
          {formatMoment(header.readMs)}, {header.instrument}, {measured.mode}, {measured.illuminant}/
          {measured.observer}°
        </dd>
        <dt>Chosen</dt>
        <dd>
          {header.chosen}
          {completed > 0 ? `; ${completed} aims are completed from published solids` : ''}
        </dd>
        {header.predicted !== undefined && (
          <>
            <dt>Predicted</dt>
            <dd>{predictedWords(header.predicted)}</dd>
          </>
        )}
      </dl>
    </div>
  );
}
