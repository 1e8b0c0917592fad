import type { Routes } from '@/server/dispatch';
import * as acts from './acts/route';
import * as actsFile from './acts/file/route';
import { AIM_SET_ROUTES } from './aim-sets/routes';
import * as catalogue from './catalogue/route';
import * as chartsIdFile from './charts/[id]/file/route';
import * as chartsIdPrints from './charts/[id]/prints/route';
import * as clock from './clock/route';
import { COLOUR_LIST_ROUTES } from './colour-lists/routes';
import { CONDITION_ROUTES } from './conditions/routes';
import { DESK_ROUTES } from './desk/routes';
import * as deskCode from './desk-code/route';
import { DEVICE_ROUTES } from './devices/routes';
import { FEED_ROUTES } from './feeds/routes';
import * as firstPerson from './first-person/route';
import * as floor from './floor/route';
import * as health from './health/route';
import * as house from './house/route';
import * as houseLogo from './house/logo/route';
import * as inkSets from './ink-sets/route';
import * as inkSetsId from './ink-sets/[id]/route';
import * as inkSetsIdAway from './ink-sets/[id]/away/route';
import * as instruments from './instruments/route';
import * as instrumentsId from './instruments/[id]/route';
import * as instrumentsIdTile from './instruments/[id]/tile/route';
import * as jobs from './jobs/route';
import * as jobsIdCancel from './jobs/[id]/cancel/route';
import * as jobsStream from './jobs/stream/route';
import { KEPT_PROFILE_ROUTES } from './kept-profiles/routes';
import { LIGHT_ROUTES } from './lights/routes';
import * as machineKeys from './machine-keys/route';
import * as machineKeysIdEnd from './machine-keys/[id]/end/route';
import * as measuredFiles from './measured-files/route';
import * as measuredFilesPreview from './measured-files/preview/route';
import * as metrics from './metrics/route';
import * as openapiJson from './openapi.json/route';
import { PAPER_TRIAL_ROUTES } from './paper-trials/routes';
import { PASSKEY_ROUTES } from './passkeys/routes';
import * as passphrase from './passphrase/route';
import { PEOPLE_ROUTES } from './people/routes';
import * as picturesIdFile from './pictures/[id]/file/route';
import * as picturesIdRemoved from './pictures/[id]/removed/route';
import * as profiles from './profiles/route';
import * as proofPictures from './proof-pictures/route';
import { READING_ROUTES } from './readings/routes';
import { RESULT_ROUTES } from './results/routes';
import { RUN_ROUTES } from './runs/routes';
import * as sampleHouse from './sample-house/route';
import * as search from './search/route';
import * as session from './session/route';
import * as sessionEnd from './session/end/route';
import * as sessionPasskey from './session/passkey/route';
import * as sessionPasskeyOptions from './session/passkey/options/route';
import { SHEET_ROUTES } from './sheets/routes';
import * as sourceProfiles from './source-profiles/route';
import * as sourceProfilesIdFile from './source-profiles/[id]/file/route';
import * as standardProfilesKeyFile from './standard-profiles/[key]/file/route';
import * as stocks from './stocks/route';
import * as stocksId from './stocks/[id]/route';
import * as stocksIdAway from './stocks/[id]/away/route';
import * as toleranceSets from './tolerance-sets/route';
import * as toleranceSetsIdRemoved from './tolerance-sets/[id]/removed/route';
import * as toleranceSetsTrials from './tolerance-sets/trials/route';

/** All routes of the API, each by its address as its endpoint tells it. */
export const ROUTES: Routes = {
  '/api/acts': acts,
  '/api/acts/file': actsFile,
  ...AIM_SET_ROUTES,
  '/api/catalogue': catalogue,
  '/api/charts/{id}/file': chartsIdFile,
  '/api/charts/{id}/prints': chartsIdPrints,
  '/api/clock': clock,
  ...COLOUR_LIST_ROUTES,
  ...CONDITION_ROUTES,
  ...DESK_ROUTES,
  '/api/desk-code': deskCode,
  ...DEVICE_ROUTES,
  ...FEED_ROUTES,
  '/api/first-person': firstPerson,
  '/api/floor': floor,
  '/api/health': health,
  '/api/house': house,
  '/api/house/logo': houseLogo,
  '/api/ink-sets': inkSets,
  '/api/ink-sets/{id}': inkSetsId,
  '/api/ink-sets/{id}/away': inkSetsIdAway,
  '/api/instruments': instruments,
  '/api/instruments/{id}': instrumentsId,
  '/api/instruments/{id}/tile': instrumentsIdTile,
  '/api/jobs': jobs,
  '/api/jobs/{id}/cancel': jobsIdCancel,
  '/api/jobs/stream': jobsStream,
  ...KEPT_PROFILE_ROUTES,
  ...LIGHT_ROUTES,
  '/api/machine-keys': machineKeys,
  '/api/machine-keys/{id}/end': machineKeysIdEnd,
  '/api/measured-files': measuredFiles,
  '/api/measured-files/preview': measuredFilesPreview,
  '/api/metrics': metrics,
  '/api/openapi.json': openapiJson,
  ...PAPER_TRIAL_ROUTES,
  ...PASSKEY_ROUTES,
  '/api/passphrase': passphrase,
  ...PEOPLE_ROUTES,
  '/api/pictures/{id}/file': picturesIdFile,
  '/api/pictures/{id}/removed': picturesIdRemoved,
  '/api/profiles': profiles,
  '/api/proof-pictures': proofPictures,
  ...READING_ROUTES,
  ...RESULT_ROUTES,
  ...RUN_ROUTES,
  '/api/sample-house': sampleHouse,
  '/api/search': search,
  '/api/session': session,
  '/api/session/end': sessionEnd,
  '/api/session/passkey': sessionPasskey,
  '/api/session/passkey/options': sessionPasskeyOptions,
  ...SHEET_ROUTES,
  '/api/source-profiles': sourceProfiles,
  '/api/source-profiles/{id}/file': sourceProfilesIdFile,
  '/api/standard-profiles/{key}/file': standardProfilesKeyFile,
  '/api/stocks': stocks,
  '/api/stocks/{id}': stocksId,
  '/api/stocks/{id}/away': stocksIdAway,
  '/api/tolerance-sets': toleranceSets,
  '/api/tolerance-sets/{id}/removed': toleranceSetsIdRemoved,
  '/api/tolerance-sets/trials': toleranceSetsTrials,
};
