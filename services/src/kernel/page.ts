export type { Page } from '@melto/store/page';
