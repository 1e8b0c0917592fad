'use client';

import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SnackbarProvider } from 'notistack';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import type { OwnHouse } from '@melto/services/house/ownHouse';
import type { Role } from '@melto/core/people/role';
import { OwnRole } from '@/ui/May';
import { tellHouseZone } from '@/ui/format';
import { tellHouseDensity } from '@/ui/densityStatus';
import { tellHouseUnits } from '@/ui/units';
import { theme } from '@/ui/theme';

export function Providers({
  house,
  role,
  children,
}: {
  /** Undefined for whoever is nobody here yet. */
  house: OwnHouse | undefined;
  role: Role;
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
          <OwnRole value={role}>{children}</OwnRole>
        </SnackbarProvider>
      </QueryClientProvider>
    </ThemeProvider>
  );
}
