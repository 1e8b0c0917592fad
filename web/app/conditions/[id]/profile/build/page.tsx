import { CMYK, sameProcess } from '@melto/core/device/process';
import { redirect } from 'next/navigation';
import { buildSurface } from '@melto/services/overview/surfaces';
import { BuildPage } from '@/features/profile/build/BuildPage';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Build a profile' };

/** Fewer patches cannot carry a model of four inks. */
const LEAST_PATCHES = 150;

export default async function Page(page: PageParams) {
  const view = await shownPage(page, buildSurface, 'specialist');
  if (
    !sameProcess(view.condition.process, CMYK) ||
    view.readings.every(({ patches }) => patches < LEAST_PATCHES)
  )
    redirect(`/conditions/${view.condition.id}/profile`);
  return <BuildPage {...view} />;
}
