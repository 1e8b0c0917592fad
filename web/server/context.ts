import { composeServices } from '@melto/services/composition';
import type { Context } from '@melto/services/kernel/context';
import { seedSource } from '@melto/services/kernel/seedSource';
import type { Role } from '@/endpoints/endpoint';
import { pdfThread } from './pdfThread';

declare global {
  var meltoContext: Context | undefined;
}

/** The context of this web process, made on first use. Requests act in it for the one house and person there are. */
export function context(): Context {
  const url = process.env['MELTO_DATABASE_URL'];
  if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
  globalThis.meltoContext ??= composeServices(url, {
    seed: seedSource(process.env['MELTO_SEED'], 'web'),
    simulated: process.env['MELTO_SIMULATOR'] !== 'off',
    drawPdf: pdfThread(),
  });
  return globalThis.meltoContext;
}

/** What whoever sends a request may do. Until there is sign-in it is the one local person, who may do all. */
export function roleOf(): Role {
  return 'keeper';
}
