import type { SpectralChart } from '@melto/core/light/chartInLights';
import { channelCount } from '@melto/core/device/process';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import { loadReading } from '../reading/loadReading.ts';
import { requireSpectra } from '../reading/readingUnder.ts';

/** Device values and spectra of the chart that the profile in force was built from; refused where it has none. */
export async function spectralChart(context: Context, conditionId: number): Promise<SpectralChart> {
  const { process } = await conditionOf(context, conditionId);
  const head = await storedHead(context, conditionId, PROFILE);
  const readingId = head?.detail.choices.readingId;
  if (readingId === undefined)
    throw new Problem(
      'not-ready',
      'How recipes look in other lights is told by the chart of the profile in force, and none was built here.',
      'Build a profile first.',
    );
  const loaded = await loadReading(context, readingId);
  const { grid, values } = requireSpectra(loaded);
  return {
    channels: channelCount(process),
    device: [...(loaded.set.device ?? [])],
    grid,
    spectra: Array.from(values, (value) => Number(value.toFixed(5))),
  };
}
