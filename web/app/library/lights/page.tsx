import { viewingLights } from '@melto/services/light/viewingLights';
import { LightsSurface } from '@/features/light/LightsSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Lights' };

export default async function Page({ searchParams }: { searchParams: Promise<{ light?: string }> }) {
  const { light } = await searchParams;
  return <LightsSurface lights={await viewingLights(await pageContext())} shown={light} />;
}
