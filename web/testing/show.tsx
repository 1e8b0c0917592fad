import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { RenderResult } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { UserEvent } from '@testing-library/user-event';
import { SnackbarProvider } from 'notistack';
import type { ReactNode } from 'react';
import { theme } from '@/ui/theme';

/** Shows a part of the interface as the application frames it. */
export function show(part: ReactNode): RenderResult & { readonly user: UserEvent } {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const shown = render(part, {
    wrapper: ({ children }) => (
      <ThemeProvider theme={theme} defaultMode="light">
        <QueryClientProvider client={client}>
          <SnackbarProvider>{children}</SnackbarProvider>
        </QueryClientProvider>
      </ThemeProvider>
    ),
  });
  return { ...shown, user: userEvent.setup({ delay: null }) };
}
