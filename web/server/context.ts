import { composeServices } from '@melto/services/composition';
import type { Context } from '@melto/services/kernel/context';
import { seedSource } from '@melto/services/kernel/seedSource';
import { drawThread, readThread } from './threads';

declare global {
  var meltoContext: Context | undefined;
}

/** The context of this web process, made on first use. It acts for nobody in particular: see `caller` and `pageContext`. */
export function context(): Context {
  const url = process.env['MELTO_DATABASE_URL'];
  if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
  globalThis.meltoContext ??= composeServices(url, {
    seed: seedSource(process.env['MELTO_SEED'], 'web'),
    simulated: process.env['MELTO_SIMULATOR'] !== 'off',
    drawFile: drawThread(),
    readUpload: readThread(),
  });
  return globalThis.meltoContext;
}
