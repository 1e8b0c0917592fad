export { FEED_KINDS } from '@melto/store/feedKinds';
