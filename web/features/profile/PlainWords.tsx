'use client';

import { formatLab } from '@/ui/format';
import type { ProfileDetail, ProfileSummary } from '@melto/services/ledger/kinds/profileKind';
import { colourName } from '@melto/core/gamut/gamutWords';
import { Swatch } from '@/ui/Swatch';
import { plainWords } from './plainWords';

const SHOWN = 12;

/** The report in sentences, its note, and the wanted colours of a refinement. */
export function PlainWords({ summary, detail }: { summary: ProfileSummary; detail: ProfileDetail }) {
  const wanted = [...(detail.refinement?.wanted ?? [])].sort((a, b) => b.after - a.after);
  const moved = detail.compared?.moved ?? [];
  return (
    <div className="panel">
      <header>
        <h2>In plain words</h2>
      </header>
      {detail.choices.note !== undefined && (
        <p>
          <b>Note:</b> {detail.choices.note}
        </p>
      )}
      <ul className="plain-words">
        {plainWords(summary, detail).map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      {moved.length > 0 && <MovedColours moved={moved} light={summary.light ?? ''} />}
      {wanted.length > 0 && (
        <table className="table tight">
          <thead>
            <tr>
              <th>Wanted colour</th>
              <th />
              <th className="num">L* a* b* asked</th>
              <th className="num">ΔE00 before, measured</th>
              <th className="num">now, expected</th>
            </tr>
          </thead>
          <tbody>
            {wanted.slice(0, SHOWN).map(({ name, asked, before, after }) => (
              <tr key={name}>
                <td>{name}</td>
                <td style={{ width: 60 }}>
                  <Swatch measured={asked} height={18} label={name} />
                </td>
                <td className="num">{formatLab(asked, 1)}</td>
                <td className="num">{before.toFixed(2)}</td>
                <td className="num">{after.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {wanted.length > SHOWN && <p className="quiet small">and {wanted.length - SHOWN} more, all nearer</p>}
    </div>
  );
}

/** Colours that a light moves most: the same inks in D50 and there, each against the white of its light. */
function MovedColours({
  moved,
  light,
}: {
  moved: NonNullable<NonNullable<ProfileDetail['compared']>['moved']>;
  light: string;
}) {
  return (
    <table className="table tight">
      <thead>
        <tr>
          <th>Moved most</th>
          <th />
          <th className="num">{moved[0].device.length === 3 ? 'R G B' : 'inks, %'}</th>
          <th className="num">L* a* b* in D50</th>
          <th className="num">in {light}</th>
          <th className="num">ΔE00</th>
        </tr>
      </thead>
      <tbody>
        {moved.map(({ device, a, b, deltaE }) => (
          <tr key={device.join()}>
            <td>{colourName(a)}</td>
            <td style={{ width: 60 }}>
              <Swatch measured={b} aim={a} height={18} label={colourName(a)} />
            </td>
            <td className="num">
              {device.map((value) => ((device.length === 3 ? 255 : 100) * value).toFixed(0)).join(' ')}
            </td>
            <td className="num">{formatLab(a, 1)}</td>
            <td className="num">{formatLab(b, 1)}</td>
            <td className="num">
              <b>{deltaE.toFixed(2)}</b>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
