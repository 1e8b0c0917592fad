import { Button } from '@mui/material';
import type { AimSetDetail } from '@melto/services/conformity/aimSetDetail';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import { labToLch } from '@melto/core/colour/labToLch';
import { formatDay, formatFigure } from '@/ui/format';
import { HueOutline } from '@/ui/HueOutline';
import { Swatch } from '@/ui/Swatch';
import { SayMode } from './SayMode';
import { VersionList } from './VersionList';

export const AIM_SOURCES: Readonly<Record<AimSetView['source'], string>> = {
  published: 'completed from published solids',
  data: 'characterisation data',
  profile: 'profile',
  reading: 'reading',
  'by hand': 'by hand',
  'on paper': 'aims on this paper',
};
const NOT_TOLD = 'not told';
/** In the order of their hues. */
const OUTLINE = ['C', 'C+M', 'M', 'M+Y', 'Y', 'C+Y'];

/** One aim set: what it is, how it was measured, its paper, solids and overprints. */
export function AimSetFacts({ detail, path }: { detail: AimSetDetail; path: string }) {
  const { view, versions, primaries, sinceBefore, hasSpectra } = detail;
  const { mode, filter, backing, illuminant, observer } = view.conditions;
  const allGiven = primaries.every(({ origin }) => origin === 'given');
  const corners = OUTLINE.flatMap((corner) => primaries.filter(({ name }) => name === corner)).map(
    ({ lab }) => lab,
  );
  const before = versions.find(({ version }) => version < view.version);
  return (
    <div className="panel" style={{ display: 'grid', gap: 16, alignContent: 'start' }}>
      <header>
        <h2>{view.name}</h2>
        <span className="quiet grow">
          {view.id === versions[0].id
            ? ''
            : `version ${view.version} of ${versions.length}, checks made by it keep it`}
        </span>
        <Button size="small" href={`/api/aim-sets/${view.id}/file`} download>
          Save as CGATS
        </Button>
      </header>
      <p className="quiet small">{view.origin}</p>
      <VersionList versions={versions} shownId={view.id} path={path} />
      {sinceBefore !== null && before !== undefined && (
        <p>
          {sinceBefore.common === 0
            ? `No patch in common with version ${before.version}.`
            : `From version ${before.version}: ${sinceBefore.mean.toFixed(2)} ΔE00 on the mean of ${sinceBefore.common} patches in common, ${sinceBefore.largest.toFixed(2)} at most.`}
        </p>
      )}
      <div className="two">
        <dl className="facts">
          <dt>Made from</dt>
          <dd>{AIM_SOURCES[view.source]}</dd>
          {view.moved !== null && (
            <>
              <dt>Moved from</dt>
              <dd>
                {view.moved.fromName}
                {view.moved.fromVersion > 1 ? `, version ${view.moved.fromVersion}` : ''} to{' '}
                {view.moved.paper}
              </dd>
            </>
          )}
          <dt>Patches</dt>
          <dd>{view.completed ? 'paper, solids, overprints; the rest is completed' : view.patches}</dd>
          <dt>Spectra</dt>
          <dd>{hasSpectra ? 'yes: other lights can be seen' : 'none: D50/2° only'}</dd>
          <dt>Made</dt>
          <dd>
            {view.family.startsWith('own-')
              ? `${formatDay(view.madeMs)}, ${view.author}`
              : 'comes with Melto'}
          </dd>
        </dl>
        <dl className="facts">
          <dt>Mode</dt>
          <dd>{mode ?? NOT_TOLD}</dd>
          <dt>Filter</dt>
          <dd>{filter ?? NOT_TOLD}</dd>
          <dt>Backing</dt>
          <dd>{backing ?? NOT_TOLD}</dd>
          <dt>Light, observer</dt>
          <dd>
            {illuminant === undefined && observer === undefined
              ? hasSpectra
                ? 'any, from spectra'
                : NOT_TOLD
              : `${illuminant ?? NOT_TOLD}, ${observer === undefined ? NOT_TOLD : `${observer}°`}`}
          </dd>
        </dl>
      </div>
      {mode === undefined && view.id === versions[0].id && <SayMode id={view.id} />}
      {primaries.length === 0 ? (
        <p className="quiet">It has neither paper nor solids.</p>
      ) : (
        <div className="aim-primaries">
          <table className="table tight">
            <thead>
              <tr>
                <th style={{ width: 72 }} />
                <th>Patch</th>
                {['L*', 'a*', 'b*', 'C*', 'h, °'].map((name) => (
                  <th key={name} className="num">
                    {name}
                  </th>
                ))}
                {!allGiven && <th>Aim is</th>}
              </tr>
            </thead>
            <tbody>
              {primaries.map(({ name, lab, origin }) => (
                <tr key={name}>
                  <td>
                    <Swatch measured={lab} height={20} label={name} />
                  </td>
                  <td>{name}</td>
                  {[...lab, labToLch(lab)[1]].map((value, i) => (
                    <td key={i} className="num">
                      {formatFigure(value, 2)}
                    </td>
                  ))}
                  <td className="num">{labToLch(lab)[2].toFixed(0)}</td>
                  {!allGiven && <td className="quiet">{origin}</td>}
                </tr>
              ))}
            </tbody>
          </table>
          {corners.length === OUTLINE.length && (
            <HueOutline
              size={264}
              label="outline of solids and overprints"
              outlines={[{ corners, kind: 'thick', names: OUTLINE }]}
            />
          )}
        </div>
      )}
    </div>
  );
}
