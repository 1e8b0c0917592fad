import { studyData } from '@melto/services/profile/study';
import { STUDY_DATA } from '@/endpoints/light';
import { answering } from '@/server/route';

export const GET = answering(STUDY_DATA, ({ context, params, query: { light, observer } }) =>
  studyData(context, params.id, { key: light, observer }),
);
