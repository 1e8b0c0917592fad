import { aimSets } from '@melto/services/conformity/aimSets';
import { conditionOf, driverOf, settingsRecord } from '@melto/services/ledger/conditions';
import { sheetsOf } from '@melto/services/charts/printing';
import { profileInForce } from '@melto/services/profile/profiles';
import { simulatedChanges } from '@melto/services/simulated/simulatedChanges';
import { toleranceSets } from '@melto/services/conformity/toleranceSets';
import { isWatchWedge } from '@melto/services/charts/wedgeTitles';
import { watchView } from '@melto/services/watch/watchView';
import { WatchSurface } from '@/features/watch/WatchSurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Watch' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  const condition = await conditionOf(services(), id);
  const [points, view, sheets, profile, changes, aims, tolerances] = await Promise.all([
    settingsRecord(services(), id),
    watchView(services(), id),
    sheetsOf(services(), id),
    profileInForce(services(), id),
    simulatedChanges(services(), id),
    aimSets(services()),
    toleranceSets(services()),
  ]);
  return (
    <WatchSurface
      condition={condition}
      points={points}
      conversions={driverOf(services(), condition).conversions}
      view={view}
      hasProfile={profile !== undefined}
      changes={changes}
      aims={aims}
      tolerances={tolerances}
      waiting={sheets
        .filter(({ onRack, title }) => onRack && isWatchWedge({ title }))
        .map(({ code }) => code)}
    />
  );
}
