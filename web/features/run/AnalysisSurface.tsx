'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Share } from '@melto/core/press/capability';
import type { Phase } from '@melto/core/press/runSettings';
import type { AnalysisView } from '@melto/services/press/analysis';
import type { Scope } from '@melto/core/press/scopes';
import { RUN_OUTSIDE } from '@/endpoints/runs';
import { ask } from '@/ui/api';
import { Link } from '@/ui/Link';
import { StatusMark } from '@/ui/StatusMark';
import { AnalysisReport } from './AnalysisReport';
import { OverTime } from './OverTime';

const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  run: 'this run',
  job: 'all runs of its job',
  press: 'all runs of its press',
  shift: 'its press in a shift',
};

const percent = ({ share }: Share): string => (100 * share).toFixed(share === 1 ? 0 : 1);

/** A share with what it may be, at 95 %. */
const range = ({ low, high }: Share): string => `${(100 * low).toFixed(1)} to ${(100 * high).toFixed(1)}`;

/** Shares within tolerance by ink and zone, over time, and against the OK sheet. */
export function AnalysisSurface({
  view,
  scope,
  phase,
  aimSets = [],
}: {
  view: AnalysisView;
  scope: Scope;
  phase: Phase | undefined;
  /** What sheets can be judged by beside the run's own aims. */
  aimSets?: readonly { readonly id: number; readonly name: string }[];
}) {
  const router = useRouter();
  const {
    run,
    rows,
    zones,
    sheets,
    values,
    seen,
    otherwise,
    sheetShare,
    patchShare,
    overTime,
    variation,
    runs,
    shift,
    against,
  } = view;
  const [cell, setCell] = useState<{
    readonly key: string;
    readonly words: string;
    readonly zone: number | undefined;
  }>();
  const go = (change: {
    readonly scope?: string;
    readonly phase?: string;
    readonly at?: string;
    readonly aims?: string;
  }): void => {
    const at = shift === null ? '' : String(shift.fromMs);
    const query = new URLSearchParams({
      scope,
      phase: phase ?? '',
      at,
      aims: String(against?.id ?? ''),
      ...change,
    });
    router.push(`/runs/${run.id}/analysis?${query.toString()}`);
  };
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Analysis</h1>
        <p className="quiet">
          <Link href={`/runs/${run.id}`}>
            {run.jobNumber} {run.title}
          </Link>
          , {run.condition}
        </p>
        <TextField
          select
          size="small"
          label="Sheets of"
          value={scope}
          sx={{ width: 210 }}
          onChange={(event) => go({ scope: event.target.value })}
        >
          {Object.entries(SCOPE_WORDS).map(([key, words]) => (
            <MenuItem key={key} value={key}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Phase"
          value={phase ?? ''}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ width: 170 }}
          onChange={(event) => go({ phase: event.target.value })}
        >
          <MenuItem value="">both</MenuItem>
          <MenuItem value="make-ready">make-ready</MenuItem>
          <MenuItem value="production">production</MenuItem>
        </TextField>
        <TextField
          select
          size="small"
          label="Against"
          value={against?.id ?? ''}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ width: 190 }}
          onChange={(event) => go({ aims: String(event.target.value) })}
        >
          <MenuItem value="">the aims of the run</MenuItem>
          {aimSets.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <AnalysisReport runId={run.id} asked={{ scope, phase, at: shift?.fromMs, aims: against?.id }} />
      </div>
      {shift !== null && (
        <div className="row">
          <Button onClick={() => go({ at: String(shift.fromMs - 1) })} aria-label="The shift before">
            ‹
          </Button>
          <span>Shift of {shift.words}</span>
          <Button onClick={() => go({ at: String(shift.toMs) })} aria-label="The shift after">
            ›
          </Button>
        </div>
      )}
      {sheetShare === undefined || patchShare === undefined ? (
        <p className="quiet">
          {shift === null ? 'No sheet was read in this phase yet.' : 'No sheet was read in this shift.'}
        </p>
      ) : (
        <>
          <p className="analysis-words">
            <b>{percent(sheetShare)} %</b> of {sheets} sheets are within in every patch,{' '}
            <b>{percent(patchShare)} %</b> of {values.toLocaleString('en-GB')} patch values
            {runs > 1 && `, over ${runs} runs`}.{' '}
            <span className="quiet small">
              Colour differences are {seen.formula}, {seen.light}.
              {otherwise > 0 &&
                ` ${otherwise} ${otherwise === 1 ? 'run is' : 'runs are'} judged by another formula or under another light, and left out.`}
            </span>
          </p>
          <table className="table analysis-table">
            <thead>
              <tr>
                <th>Within, %</th>
                {Array.from({ length: zones }, (_, zone) => (
                  <th key={zone} className="num">
                    {zone + 1}
                  </th>
                ))}
                <th className="num">all</th>
                <th className="num" title="Where the share lies with 95 % certainty, at so many values">
                  95 % interval
                </th>
                <th className="num">mean</th>
                <th className="num">95th</th>
                <th className="num">largest</th>
                <th className="num">limit</th>
                <th className="num" title="Capability to the nearer limit, with its 95 % interval">
                  Cpk
                </th>
              </tr>
            </thead>
            <tbody>
              {rows
                .filter(({ share }) => share !== undefined)
                .map((row) => (
                  <tr key={row.key}>
                    <th scope="row">
                      {row.words} <span className="quiet small">{row.quantity}</span>
                    </th>
                    {row.zones.map((share, zone) => (
                      <ShareCell
                        key={zone}
                        share={share}
                        label={`${row.words}, zone ${zone + 1}`}
                        onOpen={() => setCell({ key: row.key, words: row.words, zone })}
                      />
                    ))}
                    <ShareCell
                      share={row.share}
                      label={`${row.words}, all zones`}
                      onOpen={() => setCell({ key: row.key, words: row.words, zone: undefined })}
                    />
                    <td className="num quiet">{row.share === undefined ? '' : range(row.share)}</td>
                    <td className="num">{row.mean.toFixed(2)}</td>
                    <td className="num">{row.at95.toFixed(2)}</td>
                    <td className="num">{row.largest.toFixed(2)}</td>
                    <td className="num">{row.limit.toFixed(1)}</td>
                    <td className="num">
                      {row.capability === undefined ? (
                        <span className="quiet" title="From 20 values on">
                          –
                        </span>
                      ) : (
                        <span title={`${row.capability.low.toFixed(2)} to ${row.capability.high.toFixed(2)}`}>
                          {row.capability.cpk.toFixed(2)}
                        </span>
                      )}
                    </td>
                  </tr>
                ))}
            </tbody>
          </table>
          {cell !== undefined && scope === 'run' && against === null && (
            <Outside runId={run.id} phase={phase} cell={cell} />
          )}
          {cell !== undefined && (scope !== 'run' || against !== null) && (
            <p className="quiet">
              Readings outside are listed for one run, by its own aims: choose “this run” and “the aims of the
              run” above.
            </p>
          )}
          <div className="analysis-foot">
            {scope === 'run' && (
              <OverTime
                steps={overTime}
                productionFrom={run.productionFrom}
                okImpression={run.okImpression}
              />
            )}
            <VariationTable variation={variation} okImpression={run.okImpression} />
          </div>
        </>
      )}
    </section>
  );
}

/** A share as a figure on grey: the more is outside, the darker. */
function ShareCell({
  share,
  label,
  onOpen,
}: {
  share: Share | undefined;
  label: string;
  onOpen: () => void;
}) {
  if (share === undefined) return <td className="num quiet">–</td>;
  const depth = Math.min(0.5, (1 - share.share) * 1.2);
  return (
    <td
      className="num"
      style={{ background: `color-mix(in srgb, var(--text) ${Math.round(100 * depth)}%, var(--surface))` }}
    >
      <button
        type="button"
        className={depth > 0.36 ? 'plain analysis-dark' : 'plain'}
        disabled={share.share === 1}
        onClick={onOpen}
        aria-label={`${label}: ${percent(share)} % within`}
      >
        {percent(share)}
      </button>
    </td>
  );
}

function Outside({
  runId,
  phase,
  cell: { key, words, zone },
}: {
  runId: number;
  phase: Phase | undefined;
  cell: { readonly key: string; readonly words: string; readonly zone: number | undefined };
}) {
  const { data = [] } = useQuery({
    queryKey: ['outside', runId, phase, key, zone],
    queryFn: () => ask(RUN_OUTSIDE, { params: { id: runId }, query: { key, zone, phase } }),
  });
  return (
    <div className="panel">
      <header>
        <h2>
          {words} outside{zone === undefined ? '' : `, zone ${zone + 1}`}
        </h2>
        <span className="quiet small">the worst first{data.length === 200 ? ', 200 of them' : ''}</span>
      </header>
      <ul className="analysis-outside">
        {data.map(({ impression, words: patch, zone: at, value }, i) => (
          <li key={i}>
            <b>{impression.toLocaleString('en-GB')}</b> zone {at + 1}, {patch}: {value.toFixed(2)}
          </li>
        ))}
      </ul>
    </div>
  );
}

function VariationTable({
  variation,
  okImpression,
}: {
  variation: AnalysisView['variation'];
  okImpression: number | null;
}) {
  return (
    <div className="panel">
      <header>
        <h2>Against the OK sheet</h2>
        <span className="quiet small">solids of production, ΔE*ab, mean over the zones</span>
      </header>
      {variation.length === 0 ? (
        <p className="quiet">
          {okImpression === null
            ? 'No OK sheet was marked in this run.'
            : 'No sheet of production was read after it.'}
        </p>
      ) : (
        <>
          <table className="table">
            <thead>
              <tr>
                <th>Ink</th>
                <th className="num">68 % within</th>
                <th className="num">95 % within</th>
                <th className="num">limit</th>
                <th>68 % rule</th>
                <th>95 % rule</th>
              </tr>
            </thead>
            <tbody>
              {variation.map(({ ink, at68, at95, limit, kept, kept95 }) => (
                <tr key={ink}>
                  <th scope="row">{ink}</th>
                  <td className="num">{at68.toFixed(2)}</td>
                  <td className="num">{at95.toFixed(2)}</td>
                  <td className="num">{limit.toFixed(1)}</td>
                  <td>
                    <StatusMark
                      status={kept ? 'conforms' : 'does-not-conform'}
                      word={kept ? 'kept' : 'not kept'}
                    />
                  </td>
                  <td>
                    <StatusMark
                      status={kept95 ? 'conforms' : 'does-not-conform'}
                      word={kept95 ? 'kept' : 'not kept'}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet small">
            68 % of the sheets within the limit is ISO 12647-2’s, as commonly published; 95 % within twice the
            limit was chosen here.
          </p>
        </>
      )}
    </div>
  );
}
