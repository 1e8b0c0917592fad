import { sourceProfiles, takeSourceProfile } from '@melto/services/charts/sourceProfiles';
import { SOURCE_PROFILES, TAKE_SOURCE_PROFILE } from '@/endpoints/charts';
import { answering, changing } from '@/server/route';

export const GET = answering(SOURCE_PROFILES, ({ context }) => sourceProfiles(context));

export const POST = changing(TAKE_SOURCE_PROFILE, ({ context, query, body }) =>
  takeSourceProfile(context, query.name, body),
);
