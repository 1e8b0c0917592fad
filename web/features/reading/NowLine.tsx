'use client';

import { useBridge } from '@/features/bridge/BridgeContext';
import type { useDesk } from './useDesk';

/** One line that says what to do now. */
export function NowLine({
  desk,
  complete,
  now,
}: {
  desk: ReturnType<typeof useDesk>;
  complete: boolean;
  now: number;
}) {
  const { address, view } = useBridge();
  const { last, instrument, strip, phase, patchesDone, state } = desk;
  const tileDue =
    instrument !== undefined &&
    (instrument.tileMs === null || now - instrument.tileMs > instrument.info.tileLifeMs);
  const failed = last?.kind === 'failed';
  const words = (): string => {
    const before = failed ? `${last.words} ` : '';
    if (phase === 'armed') return `${before}Ready for strip ${strip}: start on white, move right to white.`;
    if (failed) return last.words;
    if (phase === 'reading' && patchesDone > 0)
      return `Patch ${patchesDone} of ${state.strips[strip - 1].expected.length}`;
    if (desk.busy) return 'Reading…';
    if (complete) return 'The sheet is complete.';
    if (instrument === undefined)
      return address === ''
        ? 'No instrument is connected.'
        : view.phase === 'connected'
          ? 'No instrument that reads this sheet is connected.'
          : 'Looking for an instrument…';
    if (tileDue) return 'White tile due: press T.';
    if (last?.kind === 'read' && last.reversed)
      return `Strip ${last.strip} was read backwards and turned. On to strip ${strip}.`;
    if (last?.kind === 'read' && last.pass < last.passes)
      return `Pass ${last.pass} of ${last.passes} is kept. The same strip again.`;
    if (instrument.info.begins === 'at-instrument')
      return 'Press Space, then draw the instrument along the strip.';
    if (instrument.info.kind === 'spot') return 'Set the instrument on the first patch.';
    return 'Start on white, move right to white.';
  };
  return (
    <p className={`desk-now${failed ? ' bad' : ''}`} role="status" aria-live="assertive">
      {words()}
    </p>
  );
}
