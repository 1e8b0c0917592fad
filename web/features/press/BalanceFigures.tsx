'use client';

import { CartesianGrid, Line, LineChart, ReferenceArea, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import { Figure } from '@/ui/Figure';
import { screenOf } from '@/ui/Swatch';
import { hundredAxis, sideAxis } from '@/ui/axes';

const HEIGHT = 230;
const MARGIN = { top: 8, right: 12, bottom: 16, left: 0 };

/** The greys in a*b* beside their aim, and the weighted differences along both scales. */
export function BalanceFigures({
  before,
  reached,
  paper,
}: {
  before: NeutralJudgement;
  reached?: NeutralJudgement;
  paper: readonly [number, number, number];
}) {
  const shown = reached ?? before;
  const { figures, limits } = shown;
  return (
    <div className="two">
      <Figure
        title="Greys in a*b*"
        note="against the fading tint of the paper"
        table={{
          head: ['tone', 'a* before', 'b* before', 'a* reached', 'b* reached', 'aim a*', 'aim b*'],
          rows: before.cmy.map((step, i) => [
            (100 * step.tone).toFixed(1),
            step.lab[1].toFixed(2),
            step.lab[2].toFixed(2),
            reached?.cmy[i]?.lab[1].toFixed(2) ?? '–',
            reached?.cmy[i]?.lab[2].toFixed(2) ?? '–',
            shown.cmy[i]?.aim[1].toFixed(2) ?? '–',
            shown.cmy[i]?.aim[2].toFixed(2) ?? '–',
          ]),
        }}
        figures={
          <p className="figures">
            <span>
              wΔCh mean <b>{figures.cmyCh.mean.toFixed(2)}</b> / {limits.mean.toFixed(1)}
            </span>
            <span>
              largest <b>{figures.cmyCh.largest.toFixed(2)}</b> / {limits.largest.toFixed(1)}
            </span>
          </p>
        }
      >
        <Track before={before} reached={reached} paper={paper} />
        <p className="small quiet">
          dots in their own greys:{' '}
          {reached === undefined ? 'before the correction' : 'as reached; thin: before'}; dashed: the aim;
          grey disc: the largest allowed at 50 %
        </p>
      </Figure>
      <Figure
        title="Weighted lightness differences"
        table={{
          head: ['tone', 'wΔL* CMY', 'wΔL* K'],
          rows: shown.cmy.map((step, i) => [
            (100 * step.tone).toFixed(1),
            step.wDeltaL.toFixed(2),
            shown.k[i]?.wDeltaL.toFixed(2) ?? '–',
          ]),
        }}
        figures={
          <p className="figures">
            <span>
              CMY mean <b>{figures.cmyL.mean.toFixed(2)}</b>, largest <b>{figures.cmyL.largest.toFixed(2)}</b>
            </span>
            <span>
              K mean <b>{figures.kL.mean.toFixed(2)}</b>, largest <b>{figures.kL.largest.toFixed(2)}</b>
            </span>
          </p>
        }
      >
        <Differences before={before} reached={reached} />
        <p className="small quiet">
          solid with dots: CMY scale, hollow dots: K scale
          {reached === undefined ? ', before the correction' : ' as reached; thin: CMY before'}; grey band:
          the largest allowed
        </p>
      </Figure>
    </div>
  );
}

const SIZE = { width: 460, height: 230 };

/** Track of the greys; the band is the limit of the largest difference about the aim at 50 %. */
function Track({
  before,
  reached,
  paper,
}: {
  before: NeutralJudgement;
  reached?: NeutralJudgement;
  paper: readonly [number, number, number];
}) {
  const shown = reached ?? before;
  const middle = shown.cmy.reduce((near, step) =>
    Math.abs(step.tone - 0.5) < Math.abs(near.tone - 0.5) ? step : near,
  );
  const radius = shown.limits.largest;
  const all = [
    ...[...before.cmy, ...(reached?.cmy ?? [])].flatMap(({ lab, aim }) => [
      [lab[1], lab[2]],
      [aim[1], aim[2]],
    ]),
    // The band is seen whole.
    [middle.aim[1] - radius, middle.aim[2] - radius],
    [middle.aim[1] + radius, middle.aim[2] + radius],
  ];
  const range = (axis: 0 | 1): [number, number] => {
    const values = all.map((point) => point[axis]);
    return [Math.min(...values, paper[axis + 1]), Math.max(...values, paper[axis + 1])];
  };
  const [a0, a1] = range(0);
  const [b0, b1] = range(1);
  // One unit of a* is as long as one of b*.
  const unit = Math.max((a1 - a0 + 1.5) / (SIZE.width - 50), (b1 - b0 + 1.5) / (SIZE.height - 34));
  const x = (a: number): number => 45 + (SIZE.width - 50) / 2 + (a - (a0 + a1) / 2) / unit;
  const y = (b: number): number => (SIZE.height - 30) / 2 - (b - (b0 + b1) / 2) / unit;
  const line = (points: readonly (readonly [number, number])[]): string =>
    points.map(([a, b]) => `${x(a).toFixed(1)},${y(b).toFixed(1)}`).join(' ');
  const tickStep = 1 / unit > 40 ? 1 : 1 / unit > 14 ? 2 : 5;
  const ticks = (from: number, to: number): number[] => {
    const out: number[] = [];
    for (let v = Math.ceil(from / tickStep) * tickStep; v <= to; v += tickStep) out.push(v);
    return out;
  };
  const aMiddle = (a0 + a1) / 2;
  const bMiddle = (b0 + b1) / 2;
  const aSpan = ((SIZE.width - 50) / 2) * unit;
  const bSpan = ((SIZE.height - 34) / 2) * unit;
  return (
    <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} width="100%" role="img" aria-label="Greys in a* b*">
      <clipPath id="track-area">
        <rect x="45" y="0" width={SIZE.width - 50} height={SIZE.height - 30} />
      </clipPath>
      <g clipPath="url(#track-area)">
        <circle cx={x(middle.aim[1])} cy={y(middle.aim[2])} r={radius / unit} fill="var(--wash)" />
        {ticks(aMiddle - aSpan, aMiddle + aSpan).map((v) => (
          <path
            key={v}
            d={`M${x(v)} 0V${SIZE.height - 30}`}
            stroke="var(--rule)"
            strokeWidth={v === 0 ? 1.5 : 0.6}
          />
        ))}
        {ticks(bMiddle - bSpan, bMiddle + bSpan).map((v) => (
          <path
            key={v}
            d={`M45 ${y(v)}H${SIZE.width - 5}`}
            stroke="var(--rule)"
            strokeWidth={v === 0 ? 1.5 : 0.6}
          />
        ))}
        <polyline
          points={line([[paper[1], paper[2]], ...shown.cmy.map(({ aim }) => [aim[1], aim[2]] as const)])}
          fill="none"
          stroke="var(--text)"
          strokeDasharray="4 3"
        />
        {reached !== undefined && (
          <polyline
            points={line(before.cmy.map(({ lab }) => [lab[1], lab[2]] as const))}
            fill="none"
            stroke="var(--quiet)"
          />
        )}
        <polyline
          points={line(shown.cmy.map(({ lab }) => [lab[1], lab[2]] as const))}
          fill="none"
          stroke="var(--text)"
          strokeWidth="1.5"
        />
        {shown.cmy.map((step) => (
          <circle
            key={step.tone}
            cx={x(step.lab[1])}
            cy={y(step.lab[2])}
            r="4"
            fill={screenOf(step.lab).css}
            stroke="var(--text)"
            strokeWidth="0.8"
          />
        ))}
      </g>
      {ticks(aMiddle - aSpan, aMiddle + aSpan).map((v) => (
        <text key={v} x={x(v)} y={SIZE.height - 16} fontSize="12" textAnchor="middle" fill="var(--quiet)">
          {v}
        </text>
      ))}
      {ticks(bMiddle - bSpan, bMiddle + bSpan).map((v) => (
        <text key={v} x="40" y={y(v) + 4} fontSize="12" textAnchor="end" fill="var(--quiet)">
          {v}
        </text>
      ))}
      <text x={SIZE.width / 2 + 20} y={SIZE.height - 2} fontSize="12" textAnchor="middle" fill="var(--quiet)">
        a*
      </text>
      <text x="8" y={(SIZE.height - 30) / 2} fontSize="12" fill="var(--quiet)">
        b*
      </text>
    </svg>
  );
}

function Differences({ before, reached }: { before: NeutralJudgement; reached?: NeutralJudgement }) {
  const shown = reached ?? before;
  const data = shown.cmy.map((step, i) => ({
    tone: 100 * step.tone,
    cmy: step.wDeltaL,
    k: shown.k[i]?.wDeltaL,
    before: reached === undefined ? undefined : before.cmy[i]?.wDeltaL,
  }));
  const most = Math.max(
    shown.limits.largest * 1.2,
    ...data.flatMap((row) => [row.cmy, row.k ?? 0, row.before ?? 0].map(Math.abs)),
  );
  const top = Math.ceil(most);
  return (
    <ResponsiveContainer width="100%" height={HEIGHT - 20}>
      <LineChart data={data} margin={MARGIN} accessibilityLayer>
        <ReferenceArea
          y1={-shown.limits.largest}
          y2={shown.limits.largest}
          fill="var(--wash)"
          fillOpacity={1}
        />
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        <XAxis {...hundredAxis('tone', 'tone, %')} />
        <YAxis {...sideAxis([-top, 0, top], 'wΔL*')} />
        <Line dataKey="before" stroke="var(--quiet)" strokeWidth={1} dot={false} isAnimationActive={false} />
        <Line
          dataKey="cmy"
          stroke="var(--text)"
          strokeWidth={2}
          dot={{ r: 2.5, fill: 'var(--text)' }}
          isAnimationActive={false}
        />
        <Line
          dataKey="k"
          stroke="var(--quiet)"
          strokeWidth={1.5}
          dot={{ r: 2.5, fill: 'var(--surface)', stroke: 'var(--text)' }}
          isAnimationActive={false}
        />
      </LineChart>
    </ResponsiveContainer>
  );
}
