import { studyPage } from '@melto/services/profile/study';
import { STUDY_FILE } from '@/endpoints/light';
import { handingOut } from '@/server/route';

export const GET = handingOut(STUDY_FILE, ({ context, params, query: { paper = 'a4' } }) =>
  studyPage(context, params.id, paper),
);
