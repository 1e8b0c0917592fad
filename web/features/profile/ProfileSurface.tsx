'use client';

import { BUILD_PROFILE, TAKE_PROFILE } from '@/endpoints/profile';
import { REFINEMENT } from '@/endpoints/charts';
import { channelNames } from '@melto/core/device/process';
import { leastPatches } from '@melto/core/characterise/leastPatches';
import { separationWords } from '@melto/core/separate/separation';
import type { SeparationChoice } from '@melto/core/separate/separation';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useState } from 'react';
import type { ChartState } from '@melto/services/charts/chartStates';
import type { ConditionRow, SettingsPoint } from '@melto/services/ledger/conditions';
import type { GivenProfileDetail, GivenProfileSummary } from '@melto/services/ledger/kinds/givenProfileKind';
import type { ProfileDetail, ProfileSummary } from '@melto/services/ledger/kinds/profileKind';
import type { ResultRow, VersionView } from '@melto/services/ledger/versions';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import type { PressForProfile } from '@melto/services/calibration/pressView';
import { ChartMaker } from '@/features/charts/ChartMaker';
import { May } from '@/ui/May';
import { Figure } from '@/ui/Figure';
import { newestFirstReading } from './AddedReadings';
import { BuildForm } from './BuildForm';
import { ErrorHistogram, NeutralPlot, TonePlot } from './FitPlots';
import { histogramTable, neutralTable, toneTable } from './fitTables';
import { JobLine } from './JobLine';
import { GivenProfileReport, TakeProfile } from './GivenProfile';
import { InstallNotes } from './InstallNotes';
import { PlainWords } from './PlainWords';
import { RefineDialog } from './RefineDialog';
import { SurenessMap } from './SurenessMap';
import { Versions } from './Versions';
import { WorstPatches } from './WorstPatches';

export interface ProfileSurfaceProps {
  readonly condition: ConditionRow;
  readonly charts: readonly ChartState[];
  readonly points: readonly SettingsPoint[];
  readonly conversions: readonly string[];
  readonly versions: readonly VersionView[];
  readonly shown?: VersionView;
  readonly result?: {
    readonly row: ResultRow;
    readonly summary: ProfileSummary;
    readonly detail: ProfileDetail;
  };
  /** The version shown, where somebody else has built it. */
  readonly given?: {
    readonly row: ResultRow;
    readonly summary: GivenProfileSummary;
    readonly detail: GivenProfileDetail;
  };
  readonly readings: readonly ReadingOfCondition[];
  readonly nowMs: number;
  /** Devices with inks: the curves that charts are printed through, and the total ink. */
  readonly press: PressForProfile | null;
}

export function ProfileSurface(props: ProfileSurfaceProps) {
  const { condition, versions, shown, result, given, readings, nowMs } = props;
  const made = result ?? given;
  const [notes, setNotes] = useState(false);
  const [building, setBuilding] = useState(false);
  const [refining, setRefining] = useState(false);
  const complete = readings.filter(({ finishedMs }) => finishedMs !== null);
  const buildable = complete.filter(({ patches }) => patches >= leastPatches(condition.process));
  // A refinement adds to what the profile shown was made from, a second chart to the newest large reading of a first one.
  const own = result?.detail.choices;
  const addable =
    own !== undefined && shown?.borrowedFrom === null
      ? [own.readingId, ...(own.addedReadingIds ?? [])]
      : buildable.filter((row) => row === newestFirstReading(buildable)).map(({ id }) => id);
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Profile</h1>
        <p>{sentence(props)}</p>
        {addable.length > 0 && (
          <May act={REFINEMENT}>
            <Button onClick={() => setRefining(true)}>
              {result === undefined ? 'Second chart' : 'Refine'}
            </Button>
          </May>
        )}
        {buildable.length > 0 && (
          <May act={BUILD_PROFILE}>
            <Button
              variant={made === undefined ? 'contained' : 'outlined'}
              {...(props.press === null
                ? { onClick: () => setBuilding(true) }
                : { component: Link, href: `/conditions/${condition.id}/profile/build` })}
            >
              {made === undefined ? 'Build the profile' : 'Build another'}
            </Button>
          </May>
        )}
        <May act={TAKE_PROFILE}>
          <TakeProfile conditionId={condition.id} />
        </May>
        {made !== undefined && (
          <>
            <Button onClick={() => setNotes(true)}>Download</Button>
            <Button component={Link} href={`/gamut?b=result-${made.row.id}`}>
              Gamut
            </Button>
            <Button component={Link} href={`/proof?device=result-${made.row.id}`}>
              Soft proof
            </Button>
            {props.press === null && result?.summary.light === undefined && (
              <Button variant="contained" component={Link} href={`/conditions/${condition.id}/conformity`}>
                Check it
              </Button>
            )}
          </>
        )}
      </div>
      {versions.length > 0 && (
        <Versions
          versions={versions}
          shown={shown}
          nowMs={nowMs}
          path={`/conditions/${condition.id}/profile`}
          standsBeside={result?.summary.light !== undefined}
        >
          {given !== undefined && `${given.summary.name}, ICC ${given.summary.version}, from elsewhere`}
          {result !== undefined &&
            `${result.summary.name}.icc, ICC v${result.summary.version}, ${result.summary.mode}, sheet ${result.summary.code}${separationOfResult(result.detail.choices.separation, channelNames(condition.process))}`}
        </Versions>
      )}
      {shown !== undefined && shown.stale !== null && (
        <p className="notice">
          <b>Stale.</b> {shown.stale.words} Build another from the reading as it is now.
        </p>
      )}
      <JobLine conditionId={condition.id} />
      {result !== undefined && <Report {...result} names={channelNames(condition.process)} />}
      {given !== undefined && <GivenProfileReport {...given} />}
      <ChartMaker
        conditionId={condition.id}
        charts={props.charts}
        points={props.points}
        conversions={props.conversions}
        nowMs={nowMs}
        process={condition.process}
        press={props.press}
      />
      {building && (
        <BuildForm
          condition={condition}
          readings={complete}
          base={buildable}
          onClose={() => setBuilding(false)}
        />
      )}
      {refining && (
        <RefineDialog
          condition={condition}
          readingIds={addable}
          hasProfile={result !== undefined}
          onClose={() => setRefining(false)}
        />
      )}
      {notes && made !== undefined && (
        <InstallNotes resultId={made.row.id} name={made.summary.name} onClose={() => setNotes(false)} />
      )}
    </section>
  );
}

/** The state of the link in one sentence. */
function sentence({ result, given, readings, charts, press }: ProfileSurfaceProps): string {
  if (given !== undefined) return 'was built elsewhere; what it is worth here a check will tell';
  if (result !== undefined) {
    const { summary } = result;
    if (summary.light !== undefined)
      return `for ${summary.light}, beside the one in force; fits to ${summary.mean.toFixed(2)} ΔE00`;
    return `fits its ${summary.patches} patches to ${summary.mean.toFixed(2)} ΔE00, reading noise included`;
  }
  const open = readings.find(({ finishedMs }) => finishedMs === null);
  if (readings.some(({ finishedMs }) => finishedMs !== null))
    return 'A complete reading waits to become a profile.';
  if (open !== undefined) return 'The reading is not complete yet; its sheets stand on the rack.';
  if (charts.some(({ purpose }) => purpose === 'profile'))
    return 'Print the chart, let it rest, and read it.';
  if (press !== null)
    return press.curves === null
      ? 'First bring the press to a known state: limits, curves, balance.'
      : `Begin with a chart: print it through ${press.curves.words}, let it rest, and read it.`;
  return 'Begin with a chart: print it without colour management, let it rest, and read it.';
}

function Value({ word, value, decimals = 2 }: { word: string; value: number; decimals?: number }) {
  return (
    <span>
      {word} <b>{value.toFixed(decimals)}</b>
    </span>
  );
}

function Report({
  summary,
  detail,
  names,
}: {
  row: ResultRow;
  summary: ProfileSummary;
  detail: ProfileDetail;
  /** Of the channels. */
  names: readonly string[];
}) {
  const { report } = detail;
  return (
    <>
      {summary.warnings.map((warning) => (
        <p key={warning} className="notice">
          {warning} The profile carries it with it.
        </p>
      ))}
      <div className="three">
        <Figure
          title="Cross-validated error"
          table={histogramTable(report)}
          figures={
            <p className="figures">
              <Value word="mean" value={summary.mean} />
              <Value word="median" value={report.summary.median} />
              <Value word="95 % under" value={summary.p95} />
              <Value word="largest" value={summary.largest} />
            </p>
          }
        >
          <ErrorHistogram report={report} />
        </Figure>
        <Figure
          title="Neutral axis"
          table={neutralTable(detail.neutral, names)}
          figures={
            <p className="figures">
              <Value
                word="black L*"
                value={Math.min(...detail.neutral.map(({ lab }) => lab[0]))}
                decimals={1}
              />
              <span className="quiet">
                {detail.inks === undefined ? 'asked greys as printed' : 'a*, b* left; inks right, %, K thick'}
              </span>
              {detail.inks !== undefined && (
                <span>
                  total ink <b>{(100 * detail.inks.totalInk).toFixed(1)} %</b>
                </span>
              )}
              {detail.inks !== undefined && <Value word="round trip" value={detail.inks.roundTrip.mean} />}
            </p>
          }
        >
          <NeutralPlot neutral={detail.neutral} />
        </Figure>
        <Figure
          title="Tone"
          table={toneTable(report)}
          figures={
            <p className="figures">
              <span>
                repeatability <b>{summary.repeatability === null ? '–' : summary.repeatability.toFixed(2)}</b>
              </span>
              <span className="quiet">raw ramps as printed</span>
            </p>
          }
        >
          <TonePlot report={report} />
        </Figure>
      </div>
      <PlainWords summary={summary} detail={detail} />
      {detail.uncertainty !== undefined && <SurenessMap map={detail.uncertainty} />}
      <WorstPatches report={report} suspicious={detail.suspicious} />
    </>
  );
}

function separationOfResult(separation: SeparationChoice | undefined, names: readonly string[]): string {
  return separation === undefined ? '' : `; ${separationWords(separation, names)}`;
}
