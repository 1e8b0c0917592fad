/** A sensor posts what it reads; a folder is looked through for files. */
export const FEED_KINDS = ['sensor', 'folder'] as const;
export type FeedKind = (typeof FEED_KINDS)[number];
