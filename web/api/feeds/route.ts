import { createFeed, feeds } from '@melto/services/press/feeds';
import { CREATE_FEED, FEEDS } from '@/endpoints/runs';
import { answering, changing } from '@/server/route';

export const GET = answering(FEEDS, ({ context }) => feeds(context));

export const POST = changing(CREATE_FEED, ({ context, body }) => createFeed(context, body));
