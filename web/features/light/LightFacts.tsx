'use client';

import type { ViewingLight } from '@melto/services/light/viewingLights';
import { formatMoment, formatSigned } from '@/ui/format';
import { figure, generalFigure, lightSentence } from './lightWords';
import { SpectrumPlot } from './SpectrumPlot';

/** What a light is like: its spectrum, and its figures. */
export function LightFacts({ light, daylight }: { light: ViewingLight; daylight?: ViewingLight }) {
  const { figures, grid, ultraviolet } = light;
  const { temperature, rendering, uvShare } = figures;
  const endNm = grid.startNm + (grid.count - 1) * grid.stepNm;
  return (
    <>
      <p>{lightSentence(figures)}</p>
      <SpectrumPlot light={light} beside={daylight} />
      <div className="light-facts">
        <dl className="facts">
          <dt>Colour temperature</dt>
          <dd>
            {temperature === null ? (
              'none: it is no white'
            ) : (
              <>
                <b>{temperature.kelvin.toFixed(0)} K</b>{' '}
                <span className="quiet">
                  Duv {formatSigned(temperature.duv, 4)}
                  {besideWords(temperature.duv)}
                </span>
              </>
            )}
          </dd>
          <dt>Chromaticity</dt>
          <dd>
            x {figures.xy[0].toFixed(4)}, y {figures.xy[1].toFixed(4)}
          </dd>
          <dt>From daylight</dt>
          <dd>
            {figures.fromDaylight.toFixed(4)}{' '}
            <span className="quiet">in u′, v′; from D50 {figures.fromD50.toFixed(4)}</span>
          </dd>
          <dt>Ultraviolet</dt>
          <dd>
            {uvShare === null ? (
              <span className="quiet">not shown: the spectrum begins at {grid.startNm} nm</span>
            ) : (
              <>
                <b>{(100 * uvShare).toFixed(1)} %</b>{' '}
                <span className="quiet">of the visible power, from {grid.startNm} to 400 nm</span>
              </>
            )}
          </dd>
          {ultraviolet !== null && (
            <>
              <dt>Acting on paper</dt>
              <dd>
                <b>{ultraviolet.share.toFixed(2)}</b>{' '}
                <span className="quiet">
                  of the ultraviolet of D50, {ultraviolet.low.toFixed(2)} to {ultraviolet.high.toFixed(2)};
                  study of {formatMoment(ultraviolet.atMs)}
                </span>
              </dd>
            </>
          )}
          <dt>Spectrum</dt>
          <dd>
            {grid.startNm} to {endNm} nm, every {grid.stepNm} nm
            {light.madeMs !== null && (
              <span className="quiet">
                , of {light.fileName}, {formatMoment(light.madeMs)}
              </span>
            )}
          </dd>
          {light.note !== '' && (
            <>
              <dt>Note</dt>
              <dd>{light.note}</dd>
            </>
          )}
        </dl>
        <div>
          <p>
            Ra <b>{rendering === null ? '–' : generalFigure(rendering.general)}</b>{' '}
            <span className="quiet">
              {rendering === null ? 'too far from white' : 'colour rendering, CIE 13.3'}
            </span>
          </p>
          {rendering !== null && (
            <ul className="rendering" aria-label="Special indices">
              {rendering.special.map((index, i) => (
                <li key={i}>
                  <span className="quiet small">R{i + 1}</span> {figure(index)}
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
    </>
  );
}

/** Less than this beside the black bodies is nothing that an eye tells. */
const LEAST_DUV = 0.0005;

const besideWords = (duv: number): string =>
  Math.abs(duv) < LEAST_DUV ? '' : duv < 0 ? ', towards pink' : ', towards green';
