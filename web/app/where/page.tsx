import { colourListOf } from '@melto/services/lists/colourLists';
import { libraryInkSets } from '@melto/services/house/inkSets';
import { profileShelf } from '@melto/services/profile/shelf';
import { standingOf } from '@melto/services/overview/standing';
import { WhereSurface } from '@/features/where/WhereSurface';
import { chosenVersion } from '@/server/libraryPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Where should this job go?' };

/** Conditions that a list is laid on at once. */
const MOST_CONDITIONS = 24;

export default async function Page({ searchParams }: { searchParams: Promise<{ list?: string }> }) {
  const context = await pageContext();
  const { list } = await searchParams;
  const kept =
    list === undefined
      ? undefined
      : await chosenVersion({ set: list }, [], (id) => colourListOf(context, id));
  const [profiles, inkSets] = await Promise.all([profileShelf(context), libraryInkSets(context)]);
  const shelf = profiles.filter(({ condition }) => (condition?.inForceOn ?? 0) > 0).slice(0, MOST_CONDITIONS);
  const costsOf = (name: string) =>
    inkSets.find((inkSet) => inkSet.name.toLowerCase() === name.toLowerCase())?.costs ?? [];
  const places = await Promise.all(
    shelf.map(async (profile) => {
      if (profile.condition === null) return { profile, standing: 'go' as const, reasons: [], costs: [] };
      const { standing, reasons } = await standingOf(context, profile.condition.id);
      return { profile, standing, reasons, costs: costsOf(profile.condition.inkSet) };
    }),
  );
  return <WhereSurface places={places} kept={kept} />;
}
