'use client';

import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SnackbarProvider } from 'notistack';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import type { OwnHouse } from '@melto/services/house/ownHouse';
import { tellHouseZone } from '@/ui/format';
import { tellHouseDensity } from '@/ui/densityStatus';
import { tellHouseUnits } from '@/ui/units';
import { theme } from '@/ui/theme';

export function Providers({
  house,
  children,
}: {
  /** Undefined for whoever is nobody here yet. */
  house: OwnHouse | undefined;
  children: ReactNode;
}) {
  if (house !== undefined) {
    tellHouseZone(house.timeZone);
    tellHouseUnits(house.units);
    tellHouseDensity(house.densityStatus);
  }
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
