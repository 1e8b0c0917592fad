'use client';

import { Button } from '@mui/material';
import { lightWords } from '@melto/core/press/runLight';
import type { RunView } from '@melto/services/press/runView';
import { NOTE_MOVES } from '@/endpoints/runs';
import { useTellHere } from '@/features/frame/useHere';
import { send } from '@/ui/api';
import { May } from '@/ui/May';
import { useSending } from '@/ui/useSending';
import { RunActs } from './RunActs';
import { RunWatchWords } from './RunWatchWords';
import { SheetPicture } from './SheetPicture';
import { SheetStrips } from './SheetStrips';
import { UnitRow } from './UnitRow';
import { useRun } from './useRun';

/** A density that lines are drawn to at least, so that a small move looks small. */
const LEAST_SCALE = 0.1;

/** What a run goes by, as short as it is said. */
function settingsWords(settings: RunView['settings']): string {
  const { guide, formula, mode, status, white } = settings;
  const base = white === 'paper' ? 'over paper' : 'absolute';
  return `by ${guide}; ${formula}, ${lightWords(settings)}, ${mode}; status ${status} ${base}`;
}

/** A run as it stands, to be read from two metres: the newest sheet and the next move of each unit. */
export function RunSurface({ initial }: { initial: RunView }) {
  const run = useRun(initial);
  useTellHere(run.conditionId);
  const { lines, settings, strips, beyond, spread } = run;
  const moving = lines.filter(({ word }) => word === 'move');
  const scale = Math.max(LEAST_SCALE, ...lines.flatMap(({ changes }) => changes.map(Math.abs)));
  const newest = strips.at(-1);
  const { sending, problem, run: act } = useSending();
  const noteMoves = (): Promise<void> =>
    act(async () => {
      if (newest === undefined) return;
      await send(NOTE_MOVES, {
        params: { id: run.id },
        body: {
          impression: newest.impression,
          moves: moving.map(({ unit, changes }) => ({ unit, changes: [...changes] })),
        },
      });
    });
  return (
    <section className="run">
      <RunActs run={run} />
      <div className="run-body">
        <div className="run-main">
          <div className="run-top">
            <div className="run-facts" aria-live="polite">
              {newest === undefined ? (
                <p>
                  <b>No sheet yet</b>
                </p>
              ) : (
                <>
                  <p>
                    <b>{newest.impression.toLocaleString('en-GB')}</b>{' '}
                    <span className="quiet">
                      {newest.phase === 'production' ? 'production' : 'make-ready'}
                    </span>
                  </p>
                  <p>
                    {newest.judged - newest.outside} of {newest.judged} patches within
                    {newest.openPatches > 0 && <span className="quiet">, {newest.openPatches} open</span>}
                  </p>
                  {spread !== null && (
                    <p className="quiet small">
                      midtone spread {spread.toFixed(1)} of {settings.tolerances.spread} %
                    </p>
                  )}
                </>
              )}
              <p className="quiet small">{settingsWords(settings)}</p>
              <May act={NOTE_MOVES}>
                <Button
                  variant="contained"
                  size="large"
                  disabled={moving.length === 0 || sending || run.phase === 'finished'}
                  onClick={() => void noteMoves()}
                >
                  Keys are moved
                </Button>
              </May>
            </div>
            <SheetPicture run={run} />
          </div>
          {problem !== undefined && (
            <p className="error" role="alert">
              {problem}
            </p>
          )}
          <RunWatchWords run={run} />
          <ul className="run-units" aria-label="Next move of each unit">
            {lines.map((line) => (
              <UnitRow
                key={line.unit}
                line={line}
                guide={settings.guide}
                scale={scale}
                contrast={run.contrast[line.unit] ?? null}
              />
            ))}
          </ul>
          {beyond.length > 0 && (
            <div className="run-beyond">
              <h2>What density does not mend</h2>
              <ul>
                {beyond.slice(0, 4).map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            </div>
          )}
        </div>
        <SheetStrips run={run} />
      </div>
    </section>
  );
}
