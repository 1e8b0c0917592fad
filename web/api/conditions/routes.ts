import type { Routes } from '@/server/dispatch';
import * as conditions from './route';
import * as id from './[id]/route';
import * as idArchived from './[id]/archived/route';
import * as idBalance from './[id]/balance/route';
import * as idBorrowed from './[id]/borrowed/route';
import * as idCharts from './[id]/charts/route';
import * as idChecks from './[id]/checks/route';
import * as idCurves from './[id]/curves/route';
import * as idCurvesFile from './[id]/curves/file/route';
import * as idDeleted from './[id]/deleted/route';
import * as idEvenness from './[id]/evenness/route';
import * as idEyeFile from './[id]/eye-file/route';
import * as idEyeGround from './[id]/eye-ground/route';
import * as idEyesChecks from './[id]/eyes-checks/route';
import * as idGivenProfiles from './[id]/given-profiles/route';
import * as idGivenProfilesPreview from './[id]/given-profiles/preview/route';
import * as idJobChecks from './[id]/job-checks/route';
import * as idLabel from './[id]/label/route';
import * as idLimits from './[id]/limits/route';
import * as idMeasuredChart from './[id]/measured-chart/route';
import * as idMeasuredChartPreview from './[id]/measured-chart/preview/route';
import * as idPages from './[id]/pages/route';
import * as idPictures from './[id]/pictures/route';
import * as idPredictedConformity from './[id]/predicted-conformity/route';
import * as idPressCharts from './[id]/press-charts/route';
import * as idProfiles from './[id]/profiles/route';
import * as idReadings from './[id]/readings/route';
import * as idRefinements from './[id]/refinements/route';
import * as idRest from './[id]/rest/route';
import * as idRunWatch from './[id]/run-watch/route';
import * as idSettingsPoint from './[id]/settings-point/route';
import * as idSheets from './[id]/sheets/route';
import * as idShortChecks from './[id]/short-checks/route';
import * as idSimulatedChanges from './[id]/simulated-changes/route';
import * as idSimulatedNotes from './[id]/simulated-notes/route';
import * as idSimulatedPicks from './[id]/simulated-picks/route';
import * as idSpectralChart from './[id]/spectral-chart/route';
import * as idStanding from './[id]/standing/route';
import * as idStudyData from './[id]/study-data/route';
import * as idStudyFile from './[id]/study-file/route';
import * as idTemplate from './[id]/template/route';
import * as idWatch from './[id]/watch/route';
import * as idWedges from './[id]/wedges/route';
import * as choices from './choices/route';

export const CONDITION_ROUTES: Routes = {
  '/api/conditions': conditions,
  '/api/conditions/{id}': id,
  '/api/conditions/{id}/archived': idArchived,
  '/api/conditions/{id}/balance': idBalance,
  '/api/conditions/{id}/borrowed': idBorrowed,
  '/api/conditions/{id}/charts': idCharts,
  '/api/conditions/{id}/checks': idChecks,
  '/api/conditions/{id}/curves': idCurves,
  '/api/conditions/{id}/curves/file': idCurvesFile,
  '/api/conditions/{id}/deleted': idDeleted,
  '/api/conditions/{id}/evenness': idEvenness,
  '/api/conditions/{id}/eye-file': idEyeFile,
  '/api/conditions/{id}/eye-ground': idEyeGround,
  '/api/conditions/{id}/eyes-checks': idEyesChecks,
  '/api/conditions/{id}/given-profiles': idGivenProfiles,
  '/api/conditions/{id}/given-profiles/preview': idGivenProfilesPreview,
  '/api/conditions/{id}/job-checks': idJobChecks,
  '/api/conditions/{id}/label': idLabel,
  '/api/conditions/{id}/limits': idLimits,
  '/api/conditions/{id}/measured-chart': idMeasuredChart,
  '/api/conditions/{id}/measured-chart/preview': idMeasuredChartPreview,
  '/api/conditions/{id}/pages': idPages,
  '/api/conditions/{id}/pictures': idPictures,
  '/api/conditions/{id}/predicted-conformity': idPredictedConformity,
  '/api/conditions/{id}/press-charts': idPressCharts,
  '/api/conditions/{id}/profiles': idProfiles,
  '/api/conditions/{id}/readings': idReadings,
  '/api/conditions/{id}/refinements': idRefinements,
  '/api/conditions/{id}/rest': idRest,
  '/api/conditions/{id}/run-watch': idRunWatch,
  '/api/conditions/{id}/settings-point': idSettingsPoint,
  '/api/conditions/{id}/sheets': idSheets,
  '/api/conditions/{id}/short-checks': idShortChecks,
  '/api/conditions/{id}/simulated-changes': idSimulatedChanges,
  '/api/conditions/{id}/simulated-notes': idSimulatedNotes,
  '/api/conditions/{id}/simulated-picks': idSimulatedPicks,
  '/api/conditions/{id}/spectral-chart': idSpectralChart,
  '/api/conditions/{id}/standing': idStanding,
  '/api/conditions/{id}/study-data': idStudyData,
  '/api/conditions/{id}/study-file': idStudyFile,
  '/api/conditions/{id}/template': idTemplate,
  '/api/conditions/{id}/watch': idWatch,
  '/api/conditions/{id}/wedges': idWedges,
  '/api/conditions/choices': choices,
};
