import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import './globals.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import { Providers } from '@/features/frame/Providers';
import { Frame } from '@/features/frame/Frame';
import { ownHouse } from '@melto/services/house/ownHouse';
import { pageCaller } from '@/server/pageContext';
import { paletteCss } from '@/ui/palette';

export const metadata: Metadata = {
  title: { default: 'Melto', template: '%s · Melto' },
  description: 'Charts, readings and profiles of printers',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const [request, caller] = await Promise.all([headers(), pageCaller()]);
  // Whoever is nobody here yet is told nothing of the house.
  const house = caller === undefined ? undefined : await ownHouse(caller.context);
  const nonce = request.get('x-nonce') ?? undefined;
  return (
    <html lang="en-GB" suppressHydrationWarning>
      <head>
        <style dangerouslySetInnerHTML={{ __html: paletteCss() }} />
      </head>
      <body>
        <InitColorSchemeScript attribute="data-theme" defaultMode="light" nonce={nonce} />
        <AppRouterCacheProvider options={{ nonce }}>
          <Providers house={house} role={caller?.role ?? 'viewer'}>
            <Frame signedIn={caller !== undefined}>{children}</Frame>
          </Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
