import { aimSets } from '@melto/services/conformity/aimSets';
import { colourLists } from '@melto/services/lists/colourLists';
import { pressChoices } from '@melto/services/press/pressChoices';
import { runs } from '@melto/services/press/runs';
import { runView } from '@melto/services/press/runView';
import { RunsSurface } from '@/features/run/RunsSurface';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Runs' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ find?: string; from?: string }>;
}) {
  const context = await pageContext();
  const { find = '', from } = await searchParams;
  const [page, presses, aims, lists] = await Promise.all([
    runs(context, { find: find.slice(0, 80) }),
    pressChoices(context),
    aimSets(context),
    colourLists(context),
  ]);
  const started = from === undefined ? undefined : await orNotFound(runView(context, Number(from)));
  return (
    <RunsSurface
      key={find}
      page={page}
      find={find}
      from={started}
      presses={presses}
      aims={aims}
      lists={lists}
    />
  );
}
