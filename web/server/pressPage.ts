import { notFound } from 'next/navigation';
import { pressView } from '@melto/services/calibration/pressView';
import type { PressLink, PressView } from '@melto/services/calibration/pressView';
import { Problem } from '@melto/services/kernel/problem';
import { services } from './services.ts';

export interface PageParams {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ version?: string }>;
}

/** What a calibration surface shows; a page that is not there for an RGB driver. */
export async function pressPage<L extends PressLink>(
  link: L,
  { params, searchParams }: PageParams,
): Promise<PressView<L>> {
  const id = Number((await params).id);
  const version = Number((await searchParams).version);
  return pressView(services(), id, link, version).catch((error: unknown) => {
    if (error instanceof Problem && error.type === 'not-found') notFound();
    throw error;
  });
}
