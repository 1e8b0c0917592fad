'use client';

import type { Remote } from 'comlink';
import { useQuery } from '@tanstack/react-query';
import { deviceValues } from '@melto/core/device/deviceValues';
import { TINT_SHARES } from '@melto/core/lists/tints';
import type { PrintedColour } from '@melto/core/proof/placeList';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { SPECTRAL_CHART } from '@/endpoints/lists';
import { useComparedLights } from '@/features/light/useComparedLights';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { ask, problemWords } from '@/ui/api';
import { Swatch } from '@/ui/Swatch';
import type { ColourInDepth, ListWorker } from '@/workers/list.worker';

/** Lights of the house that recipes are looked at in: each takes a model of its own. */
const MOST_OWN = 3;

/** One colour on one condition: tints, recipes that come as near, and how they hold in other lights. */
export function RecipesPanel({
  worker,
  colour,
  source,
  conditionId,
}: {
  worker: Remote<ListWorker> | undefined;
  colour: ListedColour;
  source: ProfileSource;
  conditionId: number | undefined;
}) {
  const { data, error } = useQuery({
    queryKey: ['in depth', source.key, colour],
    queryFn: async () => {
      const answer = await worker?.inDepth(source.label, await source.bytes(), colour);
      if (typeof answer === 'string') throw new Error(answer);
      return answer ?? null;
    },
    enabled: worker !== undefined,
    retry: false,
    staleTime: Infinity,
  });
  if (error !== null)
    return (
      <p className="error" role="alert">
        {problemWords(error)}
      </p>
    );
  if (data === null || data === undefined) return <p className="quiet">Recipes are worked out…</p>;
  return (
    <div className="recipes">
      <Tints colour={colour} tints={data.tints} />
      {data.recipes.length === 0 ? (
        <p className="quiet small">
          A driver of light values chooses the inks itself: there is one recipe, the device values above.
        </p>
      ) : (
        <Recipes
          worker={worker}
          colour={colour}
          recipes={data.recipes}
          sourceKey={source.key}
          conditionId={conditionId}
        />
      )}
    </div>
  );
}

function Tints({ colour, tints }: { colour: ListedColour; tints: ColourInDepth['tints'] }) {
  return (
    <table className="table tight" aria-label={`Tints of ${colour.name}`}>
      <thead>
        <tr>
          <th style={{ width: 72 }}>Tint</th>
          <th className="num">tone value, %</th>
          <th className="num">ΔE00</th>
          <th className="num">device</th>
        </tr>
      </thead>
      <tbody>
        {tints.map(({ device, printed, deltaE }, i) => (
          <tr key={TINT_SHARES[i]}>
            <td>
              <Swatch measured={printed} height={20} label={`${100 * TINT_SHARES[i]} %`} />
            </td>
            <td className="num">{100 * TINT_SHARES[i]}</td>
            <td className="num">{deltaE.toFixed(1)}</td>
            <td className="num mono">{deviceValues(device)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Recipes({
  worker,
  colour,
  recipes,
  sourceKey,
  conditionId,
}: {
  worker: Remote<ListWorker> | undefined;
  colour: ListedColour;
  recipes: readonly PrintedColour[];
  /** Of the profile in force. */
  sourceKey: string;
  conditionId: number | undefined;
}) {
  const lights = useComparedLights(MOST_OWN);
  // One chart for all colours of the condition: its models are fitted once.
  const { data: chart, error: untold } = useQuery({
    queryKey: ['spectral chart', sourceKey, conditionId],
    queryFn: () => ask(SPECTRAL_CHART, { params: { id: conditionId ?? 0 } }),
    enabled: conditionId !== undefined,
    retry: false,
    staleTime: Infinity,
  });
  const { data: under, error: failed } = useQuery({
    queryKey: ['recipes under', sourceKey, colour, lights.map(({ name }) => name).join(' ')],
    queryFn: async () =>
      chart === undefined
        ? null
        : ((await worker?.underLights(
            sourceKey,
            chart,
            recipes,
            lights.map(({ seen }) => seen),
            colour.spectrum,
          )) ?? null),
    enabled: chart !== undefined && worker !== undefined && lights.length > 0,
    retry: false,
    staleTime: Infinity,
  });
  const error = untold ?? failed;
  const worst = recipes.map((_, i) =>
    under === null || under === undefined ? undefined : Math.max(...under.map((light) => light[i])),
  );
  const steady = steadiest(worst);
  return (
    <div>
      <table className="table tight" aria-label={`Recipes of ${colour.name}`}>
        <thead>
          <tr>
            <th className="num">Recipe</th>
            <th className="num">ink, %</th>
            <th className="num">ΔE00 in D50</th>
            {lights.map(({ name }) => (
              <th key={name} className="num">
                {name}
              </th>
            ))}
            <th />
          </tr>
        </thead>
        <tbody>
          {recipes.map(({ device, deltaE }, i) => (
            <tr key={device[3]}>
              <td className="num mono">{deviceValues(device)}</td>
              <td className="num">{Math.round(100 * device.reduce((sum, value) => sum + value, 0))}</td>
              <td className="num">{deltaE.toFixed(2)}</td>
              {lights.map(({ name }, light) => (
                <td key={name} className="num">
                  {under?.[light]?.[i]?.toFixed(1) ?? (error === null ? '…' : '–')}
                </td>
              ))}
              <td style={{ whiteSpace: 'nowrap' }}>{i === steady ? <b>holds best</b> : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet small">
        {error !== null
          ? problemWords(error)
          : colour.spectrum === undefined
            ? 'Under each light: how far the print moves from how it looks in D50, since the list tells no spectrum of this colour.'
            : 'Under each light: how far the print is from the colour of the list there.'}
      </p>
    </div>
  );
}

/** ΔE00 that one recipe must hold better by than another for that to be said. */
const TELLS = 0.3;

/** The recipe whose worst light is the mildest; undefined before that is known, or where all hold alike. */
export function steadiest(worst: readonly (number | undefined)[]): number | undefined {
  const known = worst.filter((value) => value !== undefined);
  const least = Math.min(...known);
  return known.length === worst.length && Math.max(...known) - least >= TELLS
    ? worst.indexOf(least)
    : undefined;
}
