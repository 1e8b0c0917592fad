import { layoutCopies, layoutInOrder } from '@melto/core/charts/layoutCopies';
import { makeEvennessChart } from '@melto/core/charts/evennessChart';
import { repeatPatches } from '@melto/core/charts/namedPatches';
import { makeNearNeutralChart } from '@melto/core/charts/nearNeutralChart';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import { makeRampChart, RAMP_STEPS } from '@melto/core/charts/rampChart';
import { storeChart } from '../charts/charts.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

export type PressChartKind = 'ramps' | 'near-neutral' | 'evenness';

export interface NewPressChart {
  readonly kind: PressChartKind;
  readonly paper: PaperName;
  readonly reader: ReaderKind;
  /** Steps of a ramp, and how often each patch is printed. */
  readonly steps: number;
  readonly copies: number;
  readonly order: 'scrambled' | 'in order';
}

const MOST_COPIES = 8;

/** Makes a chart for the calibration of an ink device. */
export async function createPressChart(
  services: Services,
  conditionId: number,
  input: NewPressChart,
): Promise<{ readonly id: number }> {
  const condition = await conditionOf(services, conditionId);
  if (condition.space !== 'cmyk')
    throw new Problem(
      'bad-input',
      `${condition.device} is not driven by inks.`,
      'Make a profiling chart.',
      'kind',
    );
  const { steps, copies, kind, paper, reader } = input;
  if (!Number.isInteger(steps) || steps < RAMP_STEPS.least || steps > RAMP_STEPS.most)
    throw new Problem(
      'bad-input',
      `A ramp has ${RAMP_STEPS.least} to ${RAMP_STEPS.most} steps.`,
      'Give a whole number between them.',
      'steps',
    );
  if (!Number.isInteger(copies) || copies < 1 || copies > MOST_COPIES)
    throw new Problem(
      'bad-input',
      `A chart has 1 to ${MOST_COPIES} copies.`,
      'Give a whole number.',
      'copies',
    );
  const seed = services.seed();
  const needs = READER_NEEDS[reader];
  if (kind === 'evenness') {
    const { device, names, layout } = makeEvennessChart(paper, needs);
    const title = 'Evenness across the width';
    const id = await storeChart(services, {
      ...{ conditionId, purpose: kind, title, paper, seed, device, names, layout, reader },
      space: 'cmyk',
      copies: 1,
    });
    return { id };
  }
  const one = kind === 'ramps' ? makeRampChart({ steps, totalInk: true }) : makeNearNeutralChart();
  const { device, names } = repeatPatches(one, copies);
  const layout =
    input.order === 'scrambled'
      ? layoutCopies('cmyk', one.device, copies, paper, seed, needs)
      : layoutInOrder(names.length, paper, needs);
  const title = kind === 'ramps' ? `Ramps of ${steps} steps` : 'Near-neutral scales';
  const id = await storeChart(services, {
    ...{ conditionId, purpose: kind, title, paper, seed, device, names, layout, reader, copies },
    space: 'cmyk',
  });
  return { id };
}
