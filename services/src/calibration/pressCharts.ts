import { drivenByInks } from '@melto/core/device/process';
import { layoutCopies, layoutInOrder } from '@melto/core/charts/layoutCopies';
import { makeEvennessChart } from '@melto/core/charts/evennessChart';
import { repeatPatches } from '@melto/core/charts/namedPatches';
import { makeNearNeutralChart } from '@melto/core/charts/nearNeutralChart';
import { needsOf } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import { LONGEST_PASS_MM, spansPage } from '@melto/core/charts/pageGeometry';
import { makeRampChart, RAMP_STEPS } from '@melto/core/charts/rampChart';
import { storeChart } from '../charts/chart.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { LINKS } from '../ledger/links.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

export type PressChartKind = 'ramps' | 'near-neutral' | 'evenness';

export interface NewPressChart extends ChartForm {
  readonly kind: PressChartKind;
  /** Steps of a ramp, and how often each patch is printed. */
  readonly steps: number;
  readonly copies: number;
  readonly order: 'scrambled' | 'in order';
}

/** The link whose chart it is. */
const SERVES = { ramps: 'limits', 'near-neutral': 'balance', evenness: 'evenness' } as const;
const MOST_COPIES = 8;

/** Makes a chart for the calibration of an ink device. */
export async function createPressChart(
  context: Context,
  conditionId: number,
  input: NewPressChart,
): Promise<{ readonly id: number }> {
  const condition = await conditionOf(context, conditionId);
  const { process } = condition;
  if (!drivenByInks(process))
    throw new Problem(
      'bad-input',
      `${condition.device} is not driven by inks.`,
      'Make a profiling chart.',
      'kind',
    );
  const { steps, copies, kind, paper, reader, patchSize } = input;
  const form = { paper, reader, patchSize };
  if (!LINKS[SERVES[kind]].suits(process))
    throw new Problem(
      'bad-input',
      `This chart is of cyan, magenta, yellow and black; ${condition.device} prints ${process.name}.`,
      'Make ramps.',
      'kind',
    );
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
  const seed = context.seed();
  const needs = needsOf(form);
  if (kind === 'evenness') {
    if (!spansPage(paper, needs))
      throw new Problem(
        'bad-input',
        `A hand draws ${LONGEST_PASS_MM} mm in one pass: strips on ${paper} mm would not tell of its whole width.`,
        'Choose the spot reader or the sheet reader.',
        'reader',
      );
    const { device, names, layout } = makeEvennessChart(paper, needs);
    const title = 'Evenness across the width';
    const id = await storeChart(context, {
      ...{ conditionId, purpose: kind, title, form, seed, device, names, layout },
      process,
      copies: 1,
    });
    return { id };
  }
  const one =
    kind === 'ramps' ? makeRampChart(process, { steps, totalInk: true }) : makeNearNeutralChart(process);
  const { device, names } = repeatPatches(one, copies);
  const layout =
    input.order === 'scrambled'
      ? layoutCopies(process, one.device, copies, paper, seed, needs)
      : layoutInOrder(names.length, paper, needs);
  const title = kind === 'ramps' ? `Ramps of ${steps} steps` : 'Near-neutral scales';
  const id = await storeChart(context, {
    ...{ conditionId, purpose: kind, title, form, seed, device, names, layout, copies },
    process,
  });
  return { id };
}
