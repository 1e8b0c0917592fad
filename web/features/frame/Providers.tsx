'use client';

import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SnackbarProvider } from 'notistack';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import type { Units } from '@melto/core/units/units';
import { tellHouseZone } from '@/ui/format';
import { tellHouseUnits } from '@/ui/units';
import { theme } from '@/ui/theme';

export function Providers({ zone, units, children }: { zone: string; units: Units; children: ReactNode }) {
  tellHouseZone(zone);
  tellHouseUnits(units);
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true } } }),
  );
  // What is pressed before this is lost: the end-to-end tests wait for it.
  useEffect(() => {
    document.documentElement.dataset['awake'] = '';
  }, []);
  return (
    <ThemeProvider theme={theme} defaultMode="light" disableTransitionOnChange>
      <QueryClientProvider client={client}>
        <SnackbarProvider
          maxSnack={3}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
          classes={{ containerRoot: 'toasts' }}
        >
          {children}
        </SnackbarProvider>
      </QueryClientProvider>
    </ThemeProvider>
  );
}
