import { conditionChoices } from '@melto/services/house/newCondition';
import { paperTrial, paperTrials } from '@melto/services/house/paperTrials';
import { TrialsSurface } from '@/features/trials/TrialsSurface';
import { chosenVersion } from '@/server/libraryPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Paper trials' };

export default async function Page({ searchParams }: { searchParams: Promise<{ trial?: string }> }) {
  const context = await pageContext();
  const { trial } = await searchParams;
  const [trials, choices] = await Promise.all([paperTrials(context), conditionChoices(context)]);
  const any = trials.length > 0 || trial !== undefined;
  const shown = any
    ? await chosenVersion({ set: trial }, trials, (id) => paperTrial(context, id))
    : undefined;
  return <TrialsSurface trials={trials} shown={shown} choices={choices} />;
}
