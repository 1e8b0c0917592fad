import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link within the application. Pages are drawn for each request, so fetching them ahead gives nothing and asks the
 * server thirty times a page.
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink prefetch={false} {...props} />;
}
