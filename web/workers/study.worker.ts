import { expose } from 'comlink';
import { estimateUvShare, studyFields } from '@melto/core/light/brightenerStudy';
import type { StudyEstimate, StudyPick } from '@melto/core/light/brightenerStudy';
import { predictStudyPage } from '@melto/core/light/predictStudyPage';
import type { StudyData } from '@melto/core/light/predictStudyPage';

const api = {
  /** Fits the chart without ultraviolet and with it, and estimates the share that acts from what was picked. */
  estimate(data: StudyData, picks: readonly StudyPick[]): StudyEstimate {
    return estimateUvShare(predictStudyPage(data), studyFields(), picks);
  },
};

export type StudyWorker = typeof api;

expose(api);
