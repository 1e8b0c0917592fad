import { composeServices } from '@melto/services/composition';
import { pdfThread } from './pdfThread';
import { seedSource } from '@melto/services/kernel/seedSource';
import type { Services } from '@melto/services/kernel/context';

declare global {
  var meltoServices: Services | undefined;
}

/** The services of this web process, made on first use. */
export function services(): Services {
  const url = process.env['MELTO_DATABASE_URL'];
  if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
  globalThis.meltoServices ??= composeServices(url, {
    seed: seedSource(process.env['MELTO_SEED'], 'web'),
    drawPdf: pdfThread(),
  });
  return globalThis.meltoServices;
}
