'use client';

import { useState } from 'react';
import { NEUTRAL_TONE_FAMILY } from '@melto/core/balance/data/neutralAims';
import type { NeutralJudgement, NeutralStep } from '@melto/core/balance/judgeNeutrals';
import { StatusShape } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';

const NEAR = 0.8;

/** Per step: Lab, aim, weighted differences and verdict, for the CMY or the K scale. */
export function NeutralTable({
  judgement,
  predicted,
  title,
}: {
  judgement: NeutralJudgement;
  predicted?: readonly (readonly [number, number, number])[];
  title: string;
}) {
  const [scale, setScale] = useState<'cmy' | 'k'>('cmy');
  const steps = judgement[scale];
  const density = scale === 'cmy' ? judgement.cmyDensity : judgement.kDensity;
  const standing = scale === 'cmy' ? judgement.cmyStanding : judgement.kStanding;
  const [least, most] = NEUTRAL_TONE_FAMILY[scale].fitted;
  const { largest } = judgement.limits;
  const state = ({ wDeltaL, wDeltaCh }: NeutralStep): Status => {
    const share = Math.max(Math.abs(wDeltaL), wDeltaCh) / largest;
    return share > 1 ? 'does-not-conform' : share > NEAR ? 'near' : 'conforms';
  };
  return (
    <div className="panel">
      <header>
        <h2>{title}</h2>
        <span className="quiet">
          aims fitted to published characterisations;{' '}
          {standing === 'fitted'
            ? `density ${density.toFixed(2)} over paper, within ${least} to ${most}`
            : standing === 'extrapolated'
              ? `extrapolated: density ${density.toFixed(2)} over paper is outside ${least} to ${most}`
              : `no verdict: density ${density.toFixed(2)} over paper is too low`}
        </span>
        <span className="row small">
          {(['cmy', 'k'] as const).map((name) => (
            <button
              key={name}
              type="button"
              className="plain"
              aria-pressed={scale === name}
              onClick={() => setScale(name)}
            >
              {scale === name ? <b>{name.toUpperCase()}</b> : name.toUpperCase()}
            </button>
          ))}
        </span>
      </header>
      <div style={{ maxHeight: 300, overflow: 'auto' }} tabIndex={0}>
        <table className="table tight">
          <thead>
            <tr>
              {[
                'tone, %',
                'L*',
                'a*',
                'b*',
                'aim L*',
                ...(scale === 'cmy' ? ['aim a*', 'aim b*'] : []),
                'wΔL*',
                ...(scale === 'cmy' ? ['wΔCh'] : []),
                ...(predicted === undefined || scale === 'k' ? [] : ['predicted L*', 'a*', 'b*']),
              ].map((word, i) => (
                <th key={i} className="num">
                  {word}
                </th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {steps.map((step, i) => (
              <tr key={step.tone}>
                <td className="num">{(100 * step.tone).toFixed(1)}</td>
                {step.lab.map((value, axis) => (
                  <td key={axis} className="num">
                    {value.toFixed(2)}
                  </td>
                ))}
                {step.aim.slice(0, scale === 'cmy' ? 3 : 1).map((value, axis) => (
                  <td key={axis} className="num quiet">
                    {value.toFixed(2)}
                  </td>
                ))}
                <td className="num">{step.wDeltaL.toFixed(2)}</td>
                {scale === 'cmy' && <td className="num">{step.wDeltaCh.toFixed(2)}</td>}
                {predicted !== undefined &&
                  scale === 'cmy' &&
                  predicted[i].map((value, axis) => (
                    <td key={axis} className="num">
                      {value.toFixed(2)}
                    </td>
                  ))}
                <td>
                  <StatusShape status={state(step)} size={12} title={state(step).replaceAll('-', ' ')} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}
