import type { PageAsked } from '@melto/store/page';

export type { Page } from '@melto/store/page';

/** What of a list is asked for; how much of it at once the list says itself. */
export type ListAsked = Omit<PageAsked, 'limit'>;
